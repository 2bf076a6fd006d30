import { computed, effect, type ReadonlySignal } from '@preact/signals-core';
import {
  useCallback,
  useLayoutEffect,
  useRef,
  useSyncExternalStore,
  type CSSProperties,
  type PointerEvent,
  type RefObject,
} from 'react';
import { figure, shownUnit } from '#core/units/format';
import type { QuantityName } from '#core/units/quantities';
import { useSettings } from '../data/settings';

/**
 * What follows a drag at every frame. React draws a page and whatever is put in or taken out of it; the figures and shapes
 * that only change are signals, written straight to where they stand, so that a frame costs what has changed in it.
 */

/** An element that `write` keeps as `read` tells of it: at once, and each time that a signal it reads makes it another. React must not draw what is written. @param of the element, where it follows something else already */
export function useFollowing<E extends Element, T extends string | number>(
  read: () => T,
  write: (element: E, value: T) => void,
  of?: RefObject<E | null>,
): RefObject<E | null> {
  const own = useRef<E>(null);
  const ref = of ?? own;
  useLayoutEffect(() => {
    let last: T | undefined;
    return effect(() => {
      const value = read();
      if (value === last || !ref.current) return;
      last = value;
      write(ref.current, value);
    });
  });
  return ref;
}

/** The text that an element begins with. Its node stays, so that only its line is laid out anew. */
export function setText(element: Element, text: string): void {
  const node = element.firstChild as Text | null;
  if (!node) element.textContent = text;
  else if (node.data !== text) node.data = text;
}

/** What is read of signals, for what React itself has to draw anew when it changes. */
export function useLive<T>(source: ReadonlySignal<T>): T {
  const subscribe = useCallback((tell: () => void) => source.subscribe(tell), [source]);
  return useSyncExternalStore(subscribe, () => source.peek());
}

/** As `computed`, of lists or objects of plain values: it stays the same one as long as it tells the same. */
export function computedAlike<T>(read: () => T): ReadonlySignal<T> {
  let before: { value: T; told: string } | null = null;
  return computed(() => {
    const value = read();
    const told = JSON.stringify(value);
    if (before?.told !== told) before = { value, told };
    return before.value;
  });
}

/** Words that follow a drag. @param hidden from assistive technology, where they are told otherwise */
export function LiveText({
  of,
  className,
  style,
  hidden,
}: {
  of: () => string;
  className?: string;
  style?: CSSProperties;
  hidden?: boolean;
}) {
  return (
    <span
      ref={useFollowing<HTMLSpanElement, string>(of, setText)}
      className={className}
      style={style}
      aria-hidden={hidden}
    />
  );
}

/**
 * As `LiveText`, of words that may be many: two lines of them where there is room for a row of its own, all on a phone. They are
 * painted together with a ground that holds them and all that is cut; for where the bounds of what is painted as one change,
 * all layers of the page are made anew, as they are where a line is clamped.
 */
export function LiveLines({ of, className }: { of: () => string; className: string }) {
  const ref = useFollowing<HTMLSpanElement, string>(of, (element, text) => {
    setText(element, text);
    if (element.title) element.title = text;
  });
  // The whole of them, only while they are pointed at: where a title changes, styles are matched anew.
  const tell = ({ currentTarget }: PointerEvent<HTMLElement>) => (currentTarget.title = currentTarget.textContent);
  const untell = ({ currentTarget }: PointerEvent<HTMLElement>) => currentTarget.removeAttribute('title');
  return (
    <span className={`block leading-tight sm:h-[2lh] sm:overflow-clip ${className}`}>
      <span
        ref={ref}
        className="block bg-base-100 px-0.5 sm:min-h-[6lh]"
        onPointerEnter={tell}
        onPointerLeave={untell}
      />
    </span>
  );
}

/** As `Fig`, of a figure that follows a drag. */
export function LiveFig({
  quantity,
  of,
  approx = false,
  className = '',
}: {
  quantity: QuantityName;
  of: () => number;
  approx?: boolean;
  className?: string;
}) {
  const { units } = useSettings();
  const ref = useFollowing<HTMLSpanElement, number>(of, (element, value) => {
    const { number, unit } = figure(quantity, value, units);
    setText(approx ? (element.children[1] as Element) : element, approx ? number : `${number} `);
    setText(element.lastElementChild as Element, unit);
  });
  return approx ? (
    <span ref={ref} className={`fig ${className}`}>
      <span aria-label="about">≈ </span>
      <span className="approx" /> <span className="unit" />
    </span>
  ) : (
    <span ref={ref} className={`fig ${className}`}>
      {' '}
      <span className="unit" />
    </span>
  );
}

/** A range that follows a drag, both its ends in the unit of the lower one. */
export function LiveRange({ quantity, low, high }: { quantity: QuantityName; low: () => number; high: () => number }) {
  const { units } = useSettings();
  const unit = () => shownUnit(quantity, units, low());
  const told = (end: () => number) => figure(quantity, end(), units, undefined, unit()).number;
  return (
    <span className="fig">
      <LiveText of={() => `${told(low)} to ${told(high)}`} /> <LiveText of={() => unit().symbol} className="unit" />
    </span>
  );
}
