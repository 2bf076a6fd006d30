import type { CoatClocks } from './coatClocks';

/** A stretch of a coat's life, as far as the next coat cares. */
export interface WindowSpan {
  readonly state: 'inHand' | 'shut' | 'bonds' | 'abrade' | 'closed';
  readonly from: number;
  readonly until: number;
}

/**
 * A coat from its start: going on, shut, bonds as is, abrade first, closed; up to a moment. Without an overcoat time
 * only that it went on is known.
 * @example
 *   windowSpans({
 *     coat: { startedAt: noon, finishedAt: noon + hour },
 *     clocks: {
 *       window: { opensAt: noon + 3 * hour, bondsUntil: noon + 9 * hour, bonds: true, closesAt: null },
 *       alwaysAbrade: false,
 *       abradeFrom: null,
 *     },
 *     until: noon + 12 * hour,
 *   }).map((s) => s.state) // → ['inHand', 'shut', 'bonds', 'abrade']
 */
export function windowSpans(options: {
  coat: { readonly startedAt: number; readonly finishedAt: number };
  clocks: Pick<CoatClocks, 'alwaysAbrade' | 'abradeFrom'> & {
    readonly window: Pick<NonNullable<CoatClocks['window']>, 'opensAt' | 'bondsUntil' | 'bonds' | 'closesAt'> | null;
  };
  until: number;
}): WindowSpan[] {
  const { coat, clocks, until } = options;
  const { window } = clocks;
  const spans: WindowSpan[] = [];
  let from = coat.startedAt;
  const add = (state: WindowSpan['state'], to: number | null) => {
    const end = Math.min(until, to ?? until);
    if (end > from) spans.push({ state, from, until: end });
    from = Math.max(from, end);
  };
  add('inHand', coat.finishedAt);
  if (!window) return spans;
  add('shut', window.opensAt);
  if (!clocks.alwaysAbrade && window.bonds !== false) add('bonds', window.bondsUntil ?? clocks.abradeFrom);
  add('abrade', window.closesAt);
  add('closed', null);
  return spans;
}

/**
 * How far such a ribbon is worth drawing: past now and past the last thing that happens to the window.
 * @example
 *   ribbonUntil({ startedAt: 0, now: 4, moments: [2, null, 9] }) // → 10.35
 */
export function ribbonUntil({
  startedAt,
  now,
  moments,
}: {
  startedAt: number;
  now: number;
  moments: readonly (number | null | undefined)[];
}): number {
  const last = Math.max(now, ...moments.filter((m): m is number => m != null));
  return last + (last - startedAt) * 0.15;
}
