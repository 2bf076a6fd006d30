import type { BorderRow } from './system';
import type { WorkSpan } from '#core/air/lastStart';
import type { SourcedHour, WeatherHour } from '#core/air/weather';
import type { BoatDimensions } from '#core/hull/area';
import { ESTIMATED_DIMENSIONS, MAIN_DIMENSIONS } from '#core/hull/estimate';
import type { AreaRecord, HullModel } from '#core/model/area';
import type { BuildUp } from '#core/model/buildUp';
import type { JobPlan } from '#core/model/jobPlan';
import type { Layer } from '#core/model/layer';
import type { LogEntry } from '#core/model/log';
import type { SheetRevision, Waters } from '#core/model/sheet';
import type {
  HullMaterial,
  Keels,
  MaskItem,
  OpenWork,
  PatchKind,
  Shelter,
  Side,
  Surface,
  TankHolds,
} from '#core/model/surface';
import type { Override } from '#core/system/mend';
import type { JobChoices } from '#core/system/schools';
import type { ZoneRecord } from '#core/system/stack';

export const ESTIMATED_FIGURES = [...ESTIMATED_DIMENSIONS, ...MAIN_DIMENSIONS, 'latitudeDeg'] as const;
export type EstimatedFigure = (typeof ESTIMATED_FIGURES)[number];

export interface Boat extends BoatDimensions {
  id: string;
  name: string;
  hullMaterial: HullMaterial;
  keels: Keels;
  place: string;
  /** Degrees, north positive: sets daylight and season of the simulated weather. */
  latitudeDeg: number;
  /** IANA name. */
  timeZone: string;
  /** Where she lies afloat; null while nobody has said. */
  waters: Waters | null;
  /** What stands over her while she is painted. */
  shelter: Shelter;
  /** Figures that nobody measured: worked out from the length, or from the time zone. */
  estimated: EstimatedFigure[];
  version: number;
  deleted: boolean;
}

/** One haul-out of a boat. Dates are civil dates at the boat. */
export interface Job {
  id: string;
  boatId: string;
  outOn: string;
  inOn: string | null;
  yardCostPerDayMinor: number | null;
  currency: string;
  /** The schools of this haul-out; null for the usual ones. */
  choices: JobChoices | null;
  /** What she is planned by, beside her film; null: nothing was said. */
  planning: JobPlan | null;
  version: number;
  deleted: boolean;
}

/** Boats are put in during the morning: a launch day without an hour means this one, local time. */
export const LAUNCH_HOUR = 8;

export interface SurfaceRow extends Surface {
  boatId: string;
  /** Before patches were taken off. */
  grossM2: number;
  area: AreaRecord;
  side: Side;
  /** Share of the whole where `side` is `part`. */
  partShare: number | null;
  notes: string;
  maskList: MaskItem[];
  openWork: OpenWork[];
  parentId: string | null;
  patchKind: PatchKind | null;
  /** What stands over it; null: what stands over the boat. */
  shelter: Shelter | null;
  holds: TankHolds | null;
  sort: number;
  version: number;
  deleted: boolean;
}

export interface BuildUpRow extends BuildUp {
  id: string;
  boatId: string;
  layers: Layer[];
  /** The named build-up that it came from; null for one of its own. */
  namedId: string | null;
  /** Total dry film wanted, µm; null for the usual one. */
  targetMicron: number | null;
  /** Stops that a person let stand, with why. */
  overrides: Override[];
  /** What was tried and looked at before anything went over what was there. */
  records: ZoneRecord[];
  version: number;
  deleted: boolean;
}

/** What is known of the hull as a whole: one row a boat. */
export interface HullRow extends HullModel {
  id: string;
  boatId: string;
  version: number;
  deleted: boolean;
}

/** What works out a zone's area and its net of patches: not sent, always worked out. */
export type SurfaceDraft = Omit<SurfaceRow, 'areaM2' | 'areaShare' | 'grossM2'>;

/** Everything about one boat, in one answer. */
export interface BoatBundle {
  now: number;
  frozen: boolean;
  boat: Boat;
  jobs: Job[];
  hull: HullRow | null;
  surfaces: SurfaceRow[];
  /** Zones that were removed: the log still names them. */
  removedZones: { id: string; name: string }[];
  buildUps: BuildUpRow[];
  borders: BorderRow[];
  entries: LogEntry[];
  sheets: SheetRevision[];
  hours: SourcedHour[];
  /** The working days around now, in which starts are offered; empty: any hour. */
  workSpans: WorkSpan[];
  /** How products were found to dry against their tables, by sheet: taken by hand; 1 where nothing was. */
  dryFactors?: Record<string, number>;
  typedDays: TypedDayRow[];
  /** Hours of the file that was brought in last, where that is newer than what was typed. */
  typedHours?: readonly WeatherHour[] | null;
}

export interface TypedDayRow {
  date: string;
  lowC: number;
  highC: number;
  rh: number | null;
  dewC: number | null;
  rainFrom: number | null;
  rainTo: number | null;
  windMs: number | null;
}
