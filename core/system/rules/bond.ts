import { isOldAntifouling } from '../../hull/zones';
import { overcoatFor } from '../../sheet/overcoat';
import type { SheetBody } from '../../model/sheet';
import {
  chemistryOf,
  finding,
  isAntifouling,
  isEpoxy,
  isTwoPack,
  pairs,
  type Finding,
  type Mend,
  type Rule,
  type Stack,
  type StackLayer,
} from '../stack';

const abradeAt = (at: number, grit: number, words: string): Mend => ({
  kind: 'set',
  at,
  change: { prep: 'abrade', abradeFor: 'bond', grit },
  words,
});

/** Antifouling on epoxy that has cured past its tack limit flakes. [CP] */
export const antifoulingOnCuredEpoxy: Rule = (stack) => [...onOldTwoPack(stack), ...onOwnEpoxy(stack)];

/** The first coat on a cured old two-pack, or on timber that was sealed with one. */
function onOldTwoPack({ layers: [first], existing, substrate }: Stack): Finding[] {
  const sealed = existing === 'bare' && substrate === 'sealedTimber';
  if (!first || !isAntifouling(first.sheet) || first.prep === 'abrade' || !(existing === 'twoPack' || sealed))
    return [];
  return [
    finding(
      'antifoulingOnCuredEpoxy',
      'stop',
      0,
      sealed ? 'substrate' : 'existing',
      `${first.sheet.name} on ${sealed ? 'sealed timber' : 'a cured old two-pack'} flakes unless that is abraded.`,
      abradeAt(0, 120, 'Abrade it first'),
      { kind: 'insert', at: 0, want: { sheetKind: 'tieCoat' }, words: 'Put a tie coat between' },
    ),
  ];
}

const onOwnEpoxy: Rule = (stack) =>
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

/** Gelcoat is smooth and full of wax: a two-pack holds on it by its scratch. [CP] */
export const gelcoatUnabraded: Rule = ({ layers: [first], existing, substrate }) => {
  if (!first || substrate !== 'gelcoat' || existing !== 'bare' || !isTwoPack(first.sheet)) return [];
  if (first.prep === 'abrade' || first.sheet.neverAbrade) return [];
  return [
    finding(
      'gelcoatUnabraded',
      'caution',
      0,
      'substrate',
      `${first.sheet.name} goes on gelcoat that is not abraded: wash off the wax, then abrade it, or it peels.`,
      abradeAt(0, 120, 'Abrade the gelcoat first'),
    ),
  ];
};

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

/** Nibs are taken off with this or finer before a finish. [CP] */
const NIBS_GRIT = 400;
/** A coarser scratch than this shows through one thin coat and the finish on it. [CP] */
const SCRATCH_BENEATH = 120;

export const scratchShowsThrough: Rule = (stack) =>
  stack.layers.flatMap((layer, i) => {
    const needs = finestNeeded(layer.sheet);
    if (needs === null) return [];
    return [...ownScratch(layer, i, layer.abradeFor === 'nibs' ? NIBS_GRIT : needs), ...scratchBeneath(stack, i)];
  });

function ownScratch(layer: StackLayer, i: number, needs: number): Finding[] {
  if (layer.prep !== 'abrade' || layer.grit === undefined || layer.grit >= needs) return [];
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
}

/** A coarse scratch beneath the one coat that lies right under a gloss. */
function scratchBeneath({ layers }: Stack, i: number): Finding[] {
  const [finish, under] = [layers[i], layers[i - 1]];
  if (!finish || !under || finish.sheet.kind !== 'topcoat' || under.sheet.kind === 'topcoat') return [];
  if (under.prep !== 'abrade' || under.grit === undefined || under.grit >= SCRATCH_BENEATH) return [];
  if (finish.prep === 'abrade' && finish.abradeFor === 'level') return [];
  return [
    finding(
      'scratchShowsThrough',
      'caution',
      i,
      i - 1,
      `A scratch of grit ${under.grit} beneath ${under.sheet.name} shows through ${finish.sheet.name} right over it.`,
      { kind: 'set', at: i - 1, change: { grit: SCRATCH_BENEATH }, words: `Finish beneath with ${SCRATCH_BENEATH}` },
      {
        kind: 'set',
        at: i,
        change: { prep: 'abrade', abradeFor: 'level', grit: finestNeeded(finish.sheet) ?? 320 },
        words: 'Level it before the finish',
      },
    ),
  ];
}

/** A kept old coating is only as good as its own grip. [CP] */
export const oldCoatingUntested: Rule = (stack) => {
  const found = [];
  if (stack.existing === 'bare' || stack.layers.length === 0) return [];
  // Antifouling goes over last year's as it is every spring.
  if (isOldAntifouling(stack.existing)) return [];
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
