import { useSyncExternalStore } from 'react';

/** From this width on things stand side by side and the places in a row above: Tailwind's `lg`. */
const WIDE = matchMedia('(min-width: 64rem)');

/** Whether the page is laid out for a desk; what is read and tabbed through follows what is seen. */
export function useWide(): boolean {
  return useSyncExternalStore(
    (tell) => {
      WIDE.addEventListener('change', tell);
      return () => WIDE.removeEventListener('change', tell);
    },
    () => WIDE.matches,
  );
}
