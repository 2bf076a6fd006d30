import { DROP_L, stepsFor, type CheckedOffer } from './offer';

/** Counts tried at most, over all branches: within a frame of them. */
const MOST_TRIED = 60_000;

/**
 * The least cost by a depth-first search over the offers, cheapest litre first; a branch is left where no price could
 * still make it better.
 * @returns how many of each offer, in their order; `provenLeast` false where it had to stop before all was looked into
 */
export function coverBySearch(
  need: readonly number[],
  offers: readonly CheckedOffer[],
): { counts: number[]; provenLeast: boolean } {
  // Where litres cost the same the larger pack first: it reaches a full cover sooner.
  const order = [...offers].sort((a, b) => a.leastEach / a.totalL - b.leastEach / b.totalL || b.totalL - a.totalL);
  const leastFor = lowerBounds(order, need.length);
  const rest = [...need];
  const counts = order.map(() => 0);
  const best = { cost: Infinity, left: Infinity, counts: [...counts] };
  let tried = 0;

  const keepIfBetter = (cost: number) => {
    const left = rest.reduce((sum, r) => sum - r, 0);
    if (cost < best.cost || (cost === best.cost && left < best.left - 1e-9))
      Object.assign(best, { cost, left, counts: [...counts] });
  };
  const hopeless = (i: number, cost: number) => {
    const floor = cost + leastFor(i, rest);
    return floor > best.cost || (floor === best.cost && best.left <= DROP_L);
  };
  const search = (i: number, cost: number): void => {
    // More of anything costs something, or, where it is free, only leaves more.
    if (rest.every((r) => r <= DROP_L)) return keepIfBetter(cost);
    const offer = order[i];
    if (!offer || hopeless(i, cost)) return;
    for (const n of countsToTry(offer, rest)) {
      tried += 1;
      if (tried > MOST_TRIED && best.cost < Infinity) break;
      const paid = cost + offer.cost(n);
      if (paid > best.cost) continue;
      offer.partsL.forEach((l, p) => (rest[p] = (rest[p] as number) - n * l));
      counts[i] = n;
      search(i + 1, paid);
      offer.partsL.forEach((l, p) => (rest[p] = (rest[p] as number) + n * l));
    }
    counts[i] = 0;
  };
  search(0, 0);
  const inOrder = offers.map(() => 0);
  order.forEach((o, i) => (inOrder[o.at] = best.counts[i] as number));
  return { counts: inOrder, provenLeast: tried <= MOST_TRIED };
}

/** So many as cover what is left, then fewer; and more, where a price breaks. */
function countsToTry(offer: CheckedOffer, rest: readonly number[]): number[] {
  const most = Math.max(
    ...offer.partsL.map((l, p) => (l > 0 && (rest[p] as number) > DROP_L ? stepsFor(rest[p] as number, l) : 0)),
  );
  return [...Array.from({ length: most + 1 }, (_, k) => most - k), ...offer.froms.filter((from) => from > most)];
}

/** From each place in the order on: the least that what is left can cost, by the cheapest litre of each part and of anything. */
function lowerBounds(order: readonly CheckedOffer[], parts: number): (i: number, rest: readonly number[]) => number {
  const ofPart = [Array.from({ length: parts }, () => Infinity)];
  const ofAny = [Infinity];
  for (const o of [...order].reverse()) {
    const later = ofPart[0] as number[];
    ofPart.unshift(later.map((least, p) => Math.min(least, o.partsL[p] ? o.leastEach / o.partsL[p] : Infinity)));
    ofAny.unshift(Math.min(ofAny[0] as number, o.leastEach / o.totalL));
  }
  return (i, rest) => {
    let least = 0;
    let sum = 0;
    rest.forEach((r, p) => {
      if (r <= DROP_L) return;
      sum += r;
      least = Math.max(least, r * ((ofPart[i] as number[])[p] as number));
    });
    return sum === 0 ? 0 : Math.ceil(Math.max(least, sum * (ofAny[i] as number)) - 1e-6);
  };
}
