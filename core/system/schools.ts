import type { BondSchool } from '../model/buildUp';
import { hoursAtTemperature } from '../cure/arrhenius';
import type { TimeTable } from '../model/timeTable';
import type { AbradeFor, Layer, PrimerFor } from '../model/layer';
import type { Range } from '../film/layer';
import { USUAL_RATE_M2_PER_H } from '../film/spreading';
import { overcoatFor } from '../sheet/overcoat';
import type { SheetRevision } from '../model/sheet';
import { withSheets } from './ledger';
import { buildUpQuantities, type SheetLayer } from './quantities';

/** What is chosen once for a job, and holds for every coat that does not say otherwise. */
export interface JobChoices {
  readonly bond: BondSchool;
  readonly packs: 'onePack' | 'twoPack';
  readonly method: Layer['method'];
  /** Roll and tip with a brush, or roll only with more thinner. */
  readonly tip: boolean;
  /** A primer to hold on by, or only to fill with. */
  readonly primerFor: PrimerFor;
  readonly abradeFor: AbradeFor;
}

export const USUAL_CHOICES: JobChoices = {
  bond: 'chemical',
  packs: 'twoPack',
  method: 'roller',
  tip: true,
  primerFor: 'adhesion',
  abradeFor: 'bond',
};

/** m² that one person abrades in an hour, by machine on open hull. [M] */
export const ABRADE_M2_PER_H = 6;

/**
 * A build-up told one school's way. Chemical: every coat in the tack window of the one beneath, where that gives
 * one; the others are abraded. Mechanical: every coat over an abraded one.
 * @example inSchool(stack, 'mechanical')[1].prep // → 'abrade'
 */
export function inSchool<L extends SheetLayer>(
  layers: readonly L[],
  bond: BondSchool,
  abradeFor: AbradeFor = 'bond',
): L[] {
  return layers.map((layer, i) => {
    if (i === 0) return layer;
    const below = layers[i - 1] as L;
    const times = overcoatFor(below.sheet, layer.sheet.kind);
    const bonds =
      times !== null &&
      !times.alwaysAbrade &&
      (times.tackLimit !== null || (times.maximum === null && !below.sheet.parts[1]));
    if (bond === 'chemical' && bonds)
      return { ...layer, prep: 'tackWindow' as const, grit: undefined, abradeFor: undefined };
    if (bond === 'mechanical' && below.sheet.neverAbrade) return layer;
    return {
      ...layer,
      prep: 'abrade' as const,
      abradeFor: layer.abradeFor ?? (below.primerFor === 'filling' ? ('level' as const) : abradeFor),
      grit: layer.grit ?? usualGrit(layer),
    };
  });
}

/**
 * Coats put in at a place: they go on as the school has it, but for a first one; the others stay as they were decided,
 * and so does a coat whose sheet is not here.
 * @example
 *   putIn({ layers, at: 1, added: [{ ...layer, id: 'new' }], bond: 'chemical', revisionById }).map(
 *     (l) => l.id,
 *   ) // → ['first', 'new', 'second']
 */
export function putIn(options: {
  layers: readonly Layer[];
  at: number;
  added: readonly Layer[];
  bond: BondSchool;
  abradeFor?: AbradeFor;
  revisionById: ReadonlyMap<string, SheetRevision>;
}): Layer[] {
  const { layers, at, added, bond, abradeFor, revisionById } = options;
  const next = [...layers.slice(0, at), ...added, ...layers.slice(at)];
  const schooled = new Map(
    inSchool(withSheets(next, revisionById), bond, abradeFor).map(({ sheet: _sheet, ...l }) => [l.id, l]),
  );
  return next.map((l, i) => (i > 0 && added.includes(l) ? (schooled.get(l.id) ?? l) : l));
}

/** Grit before a coat: 320 before gloss, 220 before undercoat, 120 for the rest. [CP] */
function usualGrit(layer: SheetLayer): number {
  return layer.sheet.kind === 'topcoat' ? 320 : layer.sheet.kind === 'undercoat' ? 220 : 120;
}

export interface SchoolFigures {
  readonly coats: number;
  readonly keptMicron: number;
  readonly litres: Range;
  /** Hours of painting and of abrading for one person. */
  readonly paintH: number;
  readonly abradeH: number;
  /** Shortest time in which a coat can be started on the one beneath, once that is wholly on; null where no coat must meet one. */
  readonly narrowestWindowH: number | null;
  /** Days from the first coat until the last may meet the water, or is fully cured. Null where a sheet gives no times. */
  readonly days: number | null;
  /** Coats whose sheet gives no time to be coated over. */
  readonly without: readonly string[];
}

/**
 * What a build-up asks of people and weather at a steady temperature: litres, hours, the narrowest window, days.
 * One coat a working day at most where the wait is longer than what is left of it. [CP]
 * @param options.workH hours worked in a day
 * @throws RangeError on impossible input
 * @example schoolFigures({ layers: stack, areaM2: 10, areaShare: 0.1, tempC: 20 }).coats // → 2
 */
export function schoolFigures({
  layers,
  areaM2,
  areaShare,
  tempC,
  workH = 8,
}: {
  layers: readonly SheetLayer[];
  areaM2: number;
  areaShare: number;
  tempC: number;
  workH?: number;
}): SchoolFigures {
  const q = buildUpQuantities({ areaM2, areaShare, layers });
  const paint = layers.map((l) => areaM2 / USUAL_RATE_M2_PER_H[l.method]);
  const abrade = layers.map((l) => (l.prep === 'abrade' ? areaM2 / ABRADE_M2_PER_H : 0));
  const without: string[] = [];
  let narrowest: number | null = null;
  // The clock runs in hours of the calendar; work happens in the first `workH` of each day.
  let at = 0;
  layers.forEach((layer, i) => {
    const below = layers[i - 1];
    if (below) {
      const times = overcoatFor(below.sheet, layer.sheet.kind);
      const sand = layer.prep === 'abrade' ? below.sheet.sandable : null;
      const shortest = [times?.minimum ?? null, sand].filter((t): t is TimeTable => t !== null);
      if (shortest.length === 0) without.push(below.sheet.name);
      const wait = shortest.map((table) =>
        hoursAtTemperature({
          table,
          tempC,
          kind: 'minimum',
          ...cureOf(below.sheet),
        }),
      );
      at += Math.max(0, ...wait);
      if (layer.prep === 'tackWindow' && times?.tackLimit) {
        // The limit runs from the first panel of the coat beneath, the wait from its last.
        const until = hoursAtTemperature({ table: times.tackLimit, tempC, kind: 'maximum' });
        const width = Math.max(0, until - (paint[i - 1] as number) - Math.max(0, ...wait));
        narrowest = narrowest === null ? width : Math.min(narrowest, width);
      }
    }
    at = worked(at, abrade[i] as number, workH);
    at = worked(at, paint[i] as number, workH);
  });
  const last = layers[layers.length - 1];
  const end = last ? (last.sheet.immersion ?? last.sheet.fullCure) : null;
  const days =
    last && without.length === 0 && end && Number.isFinite(at)
      ? (at + hoursAtTemperature({ table: end, tempC, kind: 'minimum', ...cureOf(last.sheet) })) / 24
      : null;
  return {
    coats: layers.length,
    keptMicron: q.total.keptMicron,
    litres: q.total.litres,
    paintH: sum(paint),
    abradeH: sum(abrade),
    narrowestWindowH: narrowest,
    days,
    without,
  };
}

/** The air that a build-up asks for: the strictest of its sheets' limits; null where none gives one. */
export interface AirAsked {
  readonly airMinC: number | null;
  readonly airMaxC: number | null;
  readonly rhMax: number | null;
  readonly spreadMinC: number | null;
  /** Longest time from the brush to touch dry at that temperature, hours: so long must the dew stay off. */
  readonly touchDryH: number | null;
}

/**
 * What of the weather a build-up needs, coat by coat the strictest.
 * @throws RangeError on an impossible table
 * @example airAsked({ layers: stack, tempC: 20 }).touchDryH // → 3
 */
export function airAsked({ layers, tempC }: { layers: readonly Pick<SheetLayer, 'sheet'>[]; tempC: number }): AirAsked {
  const limits = layers.map((l) => l.sheet.limits);
  const strictest = (values: readonly (number | null)[], pick: (...values: number[]) => number) => {
    const given = values.filter((v) => v !== null);
    return given.length > 0 ? pick(...given) : null;
  };
  const dry = layers.map(({ sheet }) =>
    sheet.touchDry
      ? hoursAtTemperature({
          table: sheet.touchDry,
          tempC,
          kind: 'minimum',
          ...cureOf(sheet),
        })
      : null,
  );
  return {
    airMinC: strictest(
      limits.map((l) => l.airMinC),
      Math.max,
    ),
    airMaxC: strictest(
      limits.map((l) => l.airMaxC),
      Math.min,
    ),
    rhMax: strictest(
      limits.map((l) => l.rhMax),
      Math.min,
    ),
    spreadMinC: strictest(
      limits.map((l) => l.spreadMinC),
      Math.max,
    ),
    touchDryH: strictest(dry, Math.max),
  };
}

/** Below its lowest cure temperature a wait stands still. */
const cureOf = (sheet: SheetLayer['sheet']) => (sheet.minCureC === null ? {} : { minCureC: sheet.minCureC });

/** The hour at which work of so many hours ends when people only work the first hours of a day. */
function worked(fromH: number, hours: number, workH: number): number {
  if (!Number.isFinite(fromH)) return fromH;
  let at = fromH;
  let left = hours;
  while (left > 1e-9) {
    const intoDay = at % 24;
    if (intoDay >= workH - 1e-9) {
      at += 24 - intoDay;
      continue;
    }
    const step = Math.min(left, workH - intoDay);
    at += step;
    left -= step;
  }
  return at;
}

const sum = (values: readonly number[]) => values.reduce((a, b) => a + b, 0);
