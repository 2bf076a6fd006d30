import type { SheetKind } from '../../model/sheet';
import { chemistryOf, finding, isEpoxy, type Mend, type Rule } from '../stack';

const HARD_FINISHES = ['polyurethane', 'alkyd', 'acrylic'];
/** What soaks in or grips beneath is no finish, whatever it is made of. */
const BENEATH: readonly SheetKind[] = ['sealer', 'primer', 'barrier', 'filler', 'converter'];

/** Topcoat below the waterline blisters. [CP] */
export const topcoatBelowWater: Rule = (stack) => {
  if (stack.exposure !== 'immersed' && stack.exposure !== 'tank') return [];
  return stack.layers.flatMap((layer, i) => {
    const { sheet } = layer;
    if (sheet.immersible === true || sheet.kind === 'antifouling' || sheet.kind === 'tieCoat') return [];
    const finish =
      sheet.kind === 'topcoat' || (!BENEATH.includes(sheet.kind) && HARD_FINISHES.includes(chemistryOf(sheet) ?? ''));
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
  if (stack.exposure !== 'tank' || stack.layers.length === 0) return [];
  if (stack.holds === null && stack.layers.some((l) => l.sheet.potable !== true))
    return [
      finding(
        'drinkingWater',
        'caution',
        null,
        null,
        'Say on the zone what the tank holds: for drinking water every coat must be certified. Follow your local rules.',
      ),
    ];
  if (stack.holds !== 'water') return [];
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

const epoxyFiller = (at: number): Mend => ({
  kind: 'replace',
  at,
  want: { sheetKind: 'filler', chemistry: 'epoxy' },
  words: 'Change to an epoxy filler',
});

/** Polyester filler over or under epoxy takes up water. [CP] */
export const polyesterBelowWater: Rule = (stack) => {
  if (stack.exposure !== 'immersed') return [];
  return stack.layers.flatMap((layer, i) => {
    if (chemistryOf(layer.sheet) !== 'polyester') return [];
    const neighbour = [i - 1, i + 1].find((k) => stack.layers[k] && isEpoxy(stack.layers[k].sheet));
    const sealed = stack.existing === 'bare' && stack.substrate === 'sealedTimber';
    if (i === 0 && neighbour === undefined && (stack.existing === 'twoPack' || sealed))
      return [
        finding(
          'polyesterBelowWater',
          'caution',
          0,
          sealed ? 'substrate' : 'existing',
          `${layer.sheet.name} is polyester on ${sealed ? 'sealed timber' : 'an old two-pack'} below the water: it takes up water and lets go.`,
          epoxyFiller(0),
        ),
      ];
    if (neighbour === undefined) return [];
    return [
      finding(
        'polyesterBelowWater',
        'caution',
        Math.max(i, neighbour),
        Math.min(i, neighbour),
        `${layer.sheet.name} is polyester next to epoxy below the water: it takes up water and lets go.`,
        epoxyFiller(i),
      ),
    ];
  });
};
