import { useEffect, useRef, useState } from 'react';
import { useLocation } from 'react-router';
import { create } from 'zustand';

const PRODUCT = 'Jack Plane';

/** What the window is called: the page, or what rings. */
const useTitle = create<{ page: string; ringing: string | null }>(() => ({ page: PRODUCT, ringing: null }));

/** While something rings the title says so in turns with its own. */
export const ringInTitle = (ringing: string | null): void => useTitle.setState({ ringing });

useTitle.subscribe(({ page, ringing }) => {
  document.title = ringing ?? page;
});

/** How long a page may take to have its heading. */
const PATIENCE_MS = 10_000;

/** Puts the focus on the heading of the page that is shown. */
export function focusHeading(): void {
  const heading = document.querySelector<HTMLElement>('main h1');
  if (!heading) return;
  heading.tabIndex = -1;
  heading.focus({ preventScroll: true });
}

/**
 * At each change of page: its heading becomes the window's title, is said to those who do not see it, and has the focus.
 * Says it in a live region, which must be in the page before.
 */
export function PageTitle() {
  const { pathname } = useLocation();
  const [said, setSaid] = useState('');
  const first = useRef(true);
  useEffect(() => {
    const main = document.querySelector('main');
    if (!main) return;
    const named = (): boolean => {
      const text = main.querySelector('h1')?.textContent.trim();
      if (!text) return false;
      useTitle.setState({ page: `${text} · ${PRODUCT}` });
      if (!first.current) {
        setSaid(text);
        if (!main.contains(document.activeElement) || document.activeElement?.closest('a')) focusHeading();
      }
      first.current = false;
      return true;
    };
    if (named()) return;
    const watch = new MutationObserver(() => named() && watch.disconnect());
    watch.observe(main, { childList: true, subtree: true, characterData: true, attributes: true });
    const stop = setTimeout(() => watch.disconnect(), PATIENCE_MS);
    return () => {
      clearTimeout(stop);
      watch.disconnect();
    };
  }, [pathname]);
  return (
    <p className="sr-only" aria-live="polite">
      {said}
    </p>
  );
}
