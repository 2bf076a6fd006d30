import type { GridAir } from './gridAir';
import { stepFrom, stepTo, type Item, type Link, type Model } from './model';
import type { CoatTask, Over } from './problem';

/**
 * Where an item stands, in steps: a task in the plan or one that is done. Start and end of done ones are not asked for:
 * their clocks were looked up when the model was laid on the weather.
 */
export interface ItemClocks {
  /** First grid step from which a coat that ends at step `k` is dry; of work, `k` itself. */
  readonly dry: Int32Array | null;
  readonly immersionMin: Int32Array | null;
  readonly immersionMax: Int32Array | null;
  readonly over: OverClocks | null;
  readonly nextBreak: Int32Array | null;
  /** Null: rain does not matter. */
  readonly nextRain: Int32Array | null;
  /** Of a coat that is done. */
  readonly done: { readonly dry: number; readonly immersionMin: number; readonly immersionMax: number } | null;
  /** As `links` of the item; null where the other one is still to be planned. */
  readonly links: readonly (DoneLink | null)[];
}

/** What a link to an item that is done comes to, in steps. */
export interface DoneLink {
  readonly from: number;
  readonly to: number;
  readonly wet: boolean;
}

/** The window over the coat below: tables by its end (minimum, sandable) or its start, or figures where it is done. */
export interface OverClocks {
  readonly minimum: Int32Array | null;
  readonly sandable: Int32Array | null;
  readonly tackLimit: Int32Array | null;
  readonly maximum: Int32Array | null;
  readonly done: {
    readonly minimum: number;
    readonly sandable: number;
    readonly tackLimit: number;
    readonly maximum: number;
  } | null;
}

const HOUR_MS = 3_600_000;

/** The clocks of every item on the weather. */
export function clocksOf(model: Model, air: GridAir): ItemClocks[] {
  const { items, zones, last } = model;
  return items.map((item) => {
    const zone = zones[item.zone] as Model['zones'][number];
    const { coat } = item;
    const rainMatters = !zone.sheltered;
    const minimum = coat?.immersion?.minimum ?? null;
    const maximum = coat?.immersion?.maximum ?? null;
    return {
      dry: coat?.touchDry ? air.reach(zone.series, coat.touchDry, coat.minCureC) : null,
      immersionMin: minimum && air.reach(zone.series, minimum, (coat as CoatTask).minCureC),
      immersionMax: maximum && air.hold(zone.series, maximum),
      over: coat?.over ? overClocks(model, items[item.lower] as Item, coat.over, air) : null,
      nextBreak: coat && !item.done ? air.nextBreak(item) : null,
      nextRain: rainMatters ? air.nextRain(zone.series) : null,
      done:
        coat && item.done
          ? {
              dry: coat.touchDry ? air.doneReach(item, coat.touchDry, coat.minCureC) : 0,
              immersionMin: minimum ? air.doneReach(item, minimum, coat.minCureC) : 0,
              immersionMax: maximum ? air.doneHold(item, maximum) : last,
            }
          : null,
      links: item.links.map((link) => doneLink(model, air, link, zone)),
    };
  });
}

function overClocks(model: Model, lower: Item, over: Over, air: GridAir): OverClocks {
  const { series } = model.zones[lower.zone] as Model['zones'][number];
  const cure = (lower.coat as CoatTask).minCureC;
  const minimum = over.minimum;
  const sandable = over.sandable ?? minimum;
  if (!lower.done)
    return {
      minimum: minimum && air.reach(series, minimum, cure),
      sandable: sandable && air.reach(series, sandable, cure),
      tackLimit: over.tackLimit && air.hold(series, over.tackLimit),
      maximum: over.maximum && air.hold(series, over.maximum),
      done: null,
    };
  return {
    minimum: null,
    sandable: null,
    tackLimit: null,
    maximum: null,
    done: {
      minimum: minimum ? air.doneReach(lower, minimum, cure) : 0,
      sandable: sandable ? air.doneReach(lower, sandable, cure) : 0,
      tackLimit: over.tackLimit ? air.doneHold(lower, over.tackLimit) : model.last,
      maximum: over.maximum ? air.doneHold(lower, over.maximum) : model.last,
    },
  };
}

function doneLink(model: Model, air: GridAir, link: Link, zone: Model['zones'][number]): DoneLink | null {
  const { done } = model.items[link.before] as Item;
  if (!done) return null;
  const grid = { now: model.problem.now, stepMs: model.stepMs };
  return {
    from: stepFrom(done.finishedAt + (link.afterHours ?? 0) * HOUR_MS, grid),
    to: link.freshHours === null ? Infinity : stepTo(done.startedAt + link.freshHours * HOUR_MS, grid),
    wet: link.untilRain && !zone.sheltered && air.wetSince(zone.series, done.startedAt),
  };
}
