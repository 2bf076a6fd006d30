/** Which rule an integral over stations was worked out by. */
export type IntegrationRule = 'simpson' | 'trapezoid' | 'mixed';

/** Stations count as even when no spacing is off the mean by more than positions rounded to a millimetre make it … */
const ROUNDED_M = 0.001;
/** … and by no more than this share of it. */
const EVEN = 0.02;

/**
 * Integral of y over ascending x: composite Simpson where the stations are even and their intervals an even
 * number; with an odd number of even intervals Simpson up to the last and the trapezoid there; the trapezoid
 * throughout where the stations are uneven. [P: any text of numerical methods]
 * @param options.x ascending, two or more, m: even as a tape is read, to the millimetre
 */
export function integrate(options: { x: readonly number[]; y: readonly number[] }): {
  integral: number;
  rule: IntegrationRule;
} {
  const { x, y } = options;
  const at = (list: readonly number[], i: number) => list[i] as number;
  const intervals = x.length - 1;
  const trapezoid = (from: number) => {
    let sum = 0;
    for (let i = from; i < intervals; i += 1) sum += ((at(x, i + 1) - at(x, i)) * (at(y, i) + at(y, i + 1))) / 2;
    return sum;
  };
  const step = (at(x, intervals) - at(x, 0)) / intervals;
  const even = x.every(
    (v, i) => i === 0 || Math.abs(v - at(x, i - 1) - step) <= Math.min(ROUNDED_M, EVEN * step) * (1 + 1e-9),
  );
  if (!even || intervals === 1) return { integral: trapezoid(0), rule: 'trapezoid' };
  const paired = intervals - (intervals % 2);
  let sum = 0;
  for (let i = 0; i < paired; i += 2) sum += (step / 3) * (at(y, i) + 4 * at(y, i + 1) + at(y, i + 2));
  return paired === intervals
    ? { integral: sum, rule: 'simpson' }
    : { integral: sum + trapezoid(paired), rule: 'mixed' };
}

/** Slope dy/dx at every station, by the parabola through it and its neighbours (one-sided at the ends). */
export function slopes(options: { x: readonly number[]; y: readonly number[] }): number[] {
  const { x, y } = options;
  const last = x.length - 1;
  const at = (list: readonly number[], i: number) => list[i] as number;
  if (last === 1) return [0, 1].map(() => (at(y, 1) - at(y, 0)) / (at(x, 1) - at(x, 0)));
  return x.map((xi, i) => {
    const m = Math.min(Math.max(i, 1), last - 1);
    const [a, b, c] = [at(x, m - 1), at(x, m), at(x, m + 1)];
    const [ya, yb, yc] = [at(y, m - 1), at(y, m), at(y, m + 1)];
    return (
      (ya * (2 * xi - b - c)) / ((a - b) * (a - c)) +
      (yb * (2 * xi - a - c)) / ((b - a) * (b - c)) +
      (yc * (2 * xi - a - b)) / ((c - a) * (c - b))
    );
  });
}
