import type { TimeTable } from '#core/cure/arrhenius';
import type { OvercoatTimes, SheetBody, SheetDetails } from '#core/sheet/sheet';

/** Made-up data sheets of made-up makers. Their figures are invented; follow the maker's sheet of your own paint. */

/** Times at 10, 20 and 30 °C. */
const at = (cold: number, mild: number, warm: number): TimeTable => [
  { tempC: 10, hours: cold },
  { tempC: 20, hours: mild },
  { tempC: 30, hours: warm },
];

const overcoat = (after: OvercoatTimes['after'], minimum: TimeTable, tackLimit: TimeTable | null, more: Partial<OvercoatTimes> = {}): OvercoatTimes => ({
  after,
  minimum,
  tackLimit,
  maximum: null,
  alwaysAbrade: false,
  ...more,
});

const epoxyLimits = { airMinC: 8, airMaxC: 35, surfaceMinC: 8, surfaceMaxC: 35, rhMax: 0.85, spreadMinC: 3 };
const onePackLimits = { airMinC: 5, airMaxC: 32, surfaceMinC: 5, surfaceMaxC: 35, rhMax: 0.85, spreadMinC: 3 };

const barrier: SheetBody = {
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
  overcoat: [
    overcoat('any', at(9, 5, 3), at(40, 24, 12)),
    overcoat('antifouling', at(6, 3.5, 2), at(12, 7, 4)),
  ],
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

const tieCoat: SheetBody = {
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

const antifouling: SheetBody = {
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

const copperFree: SheetBody = {
  ...antifouling,
  name: 'Dunlin copper-free',
  code: 'DN-C',
  solids: 0.44,
  colours: [{ name: 'black', hex: '#2b2e31' }],
  caution: 'Biocide: gloves and eye protection, catch every drip and scraping.',
};

const lightMetalPrimer: SheetBody = {
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

const topcoat: SheetBody = {
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

const sealer: SheetBody = {
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

const enamel: SheetBody = {
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
const bilge: SheetBody = {
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
  limits: { airMinC: null, airMaxC: null, surfaceMinC: null, surfaceMaxC: null, rhMax: null, spreadMinC: null },
  minCureC: null,
  packs: [{ name: '2.5 L tin', sizeL: 2.5, priceMinor: 6800 }],
  colours: [{ name: 'white', hex: '#f1efe9' }],
  caution: 'Bilge: force air in before and while you work, and have a second person outside.',
};

/** Base and hardener by their ratio to one. */
const two = (ratio: number, base: number, hardener: number): SheetBody['parts'] => [
  { name: 'Base', role: 'base', ratio, densityKgPerL: base },
  { name: 'Hardener', role: 'hardener', ratio: 1, densityKgPerL: hardener },
];
const tins = (...rows: [sizeL: number, priceMinor: number][]): SheetBody['packs'] => rows.map(([sizeL, priceMinor]) => ({ name: `${sizeL} L`, sizeL, priceMinor, supplier: 'Staithe Chandlery' }));
const hue = (name: string, hex: string) => ({ name, hex });
const shelf = { shelfClosedMonths: 24, shelfOpenMonths: 12 };

const epoxy: SheetDetails = {
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
const finish: SheetDetails = { chemistry: 'polyurethane', uvResistant: true, immersible: false, surfaceGrit: 320, gloss: 'gloss', hidingCoats: 2, isocyanate: true, shelfClosedMonths: 18, shelfOpenMonths: 4, methods: [{ method: 'roller', dftMaxMicron: 50 }, { method: 'brush', dftMaxMicron: 50 }, { method: 'spray', dftMaxMicron: 60 }] };
const bottom: SheetDetails = { chemistry: 'vinyl', strongSolvent: true, copper: true, biocide: true, uvResistant: false, immersible: true, antifouling: { type: 'hard', waters: ['salt', 'tropical'], years: 2, dryOutDays: 60 }, immersionMax: at(720, 720, 480), methods: [{ method: 'roller' }, { method: 'brush' }, { method: 'spray' }], shelfClosedMonths: 36, shelfOpenMonths: 12 };
const oil: SheetDetails = { chemistry: 'alkyd', strongSolvent: false, uvResistant: true, immersible: false, gloss: 'gloss', hidingCoats: 2, surfaceGrit: 320, ...shelf, methods: [{ method: 'brush' }, { method: 'roller' }] };

const withFamily = (body: SheetBody, family: NonNullable<SheetBody['thinner']>['family'], details: SheetDetails): SheetBody => ({ ...body, ...details, thinner: body.thinner && { ...body.thinner, family } });

/** One-part tins without induction or pot life. */
const onePack = { inductionMin: null, potLife: null, minCureC: null, limits: onePackLimits } as const;

/** Every pack has someone who sells it. */
const soldBy = (body: SheetBody, supplier: string): SheetBody => ({ ...body, packs: body.packs.map((p) => ({ supplier, ...p })) });

const copperHard = soldBy(withFamily(antifouling, 'aromatic', bottom), 'Staithe Chandlery');
const gloss = soldBy(withFamily(topcoat, 'polyurethane', finish), 'Osier & Lamp depot');
const brushing = soldBy(withFamily(enamel, 'whiteSpirit', oil), 'Osier & Lamp depot');
const kit = soldBy(
  withFamily(
    {
      ...barrier,
      packs: [...barrier.packs, { name: 'hardener, 0.25 L', sizeL: 0.25, priceMinor: 1900, part: 'Hardener' }, { name: 'base, 0.75 L', sizeL: 0.75, priceMinor: 3300, part: 'Base' }],
    },
    'epoxy',
    { ...epoxy, handle: at(48, 24, 14), moistureMax: 0.05, profileMinMicron: 40, profileMaxMicron: 90 },
  ),
  'Staithe Chandlery',
);

const primer: SheetBody = { ...kit, name: 'Hawser epoxy primer', code: 'HW-1', kind: 'primer', solids: 0.58, dftMicron: 60, dftMaxMicron: 125, holdingMonths: 6, overcoat: [overcoat('any', at(8, 4, 2.5), at(120, 72, 36))], packs: tins([1, 4100], [4, 14_200]), colours: [hue('red oxide', '#7d3b30'), hue('grey', '#8d9295')] };

/** Every kind and chemistry of the trade, good enough to try every rule. The first nine are on the demo's boats. */
export const LIBRARY = {
  barrier: kit,
  tieCoat: soldBy(withFamily(tieCoat, 'epoxy', epoxy), 'Staithe Chandlery'),
  antifouling: copperHard,
  copperFree: soldBy(withFamily(copperFree, 'aromatic', { ...bottom, copper: false }), 'Staithe Chandlery'),
  lightMetalPrimer: soldBy(withFamily(lightMetalPrimer, 'epoxy', { ...epoxy, holdingMonths: 2 }), 'Staithe Chandlery'),
  topcoat: gloss,
  sealer: soldBy({ ...sealer, ...epoxy, moistureMax: 0.16 }, 'Staithe Chandlery'),
  enamel: brushing,
  bilge,
  epoxyPrimer: primer,
  surfacer: { ...primer, name: 'Hawser sprayed surfacer', code: 'HW-S', kind: 'filler', solids: 0.65, dftMicron: 250, dftMaxMicron: 500, holdingMonths: undefined, methods: [{ method: 'spray', dftMicron: 250, dftMaxMicron: 500 }], sandable: at(96, 60, 36), colours: [hue('pale yellow', '#dccb8a')] },
  fairing: { ...primer, name: 'Cobble epoxy fairing filler', code: 'CB-F', kind: 'filler', parts: two(1, 0.85, 0.83), solids: 1, dftMicron: 1000, dftMaxMicron: 5000, thinner: null, holdingMonths: undefined, methods: [{ method: 'brush', dftMaxMicron: 5000 }], overcoat: [overcoat('any', at(24, 14, 8), null, { alwaysAbrade: true })], packs: tins([1.5, 5200]), colours: [hue('buff', '#cdb48a')] },
  polyesterFiller: { ...primer, name: 'Slipway polyester filler', code: 'SW-P', kind: 'filler', chemistry: 'polyester', parts: [{ name: 'Paste', role: 'base', ratio: 98, densityKgPerL: 1.75 }, { name: 'Catalyst', role: 'hardener', ratio: 2, densityKgPerL: 1.1 }], ratioBasis: 'mass', solids: 1, dftMicron: 1000, dftMaxMicron: 4000, thinner: null, holdingMonths: undefined, methods: [{ method: 'brush', dftMaxMicron: 4000 }], potLife: at(0.3, 0.15, 0.08), sandable: at(1.2, 0.6, 0.4), overcoat: [overcoat('any', at(2, 1, 0.7), null, { alwaysAbrade: true })], packs: tins([1, 2400]), colours: [hue('grey green', '#9aa593')], caution: 'Styrene: air, eye protection. The catalyst burns eyes; never more of it for the cold.' },
  undercoat: { ...brushing, name: 'Wicket undercoat', code: 'WK-U', kind: 'undercoat', gloss: 'matt', uvResistant: false, surfaceGrit: 220, hidingCoats: 1, dftMicron: 40, dftMaxMicron: 60, overcoat: [overcoat('any', at(24, 14, 10), at(168, 120, 96))], packs: tins([0.75, 1900], [2.5, 5200]), colours: [hue('white', '#eeece6'), hue('grey', '#a0a4a5')] },
  glossUndercoat: { ...gloss, name: 'Lantern undercoat', code: 'LN-U', kind: 'undercoat', gloss: 'matt', uvResistant: false, surfaceGrit: 220, hidingCoats: 1, dftMicron: 50, dftMaxMicron: 80, overcoat: [overcoat('any', at(16, 10, 6), at(72, 48, 24))], packs: tins([0.75, 5100], [2, 12_400]), colours: [hue('white', '#eeeae2')] },
  deckAcrylic: { ...brushing, ...onePack, name: 'Hedgerow water-borne deck paint', code: 'HR-D', chemistry: 'acrylic', thinner: { name: 'clean water', maxShare: 0.05, of: 'mixed', family: 'water' }, gloss: 'eggshell', surfaceGrit: 220, touchDry: at(3, 1.5, 1), overcoat: [overcoat('any', at(8, 4, 3), null)], packs: tins([0.75, 2600], [2.5, 7400]), colours: [hue('stone', '#c9c2b0'), hue('pale grey', '#c3c8ca')], caution: 'Do not let it freeze.' },
  nonSkid: { ...gloss, name: 'Teasel non-skid', code: 'TS-2', kind: 'nonSkid', gloss: 'matt', solids: 0.6, dftMicron: 80, dftMaxMicron: 200, methods: [{ method: 'roller', dftMaxMicron: 200 }], overcoat: [overcoat('any', at(20, 12, 8), at(72, 48, 24))], packs: tins([1, 6200]), colours: [hue('sand', '#cfc2a2'), hue('pale grey', '#bfc4c6')] },
  ablative: { ...copperHard, name: 'Kelpward wearing antifouling', code: 'KW-A', antifouling: { type: 'ablative', waters: ['salt', 'slimeProne'], years: 1, dryOutDays: 30 }, colours: [hue('blue', '#2d5076'), hue('black', '#2a2c2f')], packs: tins([0.75, 3900], [2.5, 11_000], [5, 20_400]) },
  hybrid: { ...copperHard, name: 'Kelpward slow-wearing antifouling', code: 'KW-Y', antifouling: { type: 'hybrid', waters: ['salt', 'fresh', 'slimeProne'], years: 2, dryOutDays: 90 }, colours: [hue('navy', '#22324d'), hue('green', '#2e5b45')], packs: tins([0.75, 4700], [2.5, 13_300]) },
  freshwater: { ...copperHard, name: 'Dunlin fresh-water hard', code: 'DN-F', copper: false, antifouling: { type: 'hard', waters: ['fresh'], years: 2, dryOutDays: 200 }, colours: [hue('white', '#e6e6e2'), hue('blue', '#39597e')], packs: tins([0.75, 3600]) },
  release: { ...copperHard, name: 'Glasswort release coat', code: 'GW-R', chemistry: 'silicone', copper: false, biocide: false, strongSolvent: false, neverAbrade: true, antifouling: { type: 'hard', waters: ['salt', 'fresh', 'tropical'], years: 3 }, dftMicron: 120, dftMaxMicron: 180, methods: [{ method: 'roller', dftMaxMicron: 180 }], packs: tins([1, 11_500]), colours: [hue('grey', '#7d878e')], caution: 'Nothing else holds on it: keep it and its tools away from every other paint.' },
  vinylTie: { ...copperHard, ...onePack, name: 'Fettle vinyl tie coat', code: 'FT-V', kind: 'tieCoat', copper: false, biocide: false, antifouling: undefined, strongSolvent: false, dftMicron: 40, dftMaxMicron: 60, overcoat: [overcoat('any', at(5, 3, 2), null)], packs: tins([0.75, 2700], [2.5, 7600]), colours: [hue('silver', '#aab0b4')], caution: 'Solvent vapour: air, no flame.' },
  rubberPrimer: { ...copperHard, ...onePack, name: 'Chine chlorinated-rubber primer', code: 'CH-R', kind: 'primer', chemistry: 'chlorinatedRubber', copper: false, biocide: false, antifouling: undefined, dftMicron: 50, dftMaxMicron: 80, overcoat: [overcoat('any', at(8, 5, 3), null)], packs: tins([2.5, 6900]), colours: [hue('aluminium', '#a9adaf')], caution: 'Solvent vapour: air, no flame.' },
  converter: { ...brushing, ...onePack, name: 'Tarn rust converter', code: 'TN-C', kind: 'converter', chemistry: 'acid', thinner: null, gloss: undefined, hidingCoats: undefined, uvResistant: false, solids: 0.3, dftMicron: 20, dftMaxMicron: 40, touchDry: at(2, 1, 0.5), overcoat: [overcoat('any', at(36, 24, 16), null)], packs: tins([0.5, 1600], [1, 2700]), colours: [hue('black', '#25262a')], shelfClosedMonths: 12, shelfOpenMonths: 3, caution: 'Acid: gloves and eye protection. Black is converted, red is not: look at it next day.' },
  etch: { ...primer, name: 'Tarn etch primer', code: 'TN-E', chemistry: 'acid', thinner: null, solids: 0.12, dftMicron: 8, dftMaxMicron: 12, holdingMonths: undefined, methods: [{ method: 'brush' }, { method: 'spray' }], overcoat: [overcoat('any', at(4, 2, 1), at(48, 24, 24))], packs: tins([1, 3900]), colours: [hue('yellow', '#b8a64a')] },
  tankLining: { ...kit, name: 'Clearwell tank lining', code: 'CW-9', potable: true, solids: 1, dftMicron: 150, dftMaxMicron: 300, thinner: null, methods: [{ method: 'brush', dftMaxMicron: 200 }, { method: 'roller', dftMaxMicron: 200 }], packs: tins([1, 7800], [4, 27_500]), colours: [hue('white', '#e9e8e2'), hue('cream', '#e6dcc0')], caution: 'Tanks are confined spaces: forced air, a second person outside. Certified only as its certificate says; wash and soak before use.' },
  bilgeEpoxy: { ...kit, name: 'Millpond two-pack bilge', code: 'MP-2', kind: 'bilge', solids: 0.62, dftMicron: 75, dftMaxMicron: 150, packs: tins([1, 4300], [4, 14_900]), colours: [hue('white', '#f0eee8'), hue('grey', '#b8bcbe')], caution: 'Bilge: force air in before and while you work, and have a second person outside.' },
  touchUp: { ...brushing, ...onePack, name: 'Lantern touch-up can', code: 'LN-T', chemistry: 'acrylic', strongSolvent: true, soldIn: 'aerosol', canCoversM2: 1.2, thinner: null, solids: 0.14, dftMicron: 15, dftMaxMicron: 25, methods: [{ method: 'spray', dftMicron: 15, dftMaxMicron: 25 }], overcoat: [overcoat('any', at(1, 0.5, 0.3), null)], packs: [{ name: '0.4 L can', sizeL: 0.4, priceMinor: 1350, supplier: 'Osier & Lamp depot' }], colours: [hue('harbour blue', '#2f5d86'), hue('cream', '#efe3c2')], caution: 'Spray only with air around you; no flame.' },
  wetRustSealer: { ...kit, name: 'Rushlight thin resin', code: 'RL-9', kind: 'sealer', solids: 1, dftMicron: 60, dftMaxMicron: 100, thinner: null, parts: two(2, 1.08, 0.97), potLife: at(1.2, 0.6, 0.3), packs: tins([0.75, 4600], [2.25, 11_900]), colours: [hue('clear', '#c5a873')] },
  metalPrimer: { ...brushing, ...onePack, name: 'Wicket metal primer', code: 'WK-M', kind: 'primer', gloss: 'matt', uvResistant: false, hidingCoats: undefined, dftMicron: 40, dftMaxMicron: 60, overcoat: [overcoat('any', at(24, 12, 8), null)], packs: tins([0.75, 2100], [2.5, 5700]), colours: [hue('red oxide', '#83402f')] },
} satisfies Record<string, SheetBody>;

export type LibrarySheet = keyof typeof LIBRARY;
export const libraryBody = (key: LibrarySheet): SheetBody => LIBRARY[key];
