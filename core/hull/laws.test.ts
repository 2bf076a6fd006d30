import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  areaFromGirths,
  areaFromOffsets,
  linesFromOffsets,
  meshAreas,
  meshDefects,
  netAreas,
  NO_MODEL,
  parseObj,
  parseStl,
  previewMesh,
  shapeArea,
  strayGirths,
  wearBand,
  type AreaOwner,
  type ShapeFigure,
} from '../index';
import { binaryStl, box, ellipsoid } from './solids.fixture';

const num = (min: number, max: number) => fc.double({ min, max, noNaN: true });
const boat = {
  loaM: 9,
  lwlM: 8,
  beamM: 3,
  draftM: 1,
  freeboardM: 1,
  form: 'longKeel' as const,
  keels: 'single' as const,
};

describe('laws of measuring a hull', () => {
  const taped = fc
    .integer({ min: 2, max: 14 })
    .chain((n) =>
      fc.tuple(
        fc.array(num(0.1, 2), { minLength: n, maxLength: n }),
        fc.array(num(0.05, 1.5), { minLength: n, maxLength: n }),
        fc.array(num(0.1, 1), { minLength: n, maxLength: n }),
      ),
    );
  const stationsOf = (steps: readonly number[]) =>
    steps.map((_, i) => steps.slice(0, i + 1).reduce((a, b) => a + b, 0));

  it('girths: a boat twice the size has four times the area; where the stations begin does not matter; slope never shrinks it', () => {
    fc.assert(
      fc.property(taped, num(0.3, 4), num(-20, 20), ([halfGirthsM, halfBreadthsM, steps], s, shift) => {
        const stationsM = stationsOf(steps);
        const whole = areaFromGirths({ stationsM, halfGirthsM, halfBreadthsM });
        expect(
          areaFromGirths({
            stationsM: stationsM.map((x) => x * s),
            halfGirthsM: halfGirthsM.map((g) => g * s),
            halfBreadthsM: halfBreadthsM.map((b) => b * s),
          }).areaM2,
        ).toBeCloseTo(whole.areaM2 * s * s, 6);
        expect(
          areaFromGirths({ stationsM: stationsM.map((x) => x + shift), halfGirthsM, halfBreadthsM }).areaM2,
        ).toBeCloseTo(whole.areaM2, 4);
        expect(whole.areaM2).toBeGreaterThanOrEqual(areaFromGirths({ stationsM, halfGirthsM }).areaM2 - 1e-9);
        expect(whole.slopeFactor).toBeGreaterThanOrEqual(1 - 1e-9);
      }),
    );
  });
  it('girths that lie on one cubic are never called stray', () => {
    fc.assert(
      fc.property(num(-0.01, 0.01), num(-0.05, 0.05), num(-0.1, 0.1), fc.integer({ min: 5, max: 15 }), (a, b, c, n) => {
        const stationsM = Array.from({ length: n }, (_, i) => i * 0.6);
        expect(
          strayGirths({ stationsM, halfGirthsM: stationsM.map((x) => a * x ** 3 + b * x * x + c * x + 5) }),
        ).toEqual([]);
      }),
    );
  });
  it('offsets: turning the boat end for end changes no area; a taller cut holds no less', () => {
    fc.assert(
      fc.property(
        fc.array(fc.array(num(0, 2), { minLength: 4, maxLength: 4 }), { minLength: 2, maxLength: 6 }),
        num(0.1, 1.4),
        num(0.1, 1.4),
        (halfBreadthsM, low, more) => {
          const table = { stationsM: halfBreadthsM.map((_, i) => i * 1.5), waterlinesM: [0, 0.5, 1, 3], halfBreadthsM };
          // A cell's shorter diagonal stays the shorter one seen from the other end.
          const turned = { ...table, halfBreadthsM: [...halfBreadthsM].reverse() };
          expect(areaFromOffsets(turned).areaM2).toBeCloseTo(areaFromOffsets(table).areaM2, 6);
          expect(areaFromOffsets({ ...table, toM: low + more }).areaM2).toBeGreaterThanOrEqual(
            areaFromOffsets({ ...table, toM: low }).areaM2 - 1e-9,
          );
          const lines = linesFromOffsets({ ...table, waterlineM: low, fromBow: false });
          expect(lines.topM.every((top, i) => top >= (lines.bottomM[i] as number))).toBe(true);
        },
      ),
    );
  });
  it('a mesh: what is written as STL or OBJ is read back, and its defects do not depend on the order of triangles', () => {
    fc.assert(
      fc.property(num(0.5, 5), num(0.5, 3), num(0.5, 3), fc.integer({ min: 0, max: 11 }), (l, w, h, first) => {
        const positions = box(l, w, h);
        expect(parseStl(binaryStl(positions))).toEqual(positions);
        const corners = Array.from(
          { length: positions.length / 3 },
          (_, i) => `v ${positions[3 * i]} ${positions[3 * i + 1]} ${positions[3 * i + 2]}`,
        );
        const faces = Array.from(
          { length: positions.length / 9 },
          (_, t) => `f ${3 * t + 1} ${3 * t + 2} ${3 * t + 3}`,
        );
        expect(parseObj([...corners, ...faces].join('\n'))).toEqual(positions);
        const turned = Float32Array.from([...positions.slice(9 * first), ...positions.slice(0, 9 * first)]);
        expect(meshDefects({ positions: turned })).toEqual({ openEdges: 0, degenerate: 0, inverted: 0 });
        expect(meshAreas({ positions: turned, planes: [] }).totalM2).toBeCloseTo(2 * (l * w + w * h + h * l), 3);
      }),
      { numRuns: 40 },
    );
  });
  it('a preview never has more triangles than asked for', () => {
    const ball = ellipsoid(2, 1, 1, 40);
    fc.assert(
      fc.property(fc.integer({ min: 300, max: 7000 }), (most) => {
        expect(previewMesh({ positions: ball, most }).length / 9).toBeLessThanOrEqual(most);
      }),
      { numRuns: 15 },
    );
  });
  it('shapes scale with the square of their figures', () => {
    const sized = (s: number): ShapeFigure[] => [
      { kind: 'rectangle', lengthM: 2 * s, widthM: s },
      { kind: 'trapezium', aM: s, bM: 2 * s, heightM: s },
      { kind: 'ellipse', lengthM: 3 * s, widthM: s },
      { kind: 'cylinder', diameterM: s, lengthM: 2 * s, ends: 1 },
      { kind: 'cone', diameterAM: s, diameterBM: 0.4 * s, lengthM: s },
      { kind: 'foil', rootM: s, tipM: 0.6 * s, spanM: 2 * s },
      { kind: 'box', lengthM: s, widthM: s, heightM: s },
      { kind: 'frame', lengthM: 4 * s, depthM: 0.1 * s, thicknessM: 0.02 * s },
    ];
    fc.assert(
      fc.property(num(0.05, 20), (s) => {
        sized(s).forEach((shape, i) =>
          expect(shapeArea(shape) / shapeArea(sized(1)[i] as ShapeFigure)).toBeCloseTo(s * s, 6),
        );
      }),
    );
  });
  it('a wider band needs more paint, and a taped length is taken as it is', () => {
    fc.assert(
      fc.property(num(0.05, 1), num(0.01, 1), num(0.5, 30), (widthM, more, lengthM) => {
        const area = (width: number, length: number | null) =>
          wearBand({ band: { place: 'keelLeadingEdge', widthM: width, lengthM: length }, boat }).areaM2;
        // As much more as it is wider.
        expect(area(widthM + more, null) / area(widthM, null)).toBeCloseTo((widthM + more) / widthM, 9);
        expect(area(widthM, lengthM)).toBeCloseTo(widthM * lengthM, 9);
      }),
    );
  });
  it('zone and carved patches together are the zone as it was measured', () => {
    const typed = (id: string, areaM2: number, more: Partial<AreaOwner> = {}): AreaOwner => ({
      id,
      name: id,
      kind: 'underwater',
      area: { method: 'typed', dimensions: {}, typed: { areaM2, share: 0.1 } },
      ...more,
    });
    fc.assert(
      fc.property(fc.array(num(0.1, 2), { maxLength: 6 }), (patches) => {
        const carved = patches.map((areaM2, i) => typed(`p${i}`, areaM2, { parentId: 'zone', patchKind: 'standPad' }));
        const net = netAreas({ boat, hull: NO_MODEL, surfaces: [typed('zone', 20), ...carved] });
        expect([...net.values()].reduce((sum, n) => sum + n.areaM2, 0)).toBeCloseTo(20, 9);
        expect(net.get('zone')?.grossM2).toBe(20);
      }),
    );
  });
});
