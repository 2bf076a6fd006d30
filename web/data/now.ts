import { useSyncExternalStore } from 'react';
import { createStore } from 'zustand/vanilla';

/** The browser follows the server's clock, which may be set elsewhere or stopped. */
const clock = createStore<{ offsetMs: number; frozenAt: number | null }>(() => ({ offsetMs: 0, frozenAt: null }));

export function syncClock(server: { now: number; frozen: boolean }): void {
  clock.setState({ offsetMs: server.now - Date.now(), frozenAt: server.frozen ? server.now : null });
}

export function now(): number {
  const { offsetMs, frozenAt } = clock.getState();
  return frozenAt ?? Date.now() + offsetMs;
}

/** The time, in steps of `everyMs`: a component is drawn again only when a step has passed. */
export function useNow(everyMs = 15_000): number {
  return useSyncExternalStore(
    (tell) => {
      const stop = clock.subscribe(tell);
      const timer = setInterval(tell, Math.min(everyMs, 1000));
      return () => {
        stop();
        clearInterval(timer);
      };
    },
    () => Math.floor(now() / everyMs) * everyMs,
  );
}
