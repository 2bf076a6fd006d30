import { computed, signal, type ReadonlySignal } from '@preact/signals-core';
import { useMemo, useState } from 'react';
import type { Layer } from '#core/film/layer';

type Layers = readonly Layer[];

/** The layers as they stand, and as a hand or a key holds one of their films. What is held goes by as soon as others stand. */
export function useHeldLayers(standing: Layers): { layers: ReadonlySignal<Layers>; hold: (layerId: string, dftMicron: number) => void } {
  const [{ onto, hold }] = useState(makeHeld);
  const layers = useMemo(() => computed(() => onto(standing)), [onto, standing]);
  return { layers, hold: (layerId, dftMicron) => hold(standing, layerId, dftMicron) };
}

function makeHeld() {
  const held = signal<{ over: Layers; layers: Layers } | null>(null);
  const onto = (standing: Layers): Layers => (held.value?.over === standing ? held.value.layers : standing);
  const hold = (standing: Layers, layerId: string, dftMicron: number) => {
    held.value = { over: standing, layers: onto(standing).map((l) => (l.id === layerId ? { ...l, dftMicron } : l)) };
  };
  return { onto, hold };
}
