import { Link } from 'react-router';
import { launchAt } from '../../data/planning';
import type { BoatView } from '../../data/store';
import { useWidth } from '../../parts/useWidth';
import type { PlanAnswer, PlanWeather } from '../../workers/plan';
import { AIR_HEIGHT, AirStrip, Nights } from './AirStrip';
import { TimeTicks } from './TimeTicks';
import type { TimeWindow } from './timeScale';

const DAY_MS = 86_400_000;
const ROW = 78;
const HEAD = 26;
const TOP = HEAD + AIR_HEIGHT + 6;
const NAMES = 136;
const BASE = ROW - 16;

/** All boats on one time: the film of each growing coat by coat over all her zones, her launch, when she is ready, her shed. */
export function YardChart({
  views,
  answer,
  weather,
}: {
  views: readonly BoatView[];
  answer: PlanAnswer;
  weather: PlanWeather | undefined;
}) {
  const [box, boxWidth] = useWidth<HTMLDivElement>(1000);
  const boats = views.filter((v) => answer.boats.some((b) => b.id === v.boat.id));
  const first = boats[0];
  if (!first) return null;
  const seen = seenOf(boats, answer);
  const width = Math.max(160, boxWidth - NAMES);
  const x = (at: number) => ((at - seen.from) / (seen.to - seen.from)) * width;
  const height = TOP + boats.length * ROW + 4;
  return (
    <div ref={box} className="min-w-0">
      <svg width={boxWidth} height={height} className="block" role="group" aria-label="All boats on one time">
        <svg x={NAMES} width={width} height={height} overflow="hidden">
          {weather && (
            <g transform={`translate(0 ${HEAD})`}>
              <AirStrip weather={weather} seen={seen} width={width} zoneId={undefined} />
            </g>
          )}
          <TimeTicks seen={seen} timeZone={first.boat.timeZone} width={width} top={HEAD} height={height} />
          {boats.map((view, i) => (
            <g key={view.boat.id} transform={`translate(0 ${TOP + i * ROW})`}>
              {weather && <Nights weather={weather} seen={seen} width={width} height={ROW} />}
              <BoatFilm view={view} answer={answer} x={x} width={width} />
            </g>
          ))}
          <path d={`M${x(answer.now)} ${HEAD}V${height}`} stroke="var(--color-error)" strokeWidth="2" />
        </svg>
        {boats.map((view, i) => (
          <Link key={view.boat.id} to={`/boats/${view.boat.id}/plan`}>
            <text x={0} y={TOP + i * ROW + 40} fontSize="17" fill="currentColor" className="narrow">
              {view.boat.name.length > 19 ? `${view.boat.name.slice(0, 18)}…` : view.boat.name}
            </text>
          </Link>
        ))}
      </svg>
    </div>
  );
}

function seenOf(boats: readonly BoatView[], answer: PlanAnswer): TimeWindow {
  const last = Math.max(
    answer.now + 5 * DAY_MS,
    ...answer.plan.tasks.map((t) => t.end),
    ...boats.map((v) => dateOf(v) ?? 0),
    ...Object.values(answer.ready).map((r) => r ?? 0),
  );
  return { from: answer.now - DAY_MS / 2, to: Math.min(answer.until, last + DAY_MS) };
}

const dateOf = (view: BoatView) => launchAt(view.jobs[view.jobs.length - 1]?.inOn, view.boat.timeZone);

/** Her coats to come one on the other as they are put on, in their own colours. */
function BoatFilm({
  view,
  answer,
  x,
  width,
}: {
  view: BoatView;
  answer: PlanAnswer;
  x: (at: number) => number;
  width: number;
}) {
  const zones = new Set(view.surfaces.map((s) => s.id));
  const coats = answer.plan.tasks
    .filter((t) => t.kind === 'coat' && zones.has(t.zone))
    .sort((a, b) => a.start - b.start);
  const step = (BASE - 8) / Math.max(1, coats.length);
  const launch = dateOf(view);
  const ready = answer.ready[view.boat.id] ?? null;
  const sheds = (view.jobs[view.jobs.length - 1]?.planning?.shelters ?? []).filter((s) => s.cover === 'building');
  return (
    <>
      {coats.map((t, i) => {
        const layer = answer.labels.find((l) => l.task === t.id)?.layer;
        return (
          <rect
            key={t.id}
            x={x(t.start)}
            y={BASE - (i + 1) * step}
            width={Math.max(0, width - x(t.start))}
            height={step}
            fill={layer?.colourHex ?? '#8a9094'}
            stroke="currentColor"
            strokeWidth=".5"
          />
        );
      })}
      <path d={`M0 ${BASE}H${width}`} stroke="currentColor" />
      {sheds.map((s) => (
        <g key={s.id}>
          <path d={`M${x(s.from)} ${BASE + 10}v-5H${x(s.to)}v5`} fill="none" stroke="currentColor" strokeWidth="1.5" />
          <text x={x(s.from) + 4} y={BASE + 15} fontSize="12" fill="currentColor" className="narrow">
            shed
          </text>
        </g>
      ))}
      {ready !== null && <path d={`M${x(ready)} 2V${BASE}`} stroke="var(--color-success)" strokeWidth="3" />}
      {launch !== null && (
        <path d={`M${x(launch)} 2V${BASE}`} stroke="currentColor" strokeWidth="2" strokeDasharray="7 4" />
      )}
    </>
  );
}
