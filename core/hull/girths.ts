import { notNegative } from '../guard';
import { integrate, slopes, type IntegrationRule } from './integrate';
import { Impossible } from '../impossible';

/**
 * Positions along the hull, checked: two or more, ascending, none twice.
 * @throws RangeError naming the first that is out of order
 */
export function checkStations(stationsM: readonly number[], what = 'Station'): void {
  if (stationsM.length < 2) throw new Impossible(`At least two ${what.toLowerCase()}s are needed. Add one.`);
  stationsM.forEach((x, i) => {
    if (!Number.isFinite(x)) throw new Impossible(`${what} ${i + 1} has no position. Type it.`);
    const before = stationsM[i - 1];
    if (before !== undefined && x === before)
      throw new Impossible(`${what}s ${i} and ${i + 1} are at the same place. Take one out.`);
    if (before !== undefined && x < before)
      throw new Impossible(`${what} ${i + 1} comes before ${what.toLowerCase()} ${i}. Put them in order.`);
  });
}

/**
 * Area of both sides, m², from half-girths taken with a tape at stations along the length: 2·∫ g dx. With
 * half-breadths as well, the integrand is g·sqrt(1 + (db/dx)²), since a strip near the ends lies on a surface
 * that runs at an angle to the centreline. [P: naval-architecture texts; CP]
 * @param options.stationsM ascending positions along the length, m
 * @param options.halfGirthsM from waterline (or sheer) to centreline at each station, m
 * @param options.halfBreadthsM at each station, m; left out, no slope correction is made
 * @returns `slopeFactor`, the ratio of the two integrals, 1 where no correction was made
 * @throws RangeError on stations out of order or doubled, a missing girth, negative figures
 * @example areaFromGirths({ stationsM: [0, 1, 2], halfGirthsM: [1, 1, 1] }).areaM2 // → 4
 */
export function areaFromGirths(options: {
  stationsM: readonly number[];
  halfGirthsM: readonly number[];
  halfBreadthsM?: readonly number[];
}): { areaM2: number; rule: IntegrationRule; slopeFactor: number } {
  const { stationsM: x, halfGirthsM: g, halfBreadthsM: b } = options;
  checkStations(x);
  x.forEach((_, i) => {
    if (Number.isNaN(g[i] ?? Number.NaN))
      throw new Impossible(`The half-girth at station ${i + 1} is missing. Measure it, or take the station out.`);
    notNegative(g[i] as number, `Half-girth ${i + 1}`);
    if (b === undefined) return;
    if (Number.isNaN(b[i] ?? Number.NaN))
      throw new Impossible(
        `The half-breadth at station ${i + 1} is missing. Measure it, or leave all half-breadths out.`,
      );
    notNegative(b[i] as number, `Half-breadth ${i + 1}`);
  });
  if (g.length !== x.length || (b && b.length !== x.length))
    throw new Impossible('There are more figures than stations. Take some out, or add stations.');
  if (g.every((v) => v === 0)) throw new Impossible('Every half-girth is zero. Type what the tape shows.');
  const plain = integrate({ x, y: g });
  if (b === undefined) return { areaM2: 2 * plain.integral, rule: plain.rule, slopeFactor: 1 };
  const slope = slopes({ x, y: b });
  const sloped = integrate({ x, y: g.map((v, i) => v * Math.hypot(1, slope[i] as number)) });
  return { areaM2: 2 * sloped.integral, rule: sloped.rule, slopeFactor: sloped.integral / plain.integral };
}

/** A girth this far off the curve through its neighbours, as a share of the largest, is worth a second look. [M] */
const STRAY_SHARE = 0.05;
/** And so many times further off than the others are once it is left out. [M] */
const STRAY_TIMES_USUAL = 3;

export interface StrayGirth {
  readonly index: number;
  /** What the smooth curve through the others gives there, m. */
  readonly expectedM: number;
}

interface Taped {
  readonly index: number;
  readonly x: number;
  readonly g: number;
}

/**
 * Girths that stray from the smooth curve through their neighbours (the cubic through two on each side), the
 * worst first. Ends are not judged: a hull may stop short there. Stations without a girth are passed over.
 */
export function strayGirths(options: {
  stationsM: readonly number[];
  halfGirthsM: readonly (number | null)[];
}): StrayGirth[] {
  let kept: Taped[] = options.stationsM.flatMap((x, index) => {
    const g = options.halfGirthsM[index];
    return typeof g === 'number' && Number.isFinite(g) && Number.isFinite(x) ? [{ index, x, g }] : [];
  });
  const largest = Math.max(0, ...kept.map((p) => p.g));
  const strays: StrayGirth[] = [];
  const most = Math.floor(kept.length / 4);
  while (kept.length >= 5 && strays.length < most) {
    const worst = offTheCurve(kept).reduce((a, b) => (b.by > a.by ? b : a));
    const rest = kept.filter((p) => p !== worst.p);
    // A stray pulls its neighbours' curves along: what is usual shows only without it.
    const others = offTheCurve(rest)
      .map((o) => o.by)
      .sort((a, b) => a - b);
    const usual = others[Math.floor(others.length / 2)] ?? 0;
    if (worst.by <= Math.max(STRAY_SHARE * largest, STRAY_TIMES_USUAL * usual)) break;
    strays.push({ index: worst.p.index, expectedM: worst.expectedM });
    kept = rest;
  }
  return strays;
}

/** How far each inner girth is off the cubic through two neighbours on each side. */
function offTheCurve(taped: readonly Taped[]): { p: Taped; expectedM: number; by: number }[] {
  return taped.slice(1, -1).map((p, k) => {
    const i = k + 1;
    const near = taped.slice(Math.max(0, i - 2), i + 3).filter((q) => q !== p);
    const expectedM = throughPoints(near, p.x);
    return { p, expectedM, by: Math.abs(p.g - expectedM) };
  });
}

/** The polynomial through a few points, at x (Lagrange). */
function throughPoints(points: readonly { x: number; g: number }[], x: number): number {
  return points.reduce(
    (sum, p) => sum + p.g * points.reduce((w, q) => (q === p ? w : (w * (x - q.x)) / (p.x - q.x)), 1),
    0,
  );
}
