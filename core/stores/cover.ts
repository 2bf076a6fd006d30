import { notNegative, positive } from '../guard';
import { coverTables, DROP_L, stepsFor } from './coverTables';
import { Impossible } from '../impossible';

/** Something that can be bought: litres of each part in it, and its price. */
export interface Offer {
  readonly partsL: readonly number[];
  /** Minor units, each. */
  readonly priceMinor: number;
  /** Price of each from so many on. */
  readonly breaks?: readonly { readonly from: number; readonly priceMinor: number }[] | undefined;
}

export interface Purchase {
  /** How many of each offer, in their order. */
  readonly counts: readonly number[];
  readonly costMinor: number;
  /** Litres of each part over. */
  readonly leftL: readonly number[];
}

/** Tables that come to no more steps than this are filled at once: a tenth of a millisecond of them. */
const QUICK = 60_000;
/** Branches looked into before larger tables are filled instead: some two milliseconds of them. */
const BRANCHES = 20_000;

/** An offer looked over, with what searching asks of it. */
export interface Prepared {
  readonly at: number;
  readonly partsL: readonly number[];
  readonly totalL: number;
  readonly cost: (count: number) => number;
  /** Counts at which buying more than is needed may get cheaper. */
  readonly froms: readonly number[];
  readonly leastEach: number;
}

/**
 * The least cost that covers a need of every part, ties to the least left over in all. Exact, in one of two ways:
 * every volume up to the need is gone through in tables (see coverTables), or a depth-first search over the offers,
 * cheapest litre first, leaves a branch only where no price could still make it better. Tables are quick where the
 * sizes share a coarse grid, and know no price breaks; the search takes long where litres cost nearly the same in
 * many sizes, and gives way to the tables then.
 *
 * @param options.needL litres of each part still to be had, all at least 0
 * @returns null where an offer for some needed part is missing
 * @throws RangeError on impossible sizes or prices
 */
export function coverAtLeastCost({
  needL,
  offers,
}: {
  needL: readonly number[];
  offers: readonly Offer[];
}): Purchase | null {
  const need = needL.map((l, p) => Math.max(0, notNegative(l, `The need of part ${p + 1}`)));
  const prepared = offers.map((offer, at) => prepare(offer, at, need.length));
  const none = { counts: offers.map(() => 0), costMinor: 0, leftL: need.map(() => 0) };
  if (need.every((l) => l <= DROP_L)) return none;
  if (need.some((l, p) => l > DROP_L && !prepared.some((o) => (o.partsL[p] as number) > 0))) return null;

  // Cheapest litre first; where that is equal the larger pack, which reaches a full cover sooner.
  prepared.sort((a, b) => a.leastEach / a.totalL - b.leastEach / b.totalL || b.totalL - a.totalL);
  // From each place in the order on: the least that a litre of each part, and of anything, can cost.
  const last = prepared.length;
  const least: number[][] = Array.from({ length: last + 1 }, () => []);
  const leastAny: number[] = Array<number>(last + 1).fill(Infinity);
  least[last] = need.map(() => Infinity);
  for (let i = last - 1; i >= 0; i -= 1) {
    const o = prepared[i] as Prepared;
    least[i] = need.map((_l, p) =>
      Math.min(
        (least[i + 1] as number[])[p] as number,
        (o.partsL[p] as number) > 0 ? o.leastEach / (o.partsL[p] as number) : Infinity,
      ),
    );
    leastAny[i] = Math.min(leastAny[i + 1] as number, o.leastEach / o.totalL);
  }
  const counts = new Array<number>(last).fill(0);
  const best = { cost: Infinity, left: Infinity, counts: [...counts] };
  const rest = [...need];

  const bound = (i: number): number => {
    let most = 0;
    let sum = 0;
    for (let p = 0; p < rest.length; p += 1) {
      const r = rest[p] as number;
      if (r <= DROP_L) continue;
      sum += r;
      most = Math.max(most, r * ((least[i] as number[])[p] as number));
    }
    return sum === 0 ? 0 : Math.ceil(Math.max(most, sum * (leastAny[i] as number)) - 1e-6);
  };

  const tables = coverTables(need, prepared);
  let branches = 0;
  let tabled: number[] | null = tables?.exact && tables.work <= QUICK ? tables.solve() : null;
  const search = (i: number, cost: number): void => {
    if (tabled) return;
    branches += 1;
    if (branches === BRANCHES) tabled = tables?.solve() ?? null;
    const covered = rest.every((r) => r <= DROP_L);
    if (covered) {
      const left = rest.reduce((sum, r) => sum - r, 0);
      if (cost < best.cost || (cost === best.cost && left < best.left - 1e-9))
        Object.assign(best, { cost, left, counts: [...counts] });
      // More of anything costs something, or, where it is free, only leaves more.
      return;
    }
    if (i === last) return;
    const floor = cost + bound(i);
    if (floor > best.cost || (floor === best.cost && best.left <= DROP_L)) return;
    const o = prepared[i] as Prepared;
    let most = 0;
    for (let p = 0; p < rest.length; p += 1)
      if ((o.partsL[p] as number) > 0 && (rest[p] as number) > DROP_L)
        most = Math.max(most, stepsFor(rest[p] as number, o.partsL[p] as number));
    const tries: number[] = [];
    for (let n = most; n >= 0; n -= 1) tries.push(n);
    for (const from of o.froms) if (from > most) tries.push(from);
    for (const n of tries) {
      const paid = cost + o.cost(n);
      if (paid > best.cost) continue;
      for (let p = 0; p < rest.length; p += 1) rest[p] = (rest[p] as number) - n * (o.partsL[p] as number);
      counts[i] = n;
      search(i + 1, paid);
      for (let p = 0; p < rest.length; p += 1) rest[p] = (rest[p] as number) + n * (o.partsL[p] as number);
    }
    counts[i] = 0;
  };
  search(0, 0);
  if (tabled) {
    const found: number[] = tabled;
    const cost = prepared.reduce((sum, o, i) => sum + o.cost(found[i] as number), 0);
    // Rounded tables may miss what the search had found before it gave way to them.
    if (tables?.exact || cost < best.cost) Object.assign(best, { counts: found, cost });
  }

  const inOrder = offers.map(() => 0);
  prepared.forEach((o, i) => (inOrder[o.at] = best.counts[i] as number));
  return {
    counts: inOrder,
    costMinor: best.cost,
    leftL: need.map((l, p) =>
      Math.max(0, prepared.reduce((sum, o, i) => sum + (best.counts[i] as number) * (o.partsL[p] as number), 0) - l),
    ),
  };
}

function prepare(offer: Offer, at: number, parts: number): Prepared {
  if (offer.partsL.length !== parts) throw new Impossible('A pack must say how much of each part it holds.');
  const totalL = offer.partsL.reduce((sum, l) => sum + notNegative(l, 'What a pack holds'), 0);
  positive(totalL, 'The size of a pack');
  const whole = (price: number) => {
    if (!Number.isInteger(notNegative(price, 'The price of a pack')))
      throw new Impossible('The price of a pack must be in whole cents.');
    return price;
  };
  whole(offer.priceMinor);
  const breaks = [...(offer.breaks ?? [])].sort((a, b) => b.from - a.from);
  for (const b of breaks) {
    whole(b.priceMinor);
    if (!Number.isInteger(b.from) || b.from < 2) throw new Impossible('A price break starts at two packs or more.');
  }
  return {
    at,
    partsL: offer.partsL,
    totalL,
    cost: (count) => count * (breaks.find((b) => count >= b.from)?.priceMinor ?? offer.priceMinor),
    froms: breaks.map((b) => b.from),
    leastEach: Math.min(offer.priceMinor, ...breaks.map((b) => b.priceMinor)),
  };
}
