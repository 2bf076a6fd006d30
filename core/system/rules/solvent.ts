import type { Chemistry } from '../../model/sheet';
import {
  chemistryOf,
  finding,
  hasStrongSolvent,
  largestThinner,
  methodOf,
  pairs,
  thinnerFamilyOf,
  type Mend,
  type Rule,
} from '../stack';

const tieCoatAt = (at: number): Mend => ({
  kind: 'insert',
  at,
  want: { sheetKind: 'tieCoat' },
  words: 'Put a tie coat between',
});

/** One-pack coatings that a strong solvent lifts. [CP] */
const SOFT: readonly Chemistry[] = ['alkyd', 'acrylic', 'polyurethane', 'chlorinatedRubber'];

/** Strong solvent or two-pack over a one-pack or unknown old coating lifts it. [CP] */
export const strongOverOnePack: Rule = (stack) => {
  const found = [];
  const [first] = stack.layers;
  if (
    first &&
    (stack.existing === 'onePack' || stack.existing === 'unknown') &&
    first.sheet.kind !== 'tieCoat' &&
    hasStrongSolvent(first.sheet) &&
    !stack.records.includes('testPatch')
  ) {
    const old = stack.existing === 'onePack' ? 'an old one-pack coating' : 'an unknown old coating';
    found.push(
      finding(
        'strongOverOnePack',
        'stop',
        0,
        'existing',
        `${first.sheet.name} has a strong solvent and goes over ${old}: it can lift and wrinkle it.`,
        tieCoatAt(0),
        { kind: 'record', record: 'testPatch', words: 'Record a test patch that held' },
      ),
    );
  }
  for (const { lower, upper, i } of pairs(stack)) {
    const soft = lower.sheet.parts.length === 1 && SOFT.includes(chemistryOf(lower.sheet) ?? 'acid');
    if (soft && hasStrongSolvent(upper.sheet) && upper.sheet.kind !== 'tieCoat') {
      found.push(
        finding(
          'strongOverOnePack',
          'stop',
          i,
          i - 1,
          `${upper.sheet.name} has a strong solvent and goes over the one-pack ${lower.sheet.name}: it can lift and wrinkle it.`,
          tieCoatAt(i),
        ),
      );
    }
  }
  return found;
};

/** Thinner of another family curdles the paint. [CP] */
export const thinnerOfOtherFamily: Rule = (stack) =>
  stack.layers.flatMap((layer, i) => {
    const own = thinnerFamilyOf(layer.sheet);
    if (!layer.thinnerShare || !layer.thinnerFamily || own === null || own === layer.thinnerFamily) return [];
    return [
      finding(
        'thinnerOfOtherFamily',
        'stop',
        i,
        null,
        `${layer.sheet.name} is to be thinned with a thinner of another family: it curdles.`,
        {
          kind: 'set',
          at: i,
          change: { thinnerFamily: own },
          words: layer.sheet.thinner ? 'Use the thinner of the sheet' : 'Use one of its own family',
        },
      ),
    ];
  });

/** More thinner than the sheet allows sags, and loses film and gloss. [CP] */
export const tooMuchThinner: Rule = (stack) =>
  stack.layers.flatMap((layer, i) => {
    if (!layer.thinnerShare) return [];
    const most = largestThinner(layer.sheet, methodOf(stack, layer)) ?? 0;
    if (layer.thinnerShare <= most + 1e-9) return [];
    const reason =
      most > 0
        ? `${layer.sheet.name} is thinned over the limit of its sheet: it sags and loses film and gloss.`
        : `The sheet of ${layer.sheet.name} allows no thinner by this method.`;
    return [
      finding('tooMuchThinner', 'caution', i, null, reason, {
        kind: 'set',
        at: i,
        change: { thinnerShare: most },
        words: most > 0 ? 'Thin no more than the sheet allows' : 'Leave the thinner out',
      }),
    ];
  });
