import { useSyncExternalStore } from 'react';

/** The browser follows the server's clock, which may be set elsewhere or stopped. */
let offsetMs = 0;
let frozenAt: number | null = null;
const listeners = new Set<() => void>();

export function syncClock(server: { now: number; frozen: boolean }): void {
  const before = now();
  offsetMs = server.now - Date.now();
  frozenAt = server.frozen ? server.now : null;
  // A clock that only drifts needs no telling; one that was set elsewhere does.
  if (Math.abs(now() - before) > 2000) listeners.forEach((tell) => tell());
}

export function now(): number {
  return frozenAt ?? Date.now() + offsetMs;
}

/** The time, in steps of `everyMs`: a component is drawn again only when a step has passed. */
export function useNow(everyMs = 15_000): number {
  return useSyncExternalStore(
    (tell) => {
      listeners.add(tell);
      const timer = setInterval(tell, Math.min(everyMs, 1000));
      return () => {
        listeners.delete(tell);
        clearInterval(timer);
      };
    },
    () => Math.floor(now() / everyMs) * everyMs,
  );
}
