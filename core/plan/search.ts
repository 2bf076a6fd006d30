import type { ItemClocks } from './clocks';
import type { Item, Model } from './model';
import { compareScores, type PlanScore } from './problem';
import { abradeLocked, dropBroken, dropLockedAbradings, putBack, takeOut, type How, type PutContext } from './putBack';
import { copyPlacement, emptyPlacement, endOf, isPlaced, readyOf, scoreOf, type Job, type Placement } from './score';
import { fixedStarts } from './starts';
import { inOrder, unitsOf, type Unit } from './units';

/** A plan as the search keeps it. */
export interface Found {
  readonly placement: Placement;
  readonly score: PlanScore;
  /** Where a boat is not ready its score is the same however far it is from it: sum of the steps its zones lack. */
  readonly strain: number;
}

/**
 * As `compareScores`, and of two plans that leave a boat unready the nearer to it first.
 * @example compareFound({ score: [0, 1, 0, 0, 9, 0], strain: 7 }, { score: [0, 1, 0, 0, 9, 0], strain: 5 }) // → 2
 */
export function compareFound(a: Pick<Found, 'score' | 'strain'>, b: Pick<Found, 'score' | 'strain'>): number {
  for (let i = 0; i < 3; i += 1) if (a.score[i] !== b.score[i]) return (a.score[i] as number) - (b.score[i] as number);
  return a.strain - b.strain || compareScores(a.score, b.score);
}

export interface Search {
  readonly units: readonly Unit[];
  /** The first plan. */
  readonly first: () => Found;
  /** The `step`-th try to better a plan: what comes of it, which may be worse. */
  readonly tryOnce: (found: Found, step: number) => Found;
}

/** Shares of the tries that hold one item elsewhere; of the rest, those that look at a stretch of time, and so on. */
const SHARE = { pinned: 0.4, stretch: 0.6, waits: 0.25, hurries: 0.35, spares: 0.3, shuffles: 0.2 } as const;
/** A first plan of so many units is bettered by so many tries for each. */
const MANY_UNITS = 4;
const FIRST_TRIES = 12;
const DAY_MS = 86_400_000;

/**
 * Search by taking units out of a plan and putting each back as well as it goes beside the rest.
 * @param options.from nothing starts before it, in steps
 */
export function searchOf(job: Job, random: () => number, { from = 0 }: { readonly from?: number } = {}): Search {
  const { model } = job;
  const units = unitsOf(model);
  const context: PutContext = { job, fixed: fixedStarts(job), random, from };
  const replan = (base: Placement, taken: readonly Unit[], how?: (unit: number) => How) =>
    rebuild(context, base, taken, how);
  const tryOnce = (found: Found, step: number): Found => {
    // First every unit once more beside all others; then some at a time.
    if (step < 2 * units.length) return replan(found.placement, [units[step % units.length] as Unit]);
    if (random() < SHARE.pinned) return pinned(context, units, found);
    const taken = pickUnits(model, units, 1 + Math.floor(random() * 3), random);
    const parts = random() < SHARE.stretch ? stretchOf(model, found.placement, taken, random) : taken;
    return replan(
      found.placement,
      parts.map((u) => (random() < SHARE.shuffles ? shuffled(model, u, random) : u)),
      waysOf(model, found.placement, parts, random),
    );
  };
  return {
    units,
    tryOnce,
    first() {
      const locked = lockedOnly(model);
      const plain = replan(locked, units);
      const eager = replan(locked, units, () => ({ eager: true }));
      let best = compareFound(plain, eager) <= 0 ? plain : eager;
      // Where many zones want the same hands, the order in which they were put is not yet a plan.
      const tries = units.length < MANY_UNITS ? 0 : FIRST_TRIES * units.length;
      for (let step = 0; step < tries; step += 1) {
        const found = tryOnce(best, step);
        if (compareFound(found, best) <= 0) best = found;
      }
      return best;
    },
  };
}

/** A plan with some units taken out and put back in their order. */
export function rebuild(
  context: PutContext,
  base: Placement,
  taken: readonly Unit[],
  how: (unit: number) => How = () => ({}),
): Found {
  const { job } = context;
  const { model } = job;
  const placement = copyPlacement(base);
  for (const unit of taken) takeOut(model, placement, unit);
  dropLockedAbradings(model, placement);
  abradeLocked(context, placement);
  const pending = new Set(taken.flatMap((u) => [...u.order]));
  taken.forEach((unit, i) => {
    for (const item of unit.order) pending.delete(item);
    putBack(context, placement, unit, pending, how(i));
    abradeLocked(context, placement);
  });
  dropBroken(model, placement);
  const score = scoreOf(job, placement);
  return { placement, score, strain: score[1] > 0 ? strainOf(job, placement) : 0 };
}

/** An empty plan, but for what is locked. */
export function lockedOnly(model: Model): Placement {
  const placement = emptyPlacement(model);
  for (const { index, lock } of model.items)
    if (lock) {
      placement.start[index] = lock.start;
      placement.crew[index] = lock.crew;
    }
  return placement;
}

/** Let the first unit wait on purpose, hurry all but the last, spare a painter: another may need their place more. */
function waysOf(
  model: Model,
  placement: Placement,
  parts: readonly Unit[],
  random: () => number,
): (unit: number) => How {
  const waits = random() < SHARE.waits ? Math.floor(firstStart(placement, parts[0]) * (0.7 + 0.6 * random())) : 0;
  const hurries = random() < SHARE.hurries;
  const spared = random() < SHARE.spares ? Math.floor(random() * model.painters.length) : -1;
  return (i) => ({
    eager: hurries && (i < parts.length - 1 || random() < 0.3),
    ...(i === 0 && waits > 0 ? { earliest: waits } : {}),
    ...(spared >= 0 && random() < 0.7 ? { shun: sparing(spared, random) } : {}),
  });
}

/** Spare a painter where others can do without: which items, by chance. */
function sparing(painter: number, random: () => number): (item: Item, crew: number) => boolean {
  const kept = new Map<number, boolean>();
  return (item, crew) => {
    const without = item.crews.some((c) => !c.painters.includes(painter));
    if (!without || !(item.crews[crew] as Item['crews'][number]).painters.includes(painter)) return false;
    const known = kept.get(item.index) ?? random() < 0.6;
    kept.set(item.index, known);
    return known;
  };
}

/** Hold one item somewhere else, plan some of the rest around it, then plan its own unit again beside them. */
function pinned(context: PutContext, units: readonly Unit[], found: Found): Found {
  const { job, fixed, random, from } = context;
  const { model } = job;
  const taken = pickUnits(model, units, 2 + Math.floor(random() * 2), random);
  const own = taken[Math.floor(random() * taken.length)] as Unit;
  const item = own.order[Math.floor(random() * own.order.length)] as number;
  const { crews } = model.items[item] as Item;
  if (crews.length === 0) return found;
  const starts = fixed(item, Math.floor(random() * crews.length));
  const now = found.placement.start[item] as number;
  const day = DAY_MS / model.stepMs;
  const near = now >= 0 && random() < 0.6;
  const first = Math.max(from, near ? now - Math.ceil(1.5 * day * random()) : 0);
  const last = Math.min(model.last, near ? now + Math.ceil(day * random()) : model.last);
  const open: number[] = [];
  for (let k = first; k <= last; k += 1) if (starts[k] === 1 && k !== now) open.push(k);
  if (open.length === 0) return found;
  const pin = { item, at: open[Math.floor(random() * open.length)] as number };
  const eager = random() < 0.3;
  const around = rebuild(context, found.placement, [own, ...taken.filter((u) => u !== own)], (i) =>
    i === 0 ? { pin, eager } : {},
  );
  return rebuild(context, around.placement, [own]);
}

/** Some units by chance, in an order that their links allow. */
function pickUnits(model: Model, units: readonly Unit[], count: number, random: () => number): Unit[] {
  const left = [...units];
  const taken: Unit[] = [];
  while (taken.length < count && left.length > 0) taken.push(...left.splice(Math.floor(random() * left.length), 1));
  const waitsFor = (a: Unit, b: Unit) =>
    a.order.some((i) => (model.items[i] as Item).links.some((l) => b.order.includes(l.before)));
  const order: Unit[] = [];
  while (taken.length > 0) {
    const at = taken.findIndex((u) => taken.every((o) => o === u || !waitsFor(u, o)));
    order.push(...taken.splice(Math.max(0, at), 1));
  }
  return order;
}

const shuffled = (model: Model, unit: Unit, random: () => number): Unit => ({
  ...unit,
  order: inOrder(model, unit.order, (count) => Math.floor(random() * count)),
});

/** Of units, what lies in a stretch of time taken at random. */
function stretchOf(model: Model, { start }: Placement, units: readonly Unit[], random: () => number): Unit[] {
  const day = DAY_MS / model.stepMs;
  const starts = units.flatMap((u) => u.order.map((i) => start[i] as number));
  const middle = starts[Math.floor(random() * starts.length)] as number;
  const width = day * (0.5 + 4 * random() * random());
  const to = random() < 0.3 ? Infinity : middle + width;
  return units.flatMap((unit) => {
    const order = unit.order.filter((i) => {
      const at = start[i] as number;
      return at < 0 || (at >= middle - width && at <= to);
    });
    return order.length > 0 ? [{ ...unit, order }] : [];
  });
}

function firstStart({ start }: Placement, unit: Unit | undefined): number {
  const starts = (unit?.order ?? []).map((i) => start[i] as number).filter((s) => s >= 0);
  return starts.length > 0 ? Math.min(...starts) : 0;
}

/** How far the zones of boats that are not ready are from it, in steps. */
function strainOf(job: Job, placement: Placement): number {
  const { model, clocks } = job;
  const ready = readyOf(job, placement);
  const zones = model.zones.map(() => 0);
  for (const item of model.items) {
    const { boat } = model.zones[item.zone] as Model['zones'][number];
    if (item.done || item.kind === 'abrade' || ready[boat] !== null) continue;
    const { immersionMin } = clocks[item.index] as ItemClocks;
    const end = isPlaced(placement, item.index) ? endOf(job, placement, item.index) : model.last + 1;
    const ripe = immersionMin ? (immersionMin[end] as number) : end;
    // Of two that come too late, the one that is put on earlier is nearer.
    zones[item.zone] = Math.max(zones[item.zone] as number, ripe) + end / (4 * model.last);
  }
  return zones.reduce((sum, at) => sum + at, 0);
}
