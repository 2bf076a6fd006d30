import { finding, isEpoxy, type Rule } from '../stack';

/** Epoxy as the last coat in sunlight chalks; anything else that is no finish weathers. [CP] */
export const bareToTheSun: Rule = (stack) => {
  const at = stack.layers.length - 1;
  const last = stack.layers[at];
  if (!last || (stack.exposure !== 'weather' && stack.exposure !== 'splash')) return [];
  const { sheet } = last;
  if (sheet.uvResistant === true || sheet.kind === 'antifouling') return [];
  const topcoat = {
    kind: 'insert',
    at: at + 1,
    want: { sheetKind: 'topcoat' },
    words: 'Put a topcoat over it',
  } as const;
  const reason = isEpoxy(sheet)
    ? `${sheet.name} is the last coat and is epoxy: in sunlight it chalks.`
    : sheet.uvResistant === false
      ? `${sheet.name} is the last coat, and its sheet says that it does not stand the sun.`
      : sheet.kind === 'topcoat' || sheet.kind === 'nonSkid'
        ? null
        : `This zone is out in the weather and ends with ${sheet.name}: it has no topcoat.`;
  return reason === null ? [] : [finding('bareToTheSun', 'caution', at, null, reason, topcoat)];
};
