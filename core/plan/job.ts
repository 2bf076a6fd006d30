import type { Epw } from '../air/epw';
import { colourAbsorptance, type SunPosition } from '../air/solAir';
import type { WeatherHour } from '../air/weather';
import type { ZoneStatus } from '../coat/zoneStatus';
import { zoneReadings } from '../coat/fold';
import { OPENNESS, isSheltered } from '../hull/zones';
import type { BuildUp } from '../model/buildUp';
import { NO_JOB_PLAN, type JobAppointment, type JobPlan } from '../model/jobPlan';
import type { Layer } from '../model/layer';
import type { LogEntry } from '../model/log';
import type { SheetRevision } from '../model/sheet';
import { timeLaw } from '../cure/arrhenius';
import { PATCHES, type Shelter, type Side, type Surface, type ZoneKind } from '../model/surface';
import { zonePrep } from '../prep/zonePrep';
import type { Border } from '../system/borders';
import type { SourcedHour } from '../air/weather';
import { faceOf, LEVEL_DEG, seriesOfZones, withTypicalYear, type ZoneAir } from './jobAir';
import { zoneTasks, type Bearing, type PlanHand, type TaskLabel } from './jobZone';
import type { PlanAppointment, PlanProblem, PlanSeries, PlanTask, Span } from './problem';

const HOUR_MS = 3_600_000;
const DAY_MS = 24 * HOUR_MS;
/** Real use: a quarter of an hour. */
export const GRID_MIN = 15;

/** A boat as far as planning her cares. */
export interface BoatJob {
  readonly id: string;
  readonly place: { readonly seed: string; readonly latitudeDeg: number; readonly utcOffsetH: number };
  readonly shelter: Shelter;
  readonly launchAt: number | null;
  readonly surfaces: readonly (Surface & { readonly side?: Side })[];
  readonly buildUps: readonly BuildUp[];
  readonly borders: readonly Pick<Border, 'id' | 'upperId' | 'lowerId'>[];
  readonly entries: readonly LogEntry[];
  readonly sheets: readonly SheetRevision[];
  readonly statuses: readonly ZoneStatus[];
  readonly hours: readonly SourcedHour[];
  readonly plan: JobPlan | null;
  /** Of a file, for the time beyond the forecast; left out or null: the stand-in's own. */
  readonly typicalYear?: Epw | null;
  /** Hours of daylight, for zones that need it. */
  readonly daylight: readonly Span[];
  readonly sunAt: (at: number) => SunPosition;
}

export interface YardJob {
  readonly now: number;
  readonly days: number;
  readonly boats: readonly BoatJob[];
  readonly hands: readonly (PlanHand & { readonly available: readonly Span[] })[];
  /** m² an hour of one painter; how a product was found to dry against its table. */
  readonly rateOf: (sheetId: string | undefined, layer: Layer) => number;
  readonly dryFactorOf: (sheetId: string | undefined) => number;
}

/** A problem with what its ids mean, and what its weather was made of. */
export interface JobProblem {
  readonly problem: PlanProblem;
  readonly labels: readonly TaskLabel[];
  readonly air: readonly {
    readonly boatId: string;
    readonly hours: readonly WeatherHour[];
    /** From here on the weather is that of a typical year; null: the forecast reaches to the end. */
    readonly typicalFrom: number | null;
    readonly zones: readonly ZoneAir[];
    readonly sunAt: (at: number) => SunPosition;
  }[];
}

/** The first quarter of an hour at or after an instant. */
export const quarterFrom = (at: number): number => Math.ceil(at / (GRID_MIN * 60_000)) * GRID_MIN * 60_000;

/**
 * Everything still to do on some boats as one problem: from what is done, their films, their lists of getting ready, the
 * weather with its shelters and sides, people's hours and rates.
 * @example
 *   jobProblem({ now: noon, days: 7, boats: [], hands: [], rateOf: () => 8, dryFactorOf: () => 1 }).problem.tasks // → []
 */
export function jobProblem({ now, days, boats, hands, rateOf, dryFactorOf }: YardJob): JobProblem {
  const start = quarterFrom(now);
  const until = start + days * DAY_MS;
  const tasks: PlanTask[] = [];
  const labels: TaskLabel[] = [];
  const zones: PlanProblem['zones'][number][] = [];
  const series: Record<string, PlanProblem['series'][string]> = {};
  const air: JobProblem['air'][number][] = [];
  const appointments: PlanProblem['appointments'][number][] = [];
  for (const boat of boats) {
    const plan = boat.plan ?? NO_JOB_PLAN;
    const { hours, typicalFrom } = withTypicalYear(boat.hours, boat.place, until + HOUR_MS, boat.typicalYear);
    const first = hours[0]?.at ?? start;
    const zoneAirs: ZoneAir[] = [];
    const own: OwnZone[] = [];
    boat.surfaces.forEach((surface, i) => {
      const status = boat.statuses[i];
      if (!status) return;
      const found = tasksOf(
        boat,
        surface,
        { ...status, lastCoat: knownCoat(status, first) },
        { now, hands, rateOf, dryFactorOf, plan },
      );
      if (!found.tasks.some((t) => t.done === null)) return;
      const zoneAir = airOf(boat, surface, status, plan);
      zoneAirs.push(zoneAir);
      zones.push({
        id: surface.id,
        boat: boat.id,
        series: zoneAir.key,
        sheltered: isSheltered(surface, boat.shelter),
        open: plan.lamps ? null : boat.daylight,
      });
      tasks.push(...found.tasks.map((task) => lockedTask(task, plan.locks, start, until)));
      labels.push(...found.labels);
      own.push({ surface, tasks: found.tasks, bearing: found.bearing });
    });
    waitForCoatsUnder(tasks, own);
    appointments.push(...plan.appointments.map((a) => appointmentOf(a, own)));
    Object.assign(series, seriesOfZones(hours, zoneAirs, boat.sunAt));
    air.push({ boatId: boat.id, hours, typicalFrom, zones: zoneAirs, sunAt: boat.sunAt });
  }
  const known = new Set(zones.map((z) => z.id));
  const used = new Set(zones.map((z) => z.boat));
  return {
    problem: {
      version: 1,
      gridMin: GRID_MIN,
      now: start,
      until,
      slackCapH: 24,
      changeoverMin: 15,
      series,
      boats: boats.filter((b) => used.has(b.id)).map(({ id, launchAt }) => ({ id, launchAt })),
      zones,
      painters: hands.map(({ id, available }) => ({ id, available })),
      appointments,
      notTogether: boats.flatMap((b) => (b.plan?.apart ?? []).filter((n) => n.zones.every((z) => known.has(z)))),
      tasks,
    },
    labels,
    air,
  };
}

/** A zone of a boat in a plan. */
interface OwnZone {
  readonly surface: BoatJob['surfaces'][number];
  readonly tasks: readonly PlanTask[];
  readonly bearing: readonly Bearing[];
}

/** Zones that slings and stands press on. */
const BORNE: ReadonlySet<ZoneKind> = new Set(['underwater', 'keel', 'bootTop']);

/** What is fixed, the zones it takes up, and, where she is moved, the coats under slings and stands that must be hard by then. */
function appointmentOf({ id, kind, from, to, zoneIds }: JobAppointment, own: readonly OwnZone[]): PlanAppointment {
  const taken = own.filter(({ surface }) => zoneIds.length === 0 || zoneIds.includes(surface.id));
  const borne = kind === 'move' ? taken.filter(({ surface }) => BORNE.has(surface.kind)) : [];
  return { id, from, to, zones: taken.map(({ surface }) => surface.id), bear: borne.flatMap((z) => z.bearing) };
}

/** At this temperature, °C, a patch waits until its zone's last coat may be overcoated. [M] */
const PATCH_WAITS_AT_C = 10;

/** A patch that lies on its zone is begun when the last coat of the zone may be overcoated. */
function waitForCoatsUnder(tasks: PlanTask[], own: readonly OwnZone[]): void {
  for (const { surface, tasks: patch } of own) {
    if (!surface.patchKind || PATCHES[surface.patchKind] !== 'overlay') continue;
    const under = own.find((z) => z.surface.id === surface.parentId);
    const last = under?.tasks.findLast((t) => t.kind === 'coat' && t.done === null);
    if (!last) continue;
    const table = under?.bearing.find((b) => b.coat === last.id)?.minimum;
    const hours = table ? timeLaw({ table, kind: 'minimum' })(PATCH_WAITS_AT_C) : 0;
    const first = new Set(patch.filter((t) => t.done === null && t.after.length === 0).map((t) => t.id));
    tasks.forEach((task, i) => {
      if (first.has(task.id)) tasks[i] = { ...task, after: [...task.after, { id: last.id, hours }] };
    });
  }
}

/** A task held where somebody put it; a lock that is over, or of people who are no longer there, holds nothing. */
function lockedTask(task: PlanTask, locks: JobPlan['locks'], from: number, until: number): PlanTask {
  const lock = locks.find((l) => l.task === task.id);
  if (!lock || task.done || lock.start < from || lock.start >= until) return task;
  const crew = task.crews.find((c) => samePeople(c.painters, lock.painters));
  if (!crew || lock.start + crew.hours * HOUR_MS > until) return task;
  return { ...task, lock: { start: quarterFrom(lock.start), painters: lock.painters } };
}

const samePeople = (a: readonly string[], b: readonly string[]) =>
  a.length === b.length && a.every((n) => b.includes(n));

/** A coat from before the weather begins has no clock to be run: it counts as there, and hard. */
const knownCoat = ({ lastCoat }: ZoneStatus, first: number) =>
  lastCoat && lastCoat.startedAt >= first ? lastCoat : null;

function tasksOf(
  boat: BoatJob,
  surface: BoatJob['surfaces'][number],
  status: ZoneStatus,
  {
    now,
    hands,
    rateOf,
    dryFactorOf,
    plan,
  }: Pick<YardJob, 'now' | 'hands' | 'rateOf' | 'dryFactorOf'> & { plan: JobPlan },
) {
  const revisionOf = new Map(boat.sheets.map((s) => [s.id, s]));
  const layers = boat.buildUps.find((b) => b.surfaceId === surface.id)?.layers ?? [];
  const move = plan.appointments.find((a) => a.kind === 'move');
  const sheetIdOf = (layer: Layer) => revisionOf.get(layer.sheetRevisionId)?.sheetId;
  return zoneTasks({
    zoneId: surface.id,
    areaM2: surface.areaM2,
    status,
    layers,
    sheetOf: (layer) => revisionOf.get(layer.sheetRevisionId)?.body ?? null,
    lastSheet: status.lastCoat ? (revisionOf.get(status.lastCoat.sheetRevisionId)?.body ?? null) : null,
    prep: zonePrep(
      {
        entries: boat.entries,
        buildUps: boat.buildUps,
        sheets: boat.sheets,
        hours: boat.hours,
        shelter: boat.shelter,
        borders: boat.borders,
        now,
      },
      surface,
      status,
    ),
    masks: boat.borders.some((b) => b.upperId === surface.id),
    rateOf: (layer) => rateOf(sheetIdOf(layer), layer),
    dryFactorOf: (layer) => dryFactorOf(sheetIdOf(layer)),
    hands,
    after: move && surface.patchKind === 'standPad' ? move.id : null,
  });
}

function airOf(boat: BoatJob, surface: BoatJob['surfaces'][number], status: ZoneStatus, plan: JobPlan): ZoneAir {
  const spans = plan.shelters
    .filter((s) => s.zoneIds.length === 0 || s.zoneIds.includes(surface.id))
    .map(({ from, to, cover, heatedToC, driedToRh }) => ({ from, to, cover, heatedToC, driedToRh }));
  const readings = zoneReadings(boat.entries, surface.id);
  const absorptance = colourAbsorptance(status.colourHex ?? '#8a9094');
  const face = faceOf({ surface, boatShelter: boat.shelter, headingDeg: plan.headingDeg, absorptance });
  const openness = isSheltered(surface, boat.shelter) ? 0 : OPENNESS[surface.kind];
  const key = [
    boat.id,
    face ? `${face.azimuthDeg}/${face.tiltDeg}/${face.absorptance.toFixed(2)}` : openness,
    JSON.stringify(spans),
    readings.length > 0 ? surface.id : '',
  ].join('|');
  return { key, spans, openness, face, readings };
}

/**
 * The air and surface of one side of a zone that has both: what chasing the shade goes by.
 * @param options.hours weather of the boat
 * @returns null where nobody has said which way she points, or the zone shows the same face on both sides
 * @example sideSeries({ boat: { surfaces: [], statuses: [] }, surfaceId: 'bottom', side: 'port', hours: steady }) // → null
 */
export function sideSeries(options: {
  boat: BoatJob;
  surfaceId: string;
  side: 'port' | 'starboard';
  hours: readonly WeatherHour[];
}): PlanSeries | null {
  const { boat, surfaceId, side, hours } = options;
  const i = boat.surfaces.findIndex((s) => s.id === surfaceId);
  const [surface, status] = [boat.surfaces[i], boat.statuses[i]];
  if (!surface || !status || surface.side === 'port' || surface.side === 'starboard') return null;
  const air = airOf(boat, { ...surface, side }, status, boat.plan ?? NO_JOB_PLAN);
  if (!air.face || air.face.tiltDeg < LEVEL_DEG || surface.kind === 'transom') return null;
  return seriesOfZones(hours, [air], boat.sunAt)[air.key] ?? null;
}
