import { finite } from '../guard';
import { Impossible } from '../impossible';

/** A point whose height on the boat is known, measured above the ground. */
export interface StandingPoint {
  /** Forward, m. */
  readonly xM: number;
  /** To port, m. */
  readonly yM: number;
  /** Above the boat's own datum, m. */
  readonly onBoatM: number;
  /** As measured, m. */
  readonly aboveGroundM: number;
}

/** How a boat stands on the hard. */
export interface Standing {
  /** Of her datum above the ground at x = y = 0, m. */
  readonly offsetM: number;
  /** Bow up is positive; null where the points cannot tell it. */
  readonly trimDeg: number | null;
  /** Port side up is positive; null where the points cannot tell it. */
  readonly heelDeg: number | null;
  /** What each point misses the plane by, m. */
  readonly residualsM: readonly number[];
}

const DEG = Math.PI / 180;

/** Points closer to one line than this share of their spread tell nothing across it. */
const FLAT_SHARE = 1e-6;

/**
 * How a boat stands: the plane aboveGround − onBoat = offset + x·tan(trim) + y·tan(heel) through her points by least
 * squares. One point, two, or several in a line leave out what they cannot tell, which is then taken as none; points in
 * an oblique line tell neither, since trim and heel cannot be parted there. [P: linear least squares]
 * @throws RangeError without a point, or on figures that are no numbers
 * @example
 *   standingPlane({
 *     points: [
 *       { xM: 0, yM: 0, onBoatM: 1, aboveGroundM: 1.5 },
 *       { xM: 10, yM: 0, onBoatM: 1, aboveGroundM: 1.6 },
 *     ],
 *   }).heelDeg // → null
 */
export function standingPlane({ points }: { points: readonly StandingPoint[] }): Standing {
  if (points.length === 0)
    throw new Impossible('Measure at least one point whose height on the boat is known, better three.');
  points.forEach((p, i) => {
    finite(p.xM, `Point ${i + 1}, forward`);
    finite(p.yM, `Point ${i + 1}, to port`);
    finite(p.onBoatM, `Point ${i + 1}, height on the boat`);
    finite(p.aboveGroundM, `Point ${i + 1}, height above ground`);
  });
  const x = points.map((p) => p.xM);
  const y = points.map((p) => p.yM);
  const z = points.map((p) => p.aboveGroundM - p.onBoatM);
  const [mx, my, mz] = [mean(x), mean(y), mean(z)];
  const moment = (a: readonly number[], ma: number, b: readonly number[], mb: number) =>
    a.reduce((sum, v, i) => sum + (v - ma) * ((b[i] as number) - mb), 0);
  const [xx, yy, xy] = [moment(x, mx, x, mx), moment(y, my, y, my), moment(x, mx, y, my)];
  const [xz, yz] = [moment(x, mx, z, mz), moment(y, my, z, mz)];
  const spread = xx + yy;
  const flat = spread * FLAT_SHARE ** 2;
  let trim: number | null = null;
  let heel: number | null = null;
  const det = xx * yy - xy * xy;
  if (spread > 0 && det > flat * spread) {
    trim = (xz * yy - yz * xy) / det;
    heel = (yz * xx - xz * xy) / det;
  } else if (xx > 0 && yy <= flat) trim = xz / xx;
  else if (yy > 0 && xx <= flat) heel = yz / yy;
  const [a, b] = [trim ?? 0, heel ?? 0];
  const offsetM = mz - a * mx - b * my;
  return {
    offsetM,
    trimDeg: trim === null ? null : Math.atan(trim) / DEG,
    heelDeg: heel === null ? null : Math.atan(heel) / DEG,
    residualsM: z.map((v, i) => v - (offsetM + a * (x[i] as number) + b * (y[i] as number))),
  };
}

/**
 * Heights above ground of a line that runs level on the boat, m, one a station. What the standing leaves open counts as none.
 * @param options.lineM height of the line on the boat, m
 * @example
 *   lineAboveGround({
 *     standing: { offsetM: 0.5, trimDeg: 45, heelDeg: null },
 *     lineM: 1,
 *     stations: [{ xM: 2, yM: 1 }],
 *   })[0] // → 3.5
 */
export function lineAboveGround(options: {
  standing: Pick<Standing, 'offsetM' | 'trimDeg' | 'heelDeg'>;
  lineM: number;
  stations: readonly { xM: number; yM: number }[];
}): number[] {
  const { standing, lineM, stations } = options;
  const { trim, heel } = slopes(standing);
  return stations.map(
    ({ xM, yM }) =>
      finite(lineM, 'The height of the line') +
      standing.offsetM +
      trim * finite(xM, 'A station') +
      heel * finite(yM, 'A breadth'),
  );
}

/**
 * The height on the boat of a place measured above the ground, m: the other way round.
 * @example heightOnBoat({ standing: { offsetM: 0.5, trimDeg: 0, heelDeg: 0 }, xM: 2, yM: 1, aboveGroundM: 1.7 }) // → 1.2
 */
export function heightOnBoat(options: {
  standing: Pick<Standing, 'offsetM' | 'trimDeg' | 'heelDeg'>;
  xM: number;
  yM: number;
  aboveGroundM: number;
}): number {
  const { trim, heel } = slopes(options.standing);
  return options.aboveGroundM - options.standing.offsetM - trim * options.xM - heel * options.yM;
}

const slopes = ({ trimDeg, heelDeg }: Pick<Standing, 'trimDeg' | 'heelDeg'>) => ({
  trim: Math.tan((trimDeg ?? 0) * DEG),
  heel: Math.tan((heelDeg ?? 0) * DEG),
});

const mean = (values: readonly number[]) => values.reduce((sum, v) => sum + v, 0) / values.length;
