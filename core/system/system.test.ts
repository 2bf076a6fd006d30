import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  applyMend,
  applyNamed,
  buildUpQuantities,
  checkBorder,
  checkBuildUp,
  departure,
  inSchool,
  keptFilms,
  overrideKey,
  schoolFigures,
  SQUARE_FOOT_M2,
  swapProduct,
  US_GALLON_L,
  MIL_MICRON,
  fitsExposure,
  type Layer,
  type SheetBody,
  type SheetLayer,
  type SheetRevision,
} from '../index';
import { coat, sheets } from './sheets.fixture';

let serial = 0;
const newId = () => `n${(serial += 1)}`;
const layer = (sheet: SheetBody, more: Partial<Layer> = {}): SheetLayer => ({
  id: newId(),
  sheetRevisionId: sheet.name,
  dftMicron: sheet.dftMicron,
  method: 'roller',
  thinnerShare: 0,
  loss: 0.1,
  deadVolumeLPerM2: 0,
  colour: 'grey',
  colourHex: '#888888',
  sheet,
  ...more,
});
const revisions: SheetRevision[] = Object.values(sheets).map((body) => ({
  id: body.name,
  sheetId: body.name,
  revision: 1,
  body,
  createdAt: 0,
}));

describe('quantities, worked by hand with the standard coverage arithmetic', () => {
  it('a three-coat steel system in SI: 32 m², blasted 75 µm, airless', () => {
    // Dead volume of a 75 µm profile 0.05 L/m² [M, long-used coating-guide table].
    // Primer 50 µm, 60 % solids, 25 % loss: 32 · (0.050 + 0.05) / 0.60 / 0.75 = 7.1111 L
    // Barrier 125 µm, 75 % solids:          32 · 0.125 / 0.75 / 0.75         = 7.1111 L
    // Topcoat 40 µm, 50 % solids, 5 % thinner: 32 · 0.040 / 0.50 / 0.75      = 3.4133 L, 0.1707 L of thinner
    const spray = { method: 'spray', loss: 0.25 } as const;
    const q = buildUpQuantities({
      areaM2: 32,
      areaShare: 0.1,
      layers: [
        layer({ ...sheets.epoxyPrimer, solids: 0.6 }, { ...spray, dftMicron: 50, deadVolumeLPerM2: 0.05 }),
        layer({ ...sheets.barrier, solids: 0.75 }, { ...spray, dftMicron: 125 }),
        layer({ ...sheets.twoPackTopcoat, solids: 0.5 }, { ...spray, dftMicron: 40, thinnerShare: 0.05 }),
      ],
    });
    expect(q.layers.map((l) => l.litres.likely)).toEqual([
      expect.closeTo(7.1111, 4),
      expect.closeTo(7.1111, 4),
      expect.closeTo(3.4133, 4),
    ]);
    expect(q.total.litres.likely).toBeCloseTo(17.6356, 4);
    expect(q.total.litres.low).toBeCloseTo(17.6356 * 0.9, 4);
    expect(q.total.litres.high).toBeCloseTo(17.6356 * 1.1, 4);
    expect(q.total.thinnerL).toBeCloseTo(0.17067, 5);
    // WFT = DFT · (1 + t) / VS: 40 · 1.05 / 0.5 = 84 µm [P: standard coating arithmetic]
    expect(q.layers[2]!.wetMicron).toBeCloseTo(84, 9);
    expect(q.total.dftMicron).toBe(215);
  });

  it('a barrier and antifouling GRP system in US units: 300 ft², 10 mil of barrier in four coats, two of antifouling at 2 mil', () => {
    // 1604 ft²/gal at 1 mil and 100 % [P: 231 in³ a US gallon]. Barrier 2.5 mil at 52 %: 1604.17 · 0.52 / 2.5 = 333.67 ft²/gal;
    // 300 / 333.67 / 0.9 = 0.99902 gal a coat, four 3.9961 gal. Antifouling 2 mil at 48 %: 385.0 ft²/gal; 0.86580 gal a coat, two 1.7316.
    const gallons = (litres: number) => litres / US_GALLON_L;
    const barrier = { ...sheets.barrier, solids: 0.52 };
    const bottom = { ...sheets.copper, solids: 0.48 };
    const q = buildUpQuantities({
      areaM2: 300 * SQUARE_FOOT_M2,
      areaShare: 0.15,
      layers: [
        ...Array.from({ length: 4 }, () => layer(barrier, { dftMicron: 2.5 * MIL_MICRON })),
        layer(bottom, { dftMicron: 2 * MIL_MICRON }),
        layer(bottom, { dftMicron: 2 * MIL_MICRON }),
      ],
    });
    expect(gallons(q.products[0]!.litres.likely)).toBeCloseTo(3.9961, 3);
    expect(gallons(q.products[1]!.litres.likely)).toBeCloseTo(1.7316, 3);
    expect(q.total.dftMicron / MIL_MICRON).toBeCloseTo(14, 9);
    // 3 : 1 by volume.
    expect(gallons(q.products[0]!.parts[0]!.litres)).toBeCloseTo(3.9961 * 0.75, 3);
    expect(gallons(q.products[0]!.parts[1]!.litres)).toBeCloseTo(3.9961 * 0.25, 3);
  });

  it('bare timber soaks up a quarter more, a stripe coat takes a tenth [CP; M]', () => {
    const plain = buildUpQuantities({ areaM2: 10, areaShare: 0, layers: [layer(sheets.sealer)] }).total.litres.likely;
    expect(
      buildUpQuantities({ areaM2: 10, areaShare: 0, layers: [layer(sheets.sealer, { absorption: 0.25 })] }).total.litres
        .likely,
    ).toBeCloseTo(plain * 1.25, 9);
    expect(
      buildUpQuantities({ areaM2: 10, areaShare: 0, layers: [layer(sheets.sealer, { stripe: true })] }).total.litres
        .likely,
    ).toBeCloseTo(plain * 1.1, 9);
  });

  it('more area never needs less, parts keep their ratio, ranges hold the likely figure', () => {
    const layers = [layer(sheets.barrier), layer(sheets.barrier, { thinnerShare: 0.05 }), layer(sheets.copper)];
    fc.assert(
      fc.property(
        fc.double({ min: 0, max: 300, noNaN: true }),
        fc.double({ min: 0, max: 100, noNaN: true }),
        fc.double({ min: 0, max: 0.5, noNaN: true }),
        (areaM2, more, areaShare) => {
          const q = buildUpQuantities({ areaM2, areaShare, layers });
          expect(
            buildUpQuantities({ areaM2: areaM2 + more, areaShare, layers }).total.litres.likely,
          ).toBeGreaterThanOrEqual(q.total.litres.likely);
          expect(q.total.litres.low).toBeLessThanOrEqual(q.total.litres.likely);
          expect(q.total.litres.high).toBeGreaterThanOrEqual(q.total.litres.likely);
          const [base, hardener] = q.products[0]!.parts;
          expect(base!.litres).toBeCloseTo(3 * hardener!.litres, 9);
        },
      ),
    );
  });

  it('abrading takes film off the coat beneath: a third to level, 7.5 µm for bond, 5 for nibs [M]', () => {
    const over = (abradeFor: Layer['abradeFor']) =>
      keptFilms([coat('barrier', { dftMicron: 90 }), coat('barrier', { dftMicron: 90, prep: 'abrade', abradeFor })]);
    expect(over('level')).toEqual([60, 90]);
    expect(over('bond')).toEqual([82.5, 90]);
    expect(over('nibs')).toEqual([85, 90]);
    expect(keptFilms([coat('barrier', { dftMicron: 4 }), coat('barrier', { prep: 'abrade' })])[0]).toBe(0);
  });
});

describe('mending', () => {
  const check = (layers: Layer[], more: object = {}) =>
    checkBuildUp({
      substrate: 'laminate',
      exposure: 'immersed',
      layers: layers.map((l) => ({ ...l, sheet: revisions.find((r) => r.id === l.sheetRevisionId)!.body })),
      ...more,
    });
  const mended = (layers: Layer[], rule: string, way = 0, more: object = {}) => {
    const finding = check(layers, more).find((f) => f.rule === rule)!;
    return applyMend({ layers, mend: finding.mends[way]!, sheets: revisions, newId });
  };
  const stack = () => [layer(sheets.barrier), layer(sheets.barrier), layer(sheets.barrier), layer(sheets.copper)];

  it('every way out of antifouling on cured epoxy takes the finding away', () => {
    for (const way of [0, 1, 2]) {
      const result = mended(stack(), 'antifoulingOnCuredEpoxy', way);
      if (!('layers' in result)) throw new Error(result.problem);
      expect(check(result.layers).some((f) => f.rule === 'antifoulingOnCuredEpoxy')).toBe(false);
    }
    const tied = mended(stack(), 'antifoulingOnCuredEpoxy', 1);
    expect('layers' in tied && tied.layers.map((l) => l.sheetRevisionId)).toEqual([
      'Barrier',
      'Barrier',
      'Barrier',
      'Tie coat',
      'Copper hard',
    ]);
  });

  it.each([
    ['totalBelowTarget', [layer(sheets.barrier)], {}],
    ['filmTooThick', [layer(sheets.barrier, { dftMicron: 300 })], {}],
    ['tooMuchThinner', [layer(sheets.barrier, { thinnerShare: 0.3 })], {}],
    ['topcoatBelowWater', [layer(sheets.barrier), layer(sheets.enamel)], {}],
    ['copperOnMetal', [layer(sheets.barrier), layer(sheets.copper)], { substrate: 'aluminium' }],
    ['hardOverAblative', [layer(sheets.ablative), layer(sheets.copper)], {}],
    ['stripeOnEdges', [layer(sheets.barrier)], { substrate: 'steel' }],
    ['primerOnBareMetal', [layer(sheets.tieCoat)], { substrate: 'steel' }],
    ['firstCoatSoaksIn', [layer(sheets.sealer)], { substrate: 'timber' }],
    ['bareToTheSun', [layer(sheets.barrier)], { exposure: 'weather' }],
    ['drinkingWater', [layer(sheets.barrier)], { exposure: 'tank', holds: 'water' }],
    ['strongOverOnePack', [layer(sheets.barrier)], { existing: 'onePack' }],
  ] as const)('one click mends %s', (rule, layers, more) => {
    let current: Layer[] = [...layers];
    for (let n = 0; n < 4 && check(current, more).some((f) => f.rule === rule); n += 1) {
      const result = mended(current, rule, 0, more);
      if (!('layers' in result)) throw new Error(result.problem);
      current = result.layers;
    }
    expect(check(current, more).some((f) => f.rule === rule)).toBe(false);
  });

  it('says what is missing where no such product is there', () => {
    expect(
      applyMend({
        layers: [],
        mend: { kind: 'insert', at: 0, want: { sheetKind: 'tieCoat' }, words: '' },
        sheets: [],
        newId,
      }),
    ).toEqual({ problem: expect.stringContaining('No sheet of a tie coat') as string });
  });

  it('a reason holds for its pair of coats and falls with another product', () => {
    const layers = stack();
    const finding = check(layers).find((f) => f.rule === 'antifoulingOnCuredEpoxy')!;
    const key = overrideKey(finding, layers);
    expect(
      overrideKey(
        finding,
        layers.map((l) => ({ ...l, dftMicron: 40 })),
      ),
    ).toBe(key);
    expect(
      overrideKey(
        finding,
        layers.map((l, i) => (i === 3 ? { ...l, sheetRevisionId: 'Copper ablative' } : l)),
      ),
    ).not.toBe(key);
    expect(overrideKey({ rule: 'x', upper: 0, lower: 'substrate' }, layers)).toContain(':substrate');
  });
});

describe('schools', () => {
  const layers = [layer(sheets.barrier), layer(sheets.barrier), layer(sheets.barrier), layer(sheets.copper)];
  it('chemical stays in the window, mechanical cures and abrades', () => {
    expect(inSchool(layers, 'chemical').map((l) => l.prep)).toEqual([
      undefined,
      'tackWindow',
      'tackWindow',
      'tackWindow',
    ]);
    expect(inSchool(layers, 'mechanical').map((l) => [l.prep, l.grit])).toEqual([
      [undefined, undefined],
      ['abrade', 120],
      ['abrade', 120],
      ['abrade', 120],
    ]);
    expect(
      inSchool([layer({ ...sheets.barrier, neverAbrade: true }), layer(sheets.barrier)], 'mechanical')[1]?.prep,
    ).toBeUndefined();
  });
  it('by hand, 10 m² rolled at 20 °C: 1 h a coat, 5 h between coats against 16 h to sand', () => {
    const area = { areaM2: 10, areaShare: 0, tempC: 20 };
    const chemical = schoolFigures({ ...area, layers: inSchool(layers, 'chemical') });
    // Window at 20 °C: tack limit 24 h from the first panel, less the hour to put it on, less the shortest 5 h.
    expect(chemical.narrowestWindowH).toBeCloseTo(18, 9);
    // Forty hours of painting leave none.
    expect(schoolFigures({ ...area, areaM2: 400, layers: inSchool(layers, 'chemical') }).narrowestWindowH).toBe(0);
    // Below its lowest cure temperature the last coat never meets the water.
    const cold = layers.map((l) => ({ ...l, sheet: { ...l.sheet, minCureC: 12 } }));
    expect(schoolFigures({ ...area, tempC: 10, layers: inSchool(cold, 'chemical') }).days).toBeNull();
    // 0–1, wait 5 → 6–7, wait 5 → 12, next morning 24–25, wait 5 → 30–31, and 72 h to the water: 103 h.
    expect(chemical.days).toBeCloseTo((31 + 72) / 24, 9);
    expect(chemical.abradeH).toBe(0);
    const mechanical = schoolFigures({ ...area, layers: inSchool(layers, 'mechanical') });
    expect(mechanical.narrowestWindowH).toBeNull();
    expect(mechanical.abradeH).toBeCloseTo((3 * 10) / 6, 9);
    expect(mechanical.days!).toBeGreaterThan(chemical.days!);
    expect(mechanical.keptMicron).toBeCloseTo(chemical.keptMicron - 3 * 7.5, 9);
  });
  it('names the coat whose sheet gives no time', () => {
    expect(
      schoolFigures({
        areaM2: 5,
        areaShare: 0,
        tempC: 15,
        layers: [layer({ ...sheets.barrier, overcoat: [] }), layer(sheets.copper)],
      }),
    ).toMatchObject({ days: null, without: ['Barrier'] });
  });
});

describe('named build-ups', () => {
  const named = [layer(sheets.barrier), layer(sheets.copper)];
  const sheetOf = (revisionId: string) => revisionId.replace(/@.*/, '');
  it('tell a zone that follows from one that has departed, and in what', () => {
    const own = named.map((l) => ({ ...l, id: newId(), colour: 'white' }));
    expect(departure({ named, layers: own, sheetOf })).toEqual({ follows: true, differences: [] });
    expect(
      departure({ named, layers: own.map((l) => ({ ...l, sheetRevisionId: `${l.sheetRevisionId}@2` })), sheetOf })
        .follows,
    ).toBe(true);
    expect(departure({ named, layers: [{ ...own[0]!, dftMicron: 120 }], sheetOf }).differences).toEqual([
      '1 coat fewer',
      'coat 1 is thicker',
    ]);
    expect(
      departure({ named, layers: [own[0]!, { ...own[1]!, sheetRevisionId: 'Other' }, own[1]!], sheetOf }).differences,
    ).toEqual(['1 coat more', 'coat 2 is another product']);
    expect(departure({ named, layers: [own[0]!, { ...own[1]!, prep: 'abrade' }], sheetOf }).differences).toEqual([
      'coat 2 is put on otherwise',
    ]);
  });
  it('go on a zone without touching what is on it', () => {
    const own = layer(sheets.barrier);
    const options = { named, current: [own], sheetOf, newId };
    expect(applyNamed({ ...options, isOn: (id) => id === own.id })?.map((l) => l.id)[0]).toBe(own.id);
    expect(applyNamed({ ...options, current: [layer(sheets.enamel)], isOn: () => true })).toBeNull();
    expect(applyNamed({ ...options, newId: undefined, isOn: () => false })).toEqual(named);
    expect(applyNamed({ ...options, isOn: () => false })?.some((l) => named.some((n) => n.id === l.id))).toBe(false);
  });
  it('a product is swapped in coats that are not on yet', () => {
    const layers = [layer(sheets.barrier), layer(sheets.barrier)];
    const swapped = swapProduct({
      layers,
      isOn: (id) => id === layers[0]!.id,
      isFrom: (l) => l.sheetRevisionId === 'Barrier',
      to: (l) => ({ ...l, sheetRevisionId: 'Epoxy primer' }),
    });
    expect(swapped.map((l) => l.sheetRevisionId)).toEqual(['Barrier', 'Epoxy primer']);
    expect(swapped.map((l) => l.id)).toEqual(layers.map((l) => l.id));
  });
});

describe('borders', () => {
  const lower = {
    id: 'a',
    name: 'Underwater hull',
    exposure: 'immersed' as const,
    layers: [coat('barrier'), coat('copper')],
  };
  const upper = {
    id: 'b',
    name: 'Topsides',
    exposure: 'weather' as const,
    layers: [coat('epoxyPrimer'), coat('twoPackTopcoat')],
  };
  const border = {
    id: 'x',
    upperId: 'b',
    lowerId: 'a',
    rule: 'butt' as const,
    widthM: 0,
    epoxyRunsOn: true,
    handStripM: 0.2,
    note: '',
  };
  it('the epoxy runs on, an overlap has its width and its order', () => {
    expect(checkBorder({ border, upper, lower })).toEqual([]);
    expect(checkBorder({ border: { ...border, epoxyRunsOn: false }, upper, lower }).map((f) => f.rule)).toEqual([
      'epoxyBroken',
    ]);
    expect(checkBorder({ border: { ...border, rule: 'overlap' }, upper, lower }).map((f) => f.rule)).toEqual([
      'topcoatOverlaps',
      'borderWidth',
    ]);
    expect(
      checkBorder({ border: { ...border, epoxyRunsOn: false }, upper: { ...upper, layers: [coat('enamel')] }, lower }),
    ).toEqual([]);
  });
});

describe('what fits where', () => {
  it('antifouling under water, topcoat in the weather, nothing that must not be immersed below [common practice]', () => {
    const fitting = (exposure: Parameters<typeof fitsExposure>[1]) =>
      (['barrier', 'antifouling', 'topcoat', 'bilge', 'primer'] as const).filter((kind) =>
        fitsExposure({ kind }, exposure),
      );
    expect(fitting('immersed')).toEqual(['barrier', 'antifouling', 'primer']);
    expect(fitting('weather')).toEqual(['topcoat', 'primer']);
    expect(fitting('bilge')).toEqual(['barrier', 'bilge', 'primer']);
    expect(fitsExposure({ kind: 'primer', immersible: false }, 'immersed')).toBe(false);
    expect(fitsExposure({ kind: 'primer', immersible: false }, 'splash')).toBe(true);
  });
});
