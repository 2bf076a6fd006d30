import type { ItemClocks } from './clocks';
import type { Item, Link } from './model';
import { isPlaced, type Job, type Placement } from './score';
import { openStarts } from './starts';

/** Starts of an item by one of its crews. */
export interface CrewStarts {
  readonly steps: number;
  readonly ok: Uint8Array;
  readonly broken: Uint8Array | null;
  /** The latest possible start at or before each step; −1: none. Of work and abradings. */
  readonly latest: Int32Array | null;
}

/** Work up to the next coat of a zone, and that coat; at the end of a zone, up to its last work. */
export interface Stage {
  readonly works: readonly Item[];
  readonly terminal: Item;
  /** Null where no abrading is possible before it. */
  readonly abrade: Item | null;
  readonly startsOf: ReadonlyMap<number, readonly CrewStarts[]>;
  /** Links of its items to items of stages before this one, but for a coat over the coat below and no more. */
  readonly back: readonly { readonly item: Item; readonly link: Link }[];
  /** Items with windows towards what is in the plan already. */
  readonly windowed: ReadonlySet<number>;
}

/** Where work before a coat lies when that coat starts at some step: each as late as may be. */
export interface Run {
  readonly items: readonly Item[];
  readonly start: Int32Array;
  readonly crew: Int32Array;
  /** What the windows within it are short of, those of the coat towards its work too. */
  readonly shortfall: number;
  /** Rules of locked tasks that it breaks. */
  readonly broken: number;
  /** Start of the abrading; −1 without one. */
  readonly abradeStart: number;
}

export interface StageQuestion {
  /** Items of one zone to place, in the order they are to be done. */
  readonly order: readonly number[];
  /** 1 for every item that is being placed; theirs are not looked at where the plan has them still. */
  readonly free: Uint8Array;
  /** Crews that are not to be used, so that others have them. */
  readonly shun: (item: Item, crew: number) => boolean;
  /** An item that may start nowhere else. */
  readonly pin: { readonly item: number; readonly at: number } | null;
}

/** Cut a zone's items, in the order they are to be done, into stages; and find where each may start. */
export function stagesOf(
  job: Job,
  fixed: (item: number, crew: number) => Uint8Array,
  placement: Placement,
  { order, free, shun, pin }: StageQuestion,
): Stage[] {
  const { model } = job;
  const stages: Stage[] = [];
  let works: Item[] = [];
  const earlier = new Set<number>();
  const add = (terminal: Item) => {
    const abrade = terminal.partner >= 0 ? (model.items[terminal.partner] as Item) : null;
    const all = [...works, ...(abrade ? [abrade] : []), terminal];
    const startsOf = new Map(
      all.map((item) => [item.index, crewStarts(job, fixed, placement, { item, free, shun, pin })]),
    );
    const back = [...works, terminal].flatMap((item) =>
      item.links.flatMap((link) =>
        earlier.has(link.before) && (link.fresh || link.afterHours !== null) ? [{ item, link }] : [],
      ),
    );
    const windowed = new Set(all.flatMap((item) => (hasWindows(job, placement, free, item) ? [item.index] : [])));
    stages.push({ works, terminal, abrade, startsOf, back, windowed });
    for (const item of all) earlier.add(item.index);
    works = [];
  };
  for (const index of order) {
    const item = model.items[index] as Item;
    if (item.coat) add(item);
    else works.push(item);
  }
  const trailing = works.pop();
  if (trailing) add(trailing);
  return stages;
}

/** Whether an item has windows towards what is done or in the plan already. */
function hasWindows({ model }: Job, placement: Placement, free: Uint8Array, item: Item): boolean {
  const settled = (other: number) =>
    free[other] === 0 && ((model.items[other] as Item).done !== null || isPlaced(placement, other));
  return (
    item.links.some((l) => l.freshHours !== null && settled(l.before)) ||
    item.followers.some((f) => free[f] === 0 && isPlaced(placement, f))
  );
}

function crewStarts(
  job: Job,
  fixed: (item: number, crew: number) => Uint8Array,
  placement: Placement,
  { item, free, shun, pin }: { item: Item } & Omit<StageQuestion, 'order'>,
): CrewStarts[] {
  const { last } = job.model;
  return item.crews.map(({ steps }, crew) => {
    const { ok, broken } = openStarts(job, fixed, placement, { item, crew, free, into: new Uint8Array(last + 2) });
    if (shun(item, crew)) ok.fill(0);
    if (pin?.item === item.index) {
      const there = ok[pin.at] as number;
      ok.fill(0);
      ok[pin.at] = there;
    }
    if (item.coat) return { steps, ok, broken, latest: null };
    const latest = new Int32Array(last + 2);
    let known = -1;
    for (let k = 0; k <= last; k += 1) {
      if (ok[k] === 1) known = k;
      latest[k] = known;
    }
    return { steps, ok, broken, latest };
  });
}

/**
 * The work before a stage's terminal, each as late as it may be when that starts at step `at`: later is never worse for
 * any window, and all else only asks it not to be too early. Null where it does not fit.
 */
export function runBefore(
  job: Job,
  stage: Stage,
  { at, abraded, alone }: { at: number; abraded: boolean; alone: (item: Item, start: number) => number },
): Run | null {
  if (!abraded || !stage.abrade) return runOf(job, stage, { at, items: stage.works, alone });
  const { works, abrade, terminal } = stage;
  // Before the work that must be fresh for the coat; elsewhere only where it does not fit there.
  const fresh = works.findIndex((w) => terminal.links.some((l) => l.before === w.index && l.fresh));
  const usual = fresh < 0 ? works.length : fresh;
  const places = [
    usual,
    ...works
      .map((_, i) => i)
      .concat(works.length)
      .filter((i) => i !== usual),
  ];
  for (const place of places) {
    const run = runOf(job, stage, { at, items: [...works.slice(0, place), abrade, ...works.slice(place)], alone });
    if (run) return run;
  }
  return null;
}

function runOf(
  job: Job,
  stage: Stage,
  { at, items, alone }: { at: number; items: readonly Item[]; alone: (item: Item, start: number) => number },
): Run | null {
  const { model } = job;
  const start = new Int32Array(items.length);
  const crew = new Int32Array(items.length);
  let shortfall = 0;
  let broken = 0;
  let abradeStart = -1;
  let bound = at;
  for (let i = items.length - 1; i >= 0; i -= 1) {
    const item = items[i] as Item;
    let endBy = bound;
    let from = 0;
    let rainAt = -1;
    const asks = (next: Item, nextStart: number) => {
      for (const link of next.links) {
        if (link.before !== item.index) continue;
        endBy = Math.min(endBy, nextStart - link.afterSteps);
        if (link.freshSteps !== Infinity) from = Math.max(from, nextStart - link.freshSteps);
        if (link.untilRain) rainAt = Math.max(rainAt, nextStart);
      }
    };
    asks(stage.terminal, at);
    for (let j = i + 1; j < items.length; j += 1) asks(items[j] as Item, start[j] as number);
    let best = -1;
    const crews = stage.startsOf.get(item.index) as readonly CrewStarts[];
    crews.forEach(({ steps, latest }, c) => {
      const found = endBy - steps < 0 ? -1 : ((latest as Int32Array)[endBy - steps] as number);
      if (found <= best) return;
      best = found;
      crew[i] = c;
    });
    if (best < from || best < 0) return null;
    const { nextRain } = job.clocks[item.index] as ItemClocks;
    if (rainAt >= 0 && nextRain && (nextRain[best] as number) <= rainAt) return null;
    start[i] = best;
    bound = best;
    if (item.kind === 'abrade') abradeStart = best;
    broken += crews[crew[i] as number]?.broken?.[best] ?? 0;
    if (stage.windowed.has(item.index)) shortfall += alone(item, best);
    const short = (next: Item, nextStart: number) => {
      for (const link of next.links)
        if (link.before === item.index)
          shortfall += shortOf(model.last, model.slackCap, best + link.freshSteps, nextStart);
    };
    short(stage.terminal, at);
    for (let j = i + 1; j < items.length; j += 1) short(items[j] as Item, start[j] as number);
  }
  return { items, start, crew, shortfall, broken, abradeStart };
}

/** What a window is short of its cap: nothing where its limit outlives the plan. */
export const shortOf = (last: number, cap: number, hold: number, start: number): number =>
  hold >= last || hold < start ? 0 : Math.max(0, cap - (hold - start));

/** What the windows of an item towards others that are in the plan already are short of. */
export function shortAlone(job: Job, placement: Placement, free: Uint8Array, item: Item, start: number): number {
  const { model, clocks } = job;
  const { last, slackCap } = model;
  let shortfall = 0;
  const own = clocks[item.index] as ItemClocks;
  item.links.forEach((link, l) => {
    const done = own.links[l] ?? null;
    if (!done && (free[link.before] === 1 || !isPlaced(placement, link.before))) return;
    const from = done ? 0 : (placement.start[link.before] as number);
    if (link.freshHours !== null) shortfall += shortOf(last, slackCap, done ? done.to : from + link.freshSteps, start);
  });
  for (const follower of item.followers) {
    if (free[follower] === 1 || !isPlaced(placement, follower)) continue;
    const next = model.items[follower] as Item;
    const at = placement.start[follower] as number;
    const link = next.links.find((l) => l.before === item.index) as Link;
    shortfall += shortOf(last, slackCap, start + link.freshSteps, at);
    if (next.lower === item.index) {
      const abraded = next.partner >= 0 && isPlaced(placement, next.partner);
      shortfall += shortOf(last, slackCap, windowEnd(job, next, start, abraded), at);
    }
  }
  return shortfall;
}

/** Where the window of a coat ends that counts for slack, its lower coat being planned at `lowerStart`. */
export function windowEnd(job: Job, coat: Item, lowerStart: number, abraded: boolean): number {
  const over = (job.clocks[coat.index] as ItemClocks).over as NonNullable<ItemClocks['over']>;
  const { last } = job.model;
  const max = over.done ? over.done.maximum : over.maximum ? (over.maximum[lowerStart] as number) : last;
  if (abraded || coat.coat?.over?.alwaysAbrade) return max;
  if (!coat.coat?.over?.tackLimit) return max;
  return over.done ? over.done.tackLimit : over.tackLimit ? (over.tackLimit[lowerStart] as number) : last;
}
