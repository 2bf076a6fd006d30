import { DROP_L, stepsFor, type CheckedOffer } from './offer';

/** Sizes as typed, in litres, quarts or ounces, are whole numbers of these: so is the grid that they share. */
const EXACT_PER_L = 1e13;
/** Steps that all tables of a need may have together: some ten milliseconds of them. */
const MOST_STEPS = 2e6;

/** Packs on the grid they share; of each volume on it the least cost and the pack that came last are tabled. */
interface Volumes {
  readonly offers: readonly CheckedOffer[];
  readonly units: readonly number[];
  readonly stepL: number;
  readonly length: number;
}

/**
 * The least cost by tables: whole kits, all of one proportion, matter only by their volume together, and what they
 * leave of each part is covered by packs of that part alone. So the cheapest way through every volume of kits, with
 * the cheapest cover of each rest, is the cheapest of all.
 * @returns how many of each offer; null where a kit has its own proportion, or the sizes' grid is too fine
 */
export function coverByTables(needL: readonly number[], offers: readonly CheckedOffer[]): number[] | null {
  const kits = offers.filter((o) => partsIn(o).length > 1);
  const shares = commonShares(kits);
  if (!shares) return null;
  const kitL = kits.length > 0 ? Math.max(...needL.map((l, p) => l / (shares[p] as number))) : 0;
  const kitTable = volumesOf(kits, kitL);
  const singles = needL.map((l, p) =>
    volumesOf(
      offers.filter((o) => partsIn(o).length === 1 && partsIn(o)[0] === p),
      l,
    ),
  );
  const steps = [kitTable, ...singles].reduce((sum, t) => sum + (t ? stepsOf(t) : 0), 0);
  if (!(steps <= MOST_STEPS)) return null;
  return cheapest({ needL, offers, shares, kitTable, singles });
}

const partsIn = (o: CheckedOffer) => o.partsL.flatMap((l, p) => (l > 0 ? [p] : []));

/** Litres of each part in a litre of kit; null where kits differ in it. */
function commonShares(kits: readonly CheckedOffer[]): number[] | null {
  const [model] = kits;
  const shares = model ? model.partsL.map((l) => l / model.totalL) : [];
  const alike = kits.every((k) =>
    k.partsL.every((l, p) => l > 0 && Math.abs(l / k.totalL - (shares[p] as number)) <= 1e-9),
  );
  return alike ? shares : null;
}

interface Tabled {
  readonly needL: readonly number[];
  readonly offers: readonly CheckedOffer[];
  readonly shares: readonly number[];
  readonly kitTable: Volumes | null;
  readonly singles: readonly (Volumes | null)[];
}

function cheapest({ needL, offers, shares, kitTable, singles }: Tabled): number[] | null {
  const filled = kitTable ? fill(kitTable) : null;
  const parts = singles.map((t) => (t ? cheapestFrom(t) : null));
  const rest: Rest = { cost: 0, litres: 0, at: [] };
  const best = { cost: Infinity, litres: Infinity, kit: 0, at: [] as number[] };
  for (let v = 0; v < (filled ? filled.least.length : 1); v += 1) {
    const kitCost = filled ? (filled.least[v] as number) : 0;
    if (kitCost === Infinity || kitCost > best.cost) continue;
    const kitLitres = kitTable ? v * kitTable.stepL : 0;
    // Hundreds of volumes are gone through: what is found of each goes into one and the same place.
    if (!cheapestRest(needL, shares, kitLitres, parts, rest)) continue;
    const cost = kitCost + rest.cost;
    const litres = kitLitres + rest.litres;
    if (cost < best.cost || (cost === best.cost && litres < best.litres - 1e-9))
      Object.assign(best, { cost, litres, kit: v, at: [...rest.at] });
  }
  if (best.cost === Infinity) return null;
  const counts = new Map<CheckedOffer, number>();
  filled?.countBack(best.kit, counts);
  parts.forEach((t, p) => t?.countBack(best.at[p] as number, counts));
  return offers.map((o) => counts.get(o) ?? 0);
}

/** The packs on the grid they share; null where there are none. Where the grid is as fine as a rounding, so is its length. */
function volumesOf(offers: readonly CheckedOffer[], needL: number): Volumes | null {
  if (offers.length === 0) return null;
  const sizes = offers.map((o) => Math.round(o.totalL * EXACT_PER_L));
  const step = sizes.reduce(commonDivisor);
  const units = sizes.map((s) => s / step);
  const stepL = step / EXACT_PER_L;
  // Where a price breaks, more than is needed may cost less.
  const beyond = offers.map((o, i) => (units[i] as number) * Math.max(1, ...o.froms));
  return { offers, units, stepL, length: stepsFor(needL, stepL) + Math.max(...beyond) + 1 };
}

/** A table filled in: what each volume costs at least, and the packs that make it up. */
interface Filled {
  readonly least: Float64Array;
  readonly countBack: (volume: number, counts: Map<CheckedOffer, number>) => void;
}

const priceBreaks = ({ offers }: Volumes): boolean => offers.some((o) => o.froms.length > 0);

/** What filling a table in costs, in steps. */
function stepsOf(table: Volumes): number {
  const { units, length } = table;
  return priceBreaks(table)
    ? units.reduce((sum, unit) => sum + (length * (length / unit + 1)) / 2, 0)
    : length * units.length;
}

const fill = (table: Volumes): Filled => (priceBreaks(table) ? fillByCounts(table) : fillByPacks(table));

/** Pack by pack: of every volume the pack that came last. */
function fillByPacks({ offers, units, length }: Volumes): Filled {
  const least = new Float64Array(length).fill(Infinity);
  const last = new Uint8Array(length);
  least[0] = 0;
  for (let v = 1; v < length; v += 1) {
    for (let i = 0; i < units.length; i += 1) {
      const before = v - (units[i] as number);
      if (before < 0) continue;
      const cost = (least[before] as number) + (offers[i] as CheckedOffer).leastEach;
      if (cost < (least[v] as number)) {
        least[v] = cost;
        last[v] = i;
      }
    }
  }
  const countBack: Filled['countBack'] = (volume, counts) => {
    for (let v = volume; v > 0; v -= units[last[v] as number] as number) {
      const offer = offers[last[v] as number] as CheckedOffer;
      counts.set(offer, (counts.get(offer) ?? 0) + 1);
    }
  };
  return { least, countBack };
}

/** Offer by offer, where a pack's price rests on how many are bought: of every volume how many of each. */
function fillByCounts({ offers, units, length }: Volumes): Filled {
  let least = new Float64Array(length).fill(Infinity);
  least[0] = 0;
  const chosen = offers.map((offer, i) => {
    const unit = units[i] as number;
    const costs = Array.from({ length: Math.floor((length - 1) / unit) + 1 }, (_, n) => offer.cost(n));
    const next = new Float64Array(length);
    const count = new Uint32Array(length);
    for (let v = 0; v < length; v += 1) {
      let best = Infinity;
      for (let n = 0; n * unit <= v; n += 1) {
        const cost = (least[v - n * unit] as number) + (costs[n] as number);
        if (cost < best) {
          best = cost;
          count[v] = n;
        }
      }
      next[v] = best;
    }
    least = next;
    return count;
  });
  const countBack: Filled['countBack'] = (volume, counts) => {
    let v = volume;
    for (let i = offers.length - 1; i >= 0; i -= 1) {
      const n = (chosen[i] as Uint32Array)[v] as number;
      if (n > 0) counts.set(offers[i] as CheckedOffer, n);
      v -= n * (units[i] as number);
    }
  };
  return { least, countBack };
}

interface Cheapest extends Filled {
  readonly table: Volumes;
  /** The cheapest volume at or above each, ties to the smaller. */
  readonly from: Int32Array;
}

function cheapestFrom(table: Volumes): Cheapest {
  const filled = fill(table);
  const { least } = filled;
  const from = new Int32Array(table.length);
  from[table.length - 1] = table.length - 1;
  for (let v = table.length - 2; v >= 0; v -= 1) {
    const later = from[v + 1] as number;
    from[v] = (least[v] as number) <= (least[later] as number) ? v : later;
  }
  return { ...filled, table, from };
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

function commonDivisor(a: number, b: number): number {
  return b === 0 ? a : commonDivisor(b, a % b);
}
