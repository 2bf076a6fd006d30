import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { num, blank, boat } from './hull.fixture';
import {
  areaBy,
  areaFromGirths,
  areaFromOffsets,
  calibratedArea,
  calibratedShare,
  combineAreas,
  dennyMumfordM2,
  integrate,
  NO_MODEL,
  paintContradicts,
  shapeArea,
  slopes,
  spreadOf,
  strayGirths,
  sumShapes,
  zoneArea,
  type AreaRecord,
  type ShapeFigure,
} from '../index';

describe('rules of integration [P: any text of numerical methods]', () => {
  it('Simpson is exact on cubics', () => {
    fc.assert(
      fc.property(
        num(-3, 3),
        num(-3, 3),
        num(-3, 3),
        num(-3, 3),
        fc.integer({ min: 1, max: 6 }),
        (a, b, c, d, pairs) => {
          const x = Array.from({ length: 2 * pairs + 1 }, (_, i) => 1 + i * 0.5);
          const end = x[x.length - 1] as number;
          const whole = (t: number) => (a * t ** 4) / 4 + (b * t ** 3) / 3 + (c * t * t) / 2 + d * t;
          const found = integrate({ x, y: x.map((t) => a * t ** 3 + b * t * t + c * t + d) });
          expect(found.rule).toBe('simpson');
          expect(found.integral).toBeCloseTo(whole(end) - whole(1), 6);
        },
      ),
    );
  });
  it('an odd last interval takes the trapezoid, uneven stations take it throughout', () => {
    // By hand: Simpson over 0–2 of 0, 1, 4 is 8/3; trapezoid over 2–3 of 4, 9 is 6.5.
    expect(integrate({ x: [0, 1, 2, 3], y: [0, 1, 4, 9] })).toEqual({ integral: 8 / 3 + 6.5, rule: 'mixed' });
    expect(integrate({ x: [0, 1, 3], y: [0, 1, 9] })).toEqual({ integral: 0.5 + 10, rule: 'trapezoid' });
    expect(integrate({ x: [0, 2], y: [1, 3] })).toEqual({ integral: 4, rule: 'trapezoid' });
  });
  it('slopes are exact on parabolas, uneven stations and ends too', () => {
    const x = [0, 0.7, 1.1, 3, 3.5];
    slopes({ x, y: x.map((t) => 2 * t * t - 3 * t + 1) }).forEach((s, i) =>
      expect(s).toBeCloseTo(4 * (x[i] as number) - 3, 9),
    );
    expect(slopes({ x: [0, 2], y: [1, 5] })).toEqual([2, 2]);
  });
});

describe('girths', () => {
  it('a wedge by hand: the side runs at 3 in 4, so its skin is 5/4 as long', () => {
    const found = areaFromGirths({ stationsM: [0, 2, 4], halfGirthsM: [1, 1, 1], halfBreadthsM: [0, 1.5, 3] });
    expect(found.slopeFactor).toBeCloseTo(1.25, 9);
    expect(found.areaM2).toBeCloseTo(10, 9);
  });
  it.each([
    [[0, 2, 1], [1, 1, 1], undefined, /Station 3 comes before station 2/],
    [[0, 1, 1], [1, 1, 1], undefined, /Stations 2 and 3 are at the same place/],
    [[0, 1, 2], [1, Number.NaN, 1], undefined, /half-girth at station 2 is missing/],
    [[0, 1, 2], [1, 1], undefined, /half-girth at station 3 is missing/],
    [[0, 1], [1, 1, 1], undefined, /more figures than stations/],
    [[0, 1], [1, -1], undefined, /Half-girth 2 cannot be less than zero/],
    [[0, 1], [0, 0], undefined, /Every half-girth is zero/],
    [[0], [1], undefined, /At least two stations/],
    [[0, Number.NaN], [1, 1], undefined, /Station 2 has no position/],
    [[0, 1], [1, 1], [1, Number.NaN], /half-breadth at station 2 is missing/],
  ])('refuses %j %j', (stationsM, halfGirthsM, halfBreadthsM, message) => {
    const run = () => areaFromGirths({ stationsM, halfGirthsM, ...(halfBreadthsM ? { halfBreadthsM } : {}) });
    expect(run).toThrow(RangeError);
    expect(run).toThrow(message);
  });
  it('stations rounded as a tape is read are even: a sine within 0.2 % of its integral', () => {
    // 2·∫ sin(πx/L) dx = 4L/π; L = 7.3 m in eight parts of 0.9125 m, typed to the millimetre.
    const L = 7.3;
    const stationsM = Array.from({ length: 9 }, (_, i) => Number(((i * L) / 8).toFixed(3)));
    const found = areaFromGirths({ stationsM, halfGirthsM: stationsM.map((x) => Math.sin((Math.PI * x) / L)) });
    expect(found.rule).toBe('simpson');
    expect(found.areaM2 / ((4 * L) / Math.PI)).toBeCloseTo(1, 2);
  });
  it('the ± covers what few uneven stations and an end that is not taped leave out', () => {
    // A half ellipse of girths, 8 m long, 2 m deep: 2·(π/4)·8·2 = 25.13 m².
    const girth = (x: number) => 2 * Math.sqrt(Math.max(0, 1 - ((x - 4) / 4) ** 2));
    const true_ = (Math.PI / 2) * 8 * 2;
    const of = (xs: readonly number[], untaped: readonly number[] = []) =>
      areaBy(
        {
          kind: 'underwater',
          boat,
          area: {
            ...blank,
            girths: {
              even: false,
              stations: xs.map((xM, i) => ({
                xM,
                halfGirthM: untaped.includes(i) ? null : girth(xM),
                halfBreadthM: null,
              })),
            },
          },
        },
        'girths',
      );
    const uneven = of([0, 1.5, 4, 6.7, 8]);
    expect(Math.abs(uneven.areaM2 - true_) / true_).toBeLessThan(uneven.share);
    const short = of([0, 1.4, 2.9, 4, 5.2, 6.6, 8], [0, 6]);
    expect(Math.abs(short.areaM2 - true_) / true_).toBeLessThan(short.share);
    expect(short.share).toBeGreaterThan(of([0, 1.4, 2.9, 4, 5.2, 6.6, 8]).share);
  });
  it('points at the one girth that was misread, and says what was to be expected', () => {
    const stationsM = Array.from({ length: 11 }, (_, i) => i * 0.8);
    const fair = stationsM.map((x) => 1.9 - 0.09 * (x - 4) ** 2);
    expect(strayGirths({ stationsM, halfGirthsM: fair })).toEqual([]);
    const misread = fair.map((g, i) => (i === 4 ? g - 0.3 : g));
    const strays = strayGirths({ stationsM, halfGirthsM: misread });
    expect(strays.map((s) => s.index)).toEqual([4]);
    expect(strays[0]?.expectedM).toBeCloseTo(fair[4] as number, 2);
    expect(
      strayGirths({ stationsM, halfGirthsM: misread.map((g, i) => (i === 7 ? null : g)) }).map((s) => s.index),
    ).toEqual([4]);
  });
  it('a gap is passed over and said; without half-breadths the ± is wider', () => {
    const station = (xM: number, halfGirthM: number | null, halfBreadthM: number | null) => ({
      xM,
      halfGirthM,
      halfBreadthM,
    });
    const stations = [0, 1, 2, 3, 4, 5].map((x) => station(x, 1, 0.5));
    const area: AreaRecord = { ...blank, method: 'girths', girths: { even: true, stations } };
    expect(zoneArea({ kind: 'underwater', boat, area })).toMatchObject({ areaM2: expect.closeTo(10, 9), share: 0.04 });
    const gap = zoneArea({
      kind: 'underwater',
      boat,
      area: {
        ...area,
        girths: {
          even: true,
          stations: stations.map((s, i) => (i === 2 ? { ...s, halfGirthM: null } : { ...s, halfBreadthM: null })),
        },
      },
    });
    expect(gap).toMatchObject({ areaM2: expect.closeTo(10, 9), share: 0.06 });
    expect(gap.working.what).toContain('1 still to tape');
    expect(gap.working.mattersMost).toContain('Slope was not corrected');
    expect(() =>
      zoneArea({ kind: 'underwater', boat, area: { ...area, girths: { even: true, stations: [] } } }),
    ).toThrow(/two stations or more/);
  });
});

describe('offsets', () => {
  const wall = {
    stationsM: [0, 2, 4],
    waterlinesM: [0, 0.5, 1],
    halfBreadthsM: [
      [1, 1, 1],
      [1, 1, 1],
      [1, 1, 1],
    ],
  };
  it('a wall-sided box by hand, cut at heights between waterlines', () => {
    expect(areaFromOffsets(wall).areaM2).toBeCloseTo(8, 9);
    expect(areaFromOffsets({ ...wall, fromM: 0.2, toM: 0.9 }).areaM2).toBeCloseTo(2 * 4 * 0.7, 9);
    expect(areaFromOffsets(wall).openBottomM2).toBeCloseTo(8, 9);
    expect(areaFromOffsets({ ...wall, fromM: 0.2 }).openBottomM2).toBe(0);
  });
  it('a flat plate at 3 in 4, exact', () => {
    const leaning = { ...wall, halfBreadthsM: wall.stationsM.map(() => [0.25, 0.625, 1]) };
    expect(areaFromOffsets(leaning).areaM2).toBeCloseTo(2 * 4 * 1.25, 9);
  });
  it('a corner not measured takes its triangle with it, the centreplane is no hull', () => {
    expect(
      areaFromOffsets({
        ...wall,
        halfBreadthsM: [
          [1, 1, 1],
          [1, 1, 1],
          [1, 1, null],
        ],
      }).areaM2,
    ).toBeCloseTo(8 - 2 * 0.5, 9);
    expect(
      areaFromOffsets({
        ...wall,
        halfBreadthsM: [
          [0, 0, 0],
          [0, 0, 0],
          [0, 0, 0],
        ],
      }).areaM2,
    ).toBe(0);
  });
  it('bands add up for any heights', () => {
    fc.assert(
      fc.property(
        fc.array(fc.array(num(0, 2), { minLength: 4, maxLength: 4 }), { minLength: 3, maxLength: 6 }),
        num(0.01, 2.9),
        (halfBreadthsM, h) => {
          const table = { stationsM: halfBreadthsM.map((_, i) => i), waterlinesM: [0, 1, 2, 3], halfBreadthsM };
          expect(
            areaFromOffsets({ ...table, toM: h }).areaM2 + areaFromOffsets({ ...table, fromM: h }).areaM2,
          ).toBeCloseTo(areaFromOffsets(table).areaM2, 9);
        },
      ),
    );
  });
  it.each([
    [{ ...wall, stationsM: [0, 2, 2] }, /same place/],
    [{ ...wall, waterlinesM: [0, 1, 0.5] }, /Waterline 3 comes before waterline 2/],
    [{ ...wall, halfBreadthsM: wall.halfBreadthsM.slice(1) }, /3 stations but 2 rows/],
    [{ ...wall, halfBreadthsM: [[1], [1, 1, 1], [1, 1, 1]] }, /Station 1 has 1 half-breadths for 3 waterlines/],
    [
      {
        ...wall,
        halfBreadthsM: [
          [1, -1, 1],
          [1, 1, 1],
          [1, 1, 1],
        ],
      },
      /station 1, waterline 2 cannot be less than zero/,
    ],
    [{ ...wall, fromM: 2, toM: 1 }, /lower height must lie below/],
  ])('refuses %#', (table, message) => {
    expect(() => areaFromOffsets(table)).toThrow(message);
  });
  it('through the boat’s own table, between heights above the waterline', () => {
    const hull = { ...NO_MODEL, offsets: { ...wall, waterlineM: 0.4, fromBow: false, includeBottom: true } };
    const question = { kind: 'underwater' as const, boat, hull, area: { ...blank, method: 'offsets' as const } };
    expect(zoneArea(question).areaM2).toBeCloseTo(8 * 0.4 + 8, 9);
    expect(
      zoneArea({ ...question, hull: { ...hull, offsets: { ...hull.offsets, includeBottom: false } } }).areaM2,
    ).toBeCloseTo(3.2, 9);
    expect(
      zoneArea({
        ...question,
        kind: 'bootTop',
        area: { ...blank, method: 'offsets', offsets: { fromM: 0, toM: 0.25 } },
      }).areaM2,
    ).toBeCloseTo(2, 9);
    expect(zoneArea({ ...question, side: 'port' }).areaM2).toBeCloseTo(5.6, 9);
    expect(zoneArea({ ...question, side: 'part', partShare: 0.25 }).areaM2).toBeCloseTo(2.8, 9);
    expect(() => zoneArea({ ...question, hull: NO_MODEL })).toThrow(/no table of offsets yet/);
    expect(() =>
      zoneArea({ ...question, area: { ...blank, method: 'offsets', offsets: { fromM: 3, toM: null } } }),
    ).toThrow(/no hull between these heights/);
  });
});

describe('shapes [P: plane and solid geometry; foil factor M]', () => {
  it.each<[ShapeFigure, number]>([
    [{ kind: 'rectangle', lengthM: 2, widthM: 1.5 }, 3],
    [{ kind: 'triangle', baseM: 2, heightM: 3 }, 3],
    [{ kind: 'trapezium', aM: 1, bM: 3, heightM: 2 }, 4],
    [{ kind: 'circle', diameterM: 2 }, Math.PI],
    [{ kind: 'ellipse', lengthM: 4, widthM: 2 }, 2 * Math.PI],
    [{ kind: 'cylinder', diameterM: 1, lengthM: 3, ends: 0 }, 3 * Math.PI],
    [{ kind: 'cylinder', diameterM: 1, lengthM: 3, ends: 2 }, 3.5 * Math.PI],
    [{ kind: 'cone', diameterAM: 6, diameterBM: 0, lengthM: 4 }, 15 * Math.PI],
    [{ kind: 'cone', diameterAM: 2, diameterBM: 2, lengthM: 4 }, 8 * Math.PI],
    [{ kind: 'foil', rootM: 0.8, tipM: 0.6, spanM: 1 }, 2.05 * 0.7],
    [{ kind: 'box', lengthM: 2, widthM: 1, heightM: 0.5 }, 2 + 3],
    [{ kind: 'box', lengthM: 2, widthM: 1, heightM: 0.5, lids: 1 }, 4 + 3],
    [{ kind: 'frame', lengthM: 3, depthM: 0.1, thicknessM: 0.02 }, 3 * 0.22],
  ])('%j', (figure, area) => {
    expect(shapeArea(figure)).toBeCloseTo(area, 9);
  });
  it.each<[ShapeFigure, RegExp]>([
    [{ kind: 'rectangle', lengthM: 0, widthM: 1 }, /Length must be more than zero/],
    [{ kind: 'cylinder', diameterM: 1, lengthM: 1, ends: 3 }, /two ends/],
    [{ kind: 'cone', diameterAM: 0, diameterBM: 0, lengthM: 1 }, /One of the diameters/],
    [{ kind: 'box', lengthM: 1, widthM: 1, heightM: 1, lids: 2 }, /one lid/],
  ])('refuses %j', (figure, message) => {
    expect(() => shapeArea(figure)).toThrow(message);
  });
  const part = (lengthM: number, share: number, more: object = {}) => ({
    figure: { kind: 'rectangle' as const, lengthM, widthM: 1 },
    count: 1,
    deduct: false,
    share,
    ...more,
  });
  it('independent parts combine in quadrature, by hand: 10 ± 10 % and 10 ± 10 % are 20 ± 7.07 % [P: GUM 5.1]', () => {
    expect(sumShapes([part(10, 0.1), part(10, 0.1)])).toMatchObject({
      areaM2: 20,
      plusMinusM2: expect.closeTo(Math.SQRT2, 9),
      share: expect.closeTo(0.0707, 4),
    });
  });
  it('several alike and parts of one group share their error', () => {
    expect(sumShapes([part(10, 0.1, { count: 2 })]).share).toBeCloseTo(0.1, 9);
    expect(sumShapes([part(10, 0.1, { group: 'rule' }), part(10, 0.1, { group: 'rule' })]).share).toBeCloseTo(0.1, 9);
  });
  it('a deduction widens the share unless it shares the error', () => {
    expect(sumShapes([part(10, 0.1), part(5, 0.1, { deduct: true })]).share).toBeCloseTo(Math.hypot(1, 0.5) / 5, 9);
    expect(sumShapes([part(10, 0.1, { group: 'a' }), part(5, 0.1, { deduct: true, group: 'a' })]).share).toBeCloseTo(
      0.1,
      9,
    );
  });
  it('refuses nothing, half a shape, and deductions larger than the whole', () => {
    expect(() => sumShapes([])).toThrow(/no shape yet/);
    expect(() => sumShapes([part(1, 0.1, { count: 1.5 })])).toThrow(/whole number/);
    expect(() => sumShapes([part(1, 0.1), part(2, 0.1, { deduct: true })])).toThrow(
      /deductions are as large as the whole/,
    );
  });
});

describe('± of sums', () => {
  it('never wider than adding up, never narrower than the widest part', () => {
    fc.assert(
      fc.property(fc.array(fc.tuple(num(0.1, 50), num(0, 0.5)), { minLength: 1, maxLength: 6 }), (list) => {
        const parts = list.map(([areaM2, share]) => ({ areaM2, share }));
        const { plusMinusM2 } = combineAreas(parts);
        const errors = parts.map((p) => p.areaM2 * p.share);
        expect(plusMinusM2).toBeLessThanOrEqual(errors.reduce((a, b) => a + b, 0) + 1e-9);
        expect(plusMinusM2).toBeGreaterThanOrEqual(Math.max(...errors) - 1e-9);
        expect(combineAreas(parts.map((p) => ({ ...p, group: 'one' }))).plusMinusM2).toBeCloseTo(
          errors.reduce((a, b) => a + b, 0),
          9,
        );
      }),
    );
  });
  it('spread of several finds', () => {
    expect(spreadOf([20])).toBeNull();
    expect(spreadOf([18, 22])).toBeCloseTo(0.2, 9);
  });
});

describe('Denny–Mumford and the area by paint', () => {
  it('by hand: 1.7·8·0.6 + 4.2/0.6', () => {
    expect(dennyMumfordM2({ lwlM: 8, draftM: 0.6, displacedM3: 4.2 })).toBeCloseTo(15.16, 9);
    expect(() => dennyMumfordM2({ lwlM: 8, draftM: 0.6, displacedM3: 0 })).toThrow(
      /Displaced volume must be more than zero/,
    );
    expect(
      zoneArea({
        kind: 'underwater',
        boat,
        area: { ...blank, method: 'denny', denny: { displacedM3: 4.2, draftM: 0.6 } },
      }).areaM2,
    ).toBeCloseTo(1.7 * 8.1 * 0.6 + 7, 9);
  });
  it('A = 1000·litres/wet film [P: coating arithmetic]: 4 L thinned by 5 % at 200 µm cover 21 m²', () => {
    expect(calibratedArea({ litres: 4, wetFilmMicron: 200, thinner: 0.05 })).toBeCloseTo(21, 9);
    expect(calibratedArea({ litres: 4, wetFilmMicron: 200 })).toBeCloseTo(20, 9);
    expect(() => calibratedArea({ litres: 4, wetFilmMicron: 0 })).toThrow(/Wet film/);
    // By hand: 4 % of the litres, and 12 % of a comb over the root of so many readings and 3 % besides, in quadrature.
    expect(calibratedShare(9)).toBeCloseTo(Math.sqrt(0.04 ** 2 + (0.04 + 0.03) ** 2), 9);
    expect(calibratedShare(1)).toBeCloseTo(Math.sqrt(0.04 ** 2 + 0.15 ** 2), 9);
  });
  it('contradicts an estimate only past both uncertainties', () => {
    const estimate = { areaM2: 20, share: 0.15 };
    expect(paintContradicts({ estimate, painted: { areaM2: 22, share: 0.08 } })).toBe(false);
    expect(paintContradicts({ estimate, painted: { areaM2: 25, share: 0.08 } })).toBe(true);
  });
});
