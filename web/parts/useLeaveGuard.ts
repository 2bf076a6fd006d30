import { useEffect } from 'react';
import { useBlocker } from 'react-router';

/** Forms on the page with something half typed in them. */
const halfTyped = new Set<symbol>();

/** What is half typed is asked about before a link, a reload or Back leaves it. */
export function useLeaveGuard(dirty: boolean): void {
  useEffect(() => {
    if (!dirty) return;
    const form = Symbol('form');
    halfTyped.add(form);
    return () => void halfTyped.delete(form);
  }, [dirty]);
}

/** Asks for all forms: a router has room for one that does. */
export function useAskBeforeLeaving(): void {
  const blocker = useBlocker(
    ({ currentLocation, nextLocation }) => halfTyped.size > 0 && currentLocation.pathname !== nextLocation.pathname,
  );
  useEffect(() => {
    const ask = (event: BeforeUnloadEvent) => {
      if (halfTyped.size > 0) event.preventDefault();
    };
    addEventListener('beforeunload', ask);
    return () => removeEventListener('beforeunload', ask);
  }, []);
  useEffect(() => {
    if (blocker.state !== 'blocked') return;
    if (confirm('Leave this form? What is typed in it is not saved.')) blocker.proceed();
    else blocker.reset();
  }, [blocker]);
}
