import type { Item, Model } from './model';

/** Items of one zone that are placed together, in the order they are to be done. */
export interface Unit {
  readonly zone: number;
  readonly order: readonly number[];
}

/** Whether an item is for the planner to place. */
export const isFree = (item: Item): boolean => item.kind !== 'abrade' && !item.done && !item.lock;

/**
 * The zones as units, those first that others wait for. Zones that wait for each other in turns (part of one, the other,
 * the rest of the first) are cut where they take turns.
 */
export function unitsOf(model: Model): Unit[] {
  const whole = model.zones.map((_, zone) => zone);
  const waits = new Map(whole.map((zone) => [zone, zonesBefore(model, zone)]));
  const units: Unit[] = [];
  const placed = new Set<number>();
  let rest = whole;
  while (rest.length > 0) {
    const next = rest.filter((zone) => [...(waits.get(zone) as Set<number>)].every((z) => placed.has(z)));
    if (next.length === 0) return [...units, ...turns(model, rest)];
    for (const zone of next) {
      placed.add(zone);
      units.push({ zone, order: inOrder(model, zoneFree(model, zone)) });
    }
    rest = rest.filter((zone) => !placed.has(zone));
  }
  return units.filter((u) => u.order.length > 0);
}

const zoneFree = (model: Model, zone: number): number[] =>
  (model.zones[zone] as Model['zones'][number]).items.filter((i) => isFree(model.items[i] as Item));

function zonesBefore(model: Model, zone: number): Set<number> {
  const before = new Set<number>();
  for (const item of zoneFree(model, zone))
    for (const link of (model.items[item] as Item).links) {
      const other = model.items[link.before] as Item;
      if (isFree(other) && other.zone !== zone) before.add(other.zone);
    }
  return before;
}

function turns(model: Model, zones: readonly number[]): Unit[] {
  const units: { zone: number; order: number[] }[] = [];
  for (const item of inOrder(
    model,
    zones.flatMap((zone) => zoneFree(model, zone)),
  )) {
    const { zone } = model.items[item] as Item;
    const last = units[units.length - 1];
    if (last?.zone === zone) last.order.push(item);
    else units.push({ zone, order: [item] });
  }
  return units;
}

/** Items in an order that their links allow; `pick` chooses among those that may come next, else the first listed does. */
export function inOrder(model: Model, items: readonly number[], pick: (count: number) => number = () => 0): number[] {
  const left = new Set(items);
  const order: number[] = [];
  while (left.size > 0) {
    const ready = [...left].filter((i) => (model.items[i] as Item).links.every((l) => !left.has(l.before)));
    const next = ready[pick(ready.length)] as number;
    left.delete(next);
    order.push(next);
  }
  return order;
}

/** What has to be left out with an item: all that waits for it, and what may not be done without it. */
export function leftWith(model: Model, item: number, among: ReadonlySet<number>): Set<number> {
  const out = new Set<number>([item]);
  const queue = [item];
  for (let at = queue.pop(); at !== undefined; at = queue.pop()) {
    const { followers, links, lower, coat } = model.items[at] as Item;
    const chained = links.filter((l) => l.fresh || (l.before === lower && coat?.over?.chained === true));
    for (const next of [...followers, ...chained.map((l) => l.before)])
      if (among.has(next) && !out.has(next)) {
        out.add(next);
        queue.push(next);
      }
  }
  return out;
}
