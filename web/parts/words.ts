import type { PaintOrder } from '#core/coat/sections';
import { DateTime, Duration } from 'luxon';
import type { LimitBreak } from '#core/air/conditions';
import type { Clock, ClockKind } from '#core/coat/clocks';
import type { LaunchAgainst } from '#core/coat/launch';
import type { ZoneState } from '#core/coat/zoneState';
import type { SheetKind } from '#core/model/sheet';
import type { Source } from '#core/why';
import { formatQuantity, plainNumber, type UnitChoice } from '#core/units/format';
import type { QuantityName } from '#core/units/quantities';

/** The trade's words for what the core says. One home for each, so that a thing has one name everywhere. */

export const SHEET_KIND_WORDS: Record<SheetKind, string> = {
  sealer: 'Penetrating sealer',
  primer: 'Primer',
  barrier: 'Barrier',
  filler: 'Filler or surfacer',
  undercoat: 'Undercoat',
  tieCoat: 'Tie coat',
  topcoat: 'Topcoat',
  nonSkid: 'Non-skid',
  bilge: 'Bilge coating',
  antifouling: 'Antifouling',
  converter: 'Rust converter',
};

export const METHOD_WORDS = {
  brush: 'Brush',
  roller: 'Roller',
  spray: 'Airless spray',
  conventional: 'Conventional spray',
} as const;

export const STATE_WORDS: Record<ZoneState, string> = {
  noBuildUp: 'no build-up',
  leftBare: 'left bare on purpose',
  ready: 'ready for its first coat',
  inHand: 'going on',
  shut: 'shut',
  bonds: 'bonds as is',
  abrade: 'abrade first',
  closed: 'closed: treat as old coating',
  complete: 'complete',
  noTimes: 'no overcoat time on the sheet',
  noWeather: 'no weather for that day',
  openWork: 'open work first',
  unready: 'surface not ready',
  waits: 'waits for its zone',
};

export const CLOCK_WORDS: Record<ClockKind, string> = {
  opens: 'opens',
  tackEnds: 'stops bonding as is',
  closes: 'closes even when abraded',
  touchDry: 'touch dry',
  sandable: 'dry to sand',
  handle: 'dry to handle',
  cured: 'fully cured',
  immersion: 'may be immersed',
  immersionEnds: 'may no longer be immersed',
  stir: 'is stirred',
  wetEdge: 'wet edge sets',
  stand: 'has stood, may be used',
  pot: 'pot life ends',
  lastStart: 'last start',
  bareMetalEnds: 'bare metal wants its primer by',
  cleanEnds: 'no longer clean',
  dried: 'is dry',
  holdingEnds: 'holding primer ends',
  sealerEnds: 'sealer wants its primer',
  guideDry: 'guide coat may be blocked',
  tapeEnds: 'tape must be off by',
};

/** When a clock rings; ≈ where it runs beyond the weather. The time zone is named where it is not the reader's own. */
export function clockTime(clock: Pick<Clock, 'at' | 'approx'>, now: number, zone: string, foreign = false): string {
  const named = foreign ? ` ${DateTime.fromMillis(clock.at, { zone }).toFormat('ZZZZ')}` : '';
  return `${clock.approx ? '≈ ' : ''}${timeWords(clock.at, now, zone)}${named}`;
}

/** Day and month, with the year where it is wanted, in the order of the reader's own: "3 Dec" or "Dec 3". */
const dateOf = (time: DateTime, year?: 'numeric'): string =>
  time.toLocaleString({ day: 'numeric', month: 'short', year });

/** "3 Dec 2026" of an instant, in a zone; a civil date is given in the middle of its day. */
export function dateWords(at: number, zone: string): string {
  return dateOf(DateTime.fromMillis(at, { zone }), 'numeric');
}

/** "Thu 3 Dec 2026, 09:00", as it stands in a record. */
export function momentWords(at: number, zone: string): string {
  const time = DateTime.fromMillis(at, { zone });
  return `${time.toFormat('ccc')} ${dateOf(time, 'numeric')}, ${time.toFormat('HH:mm')}`;
}

/** "14:20" today, "tomorrow 09:00", "Thu 09:00" within the week, else "3 Dec 09:00". In the boat's own zone. */
export function timeWords(at: number, now: number, zone: string): string {
  const time = DateTime.fromMillis(at, { zone });
  const today = DateTime.fromMillis(now, { zone }).startOf('day');
  const days = Math.round(time.startOf('day').diff(today, 'days').days);
  const clock = time.toFormat('HH:mm');
  if (days === 0) return clock;
  if (days === 1) return `tomorrow ${clock}`;
  if (days === -1) return `yesterday ${clock}`;
  if (days > 1 && days < 7) return `${time.toFormat('ccc')} ${clock}`;
  return `${dateOf(time)} ${clock}`;
}

/** "2 h 10 min", "35 min", "3 d 4 h"; never negative, never broken over two lines. */
export function spanWords(ms: number): string {
  if (!Number.isFinite(ms)) return 'no end';
  const whole = Duration.fromObject({ minutes: Math.max(0, Math.round(ms / 60_000)) });
  const parts = whole.as('hours') < 48 ? whole.shiftTo('hours', 'minutes') : whole.shiftTo('days', 'hours');
  const { days = 0, hours = 0, minutes = 0 } = parts.toObject();
  const pieces = [
    days > 0 ? `${days} d` : '',
    Math.floor(hours) > 0 ? `${Math.floor(hours)} h` : '',
    minutes > 0 ? `${minutes} min` : '',
  ].filter((part) => part !== '');
  return (pieces.length > 0 ? pieces.join(' ') : '0 min').replaceAll(' ', '\u00a0');
}

/** "02:13:09" for a timer. */
export function timerWords(ms: number): string {
  const text = Duration.fromMillis(Math.floor(Math.abs(ms) / 1000) * 1000).toFormat('hh:mm:ss');
  return ms < 0 ? `−${text}` : text;
}

/** "too damp: spread 1.8, needs 3 °C" */
export function breakWords(broken: LimitBreak, units: UnitChoice): string {
  // "3.0, needs 3.0" would read as a mistake: a figure just past its limit gets another digit.
  const shown = (quantity: QuantityName, value: number, digits: number) => {
    const text = (v: number, d: number) => formatQuantity(quantity, v, units, d);
    const tight = text(broken.found, digits) === text(broken.needs, digits);
    return text(value, tight ? digits + 1 : digits);
  };
  const difference = (v: number) => shown('temperatureDifference', v, 1);
  const degrees = (v: number) => shown('temperature', v, 1);
  const percent = (v: number) => shown('percent', v, 0);
  const wind = (v: number) => shown('windSpeed', v, 0);
  // What the sheet does not say is what is usual in the trade, and said so.
  const usually = broken.usual ? 'usually ' : '';
  switch (broken.limit) {
    case 'spread':
      return `too damp: spread ${difference(broken.found)}, ${usually}needs ${difference(broken.needs)}`;
    case 'humidity':
      return `too humid: ${percent(broken.found)}, ${usually}at most ${percent(broken.needs)}`;
    case 'frost':
      return `frost: surface ${degrees(broken.found)}`;
    case 'airCold':
      return `air too cold: ${degrees(broken.found)}, ${usually}at least ${degrees(broken.needs)}`;
    case 'airHot':
      return `air too hot: ${degrees(broken.found)}, ${usually}at most ${degrees(broken.needs)}`;
    case 'surfaceCold':
      return `surface too cold: ${degrees(broken.found)}, ${usually}at least ${degrees(broken.needs)}`;
    case 'surfaceHot':
      return `surface too hot: ${degrees(broken.found)}, ${usually}at most ${degrees(broken.needs)}`;
    case 'wind':
      return `too windy: ${wind(broken.found)}, ${usually}at most ${wind(broken.needs)}`;
    case 'rain':
      return 'rain';
  }
}

/** What speaks against a launch. */
export function launchWords(
  { kind, at }: Pick<LaunchAgainst, 'kind' | 'at'>,
  zoneName: string,
  now: number,
  zone: string,
): string {
  switch (kind) {
    case 'tooEarly':
      return `${zoneName}: launch comes before it may be immersed, ${timeWords(at ?? now, now, zone)}`;
    case 'tooLate':
      return `${zoneName}: launch comes after the longest time to the water, ${timeWords(at ?? now, now, zone)}`;
    case 'unfinished':
      return `${zoneName}: launch comes before its last coat`;
    case 'masked':
      return `${zoneName}: something is masked still, or not looked at`;
  }
}

export function sourceWords(source: Source): string {
  switch (source.label) {
    case 'P':
      return `published: ${source.name}`;
    case 'CP':
      return 'common practice';
    case 'M':
      return 'from memory: check it';
    case 'sheet':
      return `data sheet: ${source.name}`;
    case 'user':
      return 'typed in by you';
  }
}

export const SIMULATED_WORDS = 'simulated, not for painting by';

export function shareWords(share: number): string {
  return `${plainNumber(share * 100, share < 0.1 && share > 0 ? 1 : 0)} %`;
}

/** Days from today to a civil date, in the boat's zone; negative when it is past. */
export function daysTo(date: string, now: number, zone: string): number {
  const today = DateTime.fromMillis(now, { zone }).startOf('day');
  return Math.round(DateTime.fromISO(date, { zone }).diff(today, 'days').days);
}

export function dayWords(date: string, zone: string): string {
  const day = DateTime.fromISO(date, { zone });
  return `${day.toFormat('ccc')} ${dateOf(day)}`;
}

/** "barrier 3" — the trade's way of naming a coat. */
export function coatName(kind: SheetKind | undefined, number: number): string {
  return kind ? `${SHEET_KIND_WORDS[kind].toLowerCase()} ${number}` : `coat ${number}`;
}

/** Made once for each currency: making one takes longer than all that it formats in a frame. */
const moneyFormats = new Map<string, Intl.NumberFormat>();

export function moneyWords(minor: number, currency: string): string {
  let format = moneyFormats.get(currency);
  if (!format) moneyFormats.set(currency, (format = new Intl.NumberFormat(undefined, { style: 'currency', currency })));
  return format.format(minor / 100);
}

/** Packs as they are asked for over the counter: "2 × 2.5 L kit + 1 × 0.75 L kit". */
export function packWords(
  packs: readonly { readonly pack: { readonly name: string; readonly sizeL: number }; readonly count: number }[],
): string {
  return packs.map(({ pack, count }) => `${count} × ${pack.name || `${plainNumber(pack.sizeL, 2)} L`}`).join(' + ');
}

export const NOT_PROVEN_WORDS = 'There were too many ways to buy to try them all: a cheaper one may be left.';

/** A chance the way people say it. */
export function casesWords(chance: number): string {
  const tenths = chance * 10;
  return Math.abs(tenths - Math.round(tenths)) < 1e-9
    ? `${Math.round(tenths)} cases of 10`
    : `${Number((chance * 100).toFixed(1))} cases of 100`;
}

/** Which way a zone is painted. */
export const ORDER_WORDS: Record<PaintOrder, string> = {
  bottomUp: 'from the bottom up: it drips',
  topDown: 'top down',
  farthestFirst: 'the farthest first, out by a clear way',
  awkwardFirst: 'the awkward reach first',
};
