import { expose } from 'comlink';
import { getPosition, getTimes } from 'suncalc';
import type { BoatStanding } from '../data/planning';
import { fetchFile } from '../data/files';
import { rateOf } from '../data/rates';
import { parseEpw, type Epw } from '#core/air/epw';
import { filmInTime, openFor, type FilmStep } from '#core/plan/filmInTime';
import { jobProblem, sideSeries, type BoatJob, type JobProblem } from '#core/plan/job';
import { memberSeries } from '#core/plan/jobAir';
import type { TaskLabel } from '#core/plan/jobZone';
import { memberOf } from '#core/air/forecast';
import { oddsSteps, type LaunchOdds } from '#core/plan/odds';
import { rehearse, type RehearsedDay } from '#core/plan/rehearse';
import type { CoatPlan, CoatTask, PlanProblem, PlanSeries, Span } from '#core/plan/problem';
import { compareFound, type Found } from '#core/plan/search';
import { planSession, type PlanSession } from '#core/plan/session';
import { compareScores } from '#core/plan/problem';
import { allowedStarts, type AllowedStarts } from '#core/air/allowedStarts';
import type { TempSample, WeatherHour } from '#core/air/weather';
import type { TakenRate } from '#contracts/rows/stores';

/** All that a plan is worked out from; plain data. */
export interface PlanRequest {
  readonly now: number;
  readonly days: number;
  readonly boats: readonly BoatStanding[];
  readonly hands: readonly { readonly id: string; readonly pace: number; readonly available: readonly Span[] }[];
  readonly rates: TakenRate[];
  readonly dryFactors: Readonly<Record<string, number>>;
  /** The plan that was accepted last: the search begins with it. */
  readonly accepted: CoatPlan | null;
}

/** A plan and what is drawn of it. */
export interface PlanAnswer {
  readonly plan: CoatPlan;
  readonly films: Record<string, FilmStep[]>;
  readonly labels: readonly TaskLabel[];
  readonly boats: PlanProblem['boats'];
  readonly zones: readonly { readonly id: string; readonly boat: string }[];
  readonly appointments: PlanProblem['appointments'];
  readonly now: number;
  readonly until: number;
  readonly ready: Readonly<Record<string, number | null>>;
  readonly done: boolean;
}

export interface PlanWeather {
  readonly boatId: string;
  readonly hours: readonly WeatherHour[];
  readonly typicalFrom: number | null;
  readonly daylight: readonly Span[];
  /** Surface of each zone, by what zones that are alike share. */
  readonly surfaces: Readonly<Record<string, readonly TempSample[]>>;
  readonly surfaceOf: Readonly<Record<string, string>>;
}

/** What is to be put on, other than the next coat of each zone. */
export type OtherCoat = Pick<CoatTask, 'limits' | 'method' | 'touchDry' | 'minCureC'>;

/** The hours in which a coat may be put on one zone, and how warm its surface is. */
export interface ZoneHours {
  readonly zoneId: string;
  /** One of its sides, where they differ. */
  readonly side: 'port' | 'starboard' | null;
  readonly task: string;
  readonly hours: number;
  readonly spells: readonly AllowedStarts[];
  readonly surface: readonly TempSample[];
}

/** A weather that the forecast allows, and each day of the plan in it. */
export interface Rehearsal {
  readonly member: number;
  readonly days: readonly RehearsedDay[];
  readonly hours: Readonly<Record<string, readonly WeatherHour[]>>;
}

/** Another way, really planned. */
export interface WayFound {
  readonly key: string;
  readonly plan: CoatPlan;
  readonly ready: Readonly<Record<string, number | null>>;
  /** The dates that it was planned for. */
  readonly launchAt: Readonly<Record<string, number | null>>;
}

const DAY_MS = 86_400_000;
/** Between two breaths, in which a question or a stop comes in. */
const SLICE_MS = 25;
/** The search ends after so many tries in vain for each zone. */
const TRIES_IN_VAIN = 150;

/** Plans asked for, and searches: a stop ends the search, not the plan that is being made. */
let asked = 0;
let turn = 0;
let made: { request: PlanRequest; job: JobProblem; session: PlanSession; best: Found } | null = null;

const breath = () => new Promise<void>((go) => setTimeout(go));

/** Hours of daylight of the days of a plan: all day where the sun does not set, none where it does not rise. */
function daylightOf({ latitudeDeg, longitudeDeg }: BoatStanding, now: number, days: number): Span[] {
  const daylight: Span[] = [];
  for (let day = -1; day <= days + 1; day += 1) {
    const { dawn, dusk } = getTimes(new Date(now + day * DAY_MS), latitudeDeg, longitudeDeg);
    if (dawn && dusk && Number.isFinite(dawn.getTime()) && dusk > dawn)
      daylight.push({ from: dawn.getTime(), to: dusk.getTime() });
    else if (getPosition(new Date(now + day * DAY_MS), latitudeDeg, longitudeDeg).altitude > 0)
      daylight.push({ from: now + (day - 0.5) * DAY_MS, to: now + (day + 0.5) * DAY_MS });
  }
  return daylight;
}

/** Typical years that were brought in, read once; one that cannot be had is done without. */
const years = new Map<string, Epw | null>();

async function fetchYears({ boats }: PlanRequest): Promise<void> {
  for (const { plan } of boats) {
    const hash = plan?.typicalYear?.fileHash;
    if (hash === undefined || years.has(hash)) continue;
    try {
      years.set(hash, parseEpw(await (await fetchFile(hash)).text()));
    } catch {
      years.set(hash, null);
    }
  }
}

function boatJob(boat: BoatStanding, now: number, days: number): BoatJob {
  const { latitudeDeg, longitudeDeg } = boat;
  return {
    ...boat,
    typicalYear: years.get(boat.plan?.typicalYear?.fileHash ?? '') ?? null,
    daylight: daylightOf(boat, now, days),
    sunAt: (at) => {
      const { azimuth, altitude } = getPosition(new Date(at), latitudeDeg, longitudeDeg);
      return { azimuthDeg: azimuth, altitudeDeg: altitude };
    },
  };
}

function problemOf({ now, days, boats, hands, rates, dryFactors }: PlanRequest): JobProblem {
  return jobProblem({
    now,
    days,
    boats: boats.map((b) => boatJob(b, now, days)),
    hands,
    rateOf: (sheetId, layer) => rateOf({ rates }, sheetId, layer.method),
    dryFactorOf: (sheetId) => dryFactors[sheetId ?? ''] ?? 1,
  });
}

function answerOf(session: PlanSession, job: JobProblem, found: Found, done: boolean): PlanAnswer {
  const { problem } = session;
  const plan = session.planOf(found);
  const films = filmInTime(session, plan);
  return {
    plan,
    films,
    labels: job.labels,
    boats: problem.boats,
    zones: problem.zones.map(({ id, boat }) => ({ id, boat })),
    appointments: problem.appointments,
    now: problem.now,
    until: problem.until,
    ready: session.readyAt(found),
    done,
  };
}

/** One of the weathers that the forecast allows, on the zones of all boats. */
const allSeries = ({ air, problem }: JobProblem, member: number): PlanProblem['series'] =>
  Object.assign({}, ...air.map((a) => memberSeries({ ...a, seed: a.boatId, issuedAt: problem.now, member })));

const worker = {
  /** Plan, and tell each better plan; a later call ends this one. */
  async plan(request: PlanRequest, tell: (answer: PlanAnswer) => void): Promise<PlanWeather[]> {
    asked += 1;
    const own = asked;
    await fetchYears(request);
    if (own !== asked) return [];
    turn += 1;
    const mine = turn;
    const job = problemOf(request);
    const session = planSession(job.problem);
    const { search } = session;
    let best = search.first();
    if (request.accepted) {
      const kept = session.adopt(request.accepted);
      if (compareScores(kept.score, best.score) <= 0) best = kept;
    }
    made = { request, job, session, best };
    tell(answerOf(session, job, best, search.units.length === 0));
    const shown = ({ at }: { at: number }) => at > job.problem.now - DAY_MS && at < job.problem.until;
    const weather = job.air.map(({ boatId, hours, typicalFrom, zones }) => ({
      boatId,
      hours: hours.filter(shown),
      typicalFrom,
      surfaces: Object.fromEntries(
        zones.map(({ key }) => [key, (job.problem.series[key]?.surface ?? []).filter(shown)]),
      ),
      surfaceOf: Object.fromEntries(job.problem.zones.filter((z) => z.boat === boatId).map((z) => [z.id, z.series])),
      daylight: daylightOf(request.boats.find((b) => b.id === boatId) as BoatStanding, request.now, request.days),
    }));
    void better(mine, tell);
    return weather;
  },

  /** No more tries: the best so far stays. */
  stop(): void {
    turn += 1;
  },

  /** Where a task may start by air, people and light. */
  open(task: string): { from: number; to: number }[] {
    return made ? openFor(made.session, task) : [];
  },

  /** When the next coat of each zone may be put on and stays safe until touch dry; or another coat in its place. */
  fit(from: number, to: number, other: OtherCoat | null): ZoneHours[] {
    return made ? hoursOfZones(made, { from, to, other }) : [];
  },

  /** The plan with one task held somewhere: the rest follows. Nothing is kept of it. */
  moved(task: string, start: number): PlanAnswer | null {
    if (!made) return null;
    const { session, job, best } = made;
    const planned = session.planOf(best).tasks.find((t) => t.id === task);
    if (!planned) return null;
    const locked = session.locked({ [task]: { start, painters: planned.painters } });
    return answerOf(locked, job, locked.adopt(session.planOf(best)), false);
  },

  /** What would come of other requests, each really planned, one after the other. */
  async ways(requests: readonly { key: string; request: PlanRequest }[], tell: (way: WayFound) => void): Promise<void> {
    // What stands already, or was found for another way, is where each begins: none is worse for a shorter look.
    const plans: CoatPlan[] = made ? [made.session.planOf(made.best)] : [];
    for (const { key, request } of requests) {
      await fetchYears(request);
      const session = planSession(problemOf(request).problem);
      let best = session.search.first();
      for (const plan of plans) {
        const kept = session.adopt(plan);
        if (compareFound(kept, best) < 0) best = kept;
      }
      const tries = 2 * session.search.units.length + 12;
      for (let step = 0, from = performance.now(); step < tries; step += 1) {
        if (performance.now() - from > SLICE_MS) {
          await breath();
          from = performance.now();
        }
        const found = session.search.tryOnce(best, step);
        if (compareFound(found, best) <= 0) best = found;
      }
      const launchAt = Object.fromEntries(request.boats.map((b) => [b.id, b.launchAt]));
      const plan = session.planOf(best);
      plans.push(plan);
      tell({ key, plan, ready: session.readyAt(best), launchAt });
      await breath();
    }
  },

  /** One of the weathers of the odds, lived through day by day. */
  rehearse(member: number): Rehearsal | null {
    if (!made) return null;
    const { session, job, best } = made;
    const issuedAt = session.problem.now;
    const series = allSeries(job, member);
    return {
      member,
      days: rehearse(session.problem, { plan: session.planOf(best), series, seed: 1 + member }),
      hours: Object.fromEntries(
        job.air.map((a) => [a.boatId, memberOf(a.hours, { seed: a.boatId, issuedAt, member })]),
      ),
    };
  },

  /** The odds of the plan that stands; told on the way. */
  async odds(members: number, tell: (share: number) => void): Promise<LaunchOdds | null> {
    return made && oddsOf(made.job, made.session.planOf(made.best), members, tell);
  },

  /** The odds of another way, with the plan that was found for it. */
  async oddsOfWay(request: PlanRequest, plan: CoatPlan, members: number): Promise<LaunchOdds> {
    await fetchYears(request);
    return oddsOf(problemOf(request), plan, members, () => undefined);
  },
};

async function oddsOf(
  job: JobProblem,
  plan: CoatPlan,
  members: number,
  tell: (share: number) => void,
): Promise<LaunchOdds> {
  const steps = oddsSteps(job.problem, { members, seed: 1, plan, seriesOf: (member) => allSeries(job, member) });
  for (let from = performance.now(); ;) {
    const step = steps.next();
    if (step.done) return step.value;
    if (performance.now() - from < SLICE_MS * 4) continue;
    tell(step.value);
    await breath();
    from = performance.now();
  }
}

/** Both sides of a zone apart, where they differ; else the zone as it is planned. */
function seriesOfSides(
  job: JobProblem,
  boats: readonly BoatJob[],
  zone: PlanProblem['zones'][number],
): { side: ZoneHours['side']; series: PlanSeries }[] {
  const { problem } = job;
  const air = job.air.find((a) => a.boatId === zone.boat);
  const boat = boats.find((b) => b.id === zone.boat);
  if (air && boat) {
    const sides = (['port', 'starboard'] as const).flatMap((side) => {
      const series = sideSeries({ boat, surfaceId: zone.id, side, hours: air.hours });
      return series ? [{ side, series }] : [];
    });
    if (sides.length === 2) return sides;
  }
  const series = problem.series[zone.series];
  return series ? [{ side: null, series }] : [];
}

function hoursOfZones(
  { request, job }: Pick<NonNullable<typeof made>, 'request' | 'job'>,
  { from, to, other }: { from: number; to: number; other: OtherCoat | null },
): ZoneHours[] {
  const { problem } = job;
  const boats = request.boats.map((b) => boatJob(b, request.now, request.days));
  const near = (s: TempSample) => s.at > from - DAY_MS / 8 && s.at < to + DAY_MS / 4;
  return problem.zones.flatMap((zone): ZoneHours[] => {
    const coat = problem.tasks.find((t): t is CoatTask => t.kind === 'coat' && t.zone === zone.id && !t.done);
    if (!coat) return [];
    const hours = Math.min(...coat.crews.map((c) => c.hours));
    const { limits, method, touchDry, minCureC } = other ?? coat;
    const asked = { limits, method, touchDry, minCureC, durationH: hours, from, to, sheltered: zone.sheltered };
    return seriesOfSides(job, boats, zone).map(({ side, series }) => ({
      zoneId: zone.id,
      side,
      task: coat.id,
      hours,
      spells: allowedStarts({ ...asked, series }),
      surface: series.surface.filter(near),
    }));
  });
}

/** Try on until nothing comes of it, or another plan is asked for. */
async function better(mine: number, tell: (answer: PlanAnswer) => void): Promise<void> {
  if (!made) return;
  const { session, job, request } = made;
  const { search } = session;
  let current = made.best;
  let vain = 0;
  const patience = TRIES_IN_VAIN * (1 + search.units.length);
  for (let step = 0, from = performance.now(); vain < patience && search.units.length > 0; step += 1) {
    if (performance.now() - from > SLICE_MS) {
      await breath();
      from = performance.now();
      if (mine !== turn) return;
    }
    const found = search.tryOnce(current, step);
    if (compareFound(found, current) <= 0) current = found;
    vain += 1;
    if (compareScores(found.score, made.best.score) >= 0) continue;
    vain = 0;
    made = { request, session, job, best: found };
    tell(answerOf(session, job, found, false));
  }
  tell(answerOf(session, job, made.best, true));
}

export type PlanWorker = typeof worker;
expose(worker);
