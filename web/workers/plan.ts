import { expose } from 'comlink';
import { getPosition, getTimes } from 'suncalc';
import type { BoatStanding } from '../data/planning';
import { fetchFile } from '../data/files';
import { rateOf } from '../data/rates';
import { parseEpw, type Epw } from '#core/air/epw';
import { filmInTime, openFor, type FilmStep } from '#core/plan/filmInTime';
import { jobProblem, type BoatJob, type JobProblem } from '#core/plan/job';
import { memberSeries } from '#core/plan/jobAir';
import type { TaskLabel } from '#core/plan/jobZone';
import { memberOf } from '#core/air/forecast';
import { oddsSteps, type LaunchOdds } from '#core/plan/odds';
import { rehearse, type RehearsedDay } from '#core/plan/rehearse';
import type { CoatPlan, PlanProblem, Span } from '#core/plan/problem';
import { compareFound, type Found } from '#core/plan/search';
import { planSession, type PlanSession } from '#core/plan/session';
import { compareScores } from '#core/plan/problem';
import type { WeatherHour } from '#core/air/weather';
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
}

const DAY_MS = 86_400_000;
/** Between two breaths, in which a question or a stop comes in. */
const SLICE_MS = 25;
/** The search ends after so many tries in vain for each zone. */
const TRIES_IN_VAIN = 150;

let turn = 0;
let made: { job: JobProblem; session: PlanSession; best: Found } | null = null;

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
    turn += 1;
    const mine = turn;
    await fetchYears(request);
    if (mine !== turn) return [];
    const job = problemOf(request);
    const session = planSession(job.problem);
    const { search } = session;
    let best = search.first();
    if (request.accepted) {
      const kept = session.adopt(request.accepted);
      if (compareScores(kept.score, best.score) <= 0) best = kept;
    }
    made = { job, session, best };
    tell(answerOf(session, job, best, search.units.length === 0));
    const weather = job.air.map(({ boatId, hours, typicalFrom }) => ({
      boatId,
      hours: hours.filter((h) => h.at > job.problem.now - DAY_MS && h.at < job.problem.until),
      typicalFrom,
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
    for (const { key, request } of requests) {
      await fetchYears(request);
      const session = planSession(problemOf(request).problem);
      let best = session.search.first();
      // What stands already is where it begins: a way out is no worse for having been looked at for less long.
      const kept = made ? session.adopt(made.session.planOf(made.best)) : best;
      if (compareFound(kept, best) < 0) best = kept;
      const tries = 2 * session.search.units.length + 12;
      for (let step = 0, from = performance.now(); step < tries; step += 1) {
        if (performance.now() - from > SLICE_MS) {
          await breath();
          from = performance.now();
        }
        const found = session.search.tryOnce(best, step);
        if (compareFound(found, best) <= 0) best = found;
      }
      tell({ key, plan: session.planOf(best), ready: session.readyAt(best) });
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
    if (!made) return null;
    const { session, job, best } = made;
    const steps = oddsSteps(session.problem, {
      members,
      seed: 1,
      plan: session.planOf(best),
      seriesOf: (member) => allSeries(job, member),
    });
    for (let from = performance.now(); ;) {
      const step = steps.next();
      if (step.done) return step.value;
      if (performance.now() - from < SLICE_MS * 4) continue;
      tell(step.value);
      await breath();
      from = performance.now();
    }
  },
};

/** Try on until nothing comes of it, or another plan is asked for. */
async function better(mine: number, tell: (answer: PlanAnswer) => void): Promise<void> {
  if (!made) return;
  const { session, job } = made;
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
    made = { session, job, best: found };
    tell(answerOf(session, job, found, false));
  }
  tell(answerOf(session, job, made.best, true));
}

export type PlanWorker = typeof worker;
expose(worker);
