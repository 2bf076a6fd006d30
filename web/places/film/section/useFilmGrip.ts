import { useState, type KeyboardEvent, type PointerEvent } from 'react';
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
export interface FilmGrip {
  grab: (event: PointerEvent<SVGElement>, layerId: string, micron: number) => void;
  drag: (event: PointerEvent<SVGElement>) => void;
  drop: () => void;
  nudge: (event: KeyboardEvent, layerId: string, micron: number) => void;
  done: () => void;
}

/** A film made thicker or thinner by hand or keys. */
export function useFilmGrip({ layout: free, us, onFilm, onFilmDone }: Asked): { layout: Layout; grip: FilmGrip } {
  // While a face is dragged the scale stands still, so that it stays under the finger.
  const [held, setHeld] = useState<{ layout: Layout; id: string; y: number; from: number } | null>(null);
  const layout = held?.layout ?? free;
  const grip: FilmGrip = {
    grab: (event, id, micron) => {
      if (!onFilm) return;
      event.preventDefault();
      event.currentTarget.setPointerCapture(event.pointerId);
      setHeld({ layout, id, y: event.clientY, from: micron });
    },
    drag: ({ clientY }) => {
      if (held) onFilm?.(held.id, snapped(held.from + (held.y - clientY) / held.layout.scale, held.from, us));
    },
    drop: () => {
      if (!held) return;
      setHeld(null);
      onFilmDone?.();
    },
    nudge: (event, id, micron) => {
      const by = { ArrowUp: 1, ArrowRight: 1, ArrowDown: -1, ArrowLeft: -1, PageUp: 5, PageDown: -5 }[event.key];
      if (by === undefined || !onFilm) return;
      event.preventDefault();
      const unit = us ? MIL_MICRON / 10 : micron < 40 ? 1 : 5;
      onFilm(id, snapped(micron + by * unit, micron, us));
    },
    done: () => onFilmDone?.(),
  };
  return { layout, grip };
}
