import type { SourcedHour, SurfaceReading, TempSample, WeatherSource } from '../air/weather';
import type { Coat, TimesFactor } from './fold';
import { milestoneAt } from '../cure/milestone';
import type { TestedWindow } from '../cure/window';
import { sandableAt, windowAfterHandTests } from '../cure/window';
import type { SheetBody } from '../model/sheet';
import type { TimeTable } from '../model/timeTable';
import { overcoatFor } from '../sheet/overcoat';

export interface CoatClocks {
  readonly window: TestedWindow | null;
  readonly alwaysAbrade: boolean;
  readonly touchDryAt: number | null;
  readonly sand: ReturnType<typeof sandableAt>;
  /** Dry enough to be handled, or to bear. */
  readonly handleAt: number | null;
  readonly curedAt: number | null;
  /**
   * Of a two-pack whose sheet gives no longest time without abrading: when it is fully cured, by its sheet or the usual
   * week, and is to be abraded. Null for the others.
   */
  readonly abradeFrom: number | null;
  readonly immersionAt: number | null;
  /** After the longest time to the water it may no longer be immersed as it is. */
  readonly immersionUntil: number | null;
  /** What the clocks rest on. */
  readonly inputs: ClockInputs;
}

export interface ClockInputs {
  readonly readings: number;
  readonly sources: readonly WeatherSource[];
  /** How far the weather goes, epoch ms: clocks beyond it run on what is typical for the season. */
  readonly knownUntil: number;
  /** Surface temperature at the start of the coat, °C. */
  readonly startTempC: number;
  readonly lowestC: number;
  readonly highestC: number;
}

/** An antifouling may stand dry for so many days, where its sheet says so. */
function dryUntil({ antifouling }: SheetBody, finishedAt: number): number | null {
  return antifouling?.dryOutDays === undefined ? null : finishedAt + antifouling.dryOutDays * 24 * 3_600_000;
}

/** A two-pack is fully cured in about a week. [CP] */
const USUAL_CURE_MS = 7 * 24 * 3_600_000;

/**
 * A coat of a product that was found to dry by a multiple of its table: what is to be waited for follows; what must not be
 * missed comes sooner where it dries faster, and never later.
 * @example driesBy({ times: { minimum: 1, limit: 1 } }, 1.5).times // → { minimum: 1.5, limit: 1 }
 */
export function driesBy<C extends { readonly times: TimesFactor }>(coat: C, factor: number): C {
  if (factor === 1) return coat;
  const { minimum, limit } = coat.times;
  return { ...coat, times: { minimum: minimum * factor, limit: limit * Math.min(1, factor) } };
}

/** A sheet as additives, and what was learned, have made its times. */
function withTimes(sheet: SheetBody, times: TimesFactor | undefined): SheetBody {
  if (!times || (times.minimum === 1 && times.limit === 1)) return sheet;
  const by = (factor: number) => (t: TimeTable) => t.map((c) => ({ ...c, hours: c.hours * factor }));
  const [slower, sooner] = [by(times.minimum), by(times.limit)];
  const { touchDry, sandable, immersion, fullCure, handle, immersionMax } = sheet;
  return {
    ...sheet,
    touchDry: touchDry && slower(touchDry),
    sandable: sandable && slower(sandable),
    immersion: immersion && slower(immersion),
    fullCure: fullCure && slower(fullCure),
    ...(handle ? { handle: slower(handle) } : {}),
    ...(immersionMax ? { immersionMax: sooner(immersionMax) } : {}),
    overcoat: sheet.overcoat.map((o) => ({
      ...o,
      minimum: slower(o.minimum),
      tackLimit: o.tackLimit && sooner(o.tackLimit),
      maximum: o.maximum && sooner(o.maximum),
    })),
  };
}

const table = (t: TimeTable | null | undefined) => (t ? { table: t } : {});

/**
 * The clocks of one finished coat towards the coat that follows it.
 * @throws RangeError when the series starts after the coat did
 * @example
 *   (coatClocks({ coat: coats[0], sheet, following: copper.body, temps, readings: [], hours: steady })
 *     .touchDryAt -
 *     noon) /
 *     hour // → 2
 */
export function coatClocks(options: {
  coat: Pick<Coat, 'startedAt' | 'finishedAt' | 'handTests'> & Partial<Pick<Coat, 'times'>>;
  sheet: SheetBody;
  following: SheetBody | null;
  temps: readonly TempSample[];
  readings: readonly SurfaceReading[];
  hours: readonly SourcedHour[];
}): CoatClocks {
  const { coat, following, temps, hours } = options;
  const sheet = withTimes(options.sheet, coat.times);
  const { startedAt } = coat;
  const finishedAt = coat.finishedAt ?? startedAt;
  const times = overcoatFor(sheet, following?.kind ?? null);
  const cure = sheet.minCureC === null ? {} : { minCureC: sheet.minCureC };
  const reached = (t: TimeTable | null | undefined) =>
    t ? milestoneAt({ table: t, kind: 'minimum', appliedAt: finishedAt, temps, ...cure }) : null;
  const runsOut = (t: TimeTable | undefined) =>
    t ? milestoneAt({ table: t, kind: 'maximum', appliedAt: startedAt, temps, ...cure }) : null;
  const window = times
    ? windowAfterHandTests({
        startedAt,
        finishedAt,
        temps,
        tests: coat.handTests,
        minimum: times.minimum,
        ...(times.tackLimit ? { tackLimit: times.tackLimit } : {}),
        ...(times.maximum ? { maximum: times.maximum } : {}),
        ...cure,
      })
    : null;
  const curedAt = reached(sheet.fullCure);
  const unlimited = sheet.parts.length > 1 && times !== null && times.tackLimit === null;
  const last = temps[temps.length - 1] as TempSample;
  const knownUntil = hours[hours.length - 1]?.at ?? last.at;
  const until = Math.min(knownUntil, window?.bondsUntil ?? window?.opensAt ?? last.at);
  const span = temps.filter((s) => s.at >= startedAt && s.at <= Math.max(until, startedAt + 3_600_000));
  const spanC = span.map((s) => s.tempC);
  const sources = [
    ...new Set(hours.filter((h) => h.at >= startedAt - 3_600_000 && h.at <= until).map((h) => h.source)),
  ];
  return {
    window,
    alwaysAbrade: times?.alwaysAbrade ?? false,
    touchDryAt: reached(sheet.touchDry),
    sand: sandableAt({ finishedAt, temps, tests: coat.handTests, ...table(sheet.sandable), ...cure }),
    handleAt: reached(sheet.handle),
    curedAt,
    abradeFrom: unlimited ? (sheet.fullCure ? curedAt : finishedAt + USUAL_CURE_MS) : null,
    immersionAt: reached(sheet.immersion),
    immersionUntil: runsOut(sheet.immersionMax) ?? dryUntil(sheet, finishedAt),
    inputs: {
      readings: options.readings.filter((r) => r.at >= startedAt - 6 * 3_600_000).length,
      sources,
      knownUntil,
      startTempC: spanC[0] ?? (temps[0] as TempSample).tempC,
      lowestC: Math.min(...spanC),
      highestC: Math.max(...spanC),
    },
  };
}
