import { milestoneAt } from '../cure/milestone';
import type { TimeTable } from '../model/timeTable';
import { instant, notNegative } from '../guard';
import { checkConditions, conditionsIn, type LimitBreak } from './conditions';
import type { ConditionLimits } from '../model/sheet';
import type { PaintMethod } from '../model/paintMethod';
import { temperatureAt } from './surfaceSeries';
import { unbrokenHours, weatherAt, type TempSample, type WeatherHour } from './weather';

const STEP_MS = 15 * 60_000;
const DAY_MS = 86_400_000;

/** The first thing that goes wrong with a coat: when, and which limit. */
export interface Trouble {
  readonly at: number;
  readonly break: LimitBreak;
}

export interface StartAdvice {
  /** A coat started now holds its limits until its last panel is touch dry. Null when the forecast ends before. */
  readonly nowHolds: boolean | null;
  /** When a coat started now would be touch dry on its last panel; null past the forecast or without a sheet time. */
  readonly touchDryAt: number | null;
  /** What first goes wrong with a coat started now, at or before touch dry. */
  readonly trouble: Trouble | null;
  /** The next moment from which a coat can be started and holds; now, when it holds now. Null within the horizon. */
  readonly firstStartAt: number | null;
  /** The latest start of that same spell. Null when there is no such spell. */
  readonly lastStartAt: number | null;
  /** What closes the spell. Null when the forecast, or the working day, ends first. */
  readonly closedBy: Trouble | null;
  /** The working day closes the spell. */
  readonly dayEnds: boolean;
  /** What a coat started now has to heed, where it holds: outside what is usual, and the sheet is silent. */
  readonly caution: Trouble | null;
}

/** Hours in which people work, epoch ms. */
export interface WorkSpan {
  readonly from: number;
  readonly to: number;
}

/** What the limits say of a moment: the first that keeps from starting, and the first of all. */
interface Breaks {
  readonly held: LimitBreak | null;
  readonly any: LimitBreak | null;
}

/** What the limits say of a moment, worked out once for each. */
function limitBreaks(options: {
  hours: readonly WeatherHour[];
  surface: readonly TempSample[];
  limits: ConditionLimits;
  method: PaintMethod;
  sheltered: boolean | undefined;
  topcoat: boolean | undefined;
}): (at: number) => Breaks {
  const { hours, surface, limits, method, sheltered, topcoat } = options;
  const known = new Map<number, Breaks>();
  return (at) => {
    const found = known.get(at);
    if (found) return found;
    const w = weatherAt(hours, at) as WeatherHour;
    const verdict = checkConditions({
      conditions: conditionsIn(w, temperatureAt(surface, at)),
      limits,
      method,
      ...(sheltered === undefined ? {} : { sheltered }),
      ...(topcoat === undefined ? {} : { topcoat }),
    });
    const any = verdict.breaks[0] ?? null;
    const breaks = { any, held: any?.caution ? null : any };
    known.set(at, breaks);
    return breaks;
  };
}

/** The first trouble at or after a quarter hour, looked for no further than `until`. */
function troublesFrom(options: {
  now: number;
  count: number;
  breakAt: (at: number) => LimitBreak | null;
}): (i: number, until: number) => Trouble | null {
  const { now, count, breakAt } = options;
  // Starts are asked about in order: what lies between the last one and the frontier is known to be without trouble.
  let frontier = 0;
  let ahead: Trouble | null = null;
  return (i, until) => {
    if (ahead && ahead.at >= now + i * STEP_MS) return ahead.at <= until ? ahead : null;
    ahead = null;
    for (frontier = Math.max(frontier, i); frontier < count && now + frontier * STEP_MS <= until; frontier += 1) {
      const at = now + frontier * STEP_MS;
      const found = breakAt(at);
      if (!found) continue;
      ahead = { at, break: found };
      frontier += 1;
      return ahead;
    }
    return null;
  };
}

interface StartQuestion {
  readonly now: number;
  readonly hours: readonly WeatherHour[];
  readonly surface: readonly TempSample[];
  readonly limits: ConditionLimits;
  readonly method: PaintMethod;
  readonly sheltered?: boolean;
  readonly topcoat?: boolean;
  readonly applyHours: number;
  readonly touchDry?: TimeTable;
  readonly minCureC?: number;
  readonly horizonMs?: number;
  /** Hours in which starts are offered; left out or empty: all. */
  readonly workSpans?: readonly WorkSpan[];
}

/** A coat started at a quarter hour. */
interface Outcome {
  readonly holds: boolean | null;
  readonly dryAt: number | null;
  readonly trouble: Trouble | null;
}

/**
 * When a coat may be started on the forecast: all limits hold from the start until the last panel, put on
 * `applyHours` later, is touch dry. [P: ISO 8502-4 for the spread; CP for "until touch dry"]
 *
 * Walks the next day and a half in quarter hours. Where the sheet has no touch-dry time the coat is
 * watched only while it is being put on, and `touchDryAt` is null. The spell that is offered lies in the working day and
 * is one without cautions, if there is any.
 *
 * @param options.surface the surface series of the zone, readings included
 * @throws RangeError on impossible input
 */
export function startAdvice(options: StartQuestion): StartAdvice {
  const { surface, touchDry } = options;
  const now = instant(options.now, 'Now');
  const hours = unbrokenHours(options.hours, now);
  const applyMs = notNegative(options.applyHours, 'The hours to put a coat on') * 3_600_000;
  const horizon = now + (options.horizonMs ?? 1.5 * DAY_MS);
  const lastHour = hours[hours.length - 1];
  if (!lastHour || surface.length === 0 || now < (hours[0] as WeatherHour).at || now > lastHour.at)
    return {
      nowHolds: null,
      touchDryAt: null,
      trouble: null,
      firstStartAt: null,
      lastStartAt: null,
      closedBy: null,
      dayEnds: false,
      caution: null,
    };

  const known = Math.min(lastHour.at, (surface[surface.length - 1] as TempSample).at);
  const { sheltered, topcoat, limits, method } = options;
  const met = { caution: false };
  const breaksAt = limitBreaks({ hours, surface, limits, method, sheltered, topcoat });
  const anyAt = (at: number) => {
    const { any } = breaksAt(at);
    met.caution ||= any?.caution === true;
    return any;
  };
  const walk = { ...options, now, applyMs, known, count: Math.floor((known - now) / STEP_MS) + 1 };
  const held = () => outcomes(walk, (at) => breaksAt(at).held);
  const clean = outcomes(walk, anyAt);
  const inAll = clean(0);
  // Where a caution comes first, what keeps from starting may come later, or not at all.
  const caution = inAll.trouble?.break.caution === true ? inAll.trouble : null;
  const first = caution ? held()(0) : inAll;
  const open = { now, until: Math.min(horizon, known), applyMs, workSpans: options.workSpans ?? [] };
  // A spell without cautions is asked for first; where none was met, the other would be the same.
  const best = spell(clean, open) ?? (met.caution ? spell(held(), open) : null);
  return {
    nowHolds: first.holds,
    touchDryAt: touchDry ? first.dryAt : null,
    trouble: first.trouble,
    firstStartAt: best?.firstAt ?? null,
    lastStartAt: best?.lastAt ?? null,
    closedBy: best?.closedBy ?? null,
    dayEnds: best?.dayEnds ?? false,
    caution: first.holds ? caution : null,
  };
}

/** What comes of starting at a quarter hour; to be asked in order. */
function outcomes(
  walk: StartQuestion & { readonly applyMs: number; readonly known: number; readonly count: number },
  breakAt: (at: number) => LimitBreak | null,
): (i: number) => Outcome {
  const { now, known, count, applyMs, touchDry, minCureC, surface } = walk;
  const nextTrouble = troublesFrom({ now, count, breakAt });
  return (i) => {
    const finish = now + i * STEP_MS + applyMs;
    if (finish > known) {
      const trouble = nextTrouble(i, known);
      return { holds: trouble ? false : null, dryAt: null, trouble };
    }
    const dryAt = touchDry
      ? milestoneAt({
          table: touchDry,
          kind: 'minimum',
          appliedAt: finish,
          temps: surface,
          ...(minCureC === undefined ? {} : { minCureC }),
        })
      : finish;
    // The trouble came somewhere in the quarter hour before it was seen: be dry before that.
    const trouble = nextTrouble(i, dryAt === null ? known : dryAt + STEP_MS);
    if (trouble && (dryAt === null || trouble.at - STEP_MS < dryAt)) return { holds: false, dryAt, trouble };
    return { holds: dryAt === null ? null : true, dryAt, trouble: null };
  };
}

interface Spell {
  readonly firstAt: number;
  readonly lastAt: number;
  readonly closedBy: Trouble | null;
  readonly dayEnds: boolean;
}

/** The first unbroken run of starts that hold, within the hours in which people work; null where there is none. */
function spell(
  outcome: (i: number) => Outcome,
  open: { now: number; until: number; applyMs: number; workSpans: readonly WorkSpan[] },
): Spell | null {
  const { now, until } = open;
  let firstAt: number | null = null;
  let lastAt = now;
  for (let i = 0; now + i * STEP_MS <= until; i += 1) {
    const at = now + i * STEP_MS;
    if (!inWork(at, open)) {
      if (firstAt !== null) return { firstAt, lastAt, closedBy: null, dayEnds: true };
      continue;
    }
    const found = outcome(i);
    if (found.holds) {
      firstAt ??= at;
      lastAt = at;
    } else if (firstAt !== null) return { firstAt, lastAt, closedBy: found.trouble, dayEnds: false };
  }
  return firstAt === null ? null : { firstAt, lastAt, closedBy: null, dayEnds: false };
}

/** In the working day, early enough to be put on within it; a coat longer than the day only begins in it. */
function inWork(at: number, { applyMs, workSpans }: { applyMs: number; workSpans: readonly WorkSpan[] }): boolean {
  if (workSpans.length === 0) return true;
  return workSpans.some(({ from, to }) => at >= from && (applyMs > to - from ? at < to : at + applyMs <= to));
}
