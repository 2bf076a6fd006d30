import { useId } from 'react';
import { dewPointC } from '#core/air/dewPoint';
import { drySpells } from '#core/air/dryHours';
import type { WeatherHour } from '#core/air/weather';
import type { PlanWeather } from '../../workers/plan';
import type { TimeWindow } from './timeScale';

const HOUR_MS = 3_600_000;
export const AIR_HEIGHT = 92;
const ROLLER_WIND_MS = 8;

/**
 * The air over the plan: its temperature and dew point, the gap between them filled where the usual limits let paint go on,
 * the surface of a zone, night shaded, rain and wind, and hatched where the forecast has ended and a typical year goes on.
 */
export function AirStrip({
  weather,
  seen,
  width,
  zoneId,
}: {
  weather: PlanWeather;
  seen: TimeWindow;
  width: number;
  /** Whose surface is drawn. */
  zoneId: string | undefined;
}) {
  const uid = useId();
  const x = (at: number) => ((at - seen.from) / (seen.to - seen.from)) * width;
  const step = Math.max(1, Math.floor((seen.to - seen.from) / HOUR_MS / width));
  const hours = weather.hours.filter(
    (h, i) => i % step === 0 && h.at > seen.from - 2 * HOUR_MS && h.at < seen.to + 2 * HOUR_MS,
  );
  if (hours.length < 2) return null;
  const dews = hours.map((h) => dewPointC(h));
  const from = hours[0]?.at ?? 0;
  const to = hours[hours.length - 1]?.at ?? 0;
  const surface = (weather.surfaces[weather.surfaceOf[zoneId ?? ''] ?? ''] ?? []).filter(
    (s, i) => i % step === 0 && s.at >= from && s.at <= to,
  );
  const low = Math.min(...dews, ...surface.map((s) => s.tempC)) - 1;
  const high = Math.max(...hours.map((h) => h.airC), ...surface.map((s) => s.tempC)) + 1;
  const y = (c: number) => 12 + (1 - (c - low) / (high - low)) * (AIR_HEIGHT - 26);
  const line = (value: (h: WeatherHour, i: number) => number) =>
    hours.map((h, i) => `${x(h.at).toFixed(1)} ${y(value(h, i)).toFixed(1)}`);
  const air = line((h) => h.airC);
  const dew = line((_, i) => dews[i] as number);
  const spells = drySpells({
    hours: weather.hours,
    from: Math.max(seen.from, weather.hours[0]?.at ?? 0),
    until: seen.to,
  });
  const { typicalFrom } = weather;
  return (
    <g aria-hidden="true">
      <defs>
        <clipPath id={`${uid}-dry`}>
          {spells.map((s) => (
            <rect key={s.from} x={x(s.from)} y={0} width={Math.max(0.5, x(s.until) - x(s.from))} height={AIR_HEIGHT} />
          ))}
        </clipPath>
        <pattern id={`${uid}-typical`} width="7" height="7" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
          <path d="M0 0v7" stroke="currentColor" strokeWidth="1" opacity=".35" />
        </pattern>
      </defs>
      <Nights weather={weather} seen={seen} width={width} height={AIR_HEIGHT} />
      <path
        d={`M${air.join('L')}L${[...dew].reverse().join('L')}Z`}
        fill="var(--color-success)"
        opacity=".5"
        clipPath={`url(#${uid}-dry)`}
      />
      <path d={`M${air.join('L')}`} fill="none" stroke="currentColor" strokeWidth="1.5" />
      <path d={`M${dew.join('L')}`} fill="none" stroke="currentColor" strokeWidth="1.1" strokeDasharray="4 3" />
      {surface.length > 1 && (
        <path
          d={`M${surface.map((s) => `${x(s.at).toFixed(1)} ${y(s.tempC).toFixed(1)}`).join('L')}`}
          fill="none"
          stroke="var(--color-error)"
          strokeWidth="1.2"
        />
      )}
      <Weather hours={hours} x={x} />
      {typicalFrom !== null && typicalFrom < seen.to && (
        <Typical from={Math.max(0, x(typicalFrom))} width={width} fill={`url(#${uid}-typical)`} />
      )}
      <path d={`M0 ${AIR_HEIGHT}H${width}`} stroke="currentColor" opacity=".5" />
    </g>
  );
}

/** Where the forecast has ended. */
function Typical({ from, width, fill }: { from: number; width: number; fill: string }) {
  return (
    <>
      <rect x={from} y={0} width={width - from} height={AIR_HEIGHT} fill={fill} />
      <text x={from + 6} y={AIR_HEIGHT - 8} fontSize="14" fill="currentColor" className="narrow">
        ≈ a typical year from here
      </text>
    </>
  );
}

/** Rain above, and wind that is too much for a roller below. */
function Weather({ hours, x }: { hours: readonly WeatherHour[]; x: (at: number) => number }) {
  const rain = hours.filter((h) => (h.rainMm ?? 0) > 0);
  const windy = hours.filter((h) => (h.windMs ?? 0) > ROLLER_WIND_MS);
  return (
    <>
      {rain.map((h) => (
        <path
          key={h.at}
          d={`M${x(h.at)} 1l-2 7`}
          stroke="var(--color-info)"
          strokeWidth={Math.max(1, Math.min(3, x(h.at + HOUR_MS) - x(h.at)))}
        />
      ))}
      {windy.map((h) => (
        <path
          key={h.at}
          d={`M${x(h.at)} ${AIR_HEIGHT - 3}h${Math.max(1, x(h.at + HOUR_MS) - x(h.at))}`}
          stroke="currentColor"
          strokeWidth="3"
          opacity=".6"
        />
      ))}
    </>
  );
}

/** Night, as a shade behind everything. */
export function Nights({
  weather,
  seen,
  width,
  height,
}: {
  weather: PlanWeather;
  seen: TimeWindow;
  width: number;
  height: number;
}) {
  const x = (at: number) => ((at - seen.from) / (seen.to - seen.from)) * width;
  const { daylight } = weather;
  return (
    <>
      {daylight.slice(0, -1).map((day, i) => {
        const next = daylight[i + 1];
        if (!next || day.to > seen.to || next.from < seen.from) return null;
        const from = Math.max(0, x(day.to));
        const to = Math.min(width, x(next.from));
        return to > from ? (
          <rect key={day.to} x={from} y={0} width={to - from} height={height} fill="currentColor" opacity=".07" />
        ) : null;
      })}
    </>
  );
}
