import type { Shelter } from './surface';

/** What is fixed before anything is planned: the yard moves her, the shed is hers for a week. Epoch ms, half open. */
export interface JobAppointment {
  readonly id: string;
  readonly kind: 'move' | 'other';
  readonly name: string;
  readonly from: number;
  readonly to: number;
  /** Zones that it takes up; empty: all. */
  readonly zoneIds: readonly string[];
}

/** What stands over zones for a while, and how it is warmed and dried. Epoch ms, half open. */
export interface JobShelter {
  readonly id: string;
  /** Empty: all. */
  readonly zoneIds: readonly string[];
  readonly from: number;
  readonly to: number;
  readonly cover: Shelter;
  readonly heatedToC: number | null;
  readonly driedToRh: number | null;
}

/** A task held where it is: its id in the plan, its start and its people. */
export interface JobLock {
  readonly task: string;
  readonly start: number;
  readonly painters: readonly string[];
}

/** What a haul-out is planned by, beside her film and what is done. */
export interface JobPlan {
  /** Which way her bow points in the yard, degrees clockwise from north; null: nobody has said. */
  readonly headingDeg: number | null;
  /** There are lamps: work does not end with daylight. */
  readonly lamps: boolean;
  readonly shelters: readonly JobShelter[];
  readonly appointments: readonly JobAppointment[];
  readonly apart: readonly { readonly zones: readonly [string, string]; readonly untilDry: boolean }[];
  readonly locks: readonly JobLock[];
  /** A file of a typical year of her place, for the time beyond the forecast; left out or null: the stand-in's own. */
  readonly typicalYear?: TypicalYear | null | undefined;
}

/** A typical year that somebody brought in: an EPW file among the yard's files, and the place it was made for. */
export interface TypicalYear {
  readonly fileHash: string;
  readonly name: string;
  readonly latitudeDeg: number;
}

export const NO_JOB_PLAN: JobPlan = {
  headingDeg: null,
  lamps: false,
  shelters: [],
  appointments: [],
  apart: [],
  locks: [],
};

/** A task of a plan as it was accepted, in words that stay when the film is changed. */
export interface AcceptedTask {
  readonly id: string;
  readonly zoneId: string;
  readonly kind: 'work' | 'coat' | 'abrade';
  readonly name: string;
  readonly painters: readonly string[];
  readonly start: number;
  readonly end: number;
}

/** A plan that somebody took as theirs: it is kept, and what really happened stands beside it. */
export interface PlanAcceptedBody {
  readonly tasks: readonly AcceptedTask[];
  /** Ready for the water, epoch ms; null: not within its days. */
  readonly finish: number | null;
  /** Share of the weathers that make the launch; null: not asked for. */
  readonly odds: number | null;
  readonly note: string;
}

/** Somebody who paints: hours and days, and what an hour costs. Minutes after midnight; weekdays 1 Monday … 7 Sunday. */
export interface Hand {
  readonly name: string;
  readonly fromMin: number;
  readonly toMin: number;
  readonly weekdays: readonly number[];
  /** Civil dates on which they are not there, first and last. */
  readonly off: readonly { readonly from: string; readonly to: string }[];
  /** Minor units of the yard's currency; null: not counted. */
  readonly perHourMinor: number | null;
  /** Time they take, as a multiple of the yard's rates. */
  readonly pace: number;
}
