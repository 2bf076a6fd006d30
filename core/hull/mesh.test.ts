import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  areaFromGirths,
  areaFromOffsets,
  dennyMumfordM2,
  guessPlacement,
  linesFromMesh,
  meshAreas,
  meshDefects,
  parseStl,
  placeMesh,
  previewMesh,
  sizeMisfits,
  type Plane,
} from '../index';
import { binaryStl, box, ellipsoid, tube, wigley, WIGLEY, wigleyY } from './solids.fixture';

const level = (heightM: number, heelDeg = 0, trimDeg = 0): Plane => ({ heightM, heelDeg, trimDeg });
const sum = (list: readonly number[]) => list.reduce((a, b) => a + b, 0);
const within = (found: number, exact: number, share: number) =>
  expect(Math.abs(found / exact - 1), `${found} against ${exact}`).toBeLessThan(share);

describe('areas of a mesh against closed forms [P: geometry of solids]', () => {
  it('box: every band exact', () => {
    const cut = meshAreas({ positions: box(4, 2, 1), planes: [level(0.25), level(0.75)] });
    expect(cut.totalM2).toBeCloseTo(28, 5);
    expect(cut.bandsM2[0]).toBeCloseTo(8 + 12 * 0.25, 5);
    expect(cut.bandsM2[1]).toBeCloseTo(12 * 0.5, 5);
    expect(cut.bandsM2[2]).toBeCloseTo(8 + 12 * 0.25, 5);
    expect(cut.volumeBelowM3).toBeCloseTo(2, 5);
    expect(meshAreas({ positions: box(4, 2, 1), planes: [] })).toMatchObject({
      totalM2: expect.closeTo(28, 5),
      volumeBelowM3: expect.closeTo(8, 5),
      cutShare: 0,
    });
  });
  it('box with trim: the plane rises towards the bow, so more of the bow lies below it', () => {
    // At x = 0 the plane stands at 0.25, at x = 4 at 0.25 + 4·tan(5°): side areas by hand.
    const cut = meshAreas({ positions: box(4, 2, 1), planes: [level(0.25, 0, 5)] });
    const rise = 4 * Math.tan((5 * Math.PI) / 180);
    const sides = 2 * 4 * (0.25 + rise / 2);
    expect(cut.bandsM2[0]).toBeCloseTo(8 + sides + 2 * 0.25 + 2 * (0.25 + rise), 5);
    expect(cut.volumeBelowM3).toBeCloseTo(8 * (0.25 + rise / 2), 5);
  });
  it('box with heel: the plane rises to port', () => {
    const cut = meshAreas({ positions: box(4, 2, 1), planes: [level(0.25, 10)] });
    const rise = 2 * Math.tan((10 * Math.PI) / 180);
    expect(cut.bandsM2[0]).toBeCloseTo(8 + 4 * 0.25 + 4 * (0.25 + rise) + 2 * 2 * (0.25 + rise / 2), 5);
  });
  it.each([
    [-0.6, 0, 0],
    [0, 0, 0],
    [0.3, 0, 0],
    [0.2, 12, 0],
    [-0.3, 0, 20],
    [0.1, 25, -15],
  ])('sphere cut at %f, heeled %f°, trimmed %f°: zone 2πRh, volume of the cap', (heightM, heelDeg, trimDeg) => {
    const R = 1;
    const cut = meshAreas({ positions: ellipsoid(R, R, R, 160), planes: [level(heightM, heelDeg, trimDeg)] });
    const tan = (deg: number) => Math.tan((deg * Math.PI) / 180);
    const d = heightM / Math.sqrt(1 + tan(heelDeg) ** 2 + tan(trimDeg) ** 2);
    within(cut.totalM2, 4 * Math.PI * R * R, 5e-4);
    within(cut.bandsM2[0] as number, 2 * Math.PI * R * (R + d), 8e-4);
    within(cut.volumeBelowM3, (Math.PI * (R + d) ** 2 * (2 * R - d)) / 3, 1e-3);
  });
  it('cylinder: mantle and the part below a level', () => {
    const cut = meshAreas({ positions: tube(0.5, 3, 400), planes: [level(-0.25)] });
    within(cut.totalM2, Math.PI * 3, 1e-4);
    within(cut.bandsM2[0] as number, 3 * 0.5 * 2 * Math.acos(0.5), 1e-3);
  });
  it('long ellipsoid: closed form of the prolate spheroid, half of it below its middle', () => {
    const [a, c] = [3, 1];
    const e = Math.sqrt(1 - (c * c) / (a * a));
    const exact = 2 * Math.PI * c * c * (1 + (a / (c * e)) * Math.asin(e));
    const cut = meshAreas({ positions: ellipsoid(a, c, c, 160), planes: [level(0)] });
    within(cut.totalM2, exact, 6e-4);
    within(cut.bandsM2[0] as number, exact / 2, 6e-4);
    within(cut.volumeBelowM3, (2 / 3) * Math.PI * a * c * c, 1e-3);
  });
  it('gets nearer with every refinement', () => {
    const errors = [8, 16, 32, 64].map((n) =>
      Math.abs(meshAreas({ positions: ellipsoid(1, 1, 1, n), planes: [] }).totalM2 - 4 * Math.PI),
    );
    errors.slice(1).forEach((e, i) => expect(e).toBeLessThan((errors[i] as number) / 3));
  });
});

describe('Wigley hull: wetted surface 0.1488·L² [computed; the literature quotes 0.1487]', () => {
  const exact = 0.1488 * WIGLEY.L ** 2;
  const stations = (n: number) => Array.from({ length: n }, (_, i) => WIGLEY.L * (i / (n - 1) - 0.5));
  const offsets = (nx: number, nz: number) => {
    const waterlinesM = Array.from({ length: nz }, (_, k) => -WIGLEY.T * (1 - k / (nz - 1)));
    return {
      stationsM: stations(nx),
      waterlinesM,
      halfBreadthsM: stations(nx).map((x) => waterlinesM.map((z) => wigleyY(x, z))),
    };
  };
  const girth = (x: number) => {
    let g = 0;
    for (let k = 0; k < 400; k += 1)
      g += Math.hypot(WIGLEY.T / 400, wigleyY(x, (-WIGLEY.T * (k + 1)) / 400) - wigleyY(x, (-WIGLEY.T * k) / 400));
    return g;
  };
  it('by mesh, one side mirrored and both sides', () => {
    within(meshAreas({ positions: wigley('port'), planes: [], mirror: true }).totalM2, exact, 1e-3);
    within(meshAreas({ positions: wigley('both'), planes: [] }).totalM2, exact, 1e-3);
  });
  it('its volume: block coefficient 4/9', () => {
    const exactV = (4 / 9) * WIGLEY.L * WIGLEY.B * WIGLEY.T;
    within(meshAreas({ positions: wigley('port'), planes: [level(0)], mirror: true }).volumeBelowM3, exactV, 2e-3);
    within(meshAreas({ positions: wigley('both'), planes: [level(0)] }).volumeBelowM3, exactV, 2e-3);
  });
  it('by offsets, and the two against each other, band by band', () => {
    const table = offsets(61, 31);
    within(areaFromOffsets(table).areaM2, exact, 1e-3);
    const positions = wigley('port');
    const cut = meshAreas({ positions, planes: [level(-0.4), level(-0.1)], mirror: true });
    within(areaFromOffsets({ ...table, toM: -0.4 }).areaM2, cut.bandsM2[0] as number, 2e-3);
    within(areaFromOffsets({ ...table, fromM: -0.4, toM: -0.1 }).areaM2, cut.bandsM2[1] as number, 2e-3);
    within(areaFromOffsets({ ...table, fromM: -0.1 }).areaM2, cut.bandsM2[2] as number, 2e-3);
  });
  it('by offsets gets nearer with refinement', () => {
    const errors = [
      [6, 4],
      [11, 7],
      [21, 13],
    ].map(([nx, nz]) => Math.abs(areaFromOffsets(offsets(nx as number, nz as number)).areaM2 - 14.8755));
    expect(errors[1]).toBeLessThan(errors[0] as number);
    expect(errors[2]).toBeLessThan(errors[1] as number);
  });
  it('by girths at eleven stations: within 2 % with the slope correction, low without', () => {
    const x = stations(11);
    const halfGirthsM = x.map(girth);
    const sloped = areaFromGirths({ stationsM: x, halfGirthsM, halfBreadthsM: x.map((s) => wigleyY(s, 0)) });
    const plain = areaFromGirths({ stationsM: x, halfGirthsM });
    within(sloped.areaM2, exact, 0.02);
    expect(sloped.slopeFactor).toBeGreaterThan(1);
    expect(plain).toMatchObject({ rule: 'simpson', slopeFactor: 1 });
    expect(plain.areaM2).toBeLessThan(sloped.areaM2);
  });
  it('Denny–Mumford comes within 3 %', () => {
    within(
      dennyMumfordM2({ lwlM: WIGLEY.L, draftM: WIGLEY.T, displacedM3: (4 / 9) * WIGLEY.L * WIGLEY.B * WIGLEY.T }),
      exact,
      0.03,
    );
  });
});

describe('laws', () => {
  const corner = fc.float({ min: -5, max: 5, noNaN: true });
  const soup = fc
    .array(fc.array(corner, { minLength: 9, maxLength: 9 }), { minLength: 1, maxLength: 30 })
    .map((t) => Float32Array.from(t.flat()));
  const areaOf = (positions: Float32Array) => meshAreas({ positions, planes: [] }).totalM2;
  const real = soup.filter((p) => {
    try {
      return areaOf(p) > 0.1;
    } catch {
      return false;
    }
  });
  const angle = fc.double({ min: -20, max: 20, noNaN: true });
  it('bands add up to the total whatever the planes, and mirroring doubles', () => {
    fc.assert(
      fc.property(
        real,
        fc.array(fc.double({ min: -4, max: 4, noNaN: true }), { maxLength: 4 }),
        angle,
        angle,
        (positions, heights, heelDeg, trimDeg) => {
          const planes = [...heights].sort((a, b) => a - b).map((heightM) => ({ heightM, heelDeg, trimDeg }));
          const once = meshAreas({ positions, planes });
          const twice = meshAreas({ positions, planes, mirror: true });
          expect(sum(once.bandsM2)).toBeCloseTo(areaOf(positions), 4);
          expect(once.bandsM2.every((b) => b >= 0)).toBe(true);
          expect(twice.totalM2).toBeCloseTo(2 * once.totalM2, 4);
          expect(once.cutShare).toBeLessThanOrEqual(1 + 1e-9);
        },
      ),
    );
  });
  it('area does not change with turning, moving or the order of triangles; scaling by s scales it by s²', () => {
    fc.assert(
      fc.property(real, angle, corner, fc.double({ min: 0.2, max: 4, noNaN: true }), (positions, deg, shift, s) => {
        const [c, n] = [Math.cos((deg * Math.PI) / 180), Math.sin((deg * Math.PI) / 180)];
        const area = areaOf(positions);
        const turned = positions.map((_, i) => {
          const [x, y, z] = [positions[i - (i % 3)], positions[i - (i % 3) + 1], positions[i - (i % 3) + 2]] as [
            number,
            number,
            number,
          ];
          return [c * x - n * y + shift, n * x + c * y, z - shift][i % 3] as number;
        });
        expect(areaOf(turned) / area).toBeCloseTo(1, 3);
        expect(areaOf(positions.map((v) => v * s)) / area).toBeCloseTo(s * s, 3);
        const order = Array.from({ length: positions.length / 9 }, (_, i) =>
          positions.slice(9 * i, 9 * i + 9),
        ).reverse();
        expect(areaOf(Float32Array.from(order.flatMap((t) => [...t])))).toBeCloseTo(area, 4);
      }),
    );
  });
});

describe('what is wrong with a mesh', () => {
  it('nothing, with closed solids', () => {
    for (const positions of [box(4, 2, 1), ellipsoid(3, 1, 1, 24)])
      expect(meshDefects({ positions })).toEqual({ openEdges: 0, degenerate: 0, inverted: 0 });
  });
  it('a hole has as many open edges as its rim', () => {
    const positions = box(4, 2, 1).slice(9);
    expect(meshDefects({ positions })).toEqual({ openEdges: 3, degenerate: 0, inverted: 0 });
    expect(meshDefects({ positions: tube(0.5, 3, 40) }).openEdges).toBe(80);
  });
  it('half a hull is open along its top; along the centreline only where it is not mirrored', () => {
    const positions = wigley('port', 20, 10);
    const alone = meshDefects({ positions }).openEdges;
    const mirrored = meshDefects({ positions, mirror: true }).openEdges;
    expect(alone).toBe(20 + 20 + 10 + 10 - 1);
    expect(mirrored).toBe(20);
    expect(meshDefects({ positions: wigley('both', 20, 10) }).openEdges).toBe(40);
  });
  it('flipped facets are counted, one and many, and all of them when the whole is inside out', () => {
    const flip = (positions: Float32Array, which: (t: number) => boolean) => {
      const out = positions.slice();
      for (let t = 0; t < out.length / 9; t += 1)
        if (which(t))
          for (let k = 0; k < 3; k += 1)
            [out[9 * t + k], out[9 * t + 3 + k]] = [positions[9 * t + 3 + k] as number, positions[9 * t + k] as number];
      return out;
    };
    const ball = ellipsoid(1, 1, 1, 16);
    expect(meshDefects({ positions: flip(ball, (t) => t === 100) }).inverted).toBe(1);
    expect(meshDefects({ positions: flip(ball, (t) => t % 7 === 0) }).inverted).toBe(Math.ceil(ball.length / 9 / 7));
    expect(meshDefects({ positions: flip(ball, () => true) }).inverted).toBe(ball.length / 9);
    expect(meshDefects({ positions: flip(wigley('port', 20, 10), (t) => t < 5) }).inverted).toBe(5);
  });
  it('second copies and triangles without area are counted once each and do no other harm', () => {
    const cube = box(4, 2, 1);
    const sliver = [0, 0, 0, 1, 0, 0, 3, 0, 0];
    expect(meshDefects({ positions: Float32Array.from([...cube, ...cube.slice(0, 9), ...sliver]) })).toEqual({
      openEdges: 0,
      degenerate: 2,
      inverted: 0,
    });
  });
  it('corners within a millionth of the size are one, further apart are not', () => {
    const shaken = (by: number) => box(4, 2, 1).map((v, i) => v + (i % 7) * by);
    expect(meshDefects({ positions: shaken(2e-7) }).openEdges).toBe(0);
    expect(meshDefects({ positions: shaken(1e-4) }).openEdges).toBeGreaterThan(0);
  });
});

describe('placing a mesh file', () => {
  const boat = { loaM: 10, beamM: 1, depthM: 0.625 };
  it.each([
    ['millimetres, bow backwards, y up', 'mm', (x: number, y: number, z: number) => [-x * 1000, z * 1000, y * 1000]],
    ['inches, along z', 'in', (x: number, y: number, z: number) => [y / 0.0254, z / 0.0254, x / 0.0254]],
    ['metres, upside down', 'm', (x: number, y: number, z: number) => [x, -y, -z]],
  ] as const)('guesses %s and finds the same area', (_, unit, turn) => {
    for (const sides of ['port', 'both'] as const) {
      // A deck-side broader than the keel: the hull is drawn from its waterline down, so the top is broad.
      const own = wigley(sides);
      const file = own.slice();
      for (let i = 0; i < file.length; i += 3)
        file.set(turn(own[i] as number, own[i + 1] as number, own[i + 2] as number), i);
      const placement = guessPlacement({ positions: file, ...boat });
      expect(placement.unit).toBe(unit);
      expect(placement.mirror).toBe(sides === 'port');
      const size = placeMesh(file, placement);
      expect(size.lengthM).toBeCloseTo(10, 3);
      expect(size.beamM).toBeCloseTo(1, 2);
      expect(size.depthM).toBeCloseTo(0.625, 3);
      expect(sizeMisfits(size, boat)).toEqual([]);
      const cut = meshAreas({ positions: file, planes: [level(0.3)], mirror: placement.mirror });
      // Height 0.3 above the keel, whichever way the file lay.
      within(
        cut.bandsM2[0] as number,
        meshAreas({ positions: wigley('both'), planes: [level(0.3 - 0.625)] }).bandsM2[0] as number,
        1e-3,
      );
    }
  });
  it('a millimetre file taken for metres is pointed at', () => {
    const positions = wigley('both').map((v) => v * 1000);
    const size = placeMesh(positions, { unit: 'm', forward: '+x', up: '+z', mirror: false });
    expect(sizeMisfits(size, boat).map((m) => m.figure)).toEqual(['length', 'beam', 'depth']);
    expect(sizeMisfits(size, boat)[0]).toMatchObject({ foundM: expect.closeTo(10_000, 3), ownM: 10 });
  });
  it('refuses axes that agree and a mesh without height', () => {
    expect(() => placeMesh(wigley('both'), { unit: 'm', forward: '+x', up: '-x', mirror: false })).toThrow(/same axis/);
    expect(() =>
      placeMesh(Float32Array.from([0, 0, 0, 1, 0, 0, 1, 1, 0]), { unit: 'm', forward: '+x', up: '+z', mirror: false }),
    ).toThrow(/flat/);
  });
  it('keeps its handedness: a mesh facing outwards still does', () => {
    for (const [forward, up] of [
      ['+x', '+z'],
      ['-y', '+z'],
      ['+z', '-x'],
      ['-x', '+y'],
    ] as const) {
      const positions = ellipsoid(2, 1, 1, 12);
      placeMesh(positions, { unit: 'm', forward, up, mirror: false });
      expect(meshDefects({ positions }).inverted).toBe(0);
    }
  });
});

describe('lines and preview of a mesh', () => {
  it('lines pass through the hull’s own breadths, and the waterline’s length is the curve’s', () => {
    const positions = wigley('port', 200, 40);
    placeMesh(positions, { unit: 'm', forward: '+x', up: '+z', mirror: true });
    const { lines, waterlineGirthM } = linesFromMesh({
      positions,
      waterline: level(0.4),
      lengthM: 10,
      depthM: 0.625,
      mirror: true,
    });
    lines.stationsM.forEach((x, s) => {
      lines.heightsM.forEach((z, k) => {
        const y = lines.halfBreadthsM[s]?.[k];
        if (y !== null && y !== undefined) expect(Math.abs(y - wigleyY(x - 5, z + 0.4 - 0.625))).toBeLessThan(0.01);
      });
    });
    expect(lines.bottomM[20]).toBeCloseTo(-0.4, 2);
    const half = (x: number) => wigleyY(x, 0.4 - 0.625);
    let exact = 0;
    for (let i = 0; i < 1000; i += 1) exact += Math.hypot(0.01, half(-5 + (i + 1) / 100) - half(-5 + i / 100));
    within(waterlineGirthM, 2 * exact, 2e-3);
  });
  it('a preview is smaller and about the same shape; a small mesh is given back whole', () => {
    const ball = ellipsoid(3, 1, 1, 120);
    const preview = previewMesh({ positions: ball, most: 4000 });
    expect(preview.length / 9).toBeLessThanOrEqual(4000);
    expect(preview.length / 9).toBeGreaterThan(800);
    within(
      meshAreas({ positions: preview, planes: [] }).totalM2,
      meshAreas({ positions: ball, planes: [] }).totalM2,
      0.06,
    );
    expect(previewMesh({ positions: box(1, 1, 1), most: 4000 })).toEqual(box(1, 1, 1));
  });
});

describe('refusals', () => {
  it.each([
    [() => meshAreas({ positions: new Float32Array(0), planes: [] }), /not one triangle/],
    [() => meshAreas({ positions: new Float32Array(10), planes: [] }), /middle of a triangle/],
    [() => meshAreas({ positions: new Float32Array(9), planes: [] }), /without area/],
    [
      () => meshAreas({ positions: Float32Array.from([0, 0, 0, 1, 0, 0, 0, Number.NaN, 0]), planes: [] }),
      /not a number/,
    ],
    [() => meshAreas({ positions: box(1, 1, 1), planes: [level(0.5), level(0.2)] }), /Put the heights in order/],
    [
      () => meshAreas({ positions: box(9, 1, 1), planes: [level(0.5), level(0.6, 0, -10)] }),
      /crosses it within the hull/,
    ],
    [() => meshAreas({ positions: box(1, 1, 1), planes: [level(0.5, 80)] }), /Heel may be up to/],
    [
      () => parseStl(binaryStl(Float32Array.from([0, 0, 0, 1, 0, 0, 0, Infinity, 0]))),
      /corner of triangle 1 is not a number/,
    ],
  ])('%#: in a sentence', (run, message) => {
    expect(run).toThrow(RangeError);
    expect(run).toThrow(message);
  });
});
