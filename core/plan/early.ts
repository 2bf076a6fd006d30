import type { Item } from './model';
import { copyPlacement, endOf, isPlaced, type Job, type Placement } from './score';
import { openStarts } from './starts';

/**
 * Work that nothing has to follow closely, as early as it fits beside the rest: the search lays it as late as may be, and
 * whoever works would rather have it done. No goal of a plan is touched by it.
 */
export function workEarly(
  job: Job,
  fixed: (item: number, crew: number) => Uint8Array,
  placement: Placement,
  from = 0,
): Placement {
  const { model } = job;
  const early = copyPlacement(placement);
  const free = new Uint8Array(model.items.length);
  const movable = model.items
    .filter((item) => item.kind === 'work' && !item.done && !item.lock && isPlaced(early, item.index))
    .filter((item) => (early.start[item.index] as number) > from && !isFollowedClosely(job, item))
    .sort((a, b) => (early.start[a.index] as number) - (early.start[b.index] as number));
  for (const item of movable) {
    const ends = endOf(job, early, item.index);
    let best: { start: number; crew: number; end: number } = {
      start: early.start[item.index] as number,
      crew: early.crew[item.index] as number,
      end: ends,
    };
    item.crews.forEach(({ steps, painters }, crew) => {
      // Nobody is taken from elsewhere for it.
      const same = (item.crews[best.crew] as Item['crews'][number]).painters;
      if (painters.length > same.length) return;
      const { ok } = openStarts(job, fixed, early, { item, crew, free, into: new Uint8Array(model.last + 2) });
      for (let k = from; k + steps < best.end; k += 1)
        if (ok[k] === 1) {
          best = { start: k, crew, end: k + steps };
          break;
        }
    });
    early.start[item.index] = best.start;
    early.crew[item.index] = best.crew;
  }
  return early;
}

const isFollowedClosely = ({ model }: Job, item: Item): boolean =>
  item.followers.some((f) => (model.items[f] as Item).links.some((l) => l.before === item.index && l.fresh)) ||
  item.links.some((l) => l.fresh);
