import type { TimeTable } from '#core/model/timeTable';
import { NO_LIMITS, type OvercoatTimes, type SheetBody, type SheetDetails } from '#core/model/sheet';

/** Made-up data sheets of made-up makers. Their figures are invented; follow the maker's sheet of your own paint. */

/** Times at 10, 20 and 30 °C. */
export const at = (cold: number, mild: number, warm: number): TimeTable => [
  { tempC: 10, hours: cold },
  { tempC: 20, hours: mild },
  { tempC: 30, hours: warm },
];

export const overcoat = (
  after: OvercoatTimes['after'],
  minimum: TimeTable,
  tackLimit: TimeTable | null,
  more: Partial<OvercoatTimes> = {},
): OvercoatTimes => ({
  after,
  minimum,
  tackLimit,
  maximum: null,
  alwaysAbrade: false,
  ...more,
});

const epoxyLimits = { airMinC: 8, airMaxC: 35, surfaceMinC: 8, surfaceMaxC: 35, rhMax: 0.85, spreadMinC: 3 };
const onePackLimits = { airMinC: 5, airMaxC: 32, surfaceMinC: 5, surfaceMaxC: 35, rhMax: 0.85, spreadMinC: 3 };

export const barrier: SheetBody = {
  name: 'Saltgate 45 barrier',
  maker: 'Tidewrack Coatings',
  code: 'SG-45',
  kind: 'barrier',
  quick: false,
  parts: [
    { name: 'Base', role: 'base', ratio: 3, densityKgPerL: 1.52 },
    { name: 'Hardener', role: 'hardener', ratio: 1, densityKgPerL: 1.01 },
  ],
  ratioBasis: 'volume',
  solids: 0.5,
  dftMicron: 70,
  dftMaxMicron: 150,
  thinner: { name: 'Thinner T7', maxShare: 0.1, of: 'mixed' },
  inductionMin: 15,
  potLife: at(5, 3, 1.5),
  touchDry: at(5, 2.5, 1.5),
  sandable: at(30, 16, 10),
  immersion: at(168, 96, 60),
  fullCure: at(336, 168, 120),
  overcoat: [overcoat('any', at(9, 5, 3), at(40, 24, 12)), overcoat('antifouling', at(6, 3.5, 2), at(12, 7, 4))],
  limits: epoxyLimits,
  minCureC: 7,
  packs: [
    { name: '0.75 L kit', sizeL: 0.75, priceMinor: 4900 },
    { name: '2.5 L kit', sizeL: 2.5, priceMinor: 13_900 },
    { name: '5 L kit', sizeL: 5, priceMinor: 25_800 },
  ],
  colours: [
    { name: 'grey', hex: '#8f979b' },
    { name: 'white', hex: '#e9e7e0' },
  ],
  caution: 'Epoxy sensitises skin: gloves, no solvent on skin. Pots heat when they go off.',
};

export const tieCoat: SheetBody = {
  ...barrier,
  name: 'Saltgate tie coat',
  code: 'SG-T',
  kind: 'tieCoat',
  parts: [
    { name: 'Base', role: 'base', ratio: 4, densityKgPerL: 1.38 },
    { name: 'Hardener', role: 'hardener', ratio: 1, densityKgPerL: 0.97 },
  ],
  solids: 0.42,
  dftMicron: 50,
  dftMaxMicron: 90,
  inductionMin: null,
  overcoat: [overcoat('antifouling', at(5, 3, 2), at(30, 16, 8)), overcoat('any', at(8, 5, 3), at(48, 24, 12))],
  packs: [
    { name: '0.75 L kit', sizeL: 0.75, priceMinor: 5200 },
    { name: '2.5 L kit', sizeL: 2.5, priceMinor: 15_400 },
  ],
  colours: [{ name: 'red oxide', hex: '#8a4334' }],
};

export const antifouling: SheetBody = {
  ...barrier,
  name: 'Kelpward hard antifouling',
  maker: 'Osier & Lamp',
  code: 'KW-H',
  kind: 'antifouling',
  parts: [{ name: 'Paint', role: 'base', ratio: 1, densityKgPerL: 1.85 }],
  solids: 0.48,
  dftMicron: 50,
  dftMaxMicron: 100,
  thinner: { name: 'Thinner T2', maxShare: 0.05, of: 'mixed' },
  inductionMin: null,
  potLife: null,
  touchDry: at(2, 1, 0.6),
  sandable: null,
  immersion: at(24, 12, 8),
  fullCure: null,
  overcoat: [overcoat('any', at(10, 6, 4), null)],
  limits: onePackLimits,
  minCureC: null,
  packs: [
    { name: '0.75 L tin', sizeL: 0.75, priceMinor: 4400 },
    { name: '2.5 L tin', sizeL: 2.5, priceMinor: 12_500 },
  ],
  colours: [
    { name: 'dark blue', hex: '#27415f' },
    { name: 'red', hex: '#8f2f2a' },
  ],
  caution: 'Biocide and copper: gloves and eye protection, catch every drip and scraping. Not on aluminium.',
};

export const copperFree: SheetBody = {
  ...antifouling,
  name: 'Dunlin copper-free',
  code: 'DN-C',
  solids: 0.44,
  colours: [{ name: 'black', hex: '#2b2e31' }],
  caution: 'Biocide: gloves and eye protection, catch every drip and scraping.',
};

export const lightMetalPrimer: SheetBody = {
  ...barrier,
  name: 'Quoin light-metal primer',
  code: 'QN-1',
  kind: 'primer',
  parts: [
    { name: 'Base', role: 'base', ratio: 2, densityKgPerL: 1.45 },
    { name: 'Hardener', role: 'hardener', ratio: 1, densityKgPerL: 0.98 },
  ],
  solids: 0.46,
  dftMicron: 60,
  dftMaxMicron: 120,
  overcoat: [overcoat('any', at(8, 4, 2.5), at(40, 20, 10))],
  colours: [{ name: 'green', hex: '#6f7f58' }],
};

export const topcoat: SheetBody = {
  ...barrier,
  name: 'Lantern two-pack gloss',
  maker: 'Osier & Lamp',
  code: 'LN-2',
  kind: 'topcoat',
  parts: [
    { name: 'Base', role: 'base', ratio: 2, densityKgPerL: 1.24 },
    { name: 'Hardener', role: 'hardener', ratio: 1, densityKgPerL: 1.06 },
  ],
  solids: 0.53,
  dftMicron: 40,
  dftMaxMicron: 60,
  thinner: { name: 'Thinner T9', maxShare: 0.15, of: 'mixed' },
  inductionMin: 10,
  potLife: at(6, 4, 2),
  touchDry: at(6, 3.5, 2),
  sandable: at(36, 20, 12),
  immersion: null,
  overcoat: [overcoat('any', at(16, 10, 6), at(48, 30, 18))],
  limits: { airMinC: 10, airMaxC: 30, surfaceMinC: 10, surfaceMaxC: 32, rhMax: 0.8, spreadMinC: 3 },
  minCureC: 8,
  packs: [
    { name: '0.75 L kit', sizeL: 0.75, priceMinor: 6900 },
    { name: '2 L kit', sizeL: 2, priceMinor: 16_800 },
  ],
  colours: [
    { name: 'harbour blue', hex: '#2f5d86' },
    { name: 'cream', hex: '#efe3c2' },
  ],
  caution: 'Isocyanates: air-fed mask for spraying, no bystanders.',
};

export const sealer: SheetBody = {
  ...barrier,
  name: 'Rushlight penetrating sealer',
  code: 'RL-0',
  kind: 'sealer',
  parts: [
    { name: 'Resin', role: 'base', ratio: 1, densityKgPerL: 0.94 },
    { name: 'Hardener', role: 'hardener', ratio: 1, densityKgPerL: 0.9 },
  ],
  solids: 0.3,
  dftMicron: 25,
  dftMaxMicron: 40,
  thinner: null,
  inductionMin: null,
  touchDry: at(10, 5, 3),
  overcoat: [overcoat('any', at(12, 6, 4), at(48, 24, 16))],
  colours: [{ name: 'clear amber', hex: '#c79a5b' }],
};

export const enamel: SheetBody = {
  ...antifouling,
  name: 'Wicket enamel',
  maker: 'Osier & Lamp',
  code: 'WK-3',
  kind: 'topcoat',
  parts: [{ name: 'Paint', role: 'base', ratio: 1, densityKgPerL: 1.1 }],
  solids: 0.52,
  dftMicron: 35,
  dftMaxMicron: 50,
  touchDry: at(9, 5, 3.5),
  immersion: null,
  overcoat: [overcoat('any', at(36, 20, 14), at(96, 72, 48))],
  colours: [
    { name: 'oxide red', hex: '#7c3428' },
    { name: 'buff', hex: '#d9b779' },
  ],
  caution: 'Oily rags heat by themselves: wet them and lay them flat outdoors.',
};

/** Typed from the tin: two overcoat times and little else. */
export const bilge: SheetBody = {
  ...barrier,
  name: 'Millpond bilge white',
  maker: 'Osier & Lamp',
  code: '',
  kind: 'bilge',
  quick: true,
  parts: [{ name: 'Paint', role: 'base', ratio: 1, densityKgPerL: null }],
  solids: 0.5,
  dftMicron: 60,
  dftMaxMicron: null,
  thinner: null,
  inductionMin: null,
  potLife: null,
  touchDry: null,
  sandable: null,
  immersion: null,
  fullCure: null,
  overcoat: [overcoat('any', [{ tempC: 20, hours: 12 }], [{ tempC: 20, hours: 72 }])],
  limits: NO_LIMITS,
  minCureC: null,
  packs: [{ name: '2.5 L tin', sizeL: 2.5, priceMinor: 6800 }],
  colours: [{ name: 'white', hex: '#f1efe9' }],
  caution: 'Bilge: force air in before and while you work, and have a second person outside.',
};

/** Base and hardener by their ratio to one. */
export const two = (ratio: number, base: number, hardener: number): SheetBody['parts'] => [
  { name: 'Base', role: 'base', ratio, densityKgPerL: base },
  { name: 'Hardener', role: 'hardener', ratio: 1, densityKgPerL: hardener },
];
export const tins = (...rows: [sizeL: number, priceMinor: number][]): SheetBody['packs'] =>
  rows.map(([sizeL, priceMinor]) => ({ name: `${sizeL} L`, sizeL, priceMinor, supplier: 'Staithe Chandlery' }));
export const hue = (name: string, hex: string) => ({ name, hex });
const shelf = { shelfClosedMonths: 24, shelfOpenMonths: 12 };

export const epoxy: SheetDetails = {
  chemistry: 'epoxy',
  methods: [
    { method: 'roller', dftMaxMicron: 80 },
    { method: 'brush', dftMaxMicron: 80 },
    { method: 'spray', dftMaxMicron: 150 },
  ],
  uvResistant: false,
  immersible: true,
  cleanliness: 'clean, dry, abraded; steel Sa 2½',
  surfaceGrit: 120,
  isocyanate: false,
  flashPointClass: 'flammable liquid 3',
  ...shelf,
};
const finish: SheetDetails = {
  chemistry: 'polyurethane',
  uvResistant: true,
  immersible: false,
  surfaceGrit: 320,
  gloss: 'gloss',
  hidingCoats: 2,
  isocyanate: true,
  shelfClosedMonths: 18,
  shelfOpenMonths: 4,
  methods: [
    { method: 'roller', dftMaxMicron: 50 },
    { method: 'brush', dftMaxMicron: 50 },
    { method: 'spray', dftMaxMicron: 60 },
  ],
};
export const bottom: SheetDetails = {
  chemistry: 'vinyl',
  strongSolvent: true,
  copper: true,
  biocide: true,
  uvResistant: false,
  immersible: true,
  antifouling: { type: 'hard', waters: ['salt', 'tropical'], years: 2, dryOutDays: 60 },
  immersionMax: at(720, 720, 480),
  methods: [{ method: 'roller' }, { method: 'brush' }, { method: 'spray' }],
  shelfClosedMonths: 36,
  shelfOpenMonths: 12,
};
const oil: SheetDetails = {
  chemistry: 'alkyd',
  strongSolvent: false,
  uvResistant: true,
  immersible: false,
  gloss: 'gloss',
  hidingCoats: 2,
  surfaceGrit: 320,
  ...shelf,
  methods: [{ method: 'brush' }, { method: 'roller' }],
};

export const withFamily = (
  body: SheetBody,
  family: NonNullable<SheetBody['thinner']>['family'],
  details: SheetDetails,
): SheetBody => ({ ...body, ...details, thinner: body.thinner && { ...body.thinner, family } });

/** One-part tins without induction or pot life. */
export const onePack = { inductionMin: null, potLife: null, minCureC: null, limits: onePackLimits } as const;

/** Every pack has someone who sells it. */
export const soldBy = (body: SheetBody, supplier: string): SheetBody => ({
  ...body,
  packs: body.packs.map((p) => ({ supplier, ...p })),
});

export const copperHard = soldBy(withFamily(antifouling, 'aromatic', bottom), 'Staithe Chandlery');
export const gloss = soldBy(withFamily(topcoat, 'polyurethane', finish), 'Osier & Lamp depot');
export const brushing = soldBy(withFamily(enamel, 'whiteSpirit', oil), 'Osier & Lamp depot');
export const kit = soldBy(
  withFamily(
    {
      ...barrier,
      packs: [
        ...barrier.packs,
        { name: 'hardener, 0.25 L', sizeL: 0.25, priceMinor: 1900, part: 'Hardener' },
        { name: 'base, 0.75 L', sizeL: 0.75, priceMinor: 3300, part: 'Base' },
      ],
    },
    'epoxy',
    { ...epoxy, handle: at(48, 24, 14), moistureMax: 0.05, profileMinMicron: 40, profileMaxMicron: 90 },
  ),
  'Staithe Chandlery',
);

export const primer: SheetBody = {
  ...kit,
  name: 'Hawser epoxy primer',
  code: 'HW-1',
  kind: 'primer',
  solids: 0.58,
  dftMicron: 60,
  dftMaxMicron: 125,
  holdingMonths: 6,
  overcoat: [overcoat('any', at(8, 4, 2.5), at(120, 72, 36))],
  packs: tins([1, 4100], [4, 14_200]),
  colours: [hue('red oxide', '#7d3b30'), hue('grey', '#8d9295')],
};

/** Every kind and chemistry of the trade, good enough to try every rule. The first nine are on the demo's boats. */
