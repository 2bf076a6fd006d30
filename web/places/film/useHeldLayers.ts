import { computed, signal, type ReadonlySignal } from '@preact/signals-core';
import { useLayoutEffect, useMemo, useState } from 'react';
import type { Layer } from '#core/film/layer';

type Layers = readonly Layer[];

interface HeldLayers {
  /** As they stand, and as a hand or a key holds one of their films. */
  readonly layers: ReadonlySignal<Layers>;
  readonly hold: (layerId: string, dftMicron: number) => void;
  /** @returns the layers to be kept, shown until they stand; null where nothing differs */
  readonly letGo: () => Layers | null;
}

/** A build-up while one of its films is held. What is held stays held over whatever else comes to stand meanwhile, an answer of the server above all. */
export function useHeldLayers(standing: Layers): HeldLayers {
  const [held] = useState(makeHeld);
  const layers = useMemo(() => computed(() => held.onto(standing)), [held, standing]);
  useLayoutEffect(() => held.othersStand(), [held, standing]);
  return { layers, hold: held.hold, letGo: () => held.letGo(standing) };
}

function makeHeld() {
  const held = signal<{ layerId: string; dftMicron: number } | null>(null);
  let inHand = false;
  const onto = (standing: Layers): Layers => {
    const now = held.value;
    if (!now || !standing.some((l) => l.id === now.layerId && l.dftMicron !== now.dftMicron)) return standing;
    return standing.map((l) => (l.id === now.layerId ? { ...l, dftMicron: now.dftMicron } : l));
  };
  return {
    onto,
    hold: (layerId: string, dftMicron: number) => {
      inHand = true;
      held.value = { layerId, dftMicron };
    },
    letGo: (standing: Layers) => {
      inHand = false;
      const kept = onto(standing);
      if (kept !== standing) return kept;
      held.value = null;
      return null;
    },
    othersStand: () => {
      if (!inHand) held.value = null;
    },
  };
}
