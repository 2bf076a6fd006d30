import { useState } from 'react';
import { planCost, type PlanCost } from '#core/plan/planCost';
import { counted } from '#core/units/format';
import { moneyWords, timeWords } from '../../parts/words';
import type { PlanAnswer, WayFound } from '../../workers/plan';
import type { BoatPlan } from './usePlan';
import { waysOf, type Way } from './waysOut';

export interface WaysAsked {
  readonly ways: readonly Way[];
  readonly found: readonly WayFound[];
  /** Plan them all. */
  readonly ask: () => void;
}

/** Ways out as they were when they were asked for. */
export function useWays(plan: BoatPlan, answer: PlanAnswer): WaysAsked {
  const [asked, setAsked] = useState<readonly Way[]>([]);
  const [found, setFound] = useState<readonly WayFound[]>([]);
  return {
    ways: asked,
    found,
    ask() {
      const ways = waysOf(plan, answer);
      setAsked(ways);
      setFound([]);
      void plan.ways(
        ways.map(({ key, request }) => ({ key, request })),
        (way) => setFound((list) => [...list, way]),
      );
    },
  };
}

/** Ways out, each found by really planning it: what it brings and what it costs; taken with one click. */
export function WaysOut({
  plan,
  answer,
  cost,
  asked: { ways, found },
}: {
  plan: BoatPlan;
  answer: PlanAnswer;
  cost: PlanCost;
  asked: WaysAsked;
}) {
  const { view, rules, launchAt } = plan;
  const job = view.jobs[view.jobs.length - 1];
  const ready = answer.ready[view.boat.id] ?? null;
  const words = ({ plan: other, ready: readyOf }: WayFound): string => {
    const at = readyOf[view.boat.id] ?? null;
    if (at === null) return `still not ready: ${counted(other.violations.length, 'thing')} against it`;
    const limit = launchAt;
    const late = limit !== null && at > limit;
    const gain = ready === null ? '' : gainWords(ready - at);
    return `ready ${timeWords(at, answer.now, view.boat.timeZone)}${gain}${late ? ', still late' : limit !== null ? ', in time' : ''}`;
  };
  const money = (way: WayFound): string => {
    const other = planCost({
      tasks: way.plan.tasks,
      perHourMinor: Object.fromEntries((rules?.hands ?? []).map((h) => [h.name, h.perHourMinor ?? 0])),
      now: answer.now,
      readyAt: way.ready[view.boat.id] ?? answer.until,
      yardPerDayMinor: job?.yardCostPerDayMinor ?? 0,
      heatMinor: 0,
    });
    const more = other.totalMinor - cost.totalMinor;
    return more === 0 ? '' : `, ${more > 0 ? '+' : '−'}${moneyWords(Math.abs(more), job?.currency ?? 'EUR')}`;
  };
  return (
    <section aria-label="Ways out" className="my-1 border-l-2 border-base-300 pl-3">
      <ul>
        {ways.map((way) => {
          const result = found.find((f) => f.key === way.key);
          return (
            <li key={way.key} className="ruled flex flex-wrap items-center gap-x-3 py-1">
              <span className="min-w-52 font-semibold">{way.name}</span>
              <span className="min-w-0 flex-1">
                {result ? `${words(result)}; costs ${way.price}${money(result)}` : 'planning …'}
              </span>
              <button
                type="button"
                className="btn btn-sm"
                disabled={!result}
                onClick={way.take}
                aria-label={`Take it: ${way.name}`}
              >
                Take it
              </button>
            </li>
          );
        })}
      </ul>
    </section>
  );
}

const HOUR_MS = 3_600_000;

function gainWords(ms: number): string {
  const hours = Math.round(Math.abs(ms) / HOUR_MS);
  if (hours < 2) return ', no sooner';
  const size = hours < 36 ? counted(hours, 'hour') : counted(Math.round(hours / 24), 'day');
  return `, ${size} ${ms > 0 ? 'sooner' : 'later'}`;
}
