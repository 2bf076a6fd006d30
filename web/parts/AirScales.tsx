import type { Conditions, ConditionVerdict, LimitInForce, LimitsInForce } from '#core/air/conditions';
import type { QuantityName } from '#core/units/quantities';
import { Fig, useFigure } from './Fig';

const WIDTH = 200;
const HEIGHT = 14;

/** What a scale shows: from and to in the core's unit, what is allowed of it, and where the air stands. */
interface Scale {
  readonly name: string;
  readonly quantity: QuantityName;
  readonly from: number;
  readonly to: number;
  readonly least: LimitInForce | null;
  readonly most: LimitInForce | null;
  readonly value: number;
  readonly digits: number;
}

const DEGREES = { quantity: 'temperature', from: -5, to: 45, digits: 0 } as const;

function scalesOf(conditions: Conditions, verdict: ConditionVerdict, limits: LimitsInForce): Scale[] {
  return [
    {
      name: 'Spread',
      quantity: 'temperatureDifference',
      from: 0,
      to: 15,
      digits: 1,
      least: limits.spreadMinC,
      most: null,
      value: verdict.spreadC,
    },
    {
      name: 'Humidity',
      quantity: 'percent',
      from: 0,
      to: 1,
      digits: 0,
      least: null,
      most: limits.rhMax,
      value: conditions.rh,
    },
    { name: 'Surface', ...DEGREES, least: limits.surfaceC[0], most: limits.surfaceC[1], value: conditions.surfaceC },
    { name: 'Air', ...DEGREES, least: limits.airC[0], most: limits.airC[1], value: conditions.airC },
  ];
}

/** Air and surface against the limits in force, as four short scales: filled where paint may go on. */
export function AirScales({
  conditions,
  verdict,
  limits,
  measured,
}: {
  conditions: Conditions;
  verdict: ConditionVerdict;
  limits: LimitsInForce;
  measured: boolean;
}) {
  const figure = useFigure();
  return (
    <ul aria-label="Against the limits" className="py-2">
      {scalesOf(conditions, verdict, limits).map((s) => {
        const x = (v: number) => ((Math.min(s.to, Math.max(s.from, v)) - s.from) / (s.to - s.from)) * WIDTH;
        const [low, high] = [s.least?.at ?? s.from, s.most?.at ?? s.to];
        const usual = s.least?.usual || s.most?.usual;
        const wants = [
          ...(s.least ? [`from ${figure(s.quantity, s.least.at, s.digits)}`] : []),
          ...(s.most ? [`to ${figure(s.quantity, s.most.at, s.digits)}`] : []),
        ].join(' ');
        return (
          <li
            key={s.name}
            className="grid grid-cols-[4.5rem_minmax(3rem,1fr)_4.5rem] items-center gap-x-3 py-0.5 sm:grid-cols-[4.5rem_minmax(3rem,1fr)_4.5rem_11rem]"
          >
            <span className="lab">{s.name}</span>
            <svg
              viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
              preserveAspectRatio="none"
              className="block h-3.5 w-full"
              aria-hidden="true"
            >
              <rect
                x={x(low)}
                y="2"
                width={Math.max(0, x(high) - x(low))}
                height={HEIGHT - 4}
                fill="var(--color-success)"
                opacity=".55"
              />
              <rect
                x=".5"
                y="2"
                width={WIDTH - 1}
                height={HEIGHT - 4}
                fill="none"
                stroke="currentColor"
                vectorEffect="non-scaling-stroke"
              />
              <path
                d={`M${x(s.value)} 0V${HEIGHT}`}
                stroke="currentColor"
                strokeWidth="3"
                strokeDasharray={measured ? undefined : '3 2'}
                vectorEffect="non-scaling-stroke"
              />
            </svg>
            <Fig quantity={s.quantity} value={s.value} digits={s.digits} approx={!measured} className="text-right" />
            <span className="narrow quiet hidden text-base sm:inline">
              {usual ? 'usually ' : ''}
              {wants}
            </span>
          </li>
        );
      })}
    </ul>
  );
}
