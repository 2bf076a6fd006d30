import type { ItemClocks } from './clocks';
import type { Item, Model } from './model';
import { endOf, isPlaced, type Job, type Placement } from './score';
import { openStarts } from './starts';
import { leftWith, type Unit } from './units';
import { planZone } from './zonePlan';

/** How a unit is put back: no sooner than a step, in a hurry or as the plan is scored, sparing a crew, one item held. */
export interface How {
  readonly earliest?: number;
  readonly eager?: boolean;
  readonly shun?: (item: Item, crew: number) => boolean;
  readonly pin?: { readonly item: number; readonly at: number } | null;
}

export interface PutContext {
  readonly job: Job;
  readonly fixed: (item: number, crew: number) => Uint8Array;
  readonly random: () => number;
  /** Nothing starts before it. */
  readonly from: number;
}

/** Starts of the coat before that are tried for each start: all of them in small plans, the nearest in long ones. */
const breadthOf = (last: number) => Math.max(32, Math.min(96, Math.round(40_000 / last)));
const nobody = () => false;

/** Put a unit back into a plan, as well as it goes beside the rest; what fits nowhere is left out, as little as may be. */
export function putBack(
  context: PutContext,
  placement: Placement,
  unit: Unit,
  pending: ReadonlySet<number>,
  { earliest = context.from, eager = false, shun = nobody, pin = null }: How,
): void {
  const { job, fixed, random } = context;
  const { model } = job;
  const possible = possibleItems(context, placement, unit.order);
  const free = freeOf(model, unit.order);
  const boat = boatOf(job, placement, unit, pending);
  const attempt = (order: readonly number[]): boolean => {
    if (order.length === 0) return true;
    const question = { order, free, ...boat, breadth: breadthOf(model.last), from: earliest, eager, shun, pin, random };
    const plan = planZone(job, fixed, placement, question);
    plan?.write(placement);
    return plan !== null;
  };
  if (attempt(possible)) return;
  for (const order of fewer(model, possible)) if (attempt(order)) return;
  // One by one, so that no single item keeps all others out.
  let kept: number[] = [];
  for (const item of possible) {
    const wanted = new Set(kept).add(item);
    const order = possible.filter((i) => wanted.has(i));
    const waits = (model.items[item] as Item).links.some((l) => possible.includes(l.before) && !wanted.has(l.before));
    if (!waits && attempt(order)) kept = order;
  }
}

/** Take a unit out of a plan, its abradings with it. */
export function takeOut(model: Model, { start }: Placement, unit: Unit): void {
  for (const item of unit.order) {
    start[item] = -1;
    const { partner } = model.items[item] as Item;
    if (partner >= 0) start[partner] = -1;
  }
}

function freeOf(model: Model, order: readonly number[]): Uint8Array {
  const free = new Uint8Array(model.items.length);
  for (const item of order) {
    free[item] = 1;
    const { partner } = model.items[item] as Item;
    if (partner >= 0) free[partner] = 1;
  }
  return free;
}

/** Items of a unit whose earlier ones are all in the plan, done, or of the unit itself. */
function possibleItems(
  { job: { model }, fixed }: PutContext,
  placement: Placement,
  order: readonly number[],
): number[] {
  const possible: number[] = [];
  for (const index of order) {
    const item = model.items[index] as Item;
    const there = (before: number) =>
      possible.includes(before) ||
      (model.items[before] as Item).done !== null ||
      (!order.includes(before) && isPlaced(placement, before));
    const anywhere = item.crews.some((_, crew) => fixed(index, crew).includes(1));
    if (anywhere && item.links.every((l) => there(l.before))) possible.push(index);
  }
  // What may not be done without one that is impossible is impossible too.
  const all = new Set(order);
  const out = new Set<number>();
  for (const item of order) if (!possible.includes(item)) for (const i of leftWith(model, item, all)) out.add(i);
  return possible.filter((i) => !out.has(i));
}

/** Orders with some items left out, those with the fewest out first. */
function fewer(model: Model, order: readonly number[]): number[][] {
  const all = new Set(order);
  const seen = new Set<string>();
  return order
    .map((item) => leftWith(model, item, all))
    .sort((a, b) => a.size - b.size)
    .map((out) => order.filter((i) => !out.has(i)))
    .filter((kept) => {
      const key = kept.join();
      return kept.length > 0 && !seen.has(key) && seen.add(key).size > 0;
    });
}

/** When the rest of a unit's boat is ready, and her date; what is still to be put back is not counted. */
function boatOf(
  { model, clocks }: Job,
  placement: Placement,
  unit: Unit,
  pending: ReadonlySet<number>,
): { othersReady: number | null; launch: number | null } {
  const { boat } = model.zones[unit.zone] as Model['zones'][number];
  const { launch } = model.boats[boat] as Model['boats'][number];
  const own = new Set(unit.order);
  let ready = 0;
  for (const item of model.items) {
    if (item.kind === 'abrade' || own.has(item.index) || pending.has(item.index)) continue;
    if ((model.zones[item.zone] as Model['zones'][number]).boat !== boat) continue;
    const { done, immersionMin } = clocks[item.index] as ItemClocks;
    if (!item.done && !isPlaced(placement, item.index)) return { othersReady: null, launch };
    const end = item.done ? 0 : endOf({ model }, placement, item.index);
    const at = item.done ? (done?.immersionMin ?? 0) : immersionMin ? (immersionMin[end] as number) : end;
    if (at > model.last) return { othersReady: null, launch };
    ready = Math.max(ready, at);
  }
  return { othersReady: ready, launch };
}

/** Abradings before locked coats that need one, as late as they fit: the coat is not put back, so they come by themselves. */
export function abradeLocked({ job, fixed }: PutContext, placement: Placement): void {
  const { model } = job;
  for (const coat of model.items) {
    if (!coat.lock || coat.partner < 0 || isPlaced(placement, coat.partner)) continue;
    const between = abradeBetween(job, placement, coat, coat.lock.start);
    if (!between) continue;
    const abrading = model.items[coat.partner] as Item;
    const free = new Uint8Array(model.items.length);
    let best = -1;
    abrading.crews.forEach(({ steps }, crew) => {
      const into = new Uint8Array(model.last + 2);
      const { ok } = openStarts(job, fixed, placement, { item: abrading, crew, free, into });
      for (let k = between.to - steps; k >= between.from && k > best; k -= 1)
        if (ok[k] === 1) {
          best = k;
          placement.crew[abrading.index] = crew;
        }
    });
    if (best >= 0) placement.start[abrading.index] = best;
  }
}

/** In which steps a locked coat's abrading has to lie; null where it needs none, or what is below is not in the plan. */
function abradeBetween(
  { model, clocks }: Job,
  placement: Placement,
  coat: Item,
  to: number,
): { from: number; to: number } | null {
  const over = (clocks[coat.index] as ItemClocks).over as NonNullable<ItemClocks['over']>;
  const lower = model.items[coat.lower] as Item;
  if (over.done) {
    const needed =
      coat.coat?.over?.alwaysAbrade === true || (over.done.tackLimit < model.last && to > over.done.tackLimit);
    return needed ? { from: Math.max(0, over.done.sandable), to } : null;
  }
  if (!isPlaced(placement, lower.index)) return null;
  const end = endOf({ model }, placement, lower.index);
  const tack = over.tackLimit ? (over.tackLimit[placement.start[lower.index] as number] as number) : model.last;
  const needed = coat.coat?.over?.alwaysAbrade === true || (tack < model.last && to > tack);
  return needed ? { from: Math.max(end, over.sandable ? (over.sandable[end] as number) : end), to } : null;
}

/** What a locked coat has as an abrading comes anew with each plan. */
export function dropLockedAbradings(model: Model, placement: Placement): void {
  for (const { lock, partner } of model.items) if (lock && partner >= 0) placement.start[partner] = -1;
}

/** Leave out what is in the plan without something it needs, until nothing is. */
export function dropBroken(model: Model, placement: Placement): void {
  const missing = (other: number) => !(model.items[other] as Item).done && !isPlaced(placement, other);
  const broken = (item: Item) =>
    item.links.some((l) => missing(l.before)) ||
    item.followers.some((f) => {
      const next = model.items[f] as Item;
      const link = next.links.find((l) => l.before === item.index);
      return missing(f) && (link?.fresh === true || (next.lower === item.index && next.coat?.over?.chained === true));
    });
  let again = true;
  while (again) {
    again = false;
    for (const item of model.items) {
      if (!isPlaced(placement, item.index) || item.lock || item.kind === 'abrade' || !broken(item)) continue;
      takeOut(model, placement, { zone: item.zone, order: [item.index] });
      again = true;
    }
  }
}
