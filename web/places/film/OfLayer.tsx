import { computed, type ReadonlySignal } from '@preact/signals-core';
import { useMemo, type ReactNode } from 'react';
import type { Layer } from '#core/film/layer';
import { useLive } from '../../parts/live';

/** One of the layers, drawn anew while its film is held. */
export function OfLayer({
  layers,
  layerId,
  children,
}: {
  layers: ReadonlySignal<readonly Layer[]>;
  layerId: string;
  children: (layer: Layer) => ReactNode;
}) {
  const layer = useLive(useMemo(() => computed(() => layers.value.find((l) => l.id === layerId)), [layers, layerId]));
  return layer && children(layer);
}
