import type { AreaMethod } from './area';

export const ZONE_KINDS = [
  'underwater',
  'keel',
  'rudder',
  'sternGear',
  'bootTop',
  'topsides',
  'transom',
  'deck',
  'nonSkid',
  'coachroof',
  'cockpit',
  'bilge',
  'lockers',
  'anchorLocker',
  'engineBay',
  'tank',
] as const;

export type ZoneKind = (typeof ZONE_KINDS)[number];

export const HULL_MATERIALS = ['grp', 'steel', 'aluminium', 'timber', 'plywood', 'ferrocement'] as const;

export type HullMaterial = (typeof HULL_MATERIALS)[number];

export const KEELS = ['none', 'single', 'twin'] as const;

export type Keels = (typeof KEELS)[number];

export const SUBSTRATES = [
  'gelcoat',
  'laminate',
  'steel',
  'aluminium',
  'timber',
  'plywood',
  'sealedTimber',
  'ferrocement',
] as const;

export type Substrate = (typeof SUBSTRATES)[number];

export const EXPOSURES = ['immersed', 'splash', 'weather', 'interior', 'bilge', 'tank'] as const;

export type Exposure = (typeof EXPOSURES)[number];

/** What stands over a zone while it is painted. Under a roof rain and wind do not count; the dew does. */
export const SHELTERS = ['open', 'cover', 'tent', 'building'] as const;

export type Shelter = (typeof SHELTERS)[number];

/** What a tank is for: only drinking water asks for paint that is certified for it. */
export const TANK_HOLDS = ['water', 'fuel', 'holding', 'ballast'] as const;

export type TankHolds = (typeof TANK_HOLDS)[number];

/** What lies on the substrate before the first coat of this job. */
export const EXISTING_COATINGS = [
  'bare',
  'onePack',
  'twoPack',
  'unknown',
  'antifoulingHard',
  'antifoulingAblative',
  'antifouling',
] as const;

export type ExistingCoating = (typeof EXISTING_COATINGS)[number];

/**
 * Parts of a zone that run behind or ahead of it. `carved` ones are taken out of the zone's area and get coats
 * of their own; `overlay` ones lie on it and get theirs besides.
 */
export const PATCHES = {
  standPad: 'carved',
  bondingStrip: 'carved',
  weldSeam: 'carved',
  strippedBack: 'carved',
  uncoated: 'carved',
  highWear: 'overlay',
  touchUp: 'overlay',
} as const satisfies Record<string, 'carved' | 'overlay'>;

export type PatchKind = keyof typeof PATCHES;

export const PATCH_KINDS = Object.keys(PATCHES) as PatchKind[];

/** Which of its sides a zone means; `part` is a share of both. */
export const SIDES = ['both', 'port', 'starboard', 'part'] as const;

export type Side = (typeof SIDES)[number];

/** Work to be done on a zone before it is painted. */
export const OPEN_WORK_KINDS = ['repair', 'hotWork', 'drilling', 'fairing', 'drying', 'underStand'] as const;

export type OpenWorkKind = (typeof OPEN_WORK_KINDS)[number];

export interface OpenWork {
  readonly id: string;
  readonly kind: OpenWorkKind;
  readonly note: string;
  readonly done: boolean;
}

/** What is never painted and has to be masked, or was taken off. [CP] */
export const MASKED_THINGS = ['anode', 'transducer', 'propeller', 'earthPlate', 'seal', 'logWheel', 'other'] as const;

export type MaskedThing = (typeof MASKED_THINGS)[number];

export interface MaskItem {
  readonly id: string;
  readonly thing: MaskedThing;
  readonly count: number;
  readonly note: string;
}

/** A zone of the boat, as far as coats care. */
export interface Surface {
  readonly id: string;
  readonly name: string;
  readonly kind: ZoneKind;
  readonly substrate: Substrate;
  readonly exposure: Exposure;
  readonly existing: ExistingCoating;
  readonly areaM2: number;
  /** ± as a share. */
  readonly areaShare: number;
  /** How its area was found: zones by one measuring share its error. */
  readonly area?: { readonly method: AreaMethod };
  /** The zone a patch is part of. */
  readonly parentId?: string | null;
  readonly patchKind?: PatchKind | null;
  /** How many of its zone's first coats lie under a patch too; null as its kind has it: none where it is cut out, else all. */
  readonly sharedCoats?: number | null;
  readonly openWork?: readonly OpenWork[];
  /** What stands over it; left out or null: the open sky. */
  readonly shelter?: Shelter | null;
  /** What the tank holds; left out or null: nobody has said. */
  readonly holds?: TankHolds | null;
}
