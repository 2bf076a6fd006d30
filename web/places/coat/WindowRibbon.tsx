import { useId } from 'react';
import type { CoatClocks } from '#core/coat/coatClocks';
import { testedOn, zoneReadings, type Coat } from '#core/coat/fold';
import { ribbonUntil, windowSpans, type WindowSpan } from '#core/coat/windowSpans';
import type { BoatView } from '../../data/store';
import { StatePattern } from '../../parts/patterns';
import { useWidth } from '../../parts/useWidth';
import { STATE_WORDS, timeWords } from '../../parts/words';

const AIR = 26;
const BAND = 34;
const FOOT = 18;

/**
 * The window of a coat as one ribbon from its start: going on, shut, bonds as is, abrade first, closed, each by its
 * texture; above it the air, on it the readings and hand tests, and where now is.
 */
export function WindowRibbon({
  view,
  coat,
  surfaceId,
  clocks,
}: {
  view: BoatView;
  coat: Coat;
  surfaceId: string;
  clocks: CoatClocks;
}) {
  const uid = useId();
  const [box, width] = useWidth<HTMLDivElement>(360);
  const { at, boat } = view;
  const { window } = clocks;
  const from = coat.startedAt;
  const until = ribbonUntil({
    startedAt: from,
    now: at,
    moments: [window?.opensAt, window?.bondsUntil, window?.closesAt],
  });
  const spans = windowSpans({ coat: { startedAt: from, finishedAt: coat.finishedAt ?? at }, clocks, until });
  const x = (t: number) => ((t - from) / (until - from)) * width;
  const marks = [
    ...zoneReadings(view.entries, surfaceId).map((r) => ({ at: r.at, what: 'reading' as const })),
    ...testedOn(coat, [surfaceId]).handTests.map((t) => ({
      at: t.at,
      what: t.passed ? ('passed' as const) : ('failed' as const),
    })),
  ].filter((m) => m.at >= from && m.at <= until);
  return (
    <div ref={box} className="min-w-0 py-1">
      <svg
        viewBox={`0 0 ${width} ${AIR + BAND + FOOT}`}
        className="block h-auto w-full"
        role="img"
        aria-label={spans
          .map((s) => `${STATE_WORDS[s.state]} until ${timeWords(s.until, at, boat.timeZone)}`)
          .join('; ')}
      >
        <defs>
          {(['inHand', 'shut', 'bonds', 'abrade', 'closed'] as const).map((state) => (
            <StatePattern key={state} id={`${uid}-${state}`} state={state} />
          ))}
        </defs>
        <AirAbove view={view} from={from} until={until} x={x} />
        {spans.map((s) => (
          <Span key={s.state} span={s} x={x} uid={uid} colourHex={coat.colourHex} />
        ))}
        <path d={`M0 ${AIR}H${width}M0 ${AIR + BAND}H${width}`} stroke="currentColor" />
        {marks.map((m, i) => (
          <Mark key={i} x={x(m.at)} what={m.what} />
        ))}
        {spans.slice(1).map((s) => (
          <text
            key={s.state}
            x={Math.min(width - 6.2 * timeWords(s.from, at, boat.timeZone).length, Math.max(0, x(s.from) - 14))}
            y={AIR + BAND + 14}
            fontSize="13"
            fill="currentColor"
            className="narrow"
          >
            {x(s.until) - x(s.from) > 44 ? timeWords(s.from, at, boat.timeZone) : ''}
          </text>
        ))}
        <path d={`M${x(at)} 0V${AIR + BAND + 4}`} stroke="#9a231b" strokeWidth="2.5" />
      </svg>
    </div>
  );
}

function Span({
  span,
  x,
  uid,
  colourHex,
}: {
  span: WindowSpan;
  x: (t: number) => number;
  uid: string;
  colourHex: string;
}) {
  const [left, right] = [x(span.from), x(span.until)];
  const words = STATE_WORDS[span.state];
  return (
    <g>
      <rect
        x={left}
        y={AIR}
        width={right - left}
        height={BAND}
        fill={span.state === 'inHand' ? colourHex : '#f4f1e8'}
        stroke="currentColor"
        strokeWidth="1"
      />
      <rect x={left} y={AIR} width={right - left} height={BAND} fill={`url(#${uid}-${span.state})`} opacity=".55" />
      {right - left > words.length * 6.4 && (
        <text
          x={(left + right) / 2}
          y={AIR + BAND / 2 + 5}
          textAnchor="middle"
          fontSize="15"
          fontWeight="600"
          className="narrow"
          fill="#1f2326"
          stroke="#f4f1e8"
          strokeWidth="4"
          paintOrder="stroke"
        >
          {words}
        </text>
      )}
    </g>
  );
}

function Mark({ x, what }: { x: number; what: 'reading' | 'passed' | 'failed' }) {
  const y = AIR + BAND - 7;
  if (what === 'reading') return <circle cx={x} cy={y} r="4" fill="#f4f1e8" stroke="#1f2326" strokeWidth="2" />;
  return (
    <path
      d={what === 'passed' ? `M${x - 5} ${y - 1}l4 5l7-10` : `M${x - 5} ${y - 5}l10 10M${x + 5} ${y - 5}l-10 10`}
      stroke="#1f2326"
      strokeWidth="2.6"
      fill="none"
    />
  );
}

const HOUR_MS = 3_600_000;

/** Temperature of the air as a line over its dew point, to the scale of its own range. */
function AirAbove({ view, from, until, x }: { view: BoatView; from: number; until: number; x: (t: number) => number }) {
  const hours = view.hours.filter((h) => h.at >= from - HOUR_MS && h.at <= until + HOUR_MS);
  if (hours.length < 2) return null;
  const temps = hours.map((h) => h.airC);
  const [low, high] = [Math.min(...temps), Math.max(...temps)];
  const y = (c: number) => AIR - 4 - ((c - low) / Math.max(4, high - low)) * (AIR - 10);
  return (
    <>
      <path
        d={`M${hours.map((h) => `${x(h.at).toFixed(1)} ${y(h.airC).toFixed(1)}`).join('L')}`}
        fill="none"
        stroke="currentColor"
        strokeWidth="1.5"
      />
      {hours
        .filter((h) => (h.rainMm ?? 0) > 0.1)
        .map((h) => (
          <path key={h.at} d={`M${x(h.at)} 3l-2 7`} stroke="#2f5f8a" strokeWidth="2" />
        ))}
    </>
  );
}
