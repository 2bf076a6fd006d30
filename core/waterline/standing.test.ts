import { Matrix, pseudoInverse } from 'ml-matrix';
import { describe, expect, it } from 'vitest';
import { heightOnBoat, lineAboveGround, standingPlane } from '../index';

const tan = (deg: number) => Math.tan((deg * Math.PI) / 180);
const point = (xM: number, yM: number, onBoatM: number, aboveGroundM: number) => ({ xM, yM, onBoatM, aboveGroundM });

/** Five points of a boat that stands bow up and to starboard, each read with an error. */
const read = [
  [0.4, 1.1, 0.9, 0.004],
  [0.5, -1.0, 0.95, -0.006],
  [4.2, 1.6, 0.8, 0.003],
  [4.3, -1.6, 0.8, 0.005],
  [8.8, 0.05, 1.3, -0.007],
].map(([x, y, on, error]) => point(x!, y!, on!, on! + 0.62 + x! * tan(1.4) + y! * tan(-0.8) + error!));

describe('plane through measured points against the pseudo-inverse [ml-matrix]', () => {
  it('offset, trim, heel and what each point misses by', () => {
    const A = new Matrix(read.map((p) => [1, p.xM, p.yM]));
    const z = Matrix.columnVector(read.map((p) => p.aboveGroundM - p.onBoatM));
    const [offset, trim, heel] = pseudoInverse(A).mmul(z).to1DArray();
    const plane = standingPlane({ points: read });
    expect(plane.offsetM).toBeCloseTo(offset!, 9);
    expect(tan(plane.trimDeg!)).toBeCloseTo(trim!, 9);
    expect(tan(plane.heelDeg!)).toBeCloseTo(heel!, 9);
    const misses = Matrix.sub(z, A.mmul(Matrix.columnVector([offset!, trim!, heel!]))).to1DArray();
    plane.residualsM.forEach((r, i) => expect(r).toBeCloseTo(misses[i]!, 9));
    expect(plane.trimDeg).toBeCloseTo(1.4, 0);
  });

  it('exact points miss by nothing, and the line comes back to where it was', () => {
    const exact = [point(0, 1, 1, 1.5), point(0, -1, 1, 1.3), point(10, 0, 1, 1.9)];
    const plane = standingPlane({ points: exact });
    // By hand: 0.2 m over 2 m across, 0.5 m over 10 m fore and aft.
    expect(tan(plane.heelDeg!)).toBeCloseTo(0.1, 12);
    expect(tan(plane.trimDeg!)).toBeCloseTo(0.05, 12);
    expect(plane.residualsM.every((r) => Math.abs(r) < 1e-12)).toBe(true);
    const [port] = lineAboveGround({ standing: plane, lineM: 0.2, stations: [{ xM: 4, yM: 1 }] });
    expect(port).toBeCloseTo(0.2 + 0.4 + 0.2 + 0.1, 12);
    expect(heightOnBoat({ standing: plane, xM: 4, yM: 1, aboveGroundM: port! })).toBeCloseTo(0.2, 12);
  });
});

describe('points that cannot tell all of it', () => {
  it('two fore and aft tell trim only, two across heel only', () => {
    const along = standingPlane({ points: [point(0, 0, 1, 1.5), point(10, 0, 1, 1.6)] });
    expect([along.heelDeg, tan(along.trimDeg!)]).toEqual([null, expect.closeTo(0.01, 12)]);
    const across = standingPlane({ points: [point(5, 1, 1, 1.5), point(5, -1, 1, 1.4)] });
    expect([across.trimDeg, tan(across.heelDeg!)]).toEqual([null, expect.closeTo(0.05, 12)]);
  });

  it('all at one station, or one point, or an oblique line', () => {
    const station = standingPlane({ points: [point(3, 1, 1, 1.5), point(3, 0, 1, 1.45), point(3, -1, 1, 1.4)] });
    expect([station.trimDeg, tan(station.heelDeg!)]).toEqual([null, expect.closeTo(0.05, 12)]);
    expect(standingPlane({ points: [point(3, 1, 1, 1.5)] })).toEqual({
      offsetM: 0.5,
      trimDeg: null,
      heelDeg: null,
      residualsM: [0],
    });
    const oblique = standingPlane({ points: [point(0, 0, 1, 1.5), point(4, 1, 1, 1.7), point(8, 2, 1, 1.9)] });
    expect([oblique.trimDeg, oblique.heelDeg]).toEqual([null, null]);
    expect(oblique.residualsM.map((r) => Math.round(r * 100) / 100)).toEqual([-0.2, 0, 0.2]);
  });

  it('none is asked for, and no number is refused', () => {
    expect(() => standingPlane({ points: [] })).toThrow(/at least one point/);
    expect(() => standingPlane({ points: [point(0, NaN, 1, 1)] })).toThrow(/Point 1, to port/);
  });
});
