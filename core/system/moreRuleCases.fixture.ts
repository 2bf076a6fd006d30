import { topsides, hull, full, abraded } from './rules.fixture';
import { type BuildUpCheck, type Finding } from '../index';
import { coat, sheets } from './sheets.fixture';

/** What a rule is to say of one build-up, and a like one of which it is to say nothing. */
export type Case = [
  what: string,
  rule: string,
  severity: Finding['severity'],
  fires: BuildUpCheck,
  silent: BuildUpCheck,
];

/** 60 µm takes 0.04 L a m², 105 µm 0.07 [from memory: long-used coating-guide table]. */
const profiled = { ...sheets.epoxyPrimer, profileMinMicron: 50, profileMaxMicron: 75 };

/** As the other cases; common practice of the trade. */
export const MORE_CASES: Case[] = [
  [
    'two-pack over a one-pack polyurethane',
    'strongOverOnePack',
    'stop',
    topsides([coat('onePackUrethane'), coat('twoPackTopcoat')]),
    topsides([coat('onePackUrethane'), coat('onePackUrethane')]),
  ],
  [
    'two-pack over chlorinated rubber',
    'strongOverOnePack',
    'stop',
    hull([coat('rubber'), coat('barrier')]),
    hull([coat('rubber'), coat('tieCoat'), coat('barrier')]),
  ],
  [
    'epoxy over antifouling',
    'overAntifouling',
    'stop',
    hull([coat('ablative'), coat('barrier')]),
    hull([coat('ablative'), coat('ablative')]),
  ],
  [
    'a topcoat over old antifouling',
    'overAntifouling',
    'stop',
    hull([coat('barrier')], { existing: 'antifouling' }),
    hull([coat('tieCoat'), coat('barrier')], { existing: 'antifouling' }),
  ],
  [
    'fairing filler counted as what keeps copper off steel',
    'copperOnMetal',
    'stop',
    hull([coat('epoxyFiller', { dftMicron: 400 }), coat('copper', abraded)], { substrate: 'steel' }),
    hull([...full, coat('copper', abraded)], { substrate: 'steel' }),
  ],
  [
    'fairing filler counted towards the barrier',
    'totalBelowTarget',
    'caution',
    hull([coat('epoxyFiller', { dftMicron: 400 }), coat('barrier')]),
    hull([coat('epoxyFiller', { dftMicron: 400 }), ...full]),
  ],
  [
    'antifouling on a cured old two-pack',
    'antifoulingOnCuredEpoxy',
    'stop',
    hull([coat('ablative')], { existing: 'twoPack' }),
    hull([coat('ablative', abraded)], { existing: 'twoPack' }),
  ],
  [
    'antifouling on sealed timber',
    'antifoulingOnCuredEpoxy',
    'stop',
    hull([coat('ablative')], { substrate: 'sealedTimber' }),
    hull([coat('ablative', abraded)], { substrate: 'sealedTimber' }),
  ],
  [
    'polyester filler on an old two-pack below water',
    'polyesterBelowWater',
    'caution',
    hull([coat('polyester')], { existing: 'twoPack' }),
    topsides([coat('polyester')], { existing: 'twoPack' }),
  ],
  [
    'polyester filler on sealed timber below water',
    'polyesterBelowWater',
    'caution',
    hull([coat('polyester')], { substrate: 'sealedTimber' }),
    hull([coat('polyester')], { substrate: 'laminate' }),
  ],
  [
    'a scratch of 60 beneath the primer right under gloss',
    'scratchShowsThrough',
    'caution',
    topsides([coat('epoxyPrimer', { prep: 'abrade', grit: 60 }), coat('twoPackTopcoat')]),
    topsides([coat('epoxyPrimer', { prep: 'abrade', grit: 60 }), coat('undercoat'), coat('twoPackTopcoat')]),
  ],
  [
    'nibs taken off with 320',
    'scratchShowsThrough',
    'caution',
    topsides([coat('twoPackTopcoat'), coat('twoPackTopcoat', { prep: 'abrade', abradeFor: 'nibs', grit: 320 })]),
    topsides([coat('twoPackTopcoat'), coat('twoPackTopcoat', { prep: 'abrade', abradeFor: 'nibs', grit: 400 })]),
  ],
  [
    'thinner of another family where the sheet names none',
    'thinnerOfOtherFamily',
    'stop',
    topsides([
      { ...coat('enamel', { thinnerShare: 0.05, thinnerFamily: 'epoxy' }), sheet: { ...sheets.enamel, thinner: null } },
    ]),
    topsides([
      {
        ...coat('enamel', { thinnerShare: 0.05, thinnerFamily: 'whiteSpirit' }),
        sheet: { ...sheets.enamel, thinner: null },
      },
    ]),
  ],
  [
    'a topcoat whose sheet says it does not stand the sun',
    'bareToTheSun',
    'caution',
    topsides([{ ...coat('twoPackTopcoat'), sheet: { ...sheets.twoPackTopcoat, uvResistant: false } }]),
    topsides([coat('twoPackTopcoat')]),
  ],
  [
    'copper that is not stated, on bare steel',
    'copperOnMetal',
    'caution',
    hull([coat('barrier'), coat('unsaid', abraded)], { substrate: 'steel' }),
    hull([...full, coat('unsaid', abraded)], { substrate: 'steel' }),
  ],
  [
    'two-pack on gelcoat that is not abraded',
    'gelcoatUnabraded',
    'caution',
    topsides([coat('epoxyPrimer')]),
    topsides([coat('epoxyPrimer', abraded)]),
  ],
  [
    'copper over a sound old two-pack on steel is what it was for years',
    'copperOnMetal',
    'stop',
    hull([coat('copper', abraded)], { substrate: 'steel' }),
    hull([coat('copper', abraded)], { substrate: 'steel', existing: 'twoPack' }),
  ],
  [
    'a barrier that is not epoxy keeps copper off too',
    'copperOnMetal',
    'stop',
    hull([coat('vinylBarrier'), coat('copper', abraded)], { substrate: 'steel' }),
    hull([coat('vinylBarrier'), coat('vinylBarrier'), coat('vinylBarrier'), coat('copper', abraded)], {
      substrate: 'steel',
    }),
  ],
  [
    'hard antifouling over last year’s that wears away',
    'hardOverAblative',
    'stop',
    hull([coat('copper')], { existing: 'antifoulingAblative' }),
    hull([coat('copper')], { existing: 'antifoulingHard' }),
  ],
  [
    'hard antifouling over last year’s of a type nobody knows',
    'hardOverAblative',
    'caution',
    hull([coat('copper')], { existing: 'antifouling' }),
    hull([coat('ablative')], { existing: 'antifouling' }),
  ],
  [
    'yearly antifouling over last year’s needs no test of adhesion',
    'oldCoatingUntested',
    'caution',
    hull([coat('ablative')], { existing: 'unknown', records: ['testPatch'] }),
    hull([coat('ablative')], { existing: 'antifoulingAblative' }),
  ],
  [
    'a one-pack primer that is immersed is no topcoat',
    'topcoatBelowWater',
    'stop',
    hull([coat('enamel')]),
    hull([coat('onePackPrimer')]),
  ],
  [
    'a tank that nobody said what it holds',
    'drinkingWater',
    'caution',
    hull([coat('barrier')], { exposure: 'tank' }),
    hull([coat('barrier')], { exposure: 'tank', holds: 'fuel' }),
  ],
  [
    'bilge white at its own film',
    'methodCannotBuild',
    'note',
    hull([coat('bilgeWhite', { dftMicron: 80 })], { exposure: 'bilge' }),
    hull([coat('bilgeWhite')], { exposure: 'bilge' }),
  ],
  [
    'grey and white drawn alike are two colours',
    'signalColour',
    'note',
    hull([coat('copper', { colour: 'blue' }), coat('copper', { colour: 'blue', colourHex: '#111111' })]),
    hull([coat('copper', { colour: 'blue' }), coat('copper', { colour: 'black' })]),
  ],
  [
    'no profile where the sheet asks for one',
    'profileOfSheet',
    'note',
    hull([{ ...coat('epoxyPrimer'), sheet: profiled }], { substrate: 'steel' }),
    hull([{ ...coat('epoxyPrimer', { deadVolumeLPerM2: 0.04 }), sheet: profiled }], { substrate: 'steel' }),
  ],
  [
    'a profile higher than the sheet allows',
    'profileOfSheet',
    'caution',
    hull([{ ...coat('epoxyPrimer', { deadVolumeLPerM2: 0.07 }), sheet: profiled }], { substrate: 'steel' }),
    hull([{ ...coat('epoxyPrimer', { deadVolumeLPerM2: 0.07 }), sheet: profiled }], { substrate: 'laminate' }),
  ],
  [
    'laminate that nobody measured',
    'moistureFirst',
    'note',
    hull([{ ...coat('barrier'), sheet: { ...sheets.barrier, moistureMax: 0.12 } }]),
    hull([{ ...coat('barrier'), sheet: { ...sheets.barrier, moistureMax: 0.12 } }], { records: ['moisture'] }),
  ],
];
