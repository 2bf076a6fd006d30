import { chemistryOf, finding, isEpoxy, type Rule } from '../stack';

const HARD_FINISHES = ['polyurethane', 'alkyd', 'acrylic'];

/** Topcoat below the waterline blisters. [CP] */
export const topcoatBelowWater: Rule = (stack) => {
  if (stack.exposure !== 'immersed' && stack.exposure !== 'tank') return [];
  return stack.layers.flatMap((layer, i) => {
    const { sheet } = layer;
    if (sheet.immersible === true || sheet.kind === 'antifouling' || sheet.kind === 'tieCoat') return [];
    const finish = sheet.kind === 'topcoat' || HARD_FINISHES.includes(chemistryOf(sheet) ?? '');
    if (!finish && sheet.immersible !== false) return [];
    const reason = finish
      ? `${sheet.name} lies below the waterline: topcoat blisters there.`
      : `The sheet of ${sheet.name} says that it must not be immersed.`;
    return [
      finding(
        'topcoatBelowWater',
        'stop',
        i,
        null,
        reason,
        { kind: 'remove', at: i, words: `Take ${sheet.name} out` },
        { kind: 'replace', at: i, want: { sheetKind: 'barrier' }, words: 'Change it for a barrier coat' },
      ),
    ];
  });
};

/** Only a certified coating may touch drinking water. [CP; local rules] */
export const drinkingWater: Rule = (stack) => {
  if (stack.exposure !== 'tank') return [];
  return stack.layers.flatMap((layer, i) =>
    layer.sheet.potable === true
      ? []
      : [
          finding(
            'drinkingWater',
            'stop',
            i,
            null,
            `${layer.sheet.name} is not certified for drinking water. Follow your local rules.`,
            {
              kind: 'replace',
              at: i,
              want: { sheetKind: layer.sheet.kind, potable: true },
              words: 'Change to a certified coating',
            },
          ),
        ],
  );
};

/** Polyester filler over or under epoxy takes up water. [CP] */
export const polyesterBelowWater: Rule = (stack) => {
  if (stack.exposure !== 'immersed') return [];
  return stack.layers.flatMap((layer, i) => {
    if (chemistryOf(layer.sheet) !== 'polyester') return [];
    const neighbour = [i - 1, i + 1].find((k) => stack.layers[k] && isEpoxy(stack.layers[k].sheet));
    if (neighbour === undefined) return [];
    return [
      finding(
        'polyesterBelowWater',
        'caution',
        Math.max(i, neighbour),
        Math.min(i, neighbour),
        `${layer.sheet.name} is polyester next to epoxy below the water: it takes up water and lets go.`,
        {
          kind: 'replace',
          at: i,
          want: { sheetKind: 'filler', chemistry: 'epoxy' },
          words: 'Change to an epoxy filler',
        },
      ),
    ];
  });
};
