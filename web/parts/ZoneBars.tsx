import { useId } from 'react';
import type { ZoneState } from '#core/coat/zoneState';
import type { ZoneStatus } from '#core/coat/zoneStatus';
import type { Spell } from '#core/air/dryHours';
import { keepsOff } from '#core/prep/surfaceClocks';
import { hasPattern, STATE_KEY, StatePattern } from './patterns';
import { useWidth } from './useWidth';
import { STATE_WORDS, timeWords } from './words';

const BAR = 16;
const NAME = 17;
const ROW = NAME + BAR + 6;
const DRY = 3;
/** Width of a letter of the name's size, px, at most. */
const LETTER = 6.6;

/** A stretch of a zone's hours in one state. */
interface Stretch extends Spell {
  readonly state: ZoneState;
}

/** A bare zone from now: when its surface gets ready, and when it is so no longer. */
function bareStretches({ surfaceClocks }: ZoneStatus, from: number, until: number): Stretch[] {
  const cuts = surfaceClocks.flatMap((c) => (c.until !== null && c.until > from && c.until < until ? [c.until] : []));
  const ends = [...new Set([...cuts.sort((a, b) => a - b), until])];
  const stretches: Stretch[] = [];
  for (const end of ends) {
    const last = stretches.at(-1);
    const at = last?.until ?? from;
    const state = keepsOff(surfaceClocks, at).length > 0 ? 'unready' : 'ready';
    if (last?.state === state) stretches[stretches.length - 1] = { ...last, until: end };
    else stretches.push({ state, from: at, until: end });
  }
  return stretches;
}

/** How a zone's window goes on from now, as far as it is worked out: shut, bonds as is, abrade first, closed. */
function stretchesOf(status: ZoneStatus, from: number, until: number): Stretch[] {
  const { state, clocks, lastCoat } = status;
  if (!lastCoat && (state === 'ready' || state === 'unready')) return bareStretches(status, from, until);
  const window = clocks?.window;
  if (!window || !['shut', 'bonds', 'abrade', 'closed'].includes(state)) return [{ state, from, until }];
  const ends = [
    ['shut', window.opensAt],
    ['bonds', window.bondsUntil],
    ['abrade', window.closesAt],
    ['closed', Infinity],
  ] as const;
  let at = from;
  return ends.flatMap(([name, end]): Stretch[] => {
    // A limit that is not known leaves the state that comes before it standing.
    const to = Math.min(until, end ?? (name === 'bonds' && window.bonds === false ? at : until));
    if (to <= at) return [];
    const stretch = { state: name, from: at, until: to };
    at = to;
    return [stretch];
  });
}

/** One bar a zone over the hours ahead, named, with the dry hours of the ribbon above it. */
export function ZoneBars({
  statuses,
  name,
  from,
  until,
  spells,
  timeZone,
}: {
  statuses: readonly ZoneStatus[];
  name: (surfaceId: string) => string;
  from: number;
  until: number;
  spells: readonly Spell[];
  timeZone: string;
}) {
  const uid = useId();
  const [box, width] = useWidth<HTMLDivElement>(640);
  const rows = statuses.filter((s) => s.nextLayer !== null && s.state !== 'leftBare' && s.state !== 'noBuildUp');
  if (rows.length === 0) return null;
  const x = (at: number) => ((at - from) / (until - from)) * width;
  const when = (at: number) => timeWords(at, from, timeZone);
  return (
    <div ref={box} className="mt-2 min-w-0">
      <svg
        viewBox={`0 0 ${width} ${rows.length * ROW}`}
        className="block h-auto w-full"
        role="group"
        aria-label="Windows of the zones over these hours"
      >
        <defs>
          {STATE_KEY.map((state) => (
            <StatePattern key={state} id={`${uid}-${state}`} state={state} />
          ))}
        </defs>
        {rows.map((status, i) => (
          <Bar
            key={status.surfaceId}
            y={i * ROW}
            zone={name(status.surfaceId)}
            colour={status.colourHex}
            stretches={stretchesOf(status, from, until)}
            {...{ x, width, until, spells, when, uid }}
          />
        ))}
      </svg>
    </div>
  );
}

function Bar({
  y,
  x,
  width,
  until,
  zone,
  colour,
  stretches,
  spells,
  when,
  uid,
}: {
  y: number;
  x: (at: number) => number;
  width: number;
  until: number;
  zone: string;
  colour: string | null;
  stretches: readonly Stretch[];
  spells: readonly Spell[];
  when: (at: number) => string;
  uid: string;
}) {
  const phrases = stretches.map((s) => `${STATE_WORDS[s.state]}${s.until < until ? ` until ${when(s.until)}` : ''}`);
  const words = phrases.join(', then ');
  const fits = (zone.length + words.length) * LETTER < width;
  return (
    <g role="img" aria-label={`${zone}: ${words}`}>
      <text x="0" y={y + NAME - 4} fontSize="15" fill="currentColor" className="narrow">
        <tspan fontWeight="600">{zone}</tspan> {fits ? words : phrases[0]}
      </text>
      <rect x="0" y={y + NAME} width={width} height={BAR} fill={colour ?? 'var(--color-base-200)'} />
      {stretches.map(
        (s) =>
          hasPattern(s.state) && (
            <rect
              key={s.state}
              x={x(s.from)}
              y={y + NAME}
              width={x(s.until) - x(s.from)}
              height={BAR}
              fill={`url(#${uid}-${s.state})`}
            />
          ),
      )}
      {stretches.slice(1).map((s) => (
        <path key={s.state} d={`M${x(s.from)} ${y + NAME - 2}v${BAR + 4}`} stroke="currentColor" strokeWidth="2.4" />
      ))}
      <rect x=".5" y={y + NAME} width={width - 1} height={BAR} fill="none" stroke="currentColor" opacity=".6" />
      {spells.map((s) => (
        <rect
          key={s.from}
          x={x(s.from)}
          y={y + NAME + BAR}
          width={x(s.until) - x(s.from)}
          height={DRY}
          fill="var(--color-success)"
        />
      ))}
    </g>
  );
}
