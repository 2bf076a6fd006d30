import type { Prepared } from './cover';

/** Sizes as typed, in litres, quarts or ounces, are whole numbers of these: so is the grid that they share. */
const EXACT_PER_L = 1e13;
/** Sizes that share no such grid, quarts beside three quarters of a litre, are told to a tenth of a millilitre. */
const COARSE_PER_L = 1e4;
/** Longest table, in steps of what all its packs share. */
const TABLE_MAX = 8e6;
/** Litres below this are rounding, not paint: a hundredth of a millilitre. */
export const DROP_L = 1e-5;

/** The least cost of making up each volume from packs, one at a time, and which pack came last. */
interface Volumes {
  readonly offers: readonly Prepared[];
  readonly units: readonly number[];
  readonly stepL: number;
  readonly length: number;
  readonly exact: boolean;
}

export interface CoverTables {
  /** Steps that filling them takes. */
  readonly work: number;
  /** False where sizes were rounded down to share a grid: what is found covers, yet a drop may have cost a tin. */
  readonly exact: boolean;
  /** How many of each offer, in their order; null where they cannot cover it. */
  solve(): number[] | null;
}

/**
 * Tables for a need of several parts: whole kits, all of one proportion, matter only by their volume together, and
 * what they leave of each part is covered by packs of that part alone. So the cheapest way through every volume of
 * kits, with the cheapest cover of each rest, is the cheapest of all.
 * @returns null where prices break, a kit has its own proportion, or the grid of the sizes is too fine
 */
export function coverTables(needL: readonly number[], offers: readonly Prepared[]): CoverTables | null {
  if (offers.some((o) => o.froms.length > 0)) return null;
  const partsIn = (o: Prepared) => o.partsL.flatMap((l, p) => (l > 0 ? [p] : []));
  const kits = offers.filter((o) => partsIn(o).length > 1);
  const [model] = kits;
  if (
    kits.some((k) =>
      k.partsL.some(
        (l, p) =>
          l <= 0 ||
          Math.abs(l / k.totalL - ((model as Prepared).partsL[p] as number) / (model as Prepared).totalL) > 1e-9,
      ),
    )
  )
    return null;
  const shares = model ? model.partsL.map((l) => l / model.totalL) : [];
  const kitL = model ? Math.max(...needL.map((l, p) => l / (shares[p] as number))) : 0;
  const kitTable = volumesOf(kits, kitL);
  const singles = needL.map((l, p) =>
    volumesOf(
      offers.filter((o) => partsIn(o).length === 1 && partsIn(o)[0] === p),
      l,
    ),
  );
  if (kitTable === 'fine' || singles.includes('fine')) return null;
  const tables = singles as (Volumes | null)[];
  const work = [kitTable, ...tables].reduce((sum, t) => sum + (t ? t.length * t.units.length : 0), 0);
  return {
    work,
    exact: [kitTable, ...tables].every((t) => t?.exact ?? true),
    solve() {
      const filled = kitTable ? fill(kitTable) : null;
      const parts = tables.map((t) => (t ? cheapestFrom(t) : null));
      const rest: Rest = { cost: 0, litres: 0, at: [] };
      let best: { cost: number; litres: number; kit: number; at: number[] } | null = null;
      for (let v = 0; v < (filled ? filled.least.length : 1); v += 1) {
        const kitCost = filled ? (filled.least[v] as number) : 0;
        if (kitCost === Infinity || (best && kitCost > best.cost)) continue;
        const kitLitres = filled ? v * (kitTable as Volumes).stepL : 0;
        // Hundreds of volumes are gone through: what is found of each goes into one and the same place.
        if (!cheapestRest(needL, shares, kitLitres, parts, rest)) continue;
        const cost = kitCost + rest.cost;
        const litres = kitLitres + rest.litres;
        if (!best || cost < best.cost || (cost === best.cost && litres < best.litres - 1e-9))
          best = { cost, litres, kit: v, at: [...rest.at] };
      }
      if (!best) return null;
      const counts = new Map<Prepared, number>();
      if (filled && kitTable) countBack(kitTable, filled.last, best.kit, counts);
      parts.forEach((t, p) => t && countBack(t.table, t.last, (best as { at: number[] }).at[p] as number, counts));
      return offers.map((o) => counts.get(o) ?? 0);
    },
  };
}

/** The packs that one table is of, on the grid they share: null where there are none, `fine` where it would be too long. */
function volumesOf(offers: readonly Prepared[], needL: number): Volumes | null | 'fine' {
  if (offers.length === 0) return null;
  const exact = gridOf(offers, needL, EXACT_PER_L, Math.round);
  if (exact) return { ...exact, exact: true };
  const coarse = gridOf(offers, needL, COARSE_PER_L, (steps) => Math.floor(steps + 1e-6));
  return coarse ? { ...coarse, exact: false } : 'fine';
}

function gridOf(
  offers: readonly Prepared[],
  needL: number,
  perL: number,
  whole: (steps: number) => number,
): Omit<Volumes, 'exact'> | null {
  const sizes = offers.map((o) => whole(o.totalL * perL));
  if (sizes.some((s) => s < 1)) return null;
  const step = sizes.reduce(commonDivisor);
  const units = sizes.map((s) => s / step);
  const stepL = step / perL;
  const length = stepsFor(needL, stepL) + Math.max(...units) + 1;
  return length > TABLE_MAX ? null : { offers, units, stepL, length };
}

/** Steps, or tins, of so many litres that cover a need. */
export function stepsFor(needL: number, stepL: number): number {
  return Math.max(0, Math.ceil((needL - DROP_L) / stepL));
}

function fill({ offers, units, length }: Volumes): { least: Float64Array; last: Uint8Array } {
  const least = new Float64Array(length).fill(Infinity);
  const last = new Uint8Array(length);
  least[0] = 0;
  for (let v = 1; v < length; v += 1) {
    for (let i = 0; i < units.length; i += 1) {
      const before = v - (units[i] as number);
      if (before < 0) continue;
      const cost = (least[before] as number) + (offers[i] as Prepared).leastEach;
      if (cost < (least[v] as number)) {
        least[v] = cost;
        last[v] = i;
      }
    }
  }
  return { least, last };
}

interface Cheapest {
  readonly table: Volumes;
  readonly least: Float64Array;
  readonly last: Uint8Array;
  /** The cheapest volume at or above each, ties to the smaller. */
  readonly from: Int32Array;
}

function cheapestFrom(table: Volumes): Cheapest {
  const { least, last } = fill(table);
  const from = new Int32Array(table.length);
  from[table.length - 1] = table.length - 1;
  for (let v = table.length - 2; v >= 0; v -= 1) {
    const later = from[v + 1] as number;
    from[v] = (least[v] as number) <= (least[later] as number) ? v : later;
  }
  return { table, least, last, from };
}

interface Rest {
  cost: number;
  litres: number;
  /** Place in the table of each part. */
  readonly at: number[];
}

/** What kits of so many litres leave of each part, covered by packs of that part. @returns whether it can be */
function cheapestRest(
  needL: readonly number[],
  shares: readonly number[],
  kitLitres: number,
  parts: readonly (Cheapest | null)[],
  into: Rest,
): boolean {
  into.cost = 0;
  into.litres = 0;
  for (let p = 0; p < needL.length; p += 1) {
    const rest = (needL[p] as number) - kitLitres * (shares[p] ?? 0);
    into.at[p] = 0;
    if (rest <= DROP_L) continue;
    const part = parts[p];
    if (!part) return false;
    const v = part.from[stepsFor(rest, part.table.stepL)] as number;
    if (part.least[v] === Infinity) return false;
    into.cost += part.least[v] as number;
    into.litres += v * part.table.stepL;
    into.at[p] = v;
  }
  return true;
}

function countBack({ offers, units }: Volumes, last: Uint8Array, volume: number, counts: Map<Prepared, number>): void {
  for (let v = volume; v > 0; v -= units[last[v] as number] as number) {
    const offer = offers[last[v] as number] as Prepared;
    counts.set(offer, (counts.get(offer) ?? 0) + 1);
  }
}

function commonDivisor(a: number, b: number): number {
  return b === 0 ? a : commonDivisor(b, a % b);
}
