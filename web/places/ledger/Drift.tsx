import { ledgerBounds, type LedgerBounds, type LedgerCheck } from '#core/mix/ratioLedger';
import type { SheetBody } from '#core/model/sheet';
import { figure } from '#core/units/format';
import type { Unit } from '#core/units/quantities';
import { useSettings } from '../../data/settings';
import type { LedgerOf } from '../../data/useLedgerOf';
import { useWidth } from '../../parts/useWidth';

const HEIGHT = 190;
const LEFT = 62;
const FOOT = 22;
const DASHES = ['', '7 4', '2 4'];

/**
 * What is unexplained of each part, look by look, against what the tolerance allows of the batches since the last look
 * that agreed: inside its bar the tins and the log agree.
 */
export function Drift({ ledger, sheet, unit }: { ledger: LedgerOf; sheet: SheetBody; unit: Unit }) {
  const { units } = useSettings();
  const [box, width] = useWidth<HTMLDivElement>(640);
  const { checks, batches, kits } = ledger;
  const from = Math.min(...kits.map((k) => k.at), ...batches.map((b) => b.at));
  const until = Math.max(...checks.map((c) => c.at), ...batches.map((b) => b.at));
  const x = (t: number) => LEFT + ((t - from) / Math.max(1, until - from)) * (width - LEFT - 26);
  const bounds = ledgerBounds({ checks, batches, toleranceShare: ledger.toleranceShare });
  const ends = bounds.flatMap((b) => [...b.lowL, ...b.highL].map(Math.abs));
  const most = Math.max(0.02, ...ends, ...checks.flatMap((c) => c.unexplainedL.map(Math.abs))) * 1.15;
  const middle = (HEIGHT - FOOT) / 2;
  const y = (litres: number) => middle - (litres / most) * (middle - 8);
  const words = (litres: number) => {
    const f = figure('volume', litres, units, undefined, unit);
    return `${f.number} ${f.unit}`;
  };
  return (
    <figure ref={box} className="min-w-0">
      <svg
        viewBox={`0 0 ${width} ${HEIGHT}`}
        className="block h-auto w-full"
        role="img"
        aria-label={`What is unexplained of each part. ${sheet.parts
          .map((p, i) => `${p.name}: ${words(checks[checks.length - 1]?.unexplainedL[i] ?? 0)} at the last look`)
          .join('; ')}`}
      >
        <Bars checks={checks} bounds={bounds} parts={sheet.parts.length} x={x} y={y} />
        <path d={`M${LEFT} ${y(0)}H${width - 12}`} stroke="currentColor" strokeWidth="1" />
        {[most / 1.15, 0, -most / 1.15].map((litres) => (
          <text
            key={litres}
            x={LEFT - 6}
            y={y(litres) + 5}
            textAnchor="end"
            fontSize="13"
            className="narrow"
            fill="currentColor"
          >
            {words(litres)}
          </text>
        ))}
        {batches.map((b) => (
          <path
            key={b.id}
            d={`M${x(b.at)} ${HEIGHT - FOOT}v8`}
            stroke={ledger.suspects.includes(b.id) ? '#9a231b' : 'currentColor'}
            strokeWidth={ledger.suspects.includes(b.id) ? 4 : 2}
          />
        ))}
        {sheet.parts.map((p, i) => (
          <PartLine
            key={p.name}
            dashes={DASHES[i % DASHES.length] as string}
            points={checks.map((c) => ({ x: x(c.at), y: y(c.unexplainedL[i] as number), holds: c.withinTolerance }))}
            start={`${x(from)} ${y(0)}`}
          />
        ))}
        <text x={LEFT} y={HEIGHT - 2} fontSize="13" className="narrow" fill="currentColor">
          batches
        </text>
      </svg>
      <figcaption className="flex flex-wrap gap-x-4 text-sm quiet">
        {sheet.parts.map((p, i) => (
          <span key={p.name}>
            {['full line', 'dashes', 'dots'][i % 3]}: {p.name}
          </span>
        ))}
        <span>bars: what the batches since the last look that agreed allow, part by part</span>
        <span>above: more is gone than was poured by the log</span>
      </figcaption>
    </figure>
  );
}

/** What each look was held to, part by part. */
function Bars({
  checks,
  bounds,
  parts,
  x,
  y,
}: {
  checks: readonly LedgerCheck[];
  bounds: readonly LedgerBounds[];
  parts: number;
  x: (at: number) => number;
  y: (litres: number) => number;
}) {
  return checks.flatMap((c, n) =>
    Array.from({ length: parts }, (_, i) => {
      const [top, bottom] = [y(bounds[n]?.highL[i] ?? 0), y(bounds[n]?.lowL[i] ?? 0)];
      return (
        <rect
          key={`${c.at}-${i}`}
          x={x(c.at) - 14 + i * 14}
          y={top}
          width="12"
          height={Math.max(2, bottom - top)}
          fill="#7d8f6a"
          opacity=".45"
        />
      );
    }),
  );
}

/** One part through the looks; a look that does not hold is filled. */
function PartLine({
  start,
  points,
  dashes,
}: {
  start: string;
  points: readonly { x: number; y: number; holds: boolean }[];
  dashes: string;
}) {
  return (
    <g>
      <path
        d={`M${start}${points.map((p) => `L${p.x} ${p.y}`).join('')}`}
        fill="none"
        stroke="currentColor"
        strokeWidth="2.4"
        strokeDasharray={dashes}
      />
      {points.map((p) => (
        <circle
          key={p.x}
          cx={p.x}
          cy={p.y}
          r="4.5"
          fill={p.holds ? 'var(--color-base-100)' : '#9a231b'}
          stroke="currentColor"
          strokeWidth="2"
        />
      ))}
    </g>
  );
}
