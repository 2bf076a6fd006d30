import { describe, expect, it } from 'vitest';
import {
  bandAt,
  flareDegAt,
  heightOfTapeM,
  hullShape,
  linesFromMesh,
  linesFromOffsets,
  loaded,
  raiseAlongSkinM,
  roughDisplacementKg,
  sinkageM,
  trimChangeDeg,
  waterplaneByCoefficient,
  waterplaneM2,
  waterplaneOf,
} from '../index';
import { placeMesh } from '../hull/placement';
import { WIGLEY, wigley, wigleyY } from '../hull/solids.fixture';

describe('a box barge by Archimedes, worked by hand', () => {
  // 12 m × 4 m: 48 m². 984 kg of sea water, 1025 kg/m³, is 0.96 m³: 0.02 m over 48 m².
  const waterplane = waterplaneByCoefficient({ lwlM: 12, bwlM: 4, coefficient: 1, aftM: 0 });

  it('sinks', () => {
    expect(waterplaneM2({ lwlM: 12, bwlM: 4, coefficient: 1 })).toBe(48);
    expect(sinkageM({ addedKg: 984, waterplaneM2: 48, water: 'sea' })).toBeCloseTo(0.02, 12);
    expect(sinkageM({ addedKg: 960, waterplaneM2: 48, water: 'fresh' })).toBeCloseTo(0.02, 12);
    expect(sinkageM({ addedKg: -960, waterplaneM2: 48, water: 'fresh' })).toBeCloseTo(-0.02, 12);
  });

  it('trims: the wedge of water that comes in forward and goes out aft has the moment of the weight', () => {
    // I = 4 · 12³ / 12 = 576 m⁴. A wedge of slope t has the moment ρ·t·∫x² dA = 1000 · t · 576.
    expect(waterplane.longSecondMomentM4).toBeCloseTo(576, 9);
    const deg = trimChangeDeg({ addedKg: 300, leverM: 4.8, secondMomentM4: 576, water: 'fresh' });
    const slope = Math.tan((deg * Math.PI) / 180);
    const wedge = 2 * 4 * 1000 * slope * (6 ** 3 / 3);
    expect(wedge).toBeCloseTo(300 * 4.8, 9);
    expect(slope).toBeCloseTo(0.0025, 12);
  });

  it('a weight forward and to port brings the water up there, and down aft to starboard', () => {
    const { sinkM, bowDownDeg, portDownDeg, waterRiseM } = loaded({
      waterplane,
      weights: [{ name: 'Anchor and chain', kg: 240, xM: 10.8, yM: 0.5 }],
      water: 'fresh',
      displacementKg: 9600,
    });
    expect(sinkM).toBeCloseTo(0.005, 12);
    // 240 · 4.8 / (1000 · 576) = 0.002; 240 · 0.5 / (1000 · 12 · 4³ / 12) = 0.001875.
    expect(Math.tan((bowDownDeg * Math.PI) / 180)).toBeCloseTo(0.002, 12);
    expect(Math.tan((portDownDeg * Math.PI) / 180)).toBeCloseTo(0.001875, 12);
    expect(waterRiseM({ xM: 12, yM: 0 })).toBeCloseTo(0.005 + 6 * 0.002, 12);
    expect(waterRiseM({ xM: 0, yM: -2 })).toBeCloseTo(0.005 - 6 * 0.002 - 2 * 0.001875, 12);
  });

  it('two weights that balance trim nothing', () => {
    const at = (xM: number, kg: number) => ({ name: '', kg, xM, yM: 0 });
    const { bowDownDeg } = loaded({
      waterplane,
      weights: [at(2, 300), at(10, 300)],
      water: 'sea',
      displacementKg: null,
    });
    expect(bowDownDeg).toBeCloseTo(0, 12);
  });

  it('more than she weighs herself is a slip of the pen', () => {
    expect(() =>
      loaded({
        waterplane,
        weights: [{ name: 'Water', kg: 40_000, xM: 6, yM: 0 }],
        water: 'sea',
        displacementKg: 9600,
      }),
    ).toThrow(/40000 kg, more than the 9600 kg/);
    expect(roughDisplacementKg({ lwlM: 12, beamM: 4, draftM: 0.4, form: 'full' })).toBeCloseTo(9840, 6);
  });

  it('a coefficient over one, a waterplane of nothing', () => {
    expect(() => waterplaneM2({ lwlM: 12, bwlM: 4, coefficient: 1.2 })).toThrow(/100 %/);
    expect(() => sinkageM({ addedKg: 1, waterplaneM2: 0, water: 'sea' })).toThrow(/more than zero/);
  });
});

describe('waterplane of the Wigley hull: 2/3 · L · B [closed form]', () => {
  const { L, B, T } = WIGLEY;
  const exact = (2 / 3) * L * B;
  const boat = { loaM: L, lwlM: L, beamM: B, draftM: T, freeboardM: 0.2, form: 'full', keels: 'none' } as const;

  it('from offsets', () => {
    const stationsM = Array.from({ length: 41 }, (_, i) => (i * L) / 40);
    const waterlinesM = Array.from({ length: 13 }, (_, k) => -T + (k * T) / 12);
    const lines = linesFromOffsets({
      stationsM,
      waterlinesM,
      halfBreadthsM: stationsM.map((x) => waterlinesM.map((z) => wigleyY(x - L / 2, z))),
      waterlineM: 0,
      fromBow: false,
    });
    const plane = waterplaneOf({ shape: hullShape(boat, lines), heightM: 0 });
    expect(plane.areaM2 / exact).toBeCloseTo(1, 2);
    expect(plane.centreXM).toBeCloseTo(L / 2, 6);
    // ∫ x² dA over the parabola B(1 − (2x/L)²): L³B/30, by hand.
    expect(plane.longSecondMomentM4 / ((L ** 3 * B) / 30)).toBeCloseTo(1, 2);
    // (2/3) ∫ y³ dx with y = B/2 (1 − u²): (2/3)(B/2)³ · L · 16/35.
    expect(plane.crossSecondMomentM4 / ((2 / 3) * (B / 2) ** 3 * L * (16 / 35))).toBeCloseTo(1, 2);
  });

  it('from a mesh', () => {
    const positions = wigley('both');
    const size = placeMesh(positions, { unit: 'm', forward: '+x', up: '+z', mirror: false });
    const { lines } = linesFromMesh({
      positions,
      waterline: { heightM: T, heelDeg: 0, trimDeg: 0 },
      lengthM: size.lengthM,
      depthM: size.depthM,
      mirror: false,
    });
    const plane = waterplaneOf({ shape: hullShape(boat, lines), heightM: -1e-4 });
    expect(plane.areaM2 / exact).toBeCloseTo(1, 2);
    expect(plane.centreXM).toBeCloseTo(L / 2, 2);
  });

  it('above the rail there is none', () => {
    expect(() => waterplaneOf({ shape: hullShape(boat), heightM: 3 })).toThrow(/no hull/);
  });
});

describe('along the skin', () => {
  it('height by the cosine of the flare, and back', () => {
    expect(raiseAlongSkinM({ raiseM: 0.05, flareDeg: 60 })).toBeCloseTo(0.1, 12);
    expect(raiseAlongSkinM({ raiseM: 0.05, flareDeg: -60 })).toBeCloseTo(0.1, 12);
    expect(heightOfTapeM({ widthM: 0.1, flareDeg: 60 })).toBeCloseTo(0.05, 12);
    expect(() => raiseAlongSkinM({ raiseM: 0.05, flareDeg: 85 })).toThrow(RangeError);
    expect(() => raiseAlongSkinM({ raiseM: 0.05, flareDeg: 88 })).toThrow(/runs away/);
  });

  it('flare of a cone from its offsets: its own half-angle amidships', () => {
    // A cone point down about a vertical axis at x = 2: y = √((z·tan 35°)² − (x − 2)²).
    const tan = Math.tan((35 * Math.PI) / 180);
    const stationsM = Array.from({ length: 41 }, (_, i) => i * 0.1);
    const waterlinesM = Array.from({ length: 41 }, (_, k) => 0.5 + k * 0.05);
    const lines = linesFromOffsets({
      stationsM,
      waterlinesM,
      halfBreadthsM: stationsM.map((x) =>
        waterlinesM.map((z) => Math.sqrt(Math.max(0, (z * tan) ** 2 - (x - 2) ** 2))),
      ),
      waterlineM: 1.5,
      fromBow: false,
    });
    const boat = { loaM: 4, lwlM: 4, beamM: 3.5, draftM: 1, freeboardM: 3, form: 'full', keels: 'none' } as const;
    const shape = hullShape(boat, lines);
    expect(flareDegAt({ shape, xM: 2, heightM: 0.2 })).toBeCloseTo(35, 1);
    // Off the axis the section is a hyperbola: dy/dz = z·tan²/y. At x = 2.5, z = 1.5 above the point:
    const [z, x] = [1.75, 0.5];
    const steep = (Math.atan((z * tan ** 2) / Math.sqrt((z * tan) ** 2 - x ** 2)) * 180) / Math.PI;
    expect(flareDegAt({ shape, xM: 2.5, heightM: 0.25 })).toBeCloseTo(steep, 0);
    expect(flareDegAt({ shape, xM: 2, heightM: 9 })).toBeNull();
  });

  it('a boot-top of even height takes a wider tape where she flares, one of even width looks narrower', () => {
    expect(bandAt({ mode: 'height', bandM: 0.1, flareDeg: 60 }).widthM).toBeCloseTo(0.2, 12);
    expect(bandAt({ mode: 'width', bandM: 0.1, flareDeg: 60 }).heightM).toBeCloseTo(0.05, 12);
    expect(bandAt({ mode: 'height', bandM: 0.1, flareDeg: 87 }).widthM).toBeNull();
  });
});
