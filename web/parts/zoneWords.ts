import type { ZoneStatus } from '#core/coat/zoneStatus';
import { keepsOff, type SurfaceClock } from '#core/prep/surfaceClocks';
import type { Dirt } from '#core/model/prep';
import type { ExistingCoating } from '#core/model/surface';
import type { UnitChoice } from '#core/units/format';
import { breakWords, coatName, clockTime, spanWords, timeWords } from './words';

export interface Saying {
  readonly at: number;
  readonly zone: string;
  readonly units: UnitChoice;
}

/** "barrier 3" for the coat that comes next on a zone. */
export function nextName(status: ZoneStatus): string {
  return status.nextSheet ? coatName(status.nextSheet.kind, status.nextNumber) : 'next coat';
}

const FIRST_ON: Record<ExistingCoating, string> = {
  bare: 'bare: the first coat may go on',
  onePack: 'on the old one-pack: wash and abrade first; two-pack over it lifts',
  twoPack: 'on the old two-pack: wash and abrade first',
  unknown: 'on an old coating nobody knows: abrade, and try a patch first',
  antifoulingHard: 'on last year’s antifouling: wash and abrade it wet first',
  antifoulingAblative: 'on last year’s antifouling: wash it first, and mind the dust',
  antifouling: 'on old antifouling: wash it first, and mind the dust',
};

/** What the window says, in a line. */
export function windowLine(status: ZoneStatus, { at, zone }: Pick<Saying, 'at' | 'zone'>): string {
  const window = status.clocks?.window;
  const known = status.clocks?.inputs.knownUntil ?? Infinity;
  const when = (t: number) => clockTime({ at: t, approx: t > known }, at, zone);
  switch (status.state) {
    case 'leftBare':
      return 'left bare on purpose';
    case 'noBuildUp':
      return 'no build-up yet';
    case 'ready': {
      const metal = status.surfaceClocks.find((c) => c.kind === 'bareMetal');
      return metal?.until ? `bare metal: primer by ${when(metal.until)}` : FIRST_ON[status.existing];
    }
    case 'inHand':
      return `going on since ${when(status.lastCoat?.startedAt ?? at)}`;
    case 'shut': {
      const opens = window?.opensAt;
      const from = opens ? `not before ${when(opens)}` : 'not yet: it opens after the forecast ends';
      return window?.bonds === false ? `${from}; no bonding window, it is too cold` : from;
    }
    case 'bonds': {
      if (window?.status.bondsUntil === 'notOnSheet') {
        const cured = status.clocks?.abradeFrom;
        return `may go on; no longest time on the sheet${cured ? `, abrade once it is cured, ${when(cured)}` : ''}`;
      }
      if (window?.bondsUntil && window.byHandUntil && at > window.bondsUntil)
        return `by thumb it still bonds, until ${when(window.byHandUntil)}; worked out it did until ${when(window.bondsUntil)}`;
      return window?.bondsUntil ? `bonds as is until ${when(window.bondsUntil)}` : 'bonds as is beyond the forecast';
    }
    case 'abrade':
      if (status.clocks?.alwaysAbrade) return 'abrade first: the sheet always asks for it';
      if (status.clocks?.abradeFrom && at > status.clocks.abradeFrom)
        return 'abrade first: it is cured, and its sheet gives no longest time';
      return window?.bondsUntil ? `abrade first: it bonded as is until ${when(window.bondsUntil)}` : 'abrade first';
    case 'closed':
      return `closed since ${when(window?.closesAt ?? at)}: treat it as an old coating`;
    case 'complete':
      return status.clocks?.immersionAt && status.clocks.immersionAt > at
        ? `complete; into the water from ${when(status.clocks.immersionAt)}`
        : 'complete';
    case 'noTimes':
      return 'the sheet beneath has no overcoat time: type it in';
    case 'noWeather':
      return 'no weather known for the day of the last coat: type it in';
    case 'waits':
      return 'waits: its zone gets other coats first';
    case 'openWork':
      return 'open work on it: done first, painted after';
    case 'unready':
      return unreadyLine(status.surfaceClocks, at, zone);
  }
}

const DIRT_LINES: Record<Dirt, string> = {
  rain: 'rain since: wash again',
  washingDown: 'washed down on since: wash again',
  dust: 'dust on it: wipe again',
  overspray: 'overspray on it: scuff and wipe',
  hands: 'handled since: wipe again',
  turned: 'the metal has turned: blast or grind again',
};

/** What of its surface keeps the next coat off. */
function unreadyLine(clocks: readonly SurfaceClock[], at: number, zone: string): string {
  const [clock] = keepsOff(clocks, at);
  const until = clock?.until == null ? '' : timeWords(clock.until, at, zone);
  switch (clock?.kind) {
    case 'bareMetal':
      return clock.endedBy ? DIRT_LINES[clock.endedBy.by] : `bare metal held until ${until}: blast or grind again`;
    case 'clean':
      return clock.endedBy ? DIRT_LINES[clock.endedBy.by] : 'no longer clean: wash again';
    case 'drying':
      return `wet: dry from ${until}`;
    case 'guideCoat':
      return 'guide coat on it: block it off first';
    case 'holding':
    case 'sealer':
    case 'tape':
    case undefined:
      return 'its surface is not ready';
  }
}

/** A trouble this near is one of now. */
const SOON_MS = 20 * 60_000;

/** What the air says to a start, in a line; empty where there is nothing to start. */
export function airLine(status: Pick<ZoneStatus, 'advice' | 'state' | 'clocks'>, { at, zone, units }: Saying): string {
  const { advice } = status;
  if (!advice) return '';
  const bondsUntil = status.state === 'bonds' ? (status.clocks?.window?.bondsUntil ?? Infinity) : Infinity;
  const when = (t: number) => timeWords(t, at, zone);
  if (advice.nowHolds && advice.lastStartAt !== null) {
    if (bondsUntil <= advice.lastStartAt) return 'the air holds longer than that';
    const because = advice.closedBy
      ? `, then ${breakWords(advice.closedBy.break, units)}`
      : advice.dayEnds
        ? ', then the day ends'
        : '';
    if (advice.firstStartAt !== null && advice.firstStartAt > at + SOON_MS)
      return `the air holds; in the working day from ${when(advice.firstStartAt)} to ${when(advice.lastStartAt)}`;
    return `last start ${when(advice.lastStartAt)}${because}`;
  }
  if (advice.nowHolds === null) return 'the forecast ends before it would be touch dry';
  const soon = advice.trouble !== null && advice.trouble.at - at < SOON_MS;
  const trouble = advice.trouble
    ? `${soon ? 'now' : `from ${when(advice.trouble.at)}`} ${breakWords(advice.trouble.break, units)}`
    : 'the air does not hold';
  if (advice.firstStartAt === null) return `${trouble}; no good start in the next day and a half`;
  const good = `${trouble}; good from ${when(advice.firstStartAt)}${advice.lastStartAt ? ` to ${when(advice.lastStartAt)}` : ''}`;
  return advice.firstStartAt > bondsUntil ? `${good}, by then abrade first` : good;
}

/** The one line that can be read from three metres. */
export function headline(
  statuses: readonly ZoneStatus[],
  name: (surfaceId: string) => string,
  saying: Saying,
): { text: string; surfaceId: string | null } {
  const { at, zone } = saying;
  const when = (t: number) => timeWords(t, at, zone);
  const inHand = statuses.find((s) => s.state === 'inHand');
  if (inHand)
    return {
      text: `${name(inHand.surfaceId)}: coat going on since ${when(inHand.lastCoat?.startedAt ?? at)}`,
      surfaceId: inHand.surfaceId,
    };
  // A window that the air lets nobody use is not what to hurry for.
  const open = statuses
    .flatMap((status) => {
      const until = status.state === 'bonds' ? status.clocks?.window?.bondsUntil : null;
      const start = status.advice?.nowHolds === false ? status.advice.firstStartAt : at;
      return until && start !== null && start <= until ? [{ status, until, start }] : [];
    })
    .sort((a, b) => a.until - b.until)[0];
  if (open) {
    const what = `${name(open.status.surfaceId)}: ${nextName(open.status)}`;
    return {
      text:
        open.start > at
          ? `${what} from ${when(open.start)}, by ${when(open.until)}`
          : `${what} by ${when(open.until)}, ${spanWords(open.until - at)} left`,
      surfaceId: open.status.surfaceId,
    };
  }
  const ready = statuses.find((s) => (s.state === 'ready' || s.state === 'bonds') && s.advice?.nowHolds);
  if (ready) return { text: `${name(ready.surfaceId)}: ${nextName(ready)} now`, surfaceId: ready.surfaceId };
  const shut = statuses
    .filter((s) => s.state === 'shut' && s.clocks?.window?.opensAt)
    .sort((a, b) => (a.clocks?.window?.opensAt ?? 0) - (b.clocks?.window?.opensAt ?? 0))[0];
  if (shut?.clocks?.window?.opensAt)
    return {
      text: `${name(shut.surfaceId)}: ${nextName(shut)}, from ${when(shut.clocks.window.opensAt)}`,
      surfaceId: shut.surfaceId,
    };
  const later = statuses
    .filter((s) => s.nextLayer && s.advice?.firstStartAt)
    .sort((a, b) => (a.advice?.firstStartAt ?? 0) - (b.advice?.firstStartAt ?? 0))[0];
  if (later?.advice?.firstStartAt)
    return {
      text: `${name(later.surfaceId)}: ${nextName(later)}, air good from ${when(later.advice.firstStartAt)}`,
      surfaceId: later.surfaceId,
    };
  const abrade = statuses.find((s) => s.state === 'abrade');
  if (abrade)
    return { text: `${name(abrade.surfaceId)}: abrade, then ${nextName(abrade)}`, surfaceId: abrade.surfaceId };
  if (statuses.length === 0) return { text: 'No zones yet: measure the boat first', surfaceId: null };
  if (statuses.every((s) => s.state === 'complete' || s.state === 'leftBare'))
    return { text: 'Every coat is on', surfaceId: null };
  return { text: 'Nothing may go on just now', surfaceId: null };
}
