import type { Layer } from '#core/model/layer';
import type { LayerQuantities } from '#core/film/layer';

/** A coat as the section draws it. */
export interface SectionCoat {
  readonly layer: Layer;
  readonly name: string;
  /** On the boat: a coat was logged. */
  readonly on: boolean;
  /** Dry film the comb readings come to; null where nothing was combed. */
  readonly measuredMicron: number | null;
  /** What is left of it after the abrading above. */
  readonly keptMicron: number;
  /** What it takes; null where that cannot be worked out, or where there is no zone. */
  readonly takes: Pick<LayerQuantities, 'wetMicron' | 'spreadingRateM2PerL' | 'litres'> | null;
}

export const filmOf = (coats: readonly SectionCoat[]): number => coats.reduce((sum, c) => sum + c.layer.dftMicron, 0);
