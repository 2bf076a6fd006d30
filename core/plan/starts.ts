import type { ItemClocks } from './clocks';
import type { Item, Link, Model } from './model';
import { changesOver, endOf, isPlaced, softUntil, type Job, type Placement } from './score';

/** Steps at which an item may start, 1 or 0, and what starting there would break of tasks that are locked. */
export interface Starts {
  readonly ok: Uint8Array;
  /** Null: there is nothing locked that it could break. */
  readonly broken: Uint8Array | null;
}

/**
 * Where an item may start by everything that does not move: people's hours, the zone's hours, limits until dry, rain,
 * appointments, and what is done. Worked out once for a crew.
 */
export function fixedStarts(job: Job): (item: number, crew: number) => Uint8Array {
  const kept = new Map<number, Uint8Array>();
  return (item, crew) => {
    const key = item * 64 + crew;
    let found = kept.get(key);
    if (!found) kept.set(key, (found = fixedOf(job, job.model.items[item] as Item, crew)));
    return found;
  };
}

function fixedOf(job: Job, item: Item, crew: number): Uint8Array {
  const { model, clocks } = job;
  const { last, zones, appointments } = model;
  const own = clocks[item.index] as ItemClocks;
  const zone = zones[item.zone] as Model['zones'][number];
  const { painters, steps } = item.crews[crew] as Item['crews'][number];
  const ok = new Uint8Array(last + 2);
  const from = Math.max(0, ...item.appointments.map((a) => a.from), doneFrom(job, item, own));
  const to = Math.min(last - steps, doneTo(own, item));
  ok.fill(1, Math.min(last + 1, from), Math.max(0, to + 1));
  const hours = [
    ...painters.map((p) => (model.painters[p] as Model['painters'][number]).available),
    ...(zone.open ? [zone.open] : []),
  ];
  for (const spans of hours) keepInside(ok, spans, steps, model);
  const soft = (k: number) => (own.dry ? (own.dry[k + steps] as number) : k + steps);
  const dryWanted = item.needsDry ? own.nextRain : null;
  const wets = item.links.some((l, i) => l.untilRain && own.links[i]) ? own.nextRain : null;
  const bears = appointments.flatMap((a, n) =>
    a.bear.flatMap(({ coat }, b) =>
      coat === item.index ? [{ a, table: (job.bear[n] as readonly (Int32Array | number)[])[b] as Int32Array }] : [],
    ),
  );
  const meets = appointments.filter((a) => a.zones.includes(item.zone));
  for (let k = 0; k <= last; k += 1) {
    if (ok[k] === 0) continue;
    const dry = soft(k);
    const end = k + steps;
    if (
      (own.nextBreak && (dry > last || (own.nextBreak[k] as number) <= dry)) ||
      (dryWanted && (dryWanted[k] as number) < end) ||
      (wets && (wets[0] as number) <= k) ||
      meets.some((a) => k < a.to && dry > a.from) ||
      bears.some(({ a, table }) => k < a.to && (end > a.from || (table[end] as number) > a.bearBy))
    )
      ok[k] = 0;
  }
  return ok;
}

/** Nothing starts before coats that are done are dry and have reached what the next coat asks. */
function doneFrom({ model, clocks }: Job, item: Item, own: ItemClocks): number {
  let from = 0;
  for (const other of model.items) {
    const dry = other.done ? (clocks[other.index] as ItemClocks).done?.dry : undefined;
    if (dry === undefined || dry <= 0) continue;
    const apart = (model.zones[item.zone] as Model['zones'][number]).apart;
    if (other.zone === item.zone || apart.some((x) => x.zone === other.zone && x.untilDry)) from = Math.max(from, dry);
  }
  for (const link of own.links) if (link) from = Math.max(from, link.wet ? Infinity : link.from);
  if (own.over?.done) from = Math.max(from, own.over.done.minimum);
  return from;
}

function doneTo(own: ItemClocks, item: Item): number {
  let to = Infinity;
  for (const link of own.links) if (link) to = Math.min(to, link.to);
  // A limit that holds to the end of the plan never ends within it.
  if (own.over?.done && item.coat?.over?.maximum) to = Math.min(to, own.over.done.maximum);
  const mayAbrade = item.partner >= 0 || item.coat?.over?.alwaysAbrade === true;
  if (own.over?.done && item.coat?.over?.tackLimit && !mayAbrade) to = Math.min(to, own.over.done.tackLimit);
  return to;
}

function keepInside(ok: Uint8Array, spans: readonly { from: number; to: number }[], steps: number, model: Model): void {
  const { now } = model.problem;
  let next = 0;
  for (const span of spans) {
    const from = Math.ceil((span.from - now) / model.stepMs);
    const to = Math.floor((span.to - now) / model.stepMs) - steps;
    if (to < from) continue;
    ok.fill(0, Math.max(0, next), Math.max(0, from));
    next = to + 1;
  }
  ok.fill(0, Math.max(0, next));
}

/**
 * Where an item may start beside what is in the plan already; `free` items are left out of it: they are placed along
 * with this one.
 */
export function openStarts(
  job: Job,
  fixed: (item: number, crew: number) => Uint8Array,
  placement: Placement,
  { item, crew, free, into }: { item: Item; crew: number; free: Uint8Array; into: Uint8Array },
): Starts {
  const { model } = job;
  into.set(fixed(item.index, crew));
  const { painters, steps } = item.crews[crew] as Item['crews'][number];
  const { dry } = job.clocks[item.index] as ItemClocks;
  const { apart } = model.zones[item.zone] as Model['zones'][number];
  const block = (from: number, to: number) => {
    if (to >= from) into.fill(0, Math.max(0, from), Math.max(0, to + 1));
  };
  /** First start that would still occupy its zone at a step. */
  const firstSoftAfter = (step: number): number => {
    let k = step - steps + 1;
    if (dry) while (k > 0 && (dry[k - 1 + steps] as number) > step) k -= 1;
    return k;
  };
  for (const other of model.items) {
    if (other.done || free[other.index] === 1 || other.index === item.index || !isPlaced(placement, other.index))
      continue;
    const from = placement.start[other.index] as number;
    const end = endOf(job, placement, other.index);
    const theirs = (other.crews[placement.crew[other.index] as number] as Item['crews'][number]).painters;
    if (painters.some((p) => theirs.includes(p))) {
      const gap = changesOver(item, other) ? model.changeover : 0;
      block(Math.floor(from - gap - steps) + 1, Math.ceil(end + gap) - 1);
    }
    if (other.zone === item.zone) block(firstSoftAfter(from), softUntil(job, placement, other.index) - 1);
    else
      for (const { zone, untilDry } of apart)
        if (zone === other.zone) {
          if (untilDry) block(firstSoftAfter(from), softUntil(job, placement, other.index) - 1);
          else block(from - steps + 1, end - 1);
        }
  }
  linkStarts(job, placement, { item, free, into, block });
  const broken = followerStarts(job, placement, { item, steps, free, ok: into, block });
  return { ok: into, broken };
}

type Block = (from: number, to: number) => void;

/** Bounds by items before this one that are in the plan already. */
function linkStarts(
  job: Job,
  placement: Placement,
  { item, free, into, block }: { item: Item; free: Uint8Array; into: Uint8Array; block: Block },
): void {
  const { model } = job;
  const { last } = model;
  for (const link of item.links) {
    const before = model.items[link.before] as Item;
    if (before.done || free[link.before] === 1) continue;
    if (!isPlaced(placement, link.before)) {
      into.fill(0);
      return;
    }
    const start = placement.start[link.before] as number;
    const end = endOf(job, placement, link.before);
    const own = job.clocks[item.index] as ItemClocks;
    block(0, end + link.afterSteps - 1);
    if (Number.isFinite(link.freshSteps)) block(start + link.freshSteps + 1, last);
    if (link.untilRain && own.nextRain) block(own.nextRain[start] as number, last);
    if (item.lower === link.before && own.over) {
      if (own.over.minimum) block(0, (own.over.minimum[end] as number) - 1);
      const max = own.over.maximum ? (own.over.maximum[start] as number) : last;
      if (max < last) block(max + 1, last);
    }
  }
}

/** Bounds by items after this one that are in the plan already; those that are locked stay, and what breaks is counted. */
function followerStarts(
  job: Job,
  placement: Placement,
  { item, steps, free, ok, block }: { item: Item; steps: number; free: Uint8Array; ok: Uint8Array; block: Block },
): Uint8Array | null {
  const { model } = job;
  let broken: Uint8Array | null = null;
  for (const follower of item.followers) {
    if (free[follower] === 1 || !isPlaced(placement, follower)) continue;
    const next = model.items[follower] as Item;
    const link = next.links.find((l) => l.before === item.index) as Link;
    const at = placement.start[follower] as number;
    const breaks = (k: number) => followerBreaks(job, placement, { next, link, at, start: k, end: k + steps });
    if (next.lock) {
      broken ??= new Uint8Array(model.last + 2);
      for (let k = 0; k <= model.last; k += 1) if (ok[k] === 1) broken[k] = (broken[k] as number) + breaks(k);
    } else {
      block(at - steps - link.afterSteps + 1, model.last);
      for (let k = Math.min(at, model.last); k >= 0; k -= 1) if (ok[k] === 1 && breaks(k) > 0) ok[k] = 0;
    }
  }
  return broken;
}

function followerBreaks(
  job: Job,
  placement: Placement,
  { next, link, at, start, end }: { next: Item; link: Link; at: number; start: number; end: number },
): number {
  if (at < end) return 1;
  const { last } = job.model;
  const own = job.clocks[next.index] as ItemClocks;
  let count = at < end + link.afterSteps ? 1 : 0;
  if (link.fresh) {
    const rained = link.untilRain && own.nextRain && (own.nextRain[start] as number) <= at;
    if (at > start + link.freshSteps || rained) count += 1;
  }
  if (next.lower !== link.before || !own.over) return count;
  const { minimum, tackLimit, maximum, sandable } = own.over;
  if (minimum && at < (minimum[end] as number)) count += 1;
  if (maximum && (maximum[start] as number) < Math.min(at, last)) count += 1;
  const abraded = next.partner >= 0 && isPlaced(placement, next.partner);
  if (abraded) {
    const abradeStart = placement.start[next.partner] as number;
    if (abradeStart < Math.max(end, sandable ? (sandable[end] as number) : 0)) count += 1;
  } else if (tackLimit && !next.coat?.over?.alwaysAbrade && (tackLimit[start] as number) < Math.min(at, last))
    count += 1;
  return count;
}
