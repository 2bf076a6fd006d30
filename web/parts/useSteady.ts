import { useCallback, useLayoutEffect, useRef } from 'react';

/** A handler that stays the same function and does what it was last told to: what is handed it need not be drawn anew. For events only, never while drawing. */
export function useSteady<Args extends unknown[], Result>(
  handler: (...args: Args) => Result,
): (...args: Args) => Result {
  const latest = useRef(handler);
  useLayoutEffect(() => {
    latest.current = handler;
  });
  return useCallback((...args: Args) => latest.current(...args), []);
}
