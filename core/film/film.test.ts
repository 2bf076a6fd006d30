import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  coatsForFilm,
  deadVolumeOfProfile,
  dryFilmMicron,
  layerQuantities,
  litresNeeded,
  litresPerM2,
  MIL_MICRON,
  spreadingRateM2PerL,
  SQUARE_FOOT_M2,
  US_GALLON_L,
  USUAL_LOSS,
  wetFilmMicron,
  type Layer,
  type SheetBody,
} from '../index';
import { sheet } from '../sheet/example.fixture';

describe('coverage', () => {
  it('one litre at 100 % solids covers 1000 m² at 1 µm, from the definition of the litre [P: SI]', () => {
    expect(spreadingRateM2PerL({ solids: 1, dftMicron: 1 })).toBeCloseTo(1e-3 / 1e-6, 9);
  });
  it('one US gallon at 100 % solids covers 1604 ft² at 1 mil, from 231 in³ [P: NIST Handbook 44]', () => {
    const perGallon = (spreadingRateM2PerL({ solids: 1, dftMicron: MIL_MICRON }) * US_GALLON_L) / SQUARE_FOOT_M2;
    expect(perGallon).toBeCloseTo(231 / 0.001 / 144, 6);
    expect(Math.round(perGallon)).toBe(1604);
  });
  it('52 % solids, 120 µm dry is 231 µm wet [P: standard coating arithmetic, worked by hand: 120 / 0.52]', () => {
    expect(wetFilmMicron({ dftMicron: 120, solids: 0.52, thinner: 0 })).toBeCloseTo(230.77, 2);
    expect(wetFilmMicron({ dftMicron: 120, solids: 0.52, thinner: 0.1 })).toBeCloseTo(253.85, 2);
  });
  it('litres by hand: 24 m², 100 µm, 45 % solids, 10 % loss, 0.04 L/m² of profile', () => {
    // 24 · (0.100 + 0.04) = 3.36 L dry; / 0.45 = 7.467 L; / 0.9 = 8.296 L
    expect(litresNeeded({ areaM2: 24, dftMicron: 100, solids: 0.45, loss: 0.1, deadVolumeLPerM2: 0.04 })).toBeCloseTo(
      8.2963,
      4,
    );
    // A 75 µm profile at 50 % solids costs 0.10 L/m² [M, long-used coating-guide table]
    const plain = litresNeeded({ areaM2: 1, dftMicron: 75, solids: 0.5 });
    expect(litresNeeded({ areaM2: 1, dftMicron: 75, solids: 0.5, deadVolumeLPerM2: 0.05 }) - plain).toBeCloseTo(0.1, 9);
  });
  it('wet and dry are each other’s inverse', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 1, max: 1000, noNaN: true }),
        fc.double({ min: 0.05, max: 1, noNaN: true }),
        fc.double({ min: 0, max: 0.5, noNaN: true }),
        (dft, solids, thinner) => {
          expect(
            dryFilmMicron({ wetMicron: wetFilmMicron({ dftMicron: dft, solids, thinner }), solids, thinner }),
          ).toBeCloseTo(dft, 6);
        },
      ),
    );
  });
  it.each([
    [() => spreadingRateM2PerL({ solids: 0, dftMicron: 100 }), /Volume solids must be more than zero/],
    [() => spreadingRateM2PerL({ solids: 1.5, dftMicron: 100 }), /cannot be more than 100/],
    [() => wetFilmMicron({ dftMicron: -1, solids: 0.5 }), /Dry film/],
    [() => wetFilmMicron({ dftMicron: 100, solids: 0.5, thinner: -0.1 }), /Thinner/],
    [() => litresNeeded({ areaM2: Number.NaN, dftMicron: 100, solids: 0.5 }), /Area must be a number/],
    [() => litresNeeded({ areaM2: 10, dftMicron: 100, solids: 0.5, loss: 1 }), /Loss must be less than 100/],
    [() => litresNeeded({ areaM2: 10, dftMicron: 100, solids: 0.5, deadVolumeLPerM2: -1 }), /Dead volume/],
  ])('refuses impossible input %#', (run, message) => {
    expect(run).toThrow(RangeError);
    expect(run).toThrow(message);
  });
});

const layer: Layer = {
  id: 'l',
  sheetRevisionId: 'r',
  dftMicron: 100,
  method: 'roller',
  thinnerShare: 0.05,
  loss: 0.1,
  deadVolumeLPerM2: 0,
  colour: 'grey',
  colourHex: '#888888',
};

describe('what a coat takes', () => {
  it('splits litres into parts and thinner, and carries the area’s ± along', () => {
    const q = layerQuantities({ areaM2: 20, areaShare: 0.15, layer, sheet });
    expect(q.litres.likely).toBeCloseTo((20 * 0.1) / 0.5 / 0.9, 9);
    expect(q.litres.low / q.litres.likely).toBeCloseTo(0.85, 9);
    expect(q.litres.high / q.litres.likely).toBeCloseTo(1.15, 9);
    expect(q.parts.map((p) => p.name)).toEqual(['Base', 'Hardener']);
    expect(q.parts[0]!.litres / q.parts[1]!.litres).toBeCloseTo(3, 9);
    expect(q.thinnerL).toBeCloseTo(q.litres.likely * 0.05, 9);
    expect(q.wetMicron).toBeCloseTo((100 * 1.05) / 0.5, 9);
  });
  it('turns thinner told as a share of the base into one of the mix', () => {
    const ofBase: SheetBody = { ...sheet, thinner: { name: 'T', maxShare: 0.1, of: 'base' } };
    const q = layerQuantities({ areaM2: 20, areaShare: 0, layer: { ...layer, thinnerShare: 0.08 }, sheet: ofBase });
    expect(q.thinnerL).toBeCloseTo(q.parts[0]!.litres * 0.08, 9);
  });
});

describe('the dead volume of a blast profile', () => {
  it.each([
    // From memory: a table long used in coating guides. 30 µm → 0.02 L/m², 60 → 0.04, 75 → 0.05, 105 → 0.07.
    [0, 0],
    [30, 0.02],
    [60, 0.04],
    [75, 0.05],
    [105, 0.07],
  ])('%d µm takes %d L/m²', (profileMicron, litres) => {
    expect(deadVolumeOfProfile({ profileMicron })).toBeCloseTo(litres, 9);
  });
  it('is about two thirds of the height everywhere, and never falls', () => {
    let before = -1;
    for (let profileMicron = 0; profileMicron <= 300; profileMicron += 5) {
      const litres = deadVolumeOfProfile({ profileMicron });
      expect(litres).toBeGreaterThan(before);
      if (profileMicron > 0) expect(litres / (profileMicron / 1000)).toBeCloseTo(2 / 3, 2);
      before = litres;
    }
    expect(() => deadVolumeOfProfile({ profileMicron: -1 })).toThrow(RangeError);
  });
  it('a 75 µm profile costs 0.10 L/m² of a paint of 50 % solids [M]', () => {
    const on = (deadVolumeLPerM2: number) =>
      litresNeeded({ areaM2: 1, dftMicron: 50, solids: 0.5, loss: 0, deadVolumeLPerM2 });
    expect(on(deadVolumeOfProfile({ profileMicron: 75 })) - on(0)).toBeCloseTo(0.1, 9);
  });
});

describe('coats for a film, and cans', () => {
  it('are whole: 300 µm at 75 a coat is 4, 301 is 5 [common practice: ceil(total / per coat)]', () => {
    expect(coatsForFilm({ totalMicron: 300, perCoatMicron: 75 })).toBe(4);
    expect(coatsForFilm({ totalMicron: 301, perCoatMicron: 75 })).toBe(5);
    // A sum of tenths is no reason for one more.
    expect(coatsForFilm({ totalMicron: 0.1 + 0.2, perCoatMicron: 0.1 })).toBe(3);
    expect(() => coatsForFilm({ totalMicron: 300, perCoatMicron: 0 })).toThrow(/film of a coat/);
  });
  it('a can of 400 mL that covers 1.2 m² once is 3 cans for 3 m², whatever its solids', () => {
    const can = {
      solids: 0.1,
      soldIn: 'aerosol' as const,
      canCoversM2: 1.2,
      packs: [{ name: 'can', sizeL: 0.4, priceMinor: null }],
    };
    const litres = litresPerM2({ layer: { dftMicron: 15, loss: 0.4, deadVolumeLPerM2: 0 }, sheet: can }) * 3;
    expect(litres / 0.4).toBeCloseTo(2.5, 9);
    // Without the figure of the can it is reckoned like a tin: 15 µm of 10 % solids, 40 % lost, is 0.25 L a m².
    const { canCoversM2: _, ...unsaid } = can;
    expect(litresPerM2({ layer: { dftMicron: 15, loss: 0.4, deadVolumeLPerM2: 0 }, sheet: unsaid })).toBeCloseTo(
      0.25,
      9,
    );
  });
  it('conventional spray loses more than airless [common practice]', () => {
    expect([USUAL_LOSS.brush, USUAL_LOSS.roller, USUAL_LOSS.spray, USUAL_LOSS.conventional]).toEqual([
      0.05, 0.1, 0.25, 0.4,
    ]);
  });
});
