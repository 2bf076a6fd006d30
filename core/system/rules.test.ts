import { describe, expect, it } from 'vitest';
import { checkBuildUp, type BuildUpCheck, type Finding } from '../index';
import { coat, sheets } from './sheets.fixture';

/** Every rule has a case in which it must speak and one in which it must not. All are common practice of the trade unless a line says otherwise. */
const found = (check: BuildUpCheck, rule: string): Finding | undefined =>
  checkBuildUp(check).find((f) => f.rule === rule);

const hull = (layers: BuildUpCheck['layers'], more: Partial<BuildUpCheck> = {}): BuildUpCheck => ({
  substrate: 'laminate',
  exposure: 'immersed',
  layers,
  ...more,
});
const topsides = (layers: BuildUpCheck['layers'], more: Partial<BuildUpCheck> = {}): BuildUpCheck => ({
  substrate: 'gelcoat',
  exposure: 'weather',
  layers,
  ...more,
});
const abraded = { prep: 'abrade', grit: 120, abradeFor: 'bond' } as const;
const full = [coat('barrier'), coat('barrier'), coat('barrier')];

type Case = [what: string, rule: string, severity: Finding['severity'], fires: BuildUpCheck, silent: BuildUpCheck];

const CASES: Case[] = [
  [
    'two-pack over an old one-pack coating',
    'strongOverOnePack',
    'stop',
    topsides([coat('twoPackTopcoat')], { existing: 'onePack' }),
    topsides([coat('twoPackTopcoat')], { existing: 'twoPack' }),
  ],
  [
    'two-pack over an unknown one, test patch recorded',
    'strongOverOnePack',
    'stop',
    topsides([coat('epoxyPrimer')], { existing: 'unknown' }),
    topsides([coat('epoxyPrimer')], { existing: 'unknown', records: ['testPatch'] }),
  ],
  [
    'two-pack over fresh enamel',
    'strongOverOnePack',
    'stop',
    topsides([coat('enamel'), coat('twoPackTopcoat')]),
    topsides([coat('undercoat'), coat('enamel')]),
  ],
  [
    'a tie coat takes the old coating',
    'strongOverOnePack',
    'stop',
    topsides([coat('barrier')], { existing: 'onePack' }),
    topsides([coat('tieCoat'), coat('barrier')], { existing: 'onePack' }),
  ],
  [
    'copper on aluminium',
    'copperOnMetal',
    'stop',
    hull([...full, coat('copper', abraded)], { substrate: 'aluminium' }),
    hull([...full, coat('copperFree', abraded)], { substrate: 'aluminium' }),
  ],
  [
    'an antifouling that does not say, on aluminium',
    'copperOnMetal',
    'caution',
    hull([coat('unsaid')], { substrate: 'aluminium' }),
    hull([coat('unsaid')]),
  ],
  [
    'copper over steel without a full barrier',
    'copperOnMetal',
    'stop',
    hull([coat('barrier'), coat('copper', abraded)], { substrate: 'steel' }),
    hull([...full, coat('copper', abraded)], { substrate: 'steel' }),
  ],
  [
    'topcoat below the waterline',
    'topcoatBelowWater',
    'stop',
    hull([...full, coat('twoPackTopcoat')]),
    topsides([coat('epoxyPrimer'), coat('twoPackTopcoat')]),
  ],
  [
    'a coat whose sheet forbids immersion',
    'topcoatBelowWater',
    'stop',
    hull([{ ...coat('barrier'), sheet: { ...sheets.barrier, immersible: false } }]),
    hull(full),
  ],
  [
    'epoxy last in the sun',
    'bareToTheSun',
    'caution',
    topsides([coat('barrier')]),
    topsides([coat('barrier'), coat('twoPackTopcoat')]),
  ],
  [
    'a weathered zone without a topcoat',
    'bareToTheSun',
    'caution',
    topsides([coat('undercoat')]),
    topsides([coat('undercoat'), coat('enamel')]),
  ],
  [
    'antifouling on cured epoxy',
    'antifoulingOnCuredEpoxy',
    'stop',
    hull([...full, coat('copper')]),
    hull([...full, coat('copper', abraded)]),
  ],
  [
    'antifouling in the tack window',
    'antifoulingOnCuredEpoxy',
    'stop',
    hull([
      ...full.slice(0, 2),
      { ...coat('barrier'), sheet: { ...sheets.barrier, overcoat: [] } },
      coat('copper', { prep: 'tackWindow' }),
    ]),
    hull([...full, coat('copper', { prep: 'tackWindow' })]),
  ],
  [
    'antifouling over a tie coat',
    'antifoulingOnCuredEpoxy',
    'stop',
    hull([coat('epoxyPrimer'), coat('copper')]),
    hull([...full, coat('tieCoat'), coat('copper')]),
  ],
  [
    'hard over ablative',
    'hardOverAblative',
    'stop',
    hull([coat('ablative'), coat('copper')]),
    hull([coat('copper'), coat('copper')]),
  ],
  [
    'ablative over hard',
    'ablativeOverHard',
    'note',
    hull([coat('copper'), coat('ablative')]),
    hull([coat('copper'), coat('ablative', abraded)]),
  ],
  [
    'one colour of antifouling',
    'signalColour',
    'note',
    hull([coat('copper'), coat('copper')]),
    hull([coat('copper', { colourHex: '#802020' }), coat('copper')]),
  ],
  [
    'a coating in a tank',
    'drinkingWater',
    'stop',
    hull(full, { exposure: 'tank' }),
    hull([coat('tank'), coat('tank'), coat('tank')], { exposure: 'tank' }),
  ],
  [
    'thinner of another family',
    'thinnerOfOtherFamily',
    'stop',
    hull([coat('barrier', { thinnerShare: 0.05, thinnerFamily: 'whiteSpirit' })]),
    hull([coat('barrier', { thinnerShare: 0.05, thinnerFamily: 'epoxy' })]),
  ],
  [
    'thinner over the limit',
    'tooMuchThinner',
    'caution',
    hull([coat('barrier', { thinnerShare: 0.15 })]),
    hull([coat('barrier', { thinnerShare: 0.1 })]),
  ],
  [
    'thinner in a product that takes none',
    'tooMuchThinner',
    'caution',
    hull([{ ...coat('barrier', { thinnerShare: 0.02 }), sheet: { ...sheets.barrier, thinner: null } }]),
    hull([{ ...coat('barrier'), sheet: { ...sheets.barrier, thinner: null } }]),
  ],
  [
    'acid residue under epoxy',
    'acidUnderEpoxy',
    'caution',
    hull([coat('converter'), coat('epoxyPrimer')], { substrate: 'steel' }),
    hull([coat('converter'), coat('epoxyPrimer', { wipe: true })], { substrate: 'steel' }),
  ],
  [
    'polyester filler against epoxy below the water',
    'polyesterBelowWater',
    'caution',
    hull([coat('barrier'), coat('polyester'), coat('barrier')]),
    topsides([coat('barrier'), coat('polyester'), coat('twoPackTopcoat')]),
  ],
  [
    'film over the largest',
    'filmTooThick',
    'caution',
    hull([coat('barrier', { dftMicron: 210 })]),
    hull([coat('barrier', { dftMicron: 200 })]),
  ],
  ['barrier below 250 µm', 'totalBelowTarget', 'caution', hull([coat('barrier'), coat('barrier')]), hull(full)],
  [
    'what abrading takes brings it below',
    'totalBelowTarget',
    'caution',
    hull([
      coat('barrier', { dftMicron: 84 }),
      coat('barrier', { dftMicron: 84, ...abraded }),
      coat('barrier', { dftMicron: 84, ...abraded }),
    ]),
    hull([coat('barrier', { dftMicron: 84 }), coat('barrier', { dftMicron: 84 }), coat('barrier', { dftMicron: 84 })]),
  ],
  [
    'a target of one’s own',
    'totalBelowTarget',
    'caution',
    hull(full, { targetMicron: 500 }),
    hull(full, { targetMicron: 300 }),
  ],
  [
    'a method the sheet does not allow',
    'methodNotAllowed',
    'caution',
    topsides([{ ...coat('twoPackTopcoat'), sheet: { ...sheets.twoPackTopcoat, methods: [{ method: 'spray' }] } }]),
    topsides([
      {
        ...coat('twoPackTopcoat', { method: 'spray' }),
        sheet: { ...sheets.twoPackTopcoat, methods: [{ method: 'spray' }] },
      },
    ]),
  ],
  [
    'more than a roller builds',
    'methodCannotBuild',
    'note',
    hull([coat('barrier', { dftMicron: 150 })]),
    hull([coat('barrier', { dftMicron: 150, method: 'spray' })]),
  ],
  [
    'too coarse a scratch under gloss',
    'scratchShowsThrough',
    'caution',
    topsides([coat('epoxyPrimer'), coat('twoPackTopcoat', { prep: 'abrade', grit: 180 })]),
    topsides([coat('epoxyPrimer'), coat('twoPackTopcoat', { prep: 'abrade', grit: 320 })]),
  ],
  [
    'too coarse a scratch under undercoat',
    'scratchShowsThrough',
    'caution',
    topsides([coat('undercoat', { prep: 'abrade', grit: 120 })]),
    topsides([coat('undercoat', { prep: 'abrade', grit: 220 })]),
  ],
  [
    'a sheet that always asks for abrading',
    'abradingBySheet',
    'caution',
    topsides([
      {
        ...coat('epoxyPrimer'),
        sheet: { ...sheets.epoxyPrimer, overcoat: [{ ...sheets.epoxyPrimer.overcoat[0]!, alwaysAbrade: true }] },
      },
      coat('twoPackTopcoat'),
    ]),
    topsides([coat('epoxyPrimer'), coat('twoPackTopcoat')]),
  ],
  [
    'a sheet that says not to abrade',
    'abradingBySheet',
    'caution',
    topsides([
      { ...coat('epoxyPrimer'), sheet: { ...sheets.epoxyPrimer, neverAbrade: true } },
      coat('twoPackTopcoat', abraded),
    ]),
    topsides([{ ...coat('epoxyPrimer'), sheet: { ...sheets.epoxyPrimer, neverAbrade: true } }, coat('twoPackTopcoat')]),
  ],
  [
    'an old coating that was not tested',
    'oldCoatingUntested',
    'caution',
    topsides([coat('enamel')], { existing: 'onePack' }),
    topsides([coat('enamel')], { existing: 'onePack', records: ['adhesionTest'] }),
  ],
  [
    'the back of its flakes, on steel',
    'oldCoatingUntested',
    'caution',
    topsides([coat('enamel')], { existing: 'onePack', substrate: 'steel', records: ['adhesionTest'] }),
    topsides([coat('enamel')], { existing: 'onePack', substrate: 'steel', records: ['adhesionTest', 'flakeBack'] }),
  ],
  ['structure still open', 'structureOpen', 'caution', hull(full, { openWork: true }), hull(full)],
  [
    'a primer held over the winter',
    'holdsTooLong',
    'caution',
    hull([coat('epoxyPrimer', { holdMonths: 5 })]),
    hull([{ ...coat('epoxyPrimer', { holdMonths: 5 }), sheet: { ...sheets.epoxyPrimer, holdingMonths: 6 } }]),
  ],
  [
    'antifouling of other waters',
    'watersNotSuited',
    'caution',
    hull([coat('copper')], { waters: 'fresh' }),
    hull([coat('ablative')], { waters: 'fresh' }),
  ],
  // Paint draws thin on edges [P: ISO 12944-5].
  [
    'edges of steel without a stripe coat',
    'stripeOnEdges',
    'note',
    hull(full, { substrate: 'steel' }),
    hull([coat('barrier', { stripe: true }), ...full], { substrate: 'steel' }),
  ],
  [
    'topcoat on bare steel',
    'primerOnBareMetal',
    'caution',
    topsides([coat('enamel')], { substrate: 'steel' }),
    topsides([coat('epoxyPrimer'), coat('enamel')], { substrate: 'steel' }),
  ],
  [
    'a solvent-borne sealer on bare steel; a thin resin without solvent is the other school',
    'primerOnBareMetal',
    'caution',
    topsides([coat('sealer'), coat('enamel')], { substrate: 'steel' }),
    topsides([{ ...coat('sealer'), sheet: { ...coat('sealer').sheet, solids: 1 } }, coat('enamel')], {
      substrate: 'steel',
    }),
  ],
  [
    'enamel on bare timber',
    'sealBareTimber',
    'note',
    topsides([coat('enamel')], { substrate: 'timber' }),
    topsides([coat('sealer'), coat('enamel')], { substrate: 'timber' }),
  ],
  [
    'a first coat on bare timber',
    'firstCoatSoaksIn',
    'note',
    topsides([coat('sealer')], { substrate: 'plywood' }),
    topsides([coat('sealer', { absorption: 0.25 })], { substrate: 'plywood' }),
  ],
  [
    'a first coat over grit',
    'firstCoatSoaksIn',
    'note',
    topsides([coat('nonSkid'), coat('twoPackTopcoat')]),
    topsides([coat('nonSkid'), coat('nonSkid')]),
  ],
  [
    'one coat of topcoat that hides in two',
    'doesNotHide',
    'note',
    topsides([coat('epoxyPrimer'), coat('twoPackTopcoat')]),
    topsides([coat('epoxyPrimer'), coat('twoPackTopcoat'), coat('twoPackTopcoat')]),
  ],
  [
    'two over a contrasting colour',
    'doesNotHide',
    'note',
    topsides([
      coat('epoxyPrimer', { colourHex: '#f0f0f0' }),
      coat('twoPackTopcoat', { colourHex: '#102040' }),
      coat('twoPackTopcoat', { colourHex: '#102040' }),
    ]),
    topsides([
      coat('epoxyPrimer', { colourHex: '#203050' }),
      coat('twoPackTopcoat', { colourHex: '#102040' }),
      coat('twoPackTopcoat', { colourHex: '#102040' }),
    ]),
  ],
];

describe('what may lie on what', () => {
  it.each(CASES)('%s', (_what, rule, severity, fires, silent) => {
    const finding = found(fires, rule);
    expect(finding, 'must speak').toMatchObject({ rule, severity });
    expect(finding?.reason).toMatch(/^[A-Z][^]*\.$/);
    expect(found(silent, rule), 'must not speak').toBeUndefined();
  });

  it('names the pair, down to the substrate and the old coating', () => {
    expect(found(hull([...full, coat('copper')]), 'antifoulingOnCuredEpoxy')).toMatchObject({ upper: 3, lower: 2 });
    expect(found(hull([coat('copper')], { substrate: 'aluminium' }), 'copperOnMetal')).toMatchObject({
      upper: 0,
      lower: 'substrate',
    });
    expect(found(topsides([coat('epoxyPrimer')], { existing: 'unknown' }), 'strongOverOnePack')).toMatchObject({
      upper: 0,
      lower: 'existing',
    });
  });

  it('puts stops first, then cautions, then notes', () => {
    const order = checkBuildUp(hull([coat('barrier'), coat('copper'), coat('copper')], { substrate: 'aluminium' })).map(
      (f) => f.severity,
    );
    expect(order).toEqual([...order].sort((a, b) => 'scn'.indexOf(a[0]!) - 'scn'.indexOf(b[0]!)));
    expect(order[0]).toBe('stop');
    expect(order.at(-1)).toBe('note');
  });

  it('takes the method of the whole where a coat has none, and stays silent without one', () => {
    const bare = { sheet: sheets.barrier, dftMicron: 150 };
    expect(found({ ...hull([bare]), method: 'roller' }, 'methodCannotBuild')).toBeDefined();
    expect(found(hull([bare]), 'methodCannotBuild')).toBeUndefined();
  });

  it('has nothing to say about no coats, nor about a sound build-up', () => {
    expect(checkBuildUp(hull([], { existing: 'unknown', openWork: true }))).toEqual([]);
    expect(
      checkBuildUp(
        hull([
          coat('barrier', { colourHex: '#aaaaaa', dftMicron: 80 }),
          coat('barrier', { dftMicron: 80 }),
          coat('barrier', { dftMicron: 80 }),
          coat('barrier', { dftMicron: 80 }),
          coat('tieCoat', { dftMicron: 50 }),
          coat('ablative', { colourHex: '#802020', dftMicron: 50 }),
          coat('ablative', { dftMicron: 50 }),
        ]),
      ),
    ).toEqual([]);
  });
});
