import type { Against } from '#core/coat/start';
import type { ZoneStatus } from '#core/coat/zoneStatus';
import type { UnitChoice } from '#core/units/format';
import { OPEN_WORK_WORDS } from '../../parts/choiceWords';
import { breakWords, timeWords } from '../../parts/words';
import { windowLine } from '../../parts/zoneWords';

interface AgainstSaying {
  readonly nameOf: (surfaceId: string) => string;
  /** The moment of the start, and the time zone of the boat. */
  readonly at: number;
  readonly zone: string;
  /** It was earlier: told in the past. */
  readonly past: boolean;
  readonly units: UnitChoice;
}

/** What stands against a start, in words. */
export function againstWords(against: Against, saying: AgainstSaying): string {
  const { nameOf, at, zone, past, units } = saying;
  switch (against.kind) {
    case 'window':
      return `${nameOf(against.status.surfaceId)}: ${past ? pastLine(against.status, saying) : windowLine(against.status, { at, zone })}`;
    case 'order':
      return `${nameOf(against.surfaceId)}: a coat beneath it was not on yet`;
    case 'openWork': {
      const { kind, note } = against.work;
      return `${nameOf(against.surfaceId)}: ${OPEN_WORK_WORDS[kind].toLowerCase()}, still open${note ? ` (${note.replace(/\.$/, '')})` : ''}`;
    }
    case 'stand':
      return `the batch ${past ? 'had' : 'has'} to stand until ${timeWords(against.until, at, zone)}`;
    case 'abrading':
      return 'abrading was planned before it, and no grit is told';
    case 'air':
      return `the air ${past ? 'was' : 'is'} outside the limits`;
    case 'untilDry':
      return against.trouble
        ? `it ${past ? 'did' : 'does'} not hold until touch dry: ${breakWords(against.trouble.break, units)} at ${timeWords(against.trouble.at, at, zone)}`
        : `it ${past ? 'did' : 'does'} not hold until touch dry`;
    case 'rule':
      return `${nameOf(against.surfaceId)}: ${against.finding.reason.replace(/\.$/, '')}`;
  }
}

/** What the window said then. */
function pastLine({ state, clocks, lastCoat }: ZoneStatus, { at, zone }: AgainstSaying): string {
  const window = clocks?.window;
  const when = (t: number | null | undefined) => (t == null ? '' : ` ${timeWords(t, at, zone)}`);
  switch (state) {
    case 'shut':
      return window?.opensAt
        ? `the coat beneath could not be coated before${when(window.opensAt)}`
        : 'it was too early';
    case 'closed':
      return `the window had closed${when(window?.closesAt)}`;
    case 'abrade':
      return `it bonded as is only until${when(window?.bondsUntil)}`;
    case 'inHand':
      return `the coat started${when(lastCoat?.startedAt)} was still going on`;
    case 'unready':
      return 'its surface was not ready';
    case 'waits':
      return 'its zone was to get other coats first';
    case 'noBuildUp':
    case 'leftBare':
    case 'ready':
    case 'bonds':
    case 'complete':
    case 'noTimes':
    case 'noWeather':
    case 'openWork':
      return 'it could not go on then';
  }
}
