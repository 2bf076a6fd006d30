/** The one clock. It can be started at any moment and, for pictures and tests, stopped there. */
export interface Clock {
  now(): number;
  readonly frozen: boolean;
  /** It was started at a moment of somebody's choice. */
  readonly set: boolean;
}

export function makeClock(options: { startAt: number | null; freeze: boolean }): Clock {
  const startedAt = Date.now();
  const base = options.startAt ?? startedAt;
  return {
    now: () => (options.freeze ? base : base + Date.now() - startedAt),
    frozen: options.freeze,
    set: options.startAt !== null,
  };
}
