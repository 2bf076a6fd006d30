import { useState } from 'react';
import { flushSync } from 'react-dom';
import type { Layer } from '#core/model/layer';

type Layers = readonly Layer[];

interface Held {
  readonly layerId: string;
  readonly dftMicron: number;
  /** The layers it was let go on: it is shown until others come to stand. Null while it is in hand. */
  readonly letGoOn: Layers | null;
}

export interface HeldLayers {
  /** As they stand, with the one film that a hand or a key holds. */
  readonly layers: Layers;
  readonly hold: (layerId: string, dftMicron: number) => void;
  /** @returns the layers to be kept; null where nothing differs */
  readonly letGo: () => Layers | null;
}

/** A build-up while one of its films is held: what is held stays so, whatever else comes to stand meanwhile. */
export function useHeldLayers(standing: Layers): HeldLayers {
  const [held, setHeld] = useState<Held | null>(null);
  const layers = held && (held.letGoOn === null || held.letGoOn === standing) ? withFilm(standing, held) : standing;
  return {
    layers,
    // A browser tells of a moving pointer once a frame: drawn at once, its figures stand in that same frame.
    hold: (layerId, dftMicron) => flushSync(() => setHeld({ layerId, dftMicron, letGoOn: null })),
    letGo: () => {
      const differs = layers !== standing;
      setHeld(held && differs ? { ...held, letGoOn: standing } : null);
      return differs ? layers : null;
    },
  };
}

function withFilm(standing: Layers, { layerId, dftMicron }: Held): Layers {
  if (!standing.some((l) => l.id === layerId && l.dftMicron !== dftMicron)) return standing;
  return standing.map((l) => (l.id === layerId ? { ...l, dftMicron } : l));
}
