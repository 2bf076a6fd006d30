import { DateTime } from 'luxon';
import { v7 as uuid } from 'uuid';
import { NO_JOB_PLAN, type Hand, type JobAppointment, type JobPlan, type JobShelter } from '#core/model/jobPlan';
import type { Layer } from '#core/model/layer';
import type { SheetRevision } from '#core/model/sheet';
import { structureIsOpen } from '#core/stores/needs';
import { checkBuildUp } from '#core/system/checkBuildUp';
import { withSheets } from '#core/system/ledger';
import { formatQuantity } from '#core/units/format';
import { inSchool } from '#core/system/schools';
import type { SheetRow } from '#contracts/rows/sheet';
import type { YardRules } from '#contracts/rows/stores';
import { AFLOAT, handsAtWork, handsOf, outAt } from '../../data/planning';
import { settings } from '../../data/settings';
import { save, type BoatView } from '../../data/store';
import { BOND_WORDS } from '../../parts/choiceWords';
import type { PlanAnswer, PlanRequest } from '../../workers/plan';
import { usableSheets } from '../film/planned';
import { isOn, standingBuildUps, swapped } from '../film/swapped';
import { firstOf, isLate } from './planWords';
import type { BoatPlan } from './usePlan';

/** A way out: what it would be asked for with, and what taking it writes. */
export interface Way {
  readonly key: string;
  readonly name: string;
  readonly request: PlanRequest;
  /** Who paints, where that is other than the yard's own. */
  readonly hands?: readonly Hand[];
  readonly take: () => void;
  /** What it costs besides people's hours and days on the hard; in words where that is not money. */
  readonly price: string;
}

const DAY_MS = 86_400_000;
const HEAT_C = 16;
const EARLIER_DAYS = 3;
const MOST_PRODUCTS = 2;

/** What could be tried when a plan does not make its date. */
export function waysOf(plan: BoatPlan, answer: PlanAnswer, sheets: readonly SheetRow[]): Way[] {
  const { request, rules, view } = plan;
  if (!request || !rules || view.jobs.length === 0) return [];
  return [
    ...waysByHands(plan, request, rules),
    ...waysByShelter(plan, answer, request),
    ...waysByPaint(plan, answer, request, sheets),
    ...waysByDate(plan, request),
  ];
}

/** Longer weeks, longer days, one more. */
function waysByHands({ view }: BoatPlan, request: PlanRequest, rules: YardRules): Way[] {
  const hands = handsOf(rules);
  const first = hands[0] as Hand;
  const way = (key: string, name: string, next: readonly Hand[], price: string): Way => ({
    key,
    name,
    price,
    hands: next,
    request: {
      ...request,
      hands: handsAtWork(next, { now: request.now, days: request.days, timeZone: view.boat.timeZone }),
    },
    take: () => void save({ kind: 'rules', row: { ...rules, hands: [...next] } }, name),
  });
  const everyDay = hands.map((h) => ({ ...h, weekdays: [1, 2, 3, 4, 5, 6, 7] }));
  const longer = hands.map((h) => ({
    ...h,
    fromMin: Math.max(0, h.fromMin - 60),
    toMin: Math.min(1440, h.toMin + 60),
  }));
  return [
    ...(hands.some((h) => h.weekdays.length < 7)
      ? [way('sundays', 'Work every day of the week', everyDay, 'their days off')]
      : []),
    way('longer', 'Two hours more a day', longer, 'longer days'),
    way('another', 'One painter more', [...hands, { ...first, name: `${first.name} 2` }], 'another painter'),
  ];
}

/** Light, a tent, heat; over her or over the zone that is ready last. */
function waysByShelter(plan: BoatPlan, answer: PlanAnswer, request: PlanRequest): Way[] {
  const { planning, names } = plan;
  const way = (key: string, name: string, change: Partial<JobPlan>, price: string): Way => ({
    key,
    name,
    price,
    request: {
      ...request,
      boats: request.boats.map((b) => ({ ...b, plan: { ...(b.plan ?? NO_JOB_PLAN), ...change } })),
    },
    take: () => plan.change(change, name),
  });
  const tent: JobShelter = {
    id: uuid(),
    zoneIds: [],
    from: request.now,
    to: request.now + request.days * DAY_MS,
    cover: 'tent',
    heatedToC: null,
    driedToRh: null,
  };
  const zone = criticalZone(plan, answer);
  const heated = { ...tent, heatedToC: HEAT_C };
  const warm = formatQuantity('temperature', HEAT_C, settings().units, 0);
  return [
    ...(planning.lamps ? [] : [way('lamps', 'Lamps: work past dusk', { lamps: true }, 'lamps')]),
    way('tent', 'A tent over her', { shelters: [tent] }, 'a tent'),
    way('heated', `A tent over her, heated to ${warm}`, { shelters: [heated] }, 'a tent and its heat'),
    ...(zone && planning.shelters.every((s) => s.zoneIds.length > 0 && !s.zoneIds.includes(zone))
      ? [
          way(
            'zoneHeated',
            `${names.zone(zone)} alone under a tent, heated to ${warm}`,
            { shelters: [...planning.shelters, { ...heated, zoneIds: [zone] }] },
            'a small tent and its heat',
          ),
        ]
      : []),
  ];
}

/** One coat less, the other school, another product of the kind that holds things up. */
function waysByPaint(plan: BoatPlan, answer: PlanAnswer, request: PlanRequest, sheets: readonly SheetRow[]): Way[] {
  const { view } = plan;
  const way = (
    key: string,
    name: string,
    layersOf: ReadonlyMap<string, readonly Layer[]>,
    price: string,
    more: readonly SheetRevision[] = [],
  ): Way => ({
    key,
    name,
    price,
    request: {
      ...request,
      boats: request.boats.map((b) => ({
        ...b,
        sheets: [...b.sheets, ...more],
        buildUps: b.buildUps.map((u) => ({ ...u, layers: layersOf.get(u.surfaceId) ?? u.layers })),
      })),
    },
    take: () => {
      const rows = view.buildUps.flatMap((row) => {
        const layers = layersOf.get(row.surfaceId);
        return layers ? [{ ...row, layers: [...layers] }] : [];
      });
      void save({ kind: 'buildUps', boatId: view.boat.id, rows }, name);
    },
  });
  const fewer = oneCoatLess(plan, answer);
  const bond =
    (view.jobs[view.jobs.length - 1]?.choices?.bond ?? 'chemical') === 'chemical' ? 'mechanical' : 'chemical';
  const schooled = otherSchool(view, bond);
  return [
    ...(fewer ? [way('fewer', fewer.name, new Map([[fewer.zone, fewer.layers]]), 'a thinner film')] : []),
    ...(schooled.size > 0
      ? [way('school', `The other school: ${BOND_WORDS[bond].toLowerCase()}`, schooled, 'other work between coats')]
      : []),
    ...otherProducts(plan, answer, sheets).map(({ sheet, layersOf }) =>
      way(`product:${sheet.id}`, `${sheet.body.name} instead`, layersOf, 'another product', [sheet]),
    ),
  ];
}

/** Coats that are still to come told the other school's way; zones where nothing would change are left out. */
function otherSchool(view: BoatView, bond: 'chemical' | 'mechanical'): Map<string, Layer[]> {
  const out = new Map<string, Layer[]>();
  for (const row of standingBuildUps(view)) {
    const own = withSheets(row.layers, view.sheetById);
    if (own.length !== row.layers.length) continue;
    const next = inSchool(own, bond).map(({ sheet: _sheet, ...l }, i) =>
      isOn(view, row.surfaceId, l.id) ? (row.layers[i] as Layer) : l,
    );
    if (next.some((l, i) => l.prep !== row.layers[i]?.prep)) out.set(row.surfaceId, next);
  }
  return out;
}

/** Others of the kind of what breaks first, in its place throughout the job, where no rule stops it. */
function otherProducts(plan: BoatPlan, answer: PlanAnswer, sheets: readonly SheetRow[]) {
  const { view, launchAt } = plan;
  const first = firstOf(answer, isLate(answer.ready[view.boat.id] ?? null, launchAt));
  const layer = answer.labels.find((l) => l.task === first?.task)?.layer;
  const from = layer && view.sheetById.get(layer.sheetRevisionId);
  if (!from) return [];
  return usableSheets(sheets)
    .filter((s) => s.body.kind === from.body.kind && s.sheetId !== from.sheetId)
    .map((sheet) => ({ sheet, layersOf: swapped(view, from.sheetId, sheet) }))
    .filter(({ sheet, layersOf }) => layersOf.size > 0 && !bringsStop(view, layersOf, sheet))
    .slice(0, MOST_PRODUCTS);
}

/** A rule stops what would be put on, and did not before. */
function bringsStop(view: BoatView, layersOf: ReadonlyMap<string, readonly Layer[]>, sheet: SheetRevision): boolean {
  const known = new Map([...view.sheetById, [sheet.id, sheet]]);
  const stops = (row: BoatView['buildUps'][number], layers: readonly Layer[]) => {
    const surface = view.surfaces.find((s) => s.id === row.surfaceId);
    if (!surface) return 0;
    return checkBuildUp({
      ...surface,
      layers: withSheets(layers, known),
      waters: view.boat.waters,
      records: row.records.map((r) => r.kind),
      openWork: structureIsOpen(surface),
      targetMicron: row.targetMicron,
    }).filter((f) => f.severity === 'stop').length;
  };
  return view.buildUps.some((row) => {
    const layers = layersOf.get(row.surfaceId);
    return layers !== undefined && stops(row, layers) > stops(row, row.layers);
  });
}

/** Out of the water sooner, where she still floats; into it later. */
function waysByDate({ view, launchAt }: BoatPlan, request: PlanRequest): Way[] {
  const job = view.jobs[view.jobs.length - 1];
  const ways: Way[] = [];
  const out = outAt(view);
  if (job && out !== null && out - view.at > EARLIER_DAYS * DAY_MS) {
    const outOn = DateTime.fromISO(job.outOn).minus({ days: EARLIER_DAYS }).toISODate() as string;
    const sooner = (a: JobAppointment) => (a.id.startsWith(AFLOAT) ? { ...a, to: a.to - EARLIER_DAYS * DAY_MS } : a);
    ways.push({
      key: 'earlier',
      name: `Out of the water ${EARLIER_DAYS} days sooner`,
      price: `${EARLIER_DAYS} days afloat`,
      request: {
        ...request,
        boats: request.boats.map((b) => ({
          ...b,
          plan: b.plan && { ...b.plan, appointments: b.plan.appointments.map(sooner) },
        })),
      },
      take: () => void save({ kind: 'job', row: { ...job, outOn } }, 'Out of the water sooner'),
    });
  }
  if (launchAt !== null && job?.inOn) {
    const inOn = DateTime.fromISO(job.inOn).plus({ days: 7 }).toISODate();
    ways.push({
      key: 'launch',
      name: 'Move the launch by a week',
      price: 'a week',
      request: {
        ...request,
        days: request.days + 7,
        boats: request.boats.map((b) => ({ ...b, launchAt: (b.launchAt ?? launchAt) + 7 * DAY_MS })),
      },
      take: () => void save({ kind: 'job', row: { ...job, inOn } }, 'Launch moved by a week'),
    });
  }
  return ways;
}

/** The zone of the first coat that is left out, else the one that is ready last. */
function criticalZone({ view }: BoatPlan, answer: PlanAnswer): string | null {
  const first = firstOf(answer, true);
  const zone = answer.labels.find((l) => l.task === first?.task)?.zoneId ?? null;
  return view.surfaces.some((s) => s.id === zone) ? zone : null;
}

/** That zone, with one coat less of a sheet that it has several of still to come. */
function oneCoatLess(plan: BoatPlan, answer: PlanAnswer) {
  const { view, names } = plan;
  const zone = criticalZone(plan, answer);
  const row = view.buildUps.find((b) => b.surfaceId === zone);
  const done = view.statuses.find((s) => s.surfaceId === zone)?.layersDone ?? 0;
  if (!row || !zone) return null;
  const coming: Layer[] = row.layers.slice(done);
  const at = coming.findLastIndex((l, i) => coming[i - 1]?.sheetRevisionId === l.sheetRevisionId);
  if (at < 0) return null;
  const layers = [...row.layers.slice(0, done + at), ...row.layers.slice(done + at + 1)];
  return { name: `${names.zone(zone)}: one coat less`, zone, layers };
}
