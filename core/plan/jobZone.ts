import { isAntifouling } from '../system/stack';
import type { ZoneStatus } from '../coat/zoneStatus';
import type { Layer } from '../model/layer';
import type { PrepKind } from '../model/prep';
import type { SheetBody } from '../model/sheet';
import type { TimeTable } from '../model/timeTable';
import { overcoatFor } from '../sheet/overcoat';
import type { PrepList, PrepStep } from '../prep/prepSteps';
import type { CoatTask, Crew, Over, PlanAppointment, PlanTask, WorkTask } from './problem';

/** m² that one painter gets ready in an hour. [M] */
const PREP_M2_PER_H: Readonly<Partial<Record<PrepKind, number>>> = {
  lookOver: 60,
  strip: 2.5,
  needleGun: 1.5,
  scrape: 4,
  wireBrush: 4,
  grind: 3,
  blast: 6,
  saltRinse: 40,
  passivate: 30,
  convert: 25,
  degrease: 25,
  wash: 25,
  rinse: 40,
  fill: 3,
  guideCoat: 40,
  block: 3,
  inspect: 60,
  spotPrime: 20,
  abrade: 7,
  vacuum: 40,
  wipe: 40,
  tack: 50,
};
/** Of a step that does not go by area, hours. [M] */
const STEP_H = 0.5;
/** Nothing is begun for less, hours: brushes, mixing, cleaning up. [CP] */
const LEAST_H = 0.5;
/** Longer prep is cut into parts, so that nights and rain may lie between. */
const PART_H = 3;
/** A washed and wiped face keeps so long, until rain; bare metal so long. [CP] */
const CLEAN_H = 24;
const BARE_METAL_H = 4;
/** A rinsed face dries so long in the air where its list does not say. [M] */
const DRY_H = 2;
/** Taping and its taking off for a coat, hours. [M] */
const UNMASK_H = 0.5;

const LAST_WIPES: ReadonlySet<PrepKind> = new Set(['vacuum', 'wipe', 'tack']);
const NEEDS_DRY: ReadonlySet<PrepKind> = new Set([
  'blast',
  'abrade',
  'block',
  'fill',
  'spotPrime',
  'wipe',
  'tack',
  'convert',
]);

/** Somebody who works, with how fast. */
export interface PlanHand {
  readonly id: string;
  readonly pace: number;
}

export interface ZoneJob {
  readonly zoneId: string;
  readonly areaM2: number;
  readonly status: Pick<ZoneStatus, 'lastCoat' | 'layersDone' | 'clocks'>;
  readonly layers: readonly Layer[];
  readonly sheetOf: (layer: Layer) => SheetBody | null;
  /** Of the last coat. */
  readonly lastSheet: SheetBody | null;
  readonly prep: PrepList;
  /** Edges are taped for its coats. */
  readonly masks: boolean;
  /** m² an hour of one painter. */
  readonly rateOf: (layer: Layer) => number;
  /** How a sheet's product was found to dry against its table. */
  readonly dryFactorOf: (layer: Layer) => number;
  readonly hands: readonly PlanHand[];
  /** The yard moves her off its stands first: nothing of it is begun before the end of this appointment. */
  readonly after: string | null;
}

/** What a task of a plan is, in the words of the job. */
export interface TaskLabel {
  readonly task: string;
  readonly zoneId: string;
  readonly steps: readonly PrepKind[];
  readonly layer: Layer | null;
  /** "barrier 3": how many coats of this same sheet it makes. */
  readonly number: number;
}

/** Coats of a zone with what they need before slings or stands may press on them. */
export type Bearing = PlanAppointment['bear'][number];

/** Everything still to do on a zone as tasks of a plan: getting it ready, its coats, abrading where it may be, tape off. */
export function zoneTasks(job: ZoneJob): { tasks: PlanTask[]; labels: TaskLabel[]; bearing: Bearing[] } {
  const tasks: PlanTask[] = [];
  const labels: TaskLabel[] = [];
  const bearing: Bearing[] = [];
  const bears = (coat: string, sheet: SheetBody, factor: number) => {
    // A sheet without a time for handling: hard enough to be sanded. [M]
    const minimum = scaled(sheet.handle ?? sheet.sandable, factor);
    if (minimum) bearing.push({ coat, minimum });
  };
  const left = job.layers.slice(job.status.layersDone);
  const prep = prepTasks(job, left.length > 0);
  tasks.push(...prep.tasks);
  labels.push(...prep.labels);
  const under = doneCoat(job);
  if (under) tasks.push(under);
  if (under && job.lastSheet) bears(under.id, job.lastSheet, 1);
  let below: { id: string; layer: Layer | null; sheet: SheetBody } | null =
    under && job.lastSheet ? { id: under.id, layer: null, sheet: job.lastSheet } : null;
  const counts = new Map<string, number>();
  for (const layer of job.layers.slice(0, job.status.layersDone)) count(counts, layer);
  left.forEach((layer, i) => {
    const sheet = job.sheetOf(layer);
    if (!sheet) return;
    const id = coatId(job.zoneId, layer.id);
    const last = i === left.length - 1;
    tasks.push({
      ...plain(job, id, i === 0 ? prep.ends : []),
      kind: 'coat',
      crews: crewsFor(job.hands, Math.max(LEAST_H, job.areaM2 / job.rateOf(layer))),
      fresh: i === 0 ? prep.fresh : [],
      product: sheet.name,
      method: layer.method,
      limits: sheet.limits,
      touchDry: scaled(sheet.touchDry, job.dryFactorOf(layer)),
      minCureC: sheet.minCureC,
      over: below ? overOf(job, below, { layer, sheet }, i === 0) : null,
      immersion: last ? immersionOf(sheet, job.dryFactorOf(layer)) : null,
    });
    labels.push({ task: id, zoneId: job.zoneId, steps: [], layer, number: count(counts, layer) });
    bears(id, sheet, job.dryFactorOf(layer));
    below = { id, layer, sheet };
  });
  const top = left[left.length - 1];
  if (top && job.masks) {
    const id = `unmask:${job.zoneId}`;
    tasks.push({
      ...plain(job, id, [{ id: coatId(job.zoneId, top.id), hours: 0 }]),
      kind: 'work',
      needsDry: false,
      crews: crewsFor(job.hands, UNMASK_H),
    });
    labels.push({ task: id, zoneId: job.zoneId, steps: ['mask'], layer: null, number: 0 });
  }
  return { tasks, labels, bearing };
}

export const coatId = (zoneId: string, layerId: string) => `coat:${zoneId}:${layerId}`;

function count(counts: Map<string, number>, { sheetRevisionId }: Layer): number {
  const number = (counts.get(sheetRevisionId) ?? 0) + 1;
  counts.set(sheetRevisionId, number);
  return number;
}

const plain = (job: ZoneJob, id: string, after: PlanTask['after']) => ({
  id,
  zone: job.zoneId,
  after: job.after === null ? after : [...after, { id: job.after, hours: 0 }],
  fresh: [],
  lock: null,
  done: null,
});

/** Each by themselves, at their own pace; and all together where there is more than one. */
function crewsFor(hands: readonly PlanHand[], hours: number): Crew[] {
  const alone = hands.map(({ id, pace }) => ({ painters: [id], hours: hours * pace }));
  if (hands.length < 2) return alone;
  const together = hands.slice(0, 2);
  const speed = together.reduce((sum, { pace }) => sum + 1 / pace, 0);
  // Two are not twice as fast: they share a tray and an edge. [M]
  return [...alone, { painters: together.map((h) => h.id), hours: Math.max(LEAST_H, (hours / speed) * 1.1) }];
}

function scaled(table: TimeTable | null | undefined, factor: number): TimeTable | null {
  if (!table) return null;
  return factor === 1 ? table : table.map((c) => ({ ...c, hours: c.hours * factor }));
}

function doneCoat({ status: { lastCoat }, lastSheet, zoneId }: ZoneJob): CoatTask | null {
  if (!lastCoat || !lastSheet) return null;
  const finishedAt = lastCoat.finishedAt ?? lastCoat.startedAt;
  return {
    id: `done:${zoneId}`,
    zone: zoneId,
    kind: 'coat',
    crews: [],
    after: [],
    fresh: [],
    lock: null,
    done: { startedAt: lastCoat.startedAt, finishedAt },
    product: lastSheet.name,
    method: 'roller',
    limits: lastSheet.limits,
    touchDry: lastSheet.touchDry,
    minCureC: lastSheet.minCureC,
    over: null,
    immersion: immersionOf(lastSheet, 1),
  };
}

function overOf(
  job: ZoneJob,
  below: { id: string; layer: Layer | null; sheet: SheetBody },
  above: { layer: Layer; sheet: SheetBody },
  first: boolean,
): Over {
  const times = overcoatFor(below.sheet, above.sheet.kind);
  const factor = below.layer ? job.dryFactorOf(below.layer) : 1;
  const closing = Math.min(1, factor);
  const alwaysAbrade = times?.alwaysAbrade === true || above.layer.prep === 'abrade';
  // What is on already and missed its window can still be abraded; what is not yet on is not begun without the next.
  const chained =
    below.layer !== null &&
    !alwaysAbrade &&
    below.sheet.kind === 'barrier' &&
    isAntifouling(above.sheet) &&
    times?.tackLimit != null;
  // A hand test has let the coat below go on already: its table is not asked again.
  const byHand = first && (job.status.clocks?.window?.handTest?.passed ?? false);
  return {
    coat: below.id,
    minimum: byHand ? null : scaled(times?.minimum, factor),
    tackLimit: scaled(times?.tackLimit, closing),
    maximum: scaled(times?.maximum, closing),
    alwaysAbrade: alwaysAbrade && !chained,
    chained,
    sandable: scaled(below.sheet.sandable, factor),
    abrade: chained
      ? null
      : {
          crews: crewsFor(job.hands, Math.max(LEAST_H, job.areaM2 / (PREP_M2_PER_H.abrade as number))),
          needsDry: false,
        },
  };
}

function immersionOf(sheet: SheetBody, factor: number): CoatTask['immersion'] {
  const days = sheet.antifouling?.dryOutDays;
  const dryOut: TimeTable | null =
    days === undefined
      ? null
      : [
          { tempC: 20, hours: days * 24 },
          { tempC: 5, hours: days * 24 },
        ];
  // Where a sheet says nothing of the water it is one for above it: to be handled, at least touch dry.
  const minimum = scaled(sheet.immersion ?? sheet.handle ?? sheet.touchDry, factor);
  const maximum = sheet.immersionMax ?? dryOut;
  return minimum || maximum ? { minimum, maximum } : null;
}

/** Steps of getting ready as tasks: parts of some hours, waits between, and a last one that must be fresh for the coat. */
function prepTasks(
  job: ZoneJob,
  coated: boolean,
): { tasks: WorkTask[]; labels: TaskLabel[]; ends: { id: string; hours: number }[]; fresh: CoatTask['fresh'] } {
  const steps = job.prep.steps.filter((s) => s.state === 'toDo' || s.state === 'again');
  const tasks: WorkTask[] = [];
  const labels: TaskLabel[] = [];
  let open: { kinds: PrepKind[]; hours: number } = { kinds: [], hours: 0 };
  let wait = 0;
  let fresh: CoatTask['fresh'] = [];
  const close = () => {
    if (open.hours <= 0) return;
    const parts = Math.max(1, Math.ceil(open.hours / PART_H - 0.2));
    for (let part = 0; part < parts; part += 1) {
      const id = `prep:${job.zoneId}:${tasks.length}`;
      const before = tasks[tasks.length - 1];
      tasks.push({
        ...plain(job, id, before ? [{ id: before.id, hours: part === 0 ? wait : 0 }] : []),
        kind: 'work',
        needsDry: open.kinds.some((k) => NEEDS_DRY.has(k)),
        crews: crewsFor(job.hands, Math.max(LEAST_H, open.hours / parts)),
      });
      labels.push({ task: id, zoneId: job.zoneId, steps: open.kinds, layer: null, number: parts > 1 ? part + 1 : 0 });
      wait = part === 0 ? 0 : wait;
    }
    open = { kinds: [], hours: 0 };
  };
  for (const step of steps) {
    if (step.kind === 'dry') {
      close();
      wait += step.needs.dryH ?? DRY_H;
      continue;
    }
    // What has to stay fresh begins a part of its own.
    if (step.kind === 'blast' || (LAST_WIPES.has(step.kind) && !open.kinds.some((k) => LAST_WIPES.has(k)))) close();
    open = { kinds: [...open.kinds, step.kind], hours: open.hours + stepHours(step, job.areaM2) };
    if (step.kind === 'blast') close();
  }
  close();
  const last = tasks[tasks.length - 1];
  if (!last) return { tasks, labels, ends: [], fresh };
  if (coated) {
    const blasted = labels.find((l) => l.steps.includes('blast'));
    if (blasted) fresh = [{ id: blasted.task, hours: BARE_METAL_H, untilRain: true }];
    const final = labels[labels.length - 1] as TaskLabel;
    if (final.task !== blasted?.task && final.steps.some((k) => LAST_WIPES.has(k) || k === 'wash' || k === 'rinse'))
      fresh = [...fresh, { id: final.task, hours: CLEAN_H, untilRain: true }];
  }
  return { tasks, labels, ends: [{ id: last.id, hours: wait }], fresh };
}

const stepHours = ({ kind, needs }: PrepStep, areaM2: number): number => {
  const rate = PREP_M2_PER_H[kind];
  // A wash that is laid on and rinsed takes the water's time too.
  return rate === undefined ? STEP_H : areaM2 / rate + (needs.waterL !== undefined ? 0.1 : 0);
};
