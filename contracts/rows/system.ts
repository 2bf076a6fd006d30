import type { NamedBuildUp } from '#core/model/buildUp';
import type { Border } from '#core/system/borders';

/** A named build-up of the yard. */
export interface NamedBuildUpRow extends NamedBuildUp {
  version: number;
  deleted: boolean;
}

/** Where one stands on the boats in hand. */
export interface NamedUse {
  boatId: string;
  boatName: string;
  surfaceId: string;
  zoneName: string;
}

export interface BorderRow extends Border {
  boatId: string;
  version: number;
  deleted: boolean;
}
