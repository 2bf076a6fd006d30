import { DateTime } from 'luxon';
import { useId } from 'react';
import { dewPointC } from '#core/air/dewPoint';
import type { Spell } from '#core/air/dryHours';
import type { SourcedHour } from '#core/air/weather';
import type { Clock } from '#core/coat/clocks';
import { useWidth } from './useWidth';
import { clockTime, CLOCK_WORDS, timeWords } from './words';

const HOUR_MS = 3_600_000;

interface RibbonProps {
  hours: readonly SourcedHour[];
  /** In which the usual limits let paint go on outdoors. */
  spells: readonly Spell[];
  from: number;
  until: number;
  clocks: readonly Clock[];
  timeZone: string;
  name: (surfaceId: string) => string;
}

const TOP = 34;
const HEIGHT = 78;

/**
 * A ribbon of the hours ahead: filled where the usual limits let paint go on outdoors, night shaded, rain as
 * drops, and a flag at each clock. The gap between air and dew point is drawn to scale inside it.
 */
export function Ribbon(props: RibbonProps) {
  const { hours, from, until, timeZone } = props;
  const uid = useId();
  const [box, width] = useWidth<HTMLElement>(640);
  const inside = hours.filter((h) => h.at > from - HOUR_MS && h.at < until + HOUR_MS);
  if (inside.length < 2) return <p className="py-3">No forecast for the next hours. Type it under the weather.</p>;
  const ribbon = ribbonOf(props, inside, width);
  return (
    <figure ref={box} className="min-w-0">
      <svg
        viewBox={`0 0 ${width} ${TOP + HEIGHT + 28}`}
        className="block h-auto w-full"
        role="img"
        aria-label={`The hours ahead. ${dryWords(ribbon, timeZone)} ${describedBy(ribbon.flags, props) || 'No clock rings.'}`}
      >
        <defs>
          <clipPath id={`${uid}-good`}>
            {ribbon.spells.map((s) => (
              <rect
                key={s.from}
                x={ribbon.x(s.from)}
                y={TOP}
                width={ribbon.x(s.until) - ribbon.x(s.from)}
                height={HEIGHT}
              />
            ))}
          </clipPath>
        </defs>
        <Nights ribbon={ribbon} timeZone={timeZone} />
        <Gap ribbon={ribbon} clip={`${uid}-good`} />
        <Rain ribbon={ribbon} />
        <path d={`M0 ${TOP}H${width}M0 ${TOP + HEIGHT}H${width}`} stroke="currentColor" strokeWidth="1" opacity=".5" />
        <HourMarks ribbon={ribbon} />
        <Flags ribbon={ribbon} {...props} />
      </svg>
      <figcaption className="flex flex-wrap gap-x-4 text-sm quiet">
        <span>line: air</span>
        <span>dashes: dew point</span>
        <span>filled: dry enough outdoors</span>
        <span>▸ opens</span>
        <span>▢ ends</span>
        <span>┊ first last start</span>
      </figcaption>
    </figure>
  );
}

type RibbonData = ReturnType<typeof ribbonOf>;

/** Where the hours, their air and the clocks stand on a ribbon of this width, px. */
function ribbonOf(
  { spells, from, until, clocks, timeZone }: RibbonProps,
  inside: readonly SourcedHour[],
  width: number,
) {
  const x = (at: number) => ((at - from) / (until - from)) * width;
  const airs = inside.map((h) => h.airC);
  const dews = inside.map((h) => dewPointC(h));
  const low = Math.min(...dews) - 1;
  const high = Math.max(...airs) + 1;
  const y = (c: number) => TOP + HEIGHT - ((c - low) / (high - low)) * HEIGHT;
  const line = (values: number[]) => inside.map((h, i) => `${x(h.at).toFixed(1)} ${y(values[i] as number).toFixed(1)}`);
  const marks = Array.from({ length: 60 }, (_, i) =>
    DateTime.fromMillis(from, { zone: timeZone }).startOf('hour').plus({ hours: i }),
  ).filter((t) => t.hour % 6 === 0 && t.toMillis() > from && t.toMillis() < until);
  const lastStart = clocks.find((c) => c.kind === 'lastStart');
  const flags = clocks
    .filter(
      (c) =>
        c.at > from &&
        c.at < until &&
        (['opens', 'tackEnds', 'closes', 'pot', 'stand'].includes(c.kind) || c === lastStart),
    )
    .slice(0, 10);
  return { inside, from, width, x, spells, marks, flags, air: line(airs), dew: line(dews) };
}

/** The dry hours in words. */
function dryWords({ from, spells }: RibbonData, timeZone: string): string {
  if (spells.length === 0) return 'Not dry enough outdoors in any of them.';
  const when = (t: number) => timeWords(t, from, timeZone);
  return `Dry enough outdoors ${spells.map((s) => `from ${when(s.from)} to ${when(s.until)}`).join(', ')}.`;
}

/** The flags in words, for those who do not see them. */
function describedBy(flags: readonly Clock[], { from, timeZone, name }: RibbonProps): string {
  return flags
    .map(
      (c) =>
        `${c.surfaceId ? name(c.surfaceId) : c.product || 'batch'} ${CLOCK_WORDS[c.kind]} ${clockTime(c, from, timeZone)}`,
    )
    .join('; ');
}

function Nights({ ribbon: { inside, x, from }, timeZone }: { ribbon: RibbonData; timeZone: string }) {
  return (
    <>
      {' '}
      {inside.map((h) =>
        h.sunWm2 === 0 || (h.sunWm2 === undefined && isNight(h.at, timeZone)) ? (
          <rect
            key={h.at}
            x={x(h.at)}
            y={TOP}
            width={x(from + HOUR_MS)}
            height={HEIGHT}
            fill="currentColor"
            opacity=".09"
          />
        ) : null,
      )}
    </>
  );
}

/** The gap between air and dew point, filled where paint may go on. */
function Gap({ ribbon: { air, dew }, clip }: { ribbon: RibbonData; clip: string }) {
  return (
    <>
      <path
        d={`M${air.join('L')}L${[...dew].reverse().join('L')}Z`}
        fill="var(--color-success)"
        opacity=".55"
        clipPath={`url(#${clip})`}
      />
      <path d={`M${air.join('L')}`} fill="none" stroke="currentColor" strokeWidth="1.6" />
      <path d={`M${dew.join('L')}`} fill="none" stroke="currentColor" strokeWidth="1.2" strokeDasharray="4 3" />
    </>
  );
}

function Rain({ ribbon: { inside, x } }: { ribbon: RibbonData }) {
  return (
    <>
      {' '}
      {inside.map((h) =>
        (h.rainMm ?? 0) > 0 ? (
          <path
            key={h.at}
            d={`M${x(h.at) + 4} ${TOP + 4}l-4 9M${x(h.at) + 12} ${TOP + 4}l-4 9`}
            stroke="var(--color-info)"
            strokeWidth="2"
          />
        ) : null,
      )}
    </>
  );
}

function HourMarks({ ribbon: { marks, x } }: { ribbon: RibbonData }) {
  return (
    <>
      {' '}
      {marks.map((t) => (
        <g key={t.toMillis()}>
          <path d={`M${x(t.toMillis())} ${TOP + HEIGHT}v6`} stroke="currentColor" />
          <text
            x={x(t.toMillis())}
            y={TOP + HEIGHT + 21}
            textAnchor="middle"
            fill="currentColor"
            fontSize="15"
            className="narrow"
          >
            {t.hour === 0 ? t.toFormat('ccc') : t.toFormat('HH')}
          </text>
        </g>
      ))}
    </>
  );
}

/** A flag at each clock, with its name where there is room for it beside the next one. */
function Flags({ ribbon: { flags, x, width }, from, timeZone, name }: { ribbon: RibbonData } & RibbonProps) {
  const words = (c: Clock) => `${c.surfaceId ? name(c.surfaceId) : c.product || 'batch'} ${CLOCK_WORDS[c.kind]}`;
  const room = (i: number) => (flags[i + 1] ? x((flags[i + 1] as Clock).at) : width) - x((flags[i] as Clock).at) - 16;
  return (
    <>
      {' '}
      {flags.map((c, i) => (
        <g key={`${c.kind}-${c.surfaceId ?? c.batchId}-${i}`}>
          <title>{`${words(c)}, ${clockTime(c, from, timeZone)}`}</title>
          {room(i) > words(c).length * 6.2 && (
            <text x={x(c.at) + 12} y={20 + (i % 2) * 8} fontSize="14" fill="currentColor" className="narrow">
              {words(c)}
            </text>
          )}
          <path
            d={`M${x(c.at)} ${14 + (i % 2) * 8}V${TOP + HEIGHT}`}
            stroke="currentColor"
            strokeWidth={c.kind === 'tackEnds' || c.kind === 'closes' ? 2.4 : 1.2}
            strokeDasharray={c.kind === 'lastStart' ? '3 3' : undefined}
          />
          <path
            d={
              c.kind === 'opens'
                ? `M${x(c.at)} ${14 + (i % 2) * 8}l9 4l-9 4z`
                : `M${x(c.at) - 5} ${9 + (i % 2) * 8}h10v8h-10z`
            }
            fill={c.kind === 'opens' ? 'currentColor' : 'var(--color-base-100)'}
            stroke="currentColor"
          />
        </g>
      ))}
    </>
  );
}

function isNight(at: number, timeZone: string): boolean {
  const { hour } = DateTime.fromMillis(at, { zone: timeZone });
  return hour < 6 || hour >= 20;
}
