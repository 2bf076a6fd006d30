import { overcoatFor } from '../../sheet/overcoat';
import type { SheetBody } from '../../model/sheet';
import { chemistryOf, finding, isAntifouling, isEpoxy, pairs, type Mend, type Rule } from '../stack';

const abradeAt = (at: number, grit: number, words: string): Mend => ({
  kind: 'set',
  at,
  change: { prep: 'abrade', abradeFor: 'bond', grit },
  words,
});

/** Antifouling on epoxy that has cured past its tack limit flakes. [CP] */
export const antifoulingOnCuredEpoxy: Rule = (stack) =>
  pairs(stack).flatMap(({ lower, upper, i }) => {
    if (
      !isAntifouling(upper.sheet) ||
      isAntifouling(lower.sheet) ||
      lower.sheet.kind === 'tieCoat' ||
      !isEpoxy(lower.sheet) ||
      upper.prep === 'abrade'
    )
      return [];
    const times = overcoatFor(lower.sheet, upper.sheet.kind);
    const tack = times !== null && times.tackLimit !== null && !times.alwaysAbrade;
    if (upper.prep === 'tackWindow' && tack) return [];
    const ways: Mend[] = [
      { kind: 'insert', at: i, want: { sheetKind: 'tieCoat' }, words: 'Put a tie coat between' },
      abradeAt(i, 120, 'Let it cure and abrade it'),
    ];
    if (tack)
      ways.unshift({
        kind: 'set',
        at: i,
        change: { prep: 'tackWindow' },
        words: 'Put it on while the epoxy is thumb-tacky',
      });
    const reason =
      upper.prep === 'tackWindow'
        ? `The sheet of ${lower.sheet.name} gives no time in which ${upper.sheet.name} bonds as is: it flakes.`
        : `${upper.sheet.name} on cured ${lower.sheet.name} flakes: say how it is to bond.`;
    return [finding('antifoulingOnCuredEpoxy', 'stop', i, i - 1, reason, ...ways)];
  });

const asksAbrading = (lower: SheetBody, upper: SheetBody) => overcoatFor(lower, upper.kind)?.alwaysAbrade === true;

/** What the sheet beneath says about abrading before the next coat. */
export const abradingBySheet: Rule = (stack) =>
  pairs(stack).flatMap(({ lower, upper, i }) => {
    if (asksAbrading(lower.sheet, upper.sheet) && upper.prep !== 'abrade')
      return [
        finding(
          'abradingBySheet',
          'caution',
          i,
          i - 1,
          `The sheet of ${lower.sheet.name} asks for abrading before every coat over it.`,
          abradeAt(i, 180, 'Abrade before this coat'),
        ),
      ];
    if (lower.sheet.neverAbrade && upper.prep === 'abrade')
      return [
        finding('abradingBySheet', 'caution', i, i - 1, `The sheet of ${lower.sheet.name} says not to abrade it.`, {
          kind: 'set',
          at: i,
          change: { prep: 'tackWindow' },
          words: 'Put the coat on inside the window instead',
        }),
      ];
    return [];
  });

/** Acid converter or etch residue beneath epoxy keeps it from gripping. [CP] */
export const acidUnderEpoxy: Rule = (stack) =>
  pairs(stack).flatMap(({ lower, upper, i }) => {
    const acid = lower.sheet.kind === 'converter' || chemistryOf(lower.sheet) === 'acid';
    if (!acid || !isEpoxy(upper.sheet) || upper.wipe || upper.prep === 'abrade') return [];
    return [
      finding(
        'acidUnderEpoxy',
        'caution',
        i,
        i - 1,
        `Residue of ${lower.sheet.name} beneath ${upper.sheet.name} keeps the epoxy from gripping: rinse or scuff it.`,
        { kind: 'set', at: i, change: { wipe: true }, words: 'Rinse before this coat' },
        abradeAt(i, 120, 'Scuff before this coat'),
      ),
    ];
  });

/** Grit that is fine enough under each finish: 220 before undercoat, 320 before and between gloss. [CP] */
function finestNeeded(sheet: SheetBody): number | null {
  if (sheet.kind === 'undercoat') return 220;
  if (sheet.kind !== 'topcoat') return null;
  return sheet.gloss === 'matt' || sheet.gloss === 'eggshell' ? 220 : 320;
}

export const scratchShowsThrough: Rule = (stack) =>
  stack.layers.flatMap((layer, i) => {
    const needs = finestNeeded(layer.sheet);
    if (needs === null || layer.prep !== 'abrade' || layer.grit === undefined || layer.grit >= needs) return [];
    return [
      finding(
        'scratchShowsThrough',
        'caution',
        i,
        i > 0 ? i - 1 : null,
        `A scratch of grit ${layer.grit} shows through ${layer.sheet.name}: it wants ${needs} or finer.`,
        { kind: 'set', at: i, change: { grit: needs }, words: `Finish with ${needs}` },
      ),
    ];
  });

/** A kept old coating is only as good as its own grip. [CP] */
export const oldCoatingUntested: Rule = (stack) => {
  const found = [];
  if (stack.existing === 'bare' || stack.layers.length === 0) return [];
  if (!stack.records.includes('adhesionTest'))
    found.push(
      finding(
        'oldCoatingUntested',
        'caution',
        0,
        'existing',
        'The old coating stays: test its adhesion before anything goes over it.',
        { kind: 'record', record: 'adhesionTest', words: 'Record an adhesion test' },
      ),
    );
  if (stack.substrate === 'steel' && !stack.records.includes('flakeBack'))
    found.push(
      finding(
        'oldCoatingUntested',
        'caution',
        0,
        'existing',
        'Look at the back of a flake of the old coating: rust on it means that it all comes off.',
        { kind: 'record', record: 'flakeBack', words: 'Record that the back was clean' },
      ),
    );
  return found;
};
