import type { SheetBody } from '../model/sheet';

/** A made-up two-pack sheet for tests. */
export const sheet: SheetBody = {
  name: 'Example barrier',
  maker: 'Made up',
  code: 'EX-1',
  kind: 'barrier',
  quick: false,
  parts: [
    { name: 'Base', role: 'base', ratio: 3, densityKgPerL: 1.52 },
    { name: 'Hardener', role: 'hardener', ratio: 1, densityKgPerL: 1.01 },
  ],
  ratioBasis: 'volume',
  solids: 0.5,
  dftMicron: 100,
  dftMaxMicron: 200,
  thinner: { name: 'Thinner 7', maxShare: 0.1, of: 'mixed' },
  inductionMin: 15,
  potLife: [
    { tempC: 10, hours: 4 },
    { tempC: 20, hours: 2 },
    { tempC: 30, hours: 1 },
  ],
  touchDry: [
    { tempC: 10, hours: 6 },
    { tempC: 20, hours: 3 },
    { tempC: 30, hours: 1.5 },
  ],
  sandable: [{ tempC: 20, hours: 16 }],
  immersion: [{ tempC: 20, hours: 72 }],
  fullCure: [{ tempC: 20, hours: 168 }],
  overcoat: [
    {
      after: 'any',
      minimum: [
        { tempC: 10, hours: 10 },
        { tempC: 20, hours: 5 },
        { tempC: 30, hours: 3 },
      ],
      tackLimit: [
        { tempC: 10, hours: 48 },
        { tempC: 20, hours: 24 },
        { tempC: 30, hours: 12 },
      ],
      maximum: null,
      alwaysAbrade: false,
    },
  ],
  limits: { airMinC: 8, airMaxC: 35, surfaceMinC: 8, surfaceMaxC: 35, rhMax: 0.85, spreadMinC: 3 },
  minCureC: 5,
  packs: [{ name: '4 L kit', sizeL: 4, priceMinor: 12000 }],
  colours: [{ name: 'grey', hex: '#8a9094' }],
  caution: '',
};
