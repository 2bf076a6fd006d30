import { useLayoutEffect, useMemo, useRef, useState, type KeyboardEvent, type PointerEvent } from 'react';
import { flushSync } from 'react-dom';
import { MIL_MICRON } from '#core/units/quantities';
import { snapped, type Layout } from './layout';

interface Asked {
  /** Where the layers stand while none is held. */
  readonly layout: Layout;
  readonly us: boolean;
  /** While a face moves; then once it is let go. Left out where nothing may be changed. */
  readonly onFilm?: ((layerId: string, micron: number) => void) | undefined;
  readonly onFilmDone?: (() => void) | undefined;
}

/** What the upper face of a coat answers to. */
export interface FilmHand {
  grab: (event: PointerEvent<SVGElement>, layerId: string, micron: number) => void;
  drag: (event: PointerEvent<SVGElement>) => void;
  drop: () => void;
  nudge: (event: KeyboardEvent, layerId: string, micron: number) => void;
  done: () => void;
}

/** A film made thicker or thinner by hand or keys. The hand stays one object, so that a face that does not move is not drawn anew. */
export function useFilmHand(asked: Asked): { layout: Layout; hand: FilmHand } {
  // While a face is dragged the scale stands still, so that it stays under the finger.
  const [held, setHeld] = useState<{ layout: Layout; id: string; y: number; from: number } | null>(null);
  const now = useRef({ ...asked, held });
  useLayoutEffect(() => {
    now.current = { ...asked, held };
  });
  const hand = useMemo<FilmHand>(
    () => ({
      grab: (event, id, micron) => {
        const { onFilm, layout } = now.current;
        if (!onFilm) return;
        event.preventDefault();
        event.currentTarget.setPointerCapture(event.pointerId);
        setHeld({ layout, id, y: event.clientY, from: micron });
      },
      drag: ({ clientY }) => {
        const { onFilm, held: h, us } = now.current;
        // Drawn within the same frame: litres, packs and findings are never a frame behind the finger.
        if (h && onFilm) flushSync(() => onFilm(h.id, snapped(h.from + (h.y - clientY) / h.layout.scale, h.from, us)));
      },
      drop: () => {
        if (!now.current.held) return;
        setHeld(null);
        now.current.onFilmDone?.();
      },
      nudge: (event, id, micron) => {
        const { onFilm, us } = now.current;
        const by = { ArrowUp: 1, ArrowRight: 1, ArrowDown: -1, ArrowLeft: -1, PageUp: 5, PageDown: -5 }[event.key];
        if (by === undefined || !onFilm) return;
        event.preventDefault();
        const unit = us ? MIL_MICRON / 10 : micron < 40 ? 1 : 5;
        onFilm(id, snapped(micron + by * unit, micron, us));
      },
      done: () => now.current.onFilmDone?.(),
    }),
    [],
  );
  return { layout: held?.layout ?? asked.layout, hand };
}
