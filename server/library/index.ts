import type { Layer } from '#core/model/layer';
import { USUAL_LOSS } from '#core/film/spreading';
import type { Exposure, Substrate } from '#core/model/surface';
import type { BondSchool, NamedBuildUp } from '#core/model/buildUp';
import { LIBRARY, libraryBody, type LibrarySheet } from './sheets';

/** A readable, fixed id, the same on every machine: what is taken in twice is one. */
export function fixedId(group: number, n: number): string {
  return `01900000-0000-7000-8${String(group).padStart(3, '0')}-${String(n).padStart(12, '0')}`;
}

const KEYS = Object.keys(LIBRARY) as LibrarySheet[];
export const sheetIdOf = (key: LibrarySheet): string => fixedId(2, KEYS.indexOf(key) + 1);
export const revisionIdOf = (key: LibrarySheet): string => fixedId(3, KEYS.indexOf(key) + 1);

/** The shipped sheets, each with the ids it is taken in under. */
export const LIBRARY_SHEETS = KEYS.map((key) => ({
  id: sheetIdOf(key),
  revisionId: revisionIdOf(key),
  body: libraryBody(key),
}));

/** Coats of a starter: which sheet, in which colours, and what is decided of them. */
type Coats = [sheet: LibrarySheet, colours: readonly string[], more?: Partial<Layer>];
interface Starter {
  name: string;
  substrates: Substrate[];
  exposure: Exposure;
  bond: BondSchool;
  note: string;
  targetMicron?: number;
  coats: Coats[];
}

const GRP: Substrate[] = ['gelcoat', 'laminate'];
const TIMBER: Substrate[] = ['timber', 'plywood', 'sealedTimber'];
const tack = { prep: 'tackWindow' } as const;
const cut = (grit: number): Partial<Layer> => ({ prep: 'abrade', abradeFor: 'bond', grit });
const SPRAY: Partial<Layer> = { method: 'spray', loss: USUAL_LOSS.spray };
const firstOn: Partial<Layer> = { ...cut(120), wipe: true };
const striped: Partial<Layer> = { ...firstOn, stripe: true };
const soaking: Partial<Layer> = { absorption: 0.25 };

/** The common build-ups of the trade, by substrate, exposure and school. [CP] The sheets in them are made up. */
const STARTERS: Starter[] = [
  {
    name: 'GRP bottom, in the tack window',
    substrates: GRP,
    exposure: 'immersed',
    bond: 'chemical',
    targetMicron: 250,
    note: 'Wipe and abrade, then every coat while the one beneath bonds as is; the antifouling on the last, thumb-tacky barrier.',
    coats: [
      ['barrier', ['grey'], firstOn],
      ['barrier', ['white', 'grey', 'white'], tack],
      ['antifouling', ['red', 'dark blue'], tack],
    ],
  },
  {
    name: 'GRP bottom, over a tie coat',
    substrates: GRP,
    exposure: 'immersed',
    bond: 'mechanical',
    targetMicron: 250,
    note: 'Each barrier coat cures and is abraded; a tie coat takes the antifouling when it suits.',
    coats: [
      ['barrier', ['grey'], firstOn],
      ['barrier', ['white', 'grey', 'white'], cut(120)],
      ['tieCoat', ['red oxide'], cut(120)],
      ['antifouling', ['red', 'dark blue']],
    ],
  },
  {
    name: 'GRP bottom against osmosis, 500 µm',
    substrates: ['laminate'],
    exposure: 'immersed',
    bond: 'chemical',
    targetMicron: 500,
    note: 'On dried laminate; count film, not coats.',
    coats: [
      ['sealer', ['clear amber'], firstOn],
      ['barrier', ['grey', 'white', 'grey', 'white', 'grey', 'white', 'grey'], tack],
      ['tieCoat', ['red oxide'], tack],
      ['ablative', ['blue', 'black']],
    ],
  },
  {
    name: 'Steel bottom, blasted',
    substrates: ['steel'],
    exposure: 'immersed',
    bond: 'chemical',
    targetMicron: 300,
    note: 'Primer within four hours of blasting; stripe every edge and weld.',
    coats: [
      ['epoxyPrimer', ['red oxide'], { wipe: true, stripe: true, deadVolumeLPerM2: 0.05 }],
      ['barrier', ['grey', 'white', 'grey', 'white'], tack],
      ['tieCoat', ['red oxide'], tack],
      ['antifouling', ['red', 'dark blue']],
    ],
  },
  {
    name: 'Steel bottom, cured and abraded',
    substrates: ['steel'],
    exposure: 'immersed',
    bond: 'mechanical',
    targetMicron: 300,
    note: 'For weather that keeps no window: each coat cures, is abraded and washed.',
    coats: [
      ['epoxyPrimer', ['red oxide'], { wipe: true, stripe: true, deadVolumeLPerM2: 0.05 }],
      ['barrier', ['grey', 'white', 'grey', 'white'], cut(120)],
      ['tieCoat', ['red oxide'], cut(120)],
      ['antifouling', ['red', 'dark blue']],
    ],
  },
  {
    name: 'Steel topsides, two-pack',
    substrates: ['steel'],
    exposure: 'weather',
    bond: 'mechanical',
    note: 'The same epoxy all the way up, undercoat, then two-pack gloss.',
    coats: [
      ['epoxyPrimer', ['red oxide', 'grey'], { ...striped }],
      ['glossUndercoat', ['white'], cut(220)],
      ['topcoat', ['harbour blue', 'harbour blue', 'harbour blue'], cut(320)],
    ],
  },
  {
    name: 'Rust that cannot be blasted, converted',
    substrates: ['steel'],
    exposure: 'weather',
    bond: 'mechanical',
    note: 'Needle gun, scrape, brush; converter looked at next day, rinsed, then primer and enamel.',
    coats: [
      ['converter', ['black']],
      ['metalPrimer', ['red oxide'], { ...cut(120), wipe: true }],
      ['undercoat', ['grey'], cut(220)],
      ['enamel', ['oxide red', 'oxide red'], cut(320)],
    ],
  },
  {
    name: 'Rust that cannot be blasted, thin resin',
    substrates: ['steel'],
    exposure: 'splash',
    bond: 'chemical',
    note: 'The other school: a thin resin without solvent soaks into what is left.',
    coats: [
      ['wetRustSealer', ['clear'], { wipe: true, stripe: true }],
      ['epoxyPrimer', ['grey', 'red oxide'], tack],
      ['topcoat', ['harbour blue', 'harbour blue', 'harbour blue'], cut(320)],
    ],
  },
  {
    name: 'Aluminium bottom, copper-free',
    substrates: ['aluminium'],
    exposure: 'immersed',
    bond: 'chemical',
    targetMicron: 250,
    note: 'Primer within hours of abrading; no copper anywhere on it.',
    coats: [
      ['lightMetalPrimer', ['green'], striped],
      ['barrier', ['grey', 'white', 'grey', 'white'], tack],
      ['tieCoat', ['red oxide'], tack],
      ['copperFree', ['black', 'black']],
    ],
  },
  {
    name: 'Aluminium topsides',
    substrates: ['aluminium'],
    exposure: 'weather',
    bond: 'mechanical',
    note: 'Etch or chromate-free primer, undercoat, two-pack gloss.',
    coats: [
      ['lightMetalPrimer', ['green'], striped],
      ['glossUndercoat', ['white'], cut(220)],
      ['topcoat', ['cream', 'cream', 'cream'], cut(320)],
    ],
  },
  {
    name: 'Timber topsides, enamel',
    substrates: TIMBER,
    exposure: 'weather',
    bond: 'mechanical',
    note: 'One-pack: a wide weather window, easy to touch up.',
    coats: [
      ['sealer', ['clear amber'], soaking],
      ['sealer', ['clear amber'], tack],
      ['undercoat', ['white', 'white'], cut(220)],
      ['enamel', ['oxide red', 'oxide red', 'oxide red'], cut(320)],
    ],
  },
  {
    name: 'Timber topsides, two-pack',
    substrates: TIMBER,
    exposure: 'weather',
    bond: 'chemical',
    note: 'Only on timber that is sealed and does not move.',
    coats: [
      ['sealer', ['clear amber'], soaking],
      ['sealer', ['clear amber', 'clear amber'], tack],
      ['glossUndercoat', ['white'], cut(220)],
      ['topcoat', ['cream', 'cream', 'cream'], cut(320)],
    ],
  },
  {
    name: 'Timber bottom, epoxy-sealed',
    substrates: TIMBER,
    exposure: 'immersed',
    bond: 'chemical',
    targetMicron: 250,
    note: 'The last sealer coat the day before, so that it bonds.',
    coats: [
      ['sealer', ['clear amber'], soaking],
      ['sealer', ['clear amber'], tack],
      ['barrier', ['grey', 'white', 'grey'], tack],
      ['antifouling', ['red', 'dark blue'], tack],
    ],
  },
  {
    name: 'GRP topsides, two-pack',
    substrates: GRP,
    exposure: 'weather',
    bond: 'mechanical',
    note: 'Primer for adhesion, undercoat, then gloss.',
    coats: [
      ['epoxyPrimer', ['grey'], firstOn],
      ['glossUndercoat', ['white'], cut(220)],
      ['topcoat', ['harbour blue', 'harbour blue', 'harbour blue'], cut(320)],
    ],
  },
  {
    name: 'GRP topsides, enamel',
    substrates: GRP,
    exposure: 'weather',
    bond: 'mechanical',
    note: 'One-pack: forgiving in damp and cold, softer.',
    coats: [
      ['metalPrimer', ['red oxide'], firstOn],
      ['undercoat', ['white'], cut(220)],
      ['enamel', ['buff', 'buff'], cut(320)],
    ],
  },
  {
    name: 'Non-skid deck',
    substrates: GRP,
    exposure: 'weather',
    bond: 'mechanical',
    note: 'Broadcast the grit while wet, in halves that can be kept wet; a generous seal coat, then a lighter one.',
    coats: [
      ['epoxyPrimer', ['grey'], firstOn],
      ['nonSkid', ['sand'], cut(180)],
      ['topcoat', ['cream'], { absorption: 1.2 }],
      ['topcoat', ['cream'], { prep: 'tackWindow' }],
    ],
  },
  {
    name: 'Bilge and lockers, one-pack',
    substrates: [...GRP, ...TIMBER],
    exposure: 'bilge',
    bond: 'mechanical',
    note: 'Degrease, rinse, dry a day with a fan, flatten; white, so that leaks and cracks show; one coat a day.',
    coats: [
      ['bilge', ['white'], firstOn],
      ['bilge', ['white', 'white'], cut(180)],
    ],
  },
  {
    name: 'Bilge, two-pack',
    substrates: GRP,
    exposure: 'bilge',
    bond: 'chemical',
    note: 'Two to four coats, one a day; load it after a few days.',
    coats: [
      ['bilgeEpoxy', ['white'], striped],
      ['bilgeEpoxy', ['grey', 'white'], tack],
    ],
  },
  {
    name: 'Steel bilge, two-pack',
    substrates: ['steel'],
    exposure: 'bilge',
    bond: 'chemical',
    note: 'Primer on clean metal first; frames, welds and edges striped.',
    coats: [
      ['epoxyPrimer', ['red oxide'], striped],
      ['bilgeEpoxy', ['grey', 'white'], tack],
    ],
  },
  {
    name: 'Drinking-water tank',
    substrates: ['steel', 'laminate'],
    exposure: 'tank',
    bond: 'chemical',
    targetMicron: 450,
    note: 'Certified coating only, by its certificate and your local rules; wash and soak before use.',
    coats: [
      ['tankLining', ['white'], striped],
      ['tankLining', ['cream', 'white'], tack],
    ],
  },
  {
    name: 'Boot-top on two-pack',
    substrates: GRP,
    exposure: 'splash',
    bond: 'mechanical',
    note: 'Over sound gloss, inside its line.',
    coats: [['topcoat', ['cream', 'cream'], cut(320)]],
  },
  {
    name: 'Steel topsides, sprayed and levelled',
    substrates: ['steel', 'aluminium'],
    exposure: 'weather',
    bond: 'mechanical',
    note: 'A sprayed surfacer is blocked level: a third of it comes off again.',
    coats: [
      ['epoxyPrimer', ['grey'], { ...striped, ...SPRAY }],
      ['surfacer', ['pale yellow', 'pale yellow'], { ...SPRAY, ...cut(120) }],
      ['glossUndercoat', ['white'], { ...SPRAY, ...cut(220), abradeFor: 'level' }],
      ['topcoat', ['harbour blue', 'harbour blue', 'harbour blue'], { ...SPRAY, ...cut(400), abradeFor: 'nibs' }],
    ],
  },
];

/** The starters with their coats; ids fixed, colours of the sheets. */
export const LIBRARY_STARTERS: readonly NamedBuildUp[] = STARTERS.map((starter, s) => {
  let serial = 0;
  const layers = starter.coats.flatMap(([key, colours, more]) => {
    const body = libraryBody(key);
    return colours.map((colour): Layer => {
      serial += 1;
      const { stripe, absorption, deadVolumeLPerM2, ...later } = more ?? {};
      const first = serial === 1;
      return {
        id: fixedId(13, s * 100 + serial),
        sheetRevisionId: revisionIdOf(key),
        dftMicron: body.dftMicron,
        method: 'roller',
        thinnerShare: 0,
        loss: USUAL_LOSS.roller,
        deadVolumeLPerM2: first ? (deadVolumeLPerM2 ?? 0) : 0,
        colour,
        colourHex: body.colours.find((c) => c.name === colour)?.hex ?? '#999999',
        ...later,
        ...(stripe && first ? { stripe } : {}),
        ...(absorption !== undefined ? { absorption } : {}),
      };
    });
  });
  return {
    id: fixedId(14, s + 1),
    name: starter.name,
    substrates: starter.substrates,
    exposure: starter.exposure,
    bond: starter.bond,
    note: starter.note,
    targetMicron: starter.targetMicron ?? null,
    layers,
  };
});
