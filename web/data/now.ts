import { useSyncExternalStore } from 'react';
import { createStore } from 'zustand/vanilla';

/** The browser follows the server's clock, which may be set elsewhere or stopped. */
const clock = createStore<{ offsetMs: number; frozenAt: number | null }>(() => ({ offsetMs: 0, frozenAt: null }));

export function syncClock(server: { now: number; frozen: boolean }): void {
  read = { date: Date.now(), run: performance.now() };
  clock.setState({ offsetMs: server.now - read.date, frozenAt: server.frozen ? server.now : null });
}

/** How far the server's clock stands before this device's, ms. */
export const serverAheadMs = (): number => clock.getState().offsetMs;

/** The device's clock when it was last looked at, beside one that runs on whatever that is set to. */
let read = { date: Date.now(), run: performance.now() };
/** A device's clock is put right by so much in passing. */
const DRIFT_MS = 1000;
/** It slept so long, or was set: which of the two only the server can tell. */
const JUMP_MS = 60_000;
/** Called when the device's clock jumped: the server is to be asked for the time. */
let onJump: () => void = () => undefined;
export const whenClockJumps = (ask: () => void): void => void (onJump = ask);

export function now(): number {
  const [date, run] = [Date.now(), performance.now()];
  const jump = date - read.date - (run - read.run);
  read = { date, run };
  // Set back while the page ran: time goes on as it did. Set on, it may have slept.
  if (jump < -DRIFT_MS) clock.setState(({ offsetMs }) => ({ offsetMs: offsetMs - jump }));
  else if (jump > JUMP_MS) onJump();
  const { offsetMs, frozenAt } = clock.getState();
  return frozenAt ?? date + offsetMs;
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
