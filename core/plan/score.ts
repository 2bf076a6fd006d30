import { clocksOf, type ItemClocks } from './clocks';
import type { GridAir } from './gridAir';
import type { Item, Link, Model } from './model';
import type { CoatTask, PlanRule, PlanScore } from './problem';

/** A model laid on its weather. */
export interface Job {
  readonly model: Model;
  readonly clocks: readonly ItemClocks[];
  /** First step at which a coat has what an appointment asks, by its end; a figure where it is done. */
  readonly bear: readonly (readonly (Int32Array | number)[])[];
  /** Whether the longest time to the water of a coat still holds at a step that may lie between two of the grid. */
  readonly waterHolds: (item: Item, start: number, by: number) => boolean;
}

/** Lay a model on its weather: every clock that its rules ask for. */
export function jobOf(model: Model, air: GridAir): Job {
  const clocks = clocksOf(model, air);
  return {
    model,
    clocks,
    bear: model.appointments.map(({ bear }) =>
      bear.map(({ coat, minimum }) => {
        const item = model.items[coat] as Item;
        const cure = (item.coat as CoatTask).minCureC;
        const { series } = model.zones[item.zone] as Model['zones'][number];
        return item.done ? air.doneReach(item, minimum, cure) : air.reach(series, minimum, cure);
      }),
    ),
    waterHolds(item, start, by) {
      const own = clocks[item.index] as ItemClocks;
      const hold = item.done ? (own.done?.immersionMax ?? model.last) : (own.immersionMax?.[start] ?? model.last);
      if (hold >= model.last || hold >= by) return true;
      return Math.floor(by) === hold && air.holdsAt(item, start, by);
    },
  };
}

/** Where each item starts (−1: not in the plan) and by which of its crews. */
export interface Placement {
  readonly start: Int32Array;
  readonly crew: Int32Array;
}

/**
 * A rule broken by an item: against another item, a painter or an appointment, by index. `item` −1: a boat that is not
 * ready, `other` is the boat.
 */
export interface Broken {
  readonly item: number;
  readonly rule: PlanRule | 'unplaced' | 'notReady';
  readonly other: number;
}

export const emptyPlacement = ({ items }: Model): Placement => ({
  start: new Int32Array(items.length).fill(-1),
  crew: new Int32Array(items.length),
});

export const copyPlacement = ({ start, crew }: Placement): Placement => ({ start: start.slice(), crew: crew.slice() });

export const isPlaced = ({ start }: Placement, item: number): boolean => (start[item] as number) >= 0;

/** End of a placed item, in steps. */
export function endOf({ model }: Pick<Job, 'model'>, { start, crew }: Placement, item: number): number {
  const { crews } = model.items[item] as Item;
  return (start[item] as number) + (crews[crew[item] as number] as { steps: number }).steps;
}

/** Until when a placed item occupies its zone: a coat until it is dry. */
export function softUntil(job: Job, placement: Placement, item: number): number {
  const { dry } = job.clocks[item] as ItemClocks;
  const end = endOf(job, placement, item);
  return dry ? (dry[end] as number) : end;
}

/** First step at which each boat is ready for the water; null: not within the plan. Items left out are told. */
export function readyOf(job: Job, placement: Placement): (number | null)[] {
  const { model, clocks } = job;
  const ready: (number | null)[] = model.boats.map(() => 0);
  for (const item of model.items) {
    const boat = (model.zones[item.zone] as Model['zones'][number]).boat;
    const known = ready[boat] as number | null;
    if (known === null) continue;
    const own = itemReady(job, placement, item, clocks[item.index] as ItemClocks);
    ready[boat] = own === null || own > model.last ? null : Math.max(known, own);
  }
  return ready;
}

function itemReady(job: Job, placement: Placement, item: Item, clocks: ItemClocks): number | null {
  if (item.done) return clocks.done?.immersionMin ?? 0;
  if (!isPlaced(placement, item.index)) return item.kind === 'abrade' ? 0 : null;
  const end = endOf(job, placement, item.index);
  return clocks.immersionMin ? (clocks.immersionMin[end] as number) : end;
}

/**
 * What a plan is worth, and every rule that it breaks (handed to `tell` one by one).
 * Broken, unplaced, late steps, forced abradings, finish steps, shortfall steps.
 */
export function scoreOf(job: Job, placement: Placement, tell: (broken: Broken) => void = () => undefined): PlanScore {
  const { model } = job;
  let broken = 0;
  let unplaced = 0;
  const broke = (item: number, rule: PlanRule, other: number) => {
    broken += 1;
    tell({ item, rule, other });
  };
  let forced = 0;
  let shortfall = 0;
  for (const item of model.items) {
    if (item.done) continue;
    const placed = isPlaced(placement, item.index);
    if (!placed && item.kind !== 'abrade') {
      unplaced += 1;
      tell({ item: item.index, rule: 'unplaced', other: -1 });
    }
    if (!placed) continue;
    if (item.kind === 'abrade' && !(model.items[item.partner]?.coat?.over?.alwaysAbrade ?? false)) forced += 1;
    alone(job, placement, item, broke);
    shortfall += orderRules(job, placement, item, broke);
  }
  pairRules(job, placement, broke);
  appointmentRules(job, placement, broke);
  const ready = readyOf(job, placement);
  let late = 0;
  let finish = 0;
  ready.forEach((at, boat) => {
    if (at === null) {
      unplaced += 1;
      tell({ item: -1, rule: 'notReady', other: boat });
    }
    const counted = at ?? model.last;
    const { launch } = model.boats[boat] as Model['boats'][number];
    if (launch !== null) late += Math.max(0, counted - launch);
    finish += counted;
    if (at !== null)
      immersionMax(job, placement, boat, Math.min(model.last, Math.max(at, launchStep(model, boat))), broke);
  });
  return [broken, unplaced, late, forced, finish, shortfall];
}

type Broke = (item: number, rule: PlanRule, other: number) => void;

/** The launch in steps, not whole ones; before everything where there is no date. */
const launchStep = (model: Model, boat: number): number => {
  const { launchAt } = model.boats[boat] as Model['boats'][number];
  return launchAt === null ? -Infinity : (launchAt - model.problem.now) / model.stepMs;
};

/** Rules of one item by itself: people's hours, the zone's hours, limits until dry, rain. */
function alone(job: Job, placement: Placement, item: Item, broke: Broke): void {
  const { model, clocks } = job;
  const start = placement.start[item.index] as number;
  const end = endOf(job, placement, item.index);
  const zone = model.zones[item.zone] as Model['zones'][number];
  const { now } = model.problem;
  const inside = (spans: readonly { from: number; to: number }[]) =>
    spans.some((s) => s.from <= now + start * model.stepMs && s.to >= now + end * model.stepMs);
  for (const painter of (item.crews[placement.crew[item.index] as number] as Item['crews'][number]).painters)
    if (!inside((model.painters[painter] as Model['painters'][number]).available)) broke(item.index, 'hours', painter);
  if (zone.open && !inside(zone.open)) broke(item.index, 'open', -1);
  const own = clocks[item.index] as ItemClocks;
  if (own.nextBreak) {
    const dry = softUntil(job, placement, item.index);
    if (dry > model.last || (own.nextBreak[start] as number) <= dry) broke(item.index, 'limits', -1);
  }
  if (item.needsDry && own.nextRain && (own.nextRain[start] as number) < end) broke(item.index, 'rain', -1);
}

/** What an item asks of those before it. Returns what its windows are short of. */
function orderRules(job: Job, placement: Placement, item: Item, broke: Broke): number {
  const { model } = job;
  const start = placement.start[item.index] as number;
  if (item.kind === 'abrade') {
    if (!isPlaced(placement, item.partner)) broke(item.index, 'order', item.partner);
    return 0;
  }
  let shortfall = 0;
  const short = (hold: number) => {
    if (hold < model.last && hold >= start) shortfall += Math.max(0, model.slackCap - (hold - start));
  };
  for (const { appointment, from } of item.appointments) if (start < from) broke(item.index, 'order', -2 - appointment);
  item.links.forEach((link, l) => {
    const found = linkRules(job, placement, item, link, l);
    for (const rule of found.rules) broke(item.index, rule, link.before);
    found.windows.forEach(short);
  });
  for (const follower of item.followers) {
    const next = model.items[follower] as Item;
    const chained =
      next.links.some((l) => l.before === item.index && l.fresh) ||
      (next.lower === item.index && next.coat?.over?.chained === true);
    if (chained && !next.done && !isPlaced(placement, follower)) broke(item.index, 'chain', follower);
  }
  return shortfall;
}

/** The rules that hold between an item and one before it, and where the windows between them end. */
function linkRules(
  job: Job,
  placement: Placement,
  item: Item,
  link: Link,
  l: number,
): { rules: PlanRule[]; windows: number[] } {
  const { model, clocks } = job;
  const start = placement.start[item.index] as number;
  const before = model.items[link.before] as Item;
  if (!before.done && !isPlaced(placement, link.before)) return { rules: ['order'], windows: [] };
  const done = (clocks[item.index] as ItemClocks).links[l] ?? null;
  const from = before.done ? 0 : (placement.start[link.before] as number);
  const end = before.done ? 0 : endOf(job, placement, link.before);
  if (start < end) return { rules: ['order'], windows: [] };
  const rules: PlanRule[] = [];
  const windows: number[] = [];
  if (link.afterHours !== null && start < (done ? done.from : end + link.afterSteps)) rules.push('order');
  if (link.fresh) {
    const hold = done ? done.to : from + link.freshSteps;
    const { nextRain } = clocks[item.index] as ItemClocks;
    const rained = link.untilRain && nextRain && (done?.wet === true || (nextRain[from] as number) <= start);
    if (start > hold || rained) rules.push('fresh');
    if (link.freshHours !== null) windows.push(hold);
  }
  if (item.lower === link.before) {
    const found = overRules(job, placement, item, { from, end });
    rules.push(...found.rules);
    windows.push(found.window);
  }
  return { rules, windows };
}

function overRules(
  job: Job,
  placement: Placement,
  item: Item,
  { from, end }: { from: number; end: number },
): { rules: PlanRule[]; window: number } {
  const { model, clocks } = job;
  const { last } = model;
  const start = placement.start[item.index] as number;
  const over = (clocks[item.index] as ItemClocks).over as NonNullable<ItemClocks['over']>;
  const { alwaysAbrade, tackLimit, maximum } = (item.coat as NonNullable<Item['coat']>).over as {
    alwaysAbrade: boolean;
    tackLimit: unknown;
    maximum: unknown;
  };
  const minimum = over.done ? over.done.minimum : over.minimum ? (over.minimum[end] as number) : end;
  const sandable = over.done ? over.done.sandable : over.sandable ? (over.sandable[end] as number) : end;
  const tack = over.done ? over.done.tackLimit : over.tackLimit ? (over.tackLimit[from] as number) : last;
  const max = over.done ? over.done.maximum : over.maximum ? (over.maximum[from] as number) : last;
  const abraded = item.partner >= 0 && isPlaced(placement, item.partner);
  const rules: PlanRule[] = [];
  if (start < minimum) rules.push('minimum');
  if (!abraded && !alwaysAbrade && start > tack && tack < last) rules.push('tack');
  if (start > max && max < last) rules.push('maximum');
  if (abraded) {
    const abradeStart = placement.start[item.partner] as number;
    if (abradeStart < Math.max(sandable, end) || endOf(job, placement, item.partner) > start) rules.push('abrade');
  } else if (alwaysAbrade) rules.push('abrade');
  const window = abraded || alwaysAbrade ? (maximum ? max : last) : tackLimit ? tack : maximum ? max : last;
  return { rules, window };
}

/** An item where it lies, for rules between two of them. */
interface Lying {
  readonly item: Item;
  readonly from: number;
  readonly end: number;
  readonly soft: number;
  readonly painters: readonly number[];
}

function lying(job: Job, placement: Placement, item: Item): Lying {
  return {
    item,
    from: placement.start[item.index] as number,
    end: endOf(job, placement, item.index),
    soft: softUntil(job, placement, item.index),
    painters: (item.crews[placement.crew[item.index] as number] as Item['crews'][number]).painters,
  };
}

/** Coats that are done and not dry yet. */
const softDone = ({ model, clocks }: Job): Lying[] =>
  model.items.flatMap((item) => {
    const dry = item.done && item.coat ? (clocks[item.index] as ItemClocks).done?.dry : undefined;
    return dry !== undefined && dry > 0 ? [{ item, from: -Infinity, end: 0, soft: dry, painters: [] }] : [];
  });

/** Rules between two tasks that may not meet: people, changing over, zones. */
function pairRules(job: Job, placement: Placement, broke: Broke): void {
  const placed = job.model.items.filter((i) => !i.done && isPlaced(placement, i.index));
  const all = placed.map((item) => lying(job, placement, item)).sort((a, b) => a.from - b.from);
  const done = softDone(job);
  all.forEach((b, j) => {
    for (const a of done) pairBreaks(job.model, a, b, broke);
    for (let i = 0; i < j; i += 1) pairBreaks(job.model, all[i] as Lying, b, broke);
  });
}

/** Of two, the first does not start later than the second. */
function pairBreaks(model: Model, a: Lying, b: Lying, broke: Broke): void {
  if (a.item.zone === b.item.zone) {
    if (a.soft > b.from) broke(b.item.index, 'zone', a.item.index);
  } else
    for (const { zone, untilDry } of (model.zones[b.item.zone] as Model['zones'][number]).apart)
      if (zone === a.item.zone && b.from < (untilDry ? a.soft : a.end)) {
        broke(b.item.index, 'together', a.item.index);
        break;
      }
  if (!a.painters.some((p) => b.painters.includes(p))) return;
  if (b.from < a.end) broke(b.item.index, 'booked', a.item.index);
  else if (changesOver(a.item, b.item) && b.from - a.end < model.changeover)
    broke(b.item.index, 'changeover', a.item.index);
}

/** Every rule that has to do with one item of a plan: its own, those towards others, those of others towards it. */
export function breaksWith(job: Job, placement: Placement, index: number): Broken[] {
  const found: Broken[] = [];
  const broke: Broke = (item, rule, other) => found.push({ item, rule, other });
  const only: Broke = (item, rule, other) => {
    if (item === index || other === index) found.push({ item, rule, other });
  };
  const { items } = job.model;
  const item = items[index] as Item;
  alone(job, placement, item, broke);
  orderRules(job, placement, item, broke);
  const after = item.kind === 'abrade' ? [item.partner] : item.followers;
  for (const follower of after)
    if (isPlaced(placement, follower)) orderRules(job, placement, items[follower] as Item, only);
  const own = lying(job, placement, item);
  for (const other of softDone(job)) pairBreaks(job.model, other, own, broke);
  for (const other of items) {
    if (other.done || other === item || !isPlaced(placement, other.index)) continue;
    const theirs = lying(job, placement, other);
    if (theirs.from <= own.from) pairBreaks(job.model, theirs, own, broke);
    else pairBreaks(job.model, own, theirs, broke);
  }
  appointmentRules(job, placement, only);
  return found;
}

/** Two coats of different products in the same hands: brushes and rollers are changed. */
export const changesOver = (a: Item, b: Item): boolean =>
  a.coat !== null && b.coat !== null && a.coat.product !== b.coat.product;

function appointmentRules(job: Job, placement: Placement, broke: Broke): void {
  const { model, clocks } = job;
  model.appointments.forEach((appointment, a) => {
    for (const item of model.items) {
      if (!appointment.zones.includes(item.zone)) continue;
      const soft = item.done
        ? ((clocks[item.index] as ItemClocks).done?.dry ?? 0)
        : isPlaced(placement, item.index)
          ? softUntil(job, placement, item.index)
          : 0;
      const from = item.done ? 0 : (placement.start[item.index] as number);
      if (soft > 0 && from < appointment.to && soft > appointment.from) broke(item.index, 'appointment', a);
    }
    appointment.bear.forEach(({ coat }, b) => {
      const item = model.items[coat] as Item;
      if (!item.done && !isPlaced(placement, coat)) return;
      const start = item.done ? -Infinity : (placement.start[coat] as number);
      if (start >= appointment.to) return;
      const table = (job.bear[a] as readonly (Int32Array | number)[])[b] as Int32Array | number;
      const end = item.done ? -Infinity : endOf(job, placement, coat);
      const hard = typeof table === 'number' ? table : (table[end] as number);
      if (end > appointment.from || hard > appointment.bearBy) broke(coat, 'bear', a);
    });
  });
}

/** A ready boat's coats must not have passed their longest time to the water. */
function immersionMax(job: Job, placement: Placement, boat: number, by: number, broke: Broke): void {
  const { model } = job;
  for (const item of model.items) {
    if ((model.zones[item.zone] as Model['zones'][number]).boat !== boat || !item.coat?.immersion?.maximum) continue;
    if (!item.done && !isPlaced(placement, item.index)) continue;
    if (!job.waterHolds(item, placement.start[item.index] as number, by)) broke(item.index, 'immersionMax', -1);
  }
}
