import { useEffect, useRef, useState, type RefObject } from 'react';

/** The width an element has, px, so that a drawing can keep its lettering at reading size on a phone. */
export function useWidth<T extends Element>(initial: number): [RefObject<T | null>, number] {
  const ref = useRef<T>(null);
  const [width, setWidth] = useState(initial);
  useEffect(() => {
    if (!ref.current) return;
    const fit = new ResizeObserver(([entry]) => entry && setWidth(Math.max(280, Math.round(entry.contentRect.width))));
    fit.observe(ref.current);
    return () => fit.disconnect();
  }, []);
  return [ref, width];
}
