import { standing } from '../coat/fold';
import type { HullShape } from '../hull/shape';
import type { LogEntry } from '../model/log';
import type { EvidenceBody, LineSetBody, MarkedBody, MarkSide, StoodBody, WeightsBody } from '../model/waterline';
import { logged, type Logged } from '../prep/prepLog';
import { fairLine, type FairedLine } from './fairLine';
import { splineAt } from './spline';
import { heightOnBoat, type Standing } from './standing';

/** All that was logged of a boat's waterline, as it stands. */
export interface WaterlineLog {
  readonly stood: Logged<StoodBody> | null;
  readonly marks: readonly Logged<MarkedBody>[];
  /** The newest of each line, those that were removed left out. */
  readonly lines: readonly Logged<LineSetBody>[];
  readonly evidence: readonly Logged<EvidenceBody>[];
  readonly weights: Logged<WeightsBody> | null;
  /** `line no side` of stations that were set off. */
  readonly setOff: ReadonlyMap<string, string>;
}

const folded = new WeakMap<readonly LogEntry[], WaterlineLog>();

/**
 * What was logged of the waterline, folded once for as long as the list is kept.
 * @example foldWaterline(entries).lines // → []
 */
export function foldWaterline(entries: readonly LogEntry[]): WaterlineLog {
  let log = folded.get(entries);
  if (!log) {
    const all = standing(entries.filter((e) => e.stream === 'boat'));
    const lines = new Map(logged(all, 'lineSet').map((l) => [l.lineId, l]));
    log = {
      stood: logged(all, 'stood').at(-1) ?? null,
      marks: logged(all, 'marked'),
      lines: [...lines.values()].filter((l) => !l.removed),
      evidence: logged(all, 'evidence'),
      weights: logged(all, 'weights').at(-1) ?? null,
      setOff: new Map(all.flatMap((e) => (e.kind === 'setOff' ? [[setOffKey(e.body), e.id] as const] : []))),
    };
    folded.set(entries, log);
  }
  return log;
}

/** Names a station of a line on a side. @example setOffKey({ lineId: 'l', no: 3, side: 'port' }) // → 'l 3 port' */
export const setOffKey = ({ lineId, no, side }: { lineId: string; no: number; side: MarkSide }): string =>
  `${lineId} ${no} ${side}`;

/** What a mark's height rests on. */
export interface MarkHull {
  readonly shape: Pick<HullShape, 'half' | 'sheer' | 'bottom' | 'lengthM'>;
  readonly standing: Standing | null;
}

export type MarkProblem = 'notStood' | 'aboveRail' | 'belowHull' | 'offHull';

/**
 * Height of a mark above the drawn waterline, m, from what it was measured from; or why it has none.
 * @example
 *   markHeight(
 *     { xM: 1, side: 'port', from: 'rail', valueM: 0.4 },
 *     { shape: { half: () => 1, sheer: () => 1, bottom: () => -1, lengthM: 4 }, standing: null },
 *   ) // → { heightM: 0.6, problem: null }
 */
export function markHeight(
  mark: Pick<MarkedBody, 'xM' | 'side' | 'from' | 'valueM'>,
  { shape, standing }: MarkHull,
): { heightM: number | null; problem: MarkProblem | null } {
  const { xM, side, from, valueM } = mark;
  if (xM < -1e-6 || xM > shape.lengthM + 1e-6) return { heightM: null, problem: 'offHull' };
  const rail = shape.sheer(xM);
  if (from === 'ground' && !standing) return { heightM: null, problem: 'notStood' };
  const y = (shape.half(xM, 0) || shape.half(xM, rail)) * (side === 'port' ? 1 : -1);
  const heightM =
    from === 'line'
      ? valueM
      : from === 'rail'
        ? rail - valueM
        : heightOnBoat({ standing: standing as Standing, xM, yM: y, aboveGroundM: valueM });
  // A typed slip is far above the rail or below the keel; a drawn rail may be off by a little.
  const slack = 0.1;
  if (heightM > rail + slack) return { heightM, problem: 'aboveRail' };
  if (heightM < shape.bottom(xM) - slack && heightM < -slack) return { heightM, problem: 'belowHull' };
  return { heightM, problem: null };
}

/** A line as it comes out: faired or level, raised. */
export interface DrawnLine {
  readonly line: LineSetBody;
  /** Height above the drawn waterline at a place along her, m; null while a line of marks has none. */
  readonly heightM: (xM: number) => number | null;
  readonly faired: FairedLine | null;
  /** Marks that were faired, in order along her; those on one place are taken as their mean. */
  readonly marks: readonly { readonly ids: readonly string[]; readonly xM: number; readonly heightM: number }[];
  /** Marks that could not be placed. */
  readonly problems: readonly { readonly id: string; readonly problem: MarkProblem }[];
}

/** Marks nearer than this are one place, m. */
const SAME_M = 0.01;

/**
 * A candidate line: level, or faired through its marks of both sides, and raised by what was set. A mark that cannot be
 * placed is named; one that is above the rail or below the hull is faired with the rest and named as a stray there.
 * @example
 *   drawLine({
 *     line: { lineId: 'l', name: '', levelM: 0.1, noiseM: null, raiseM: 0.05, bandM: 0, bandMode: 'height', chosen: true },
 *     marks: [],
 *     hull: { shape: { half: () => 1, sheer: () => 1, bottom: () => -1, lengthM: 4 }, standing: null },
 *   }).heightM(2)?.toFixed(2) // → '0.15'
 */
export function drawLine(options: {
  line: LineSetBody;
  marks: readonly (MarkedBody & { readonly id: string })[];
  hull: MarkHull;
}): DrawnLine {
  const { line, hull } = options;
  const { levelM, noiseM, raiseM } = line;
  const placed = options.marks
    .filter((m) => m.lineId === line.lineId)
    .map((m) => ({ id: m.id, xM: m.xM, ...markHeight(m, hull) }));
  const problems = placed.flatMap(({ id, problem }) => (problem ? [{ id, problem }] : []));
  const marks = together(placed.flatMap(({ id, xM, heightM }) => (heightM === null ? [] : [{ id, xM, heightM }])));
  if (levelM !== null) return { line, heightM: () => levelM + raiseM, faired: null, marks, problems };
  if (marks.length === 0) return { line, heightM: () => null, faired: null, marks, problems };
  const faired = fairLine({
    marks: marks.map((m) => ({ sM: m.xM, heightM: m.heightM })),
    ...(noiseM === null ? {} : { noiseM }),
  });
  return { line, heightM: (xM) => splineAt(faired.curve, xM) + raiseM, faired, marks, problems };
}

/** Marks of both sides in order along her, those at one place as their mean. */
function together(marks: readonly { id: string; xM: number; heightM: number }[]): DrawnLine['marks'] {
  const groups: { ids: string[]; xM: number; sum: number }[] = [];
  for (const m of [...marks].sort((a, b) => a.xM - b.xM)) {
    const last = groups.at(-1);
    if (last && m.xM - last.xM < SAME_M) {
      last.ids.push(m.id);
      last.sum += m.heightM;
    } else groups.push({ ids: [m.id], xM: m.xM, sum: m.heightM });
  }
  return groups.map(({ ids, xM, sum }) => ({ ids, xM, heightM: sum / ids.length }));
}

/**
 * Numbers that a copied list leaves out between its first and its last.
 * @example missingStations([1, 2, 5]) // → [3, 4]
 */
export function missingStations(numbers: readonly number[]): number[] {
  if (numbers.length === 0) return [];
  const has = new Set(numbers);
  const [first, last] = [Math.min(...numbers), Math.max(...numbers)];
  return Array.from({ length: last - first + 1 }, (_, i) => first + i).filter((n) => !has.has(n));
}
