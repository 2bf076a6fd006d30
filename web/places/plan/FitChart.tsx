import { formatQuantity } from '#core/units/format';
import { useSettings } from '../../data/settings';
import { useWidth } from '../../parts/useWidth';
import type { ZoneHours } from '../../workers/plan';
import { Nights } from './AirStrip';
import { TimeTicks } from './TimeTicks';
import type { TimeWindow } from './timeScale';
import type { PlanNames } from './planWords';
import type { BoatPlan } from './usePlan';

const ROW = 52;
const TOP = 26;
const NAMES = 132;

export const rowKey = ({ zoneId, side }: ZoneHours): string => `${zoneId}${side ?? ''}`;
/** "Topsides, port". */
export const rowName = ({ zoneId, side }: ZoneHours, names: PlanNames): string =>
  side ? `${names.zone(zoneId)}, ${side}` : names.zone(zoneId);

interface Props {
  readonly plan: BoatPlan;
  readonly rows: readonly ZoneHours[];
  readonly seen: TimeWindow;
  readonly picked: string;
  readonly onPick: (key: string) => void;
}

/** Each zone a row: starts that hold filled, the surface as a line, night shaded. The shade is followed down the rows. */
export function FitChart(props: Props) {
  const { plan, rows, seen } = props;
  const [box, boxWidth] = useWidth<HTMLDivElement>(900);
  const width = Math.max(160, boxWidth - NAMES);
  const x = (at: number) => ((at - seen.from) / (seen.to - seen.from)) * width;
  const height = TOP + rows.length * ROW + 4;
  const temps = rows.flatMap((r) => r.surface.map((s) => s.tempC));
  const low = Math.min(...temps);
  const span = Math.max(8, Math.max(...temps) - low);
  const now = plan.answer?.now ?? 0;
  const { units } = useSettings();
  const degrees = (tempC: number) => formatQuantity('temperature', tempC, units, 0);
  return (
    <div ref={box} className="min-w-0">
      <svg width={boxWidth} height={height} className="block" role="group" aria-label="Hours fit to paint, by zone">
        <svg x={NAMES} width={width} height={height} overflow="hidden">
          <TimeTicks seen={seen} timeZone={plan.view.boat.timeZone} width={width} top={TOP} height={height} />
          {rows.map((row, i) => (
            <g key={rowKey(row)} transform={`translate(0 ${TOP + i * ROW})`}>
              {plan.boatWeather && <Nights weather={plan.boatWeather} seen={seen} width={width} height={ROW} />}
              {row.spells.map((s) => (
                <rect
                  key={s.from}
                  x={x(s.from)}
                  y={2}
                  width={Math.max(2, x(s.to) - x(s.from))}
                  height={ROW - 6}
                  fill="var(--color-success)"
                  opacity=".45"
                />
              ))}
              <path
                d={`M${row.surface.map((s) => `${x(s.at).toFixed(1)} ${(ROW - 8 - ((s.tempC - low) / span) * (ROW - 14)).toFixed(1)}`).join('L')}`}
                fill="none"
                stroke="currentColor"
                strokeWidth="1.4"
              />
              <path d={`M0 ${ROW - 2}H${width}`} stroke="currentColor" strokeWidth=".6" opacity=".6" />
            </g>
          ))}
          <path d={`M${x(now)} ${TOP}V${height}`} stroke="var(--color-error)" strokeWidth="2" />
        </svg>
        <RowNames {...props} width={boxWidth} />
      </svg>
      <p className="quiet text-sm">
        Filled: a coat begun then holds its limits until it is touch dry. Line: its surface, {degrees(low)} to{' '}
        {degrees(low + span)} over all zones.
      </p>
    </div>
  );
}

/** Names of the zones, each to be picked. */
function RowNames({ plan, rows, picked, onPick, width }: Props & { width: number }) {
  return rows.map((row, i) => {
    const name = rowName(row, plan.names);
    const zone = plan.names.zone(row.zoneId);
    return (
      <g
        key={rowKey(row)}
        role="button"
        tabIndex={0}
        aria-pressed={rowKey(row) === picked}
        aria-label={name}
        className="plan-step cursor-pointer"
        transform={`translate(0 ${TOP + i * ROW})`}
        onClick={() => onPick(rowKey(row))}
        onKeyDown={(e) => {
          if (e.key !== 'Enter' && e.key !== ' ') return;
          e.preventDefault();
          onPick(rowKey(row));
        }}
      >
        <rect width={width} height={ROW - 3} fill="transparent" />
        {rowKey(row) === picked && <path d={`M0 4v${ROW - 12}`} stroke="currentColor" strokeWidth="4" />}
        <text x={8} y={row.side ? 21 : 30} fontSize="16" fill="currentColor" className="narrow">
          {zone.length > 17 ? `${zone.slice(0, 16)}…` : zone}
        </text>
        {row.side && (
          <text x={8} y={38} fontSize="14" fill="currentColor" className="narrow">
            {row.side}
          </text>
        )}
      </g>
    );
  });
}
