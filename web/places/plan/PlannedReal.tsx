import { useState } from 'react';
import { Link } from 'react-router';
import { plannedReal, type PlannedReal as Row } from '#core/plan/plannedReal';
import { useView } from '../../app/BoatShell';
import { acceptedPlans } from '../../data/planning';
import { SelectField } from '../../parts/Field';
import { momentWords, spanWords, timeWords } from '../../parts/words';
import { useWidth } from '../../parts/useWidth';
import { TimeTicks } from './TimeTicks';

const DAY_MS = 86_400_000;
const ROW = 40;
const TOP = 26;
const NAMES = 128;

/** The plans that were accepted, and what was really done beside one of them. */
export function PlannedReal() {
  const view = useView();
  const plans = acceptedPlans(view);
  const [picked, setPicked] = useState(0);
  const plan = plans[picked];
  const zone = view.boat.timeZone;
  return (
    <div className="min-w-0">
      <div className="ruled flex flex-wrap items-baseline gap-3">
        <h1 className="text-2xl">Planned and real</h1>
        <Link className="link-row underline underline-offset-4 lg:min-h-0" to={`/boats/${view.boat.id}/plan`}>
          Back to the plan
        </Link>
      </div>
      {!plan ? (
        <p className="py-3">No plan was accepted yet. Accept one, and what is really done stands beside it here.</p>
      ) : (
        <>
          <div className="max-w-md py-1">
            <SelectField
              label="The plan accepted"
              options={plans.map((p, i) => [String(i), momentWords(p.at, zone)] as const)}
              value={String(picked)}
              onPick={(i) => setPicked(Number(i))}
            />
          </div>
          <p>
            It had her ready {plan.body.finish === null ? 'not within its days' : momentWords(plan.body.finish, zone)}
            {plan.body.odds !== null && `, in ${Math.round(plan.body.odds * 10)} of 10 weathers in time`}.
          </p>
          <Beside rows={plannedReal({ tasks: plan.body.tasks, coats: view.coats })} />
        </>
      )}
    </div>
  );
}

/** By zone: the steps as planned dashed, as done whole; below in words. */
function Beside({ rows }: { rows: readonly Row[] }) {
  const view = useView();
  const [box, boxWidth] = useWidth<HTMLDivElement>(900);
  const zone = view.boat.timeZone;
  const zones = [...new Set(rows.map((r) => r.task.zoneId))];
  const ats = rows.flatMap((r) => [r.task.start, r.task.end, r.startedAt ?? view.at]);
  const seen = { from: Math.min(...ats) - DAY_MS / 4, to: Math.max(view.at, ...ats) + DAY_MS / 4 };
  const width = Math.max(160, boxWidth - NAMES);
  const x = (at: number) => ((at - seen.from) / (seen.to - seen.from)) * width;
  const height = TOP + zones.length * ROW;
  const stair = (list: readonly (number | null)[]) => {
    const step = (ROW - 8) / Math.max(1, list.length);
    const done = list.filter((at) => at !== null).sort((a, b) => a - b);
    return `M0 ${ROW - 4}${done.map((at, i) => `H${x(at).toFixed(1)}V${(ROW - 4 - (i + 1) * step).toFixed(1)}`).join('')}`;
  };
  return (
    <div ref={box} className="min-w-0">
      <svg width={boxWidth} height={height} className="block" role="img" aria-label="Planned and real, by zone">
        <svg x={NAMES} width={width} height={height} overflow="hidden">
          <TimeTicks seen={seen} timeZone={zone} width={width} top={TOP} height={height} />
          {zones.map((id, i) => {
            const own = rows.filter((r) => r.task.zoneId === id);
            return (
              <g key={id} transform={`translate(0 ${TOP + i * ROW})`} fill="none">
                <path
                  d={`${stair(own.map((r) => r.task.start))}H${width}`}
                  stroke="var(--color-info)"
                  strokeWidth="2"
                  strokeDasharray="5 3"
                />
                <path
                  d={`${stair(own.map((r) => r.startedAt))}H${x(view.at).toFixed(1)}`}
                  stroke="currentColor"
                  strokeWidth="2.2"
                />
              </g>
            );
          })}
          <path d={`M${x(view.at)} ${TOP}V${height}`} stroke="var(--color-error)" strokeWidth="2" />
        </svg>
        {zones.map((id, i) => (
          <text key={id} x={0} y={TOP + i * ROW + 26} fontSize="16" fill="currentColor" className="narrow">
            {view.zoneName(id).slice(0, 19)}
          </text>
        ))}
      </svg>
      <p className="quiet text-sm">Dashed: as planned. Whole: as it was done. A step up for each coat.</p>
      <ul className="sheet-rule max-w-prose">
        {rows.map((row) => (
          <li key={row.task.id} className="py-1">
            <span className="font-semibold">{row.task.name}</span>: {doneWords(row, view.at, zone)}
          </li>
        ))}
      </ul>
    </div>
  );
}

function doneWords({ task, startedAt, laterMs }: Row, now: number, zone: string): string {
  const planned = `planned ${timeWords(task.start, now, zone)}`;
  if (startedAt === null || laterMs === null) return `${planned}, ${task.start < now ? 'not on yet' : 'to come'}`;
  const off =
    Math.abs(laterMs) < 15 * 60_000
      ? 'as planned'
      : `${spanWords(Math.abs(laterMs))} ${laterMs > 0 ? 'later' : 'sooner'}`;
  return `${planned}, begun ${timeWords(startedAt, now, zone)}, ${off}`;
}
