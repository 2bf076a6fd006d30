import { useState } from 'react';
import { counted } from '#core/units/format';
import type { LaunchOdds } from '#core/plan/odds';
import type { PlanCost } from '#core/plan/planCost';
import { useSheets } from '../../data/store';
import { moneyWords, timeWords } from '../../parts/words';
import type { PlanAnswer, WayFound } from '../../workers/plan';
import { moneyOf } from './planMoney';
import type { Beside } from './planWords';
import type { BoatPlan } from './usePlan';
import { waysOf, type Way } from './waysOut';

export interface WaysAsked {
  readonly ways: readonly Way[];
  readonly found: readonly WayFound[];
  readonly odds: ReadonlyMap<string, LaunchOdds>;
  /** Odds are being worked out. */
  readonly living: boolean;
  /** Plan them all. */
  readonly ask: () => Promise<void>;
  /** Live through weathers with each of them. */
  readonly askOdds: () => Promise<void>;
}

const MEMBERS = 20;

/** Ways out as they were when they were asked for. */
export function useWays(plan: BoatPlan, answer: PlanAnswer): WaysAsked {
  const [asked, setAsked] = useState<readonly Way[]>([]);
  const [found, setFound] = useState<readonly WayFound[]>([]);
  const [odds, setOdds] = useState<ReadonlyMap<string, LaunchOdds>>(new Map());
  const [living, setLiving] = useState(false);
  const { data: sheets, refetch } = useSheets();
  return {
    ways: asked,
    found,
    odds,
    living,
    async ask() {
      const ways = waysOf(plan, answer, sheets ?? (await refetch()).data ?? []);
      setAsked(ways);
      setFound([]);
      setOdds(new Map());
      await plan.ways(
        ways.map(({ key, request }) => ({ key, request })),
        (way) => setFound((list) => [...list, way]),
      );
    },
    async askOdds() {
      setLiving(true);
      plan.stop();
      const now = await plan.odds(MEMBERS, () => undefined);
      if (now) setOdds(new Map([['', now]]));
      for (const { key, request } of asked) {
        const way = found.find((f) => f.key === key);
        const told = way && (await plan.oddsOfWay(request, way.plan, MEMBERS));
        if (told) setOdds((map) => new Map([...map, [key, told]]));
      }
      setLiving(false);
    },
  };
}

/** Ways out, each found by really planning it: what it brings, costs and adds to the odds; taken with one click. */
export function WaysOut({
  plan,
  answer,
  cost,
  asked,
  onBeside,
}: {
  plan: BoatPlan;
  answer: PlanAnswer;
  cost: PlanCost;
  asked: WaysAsked;
  onBeside: (other: Beside) => void;
}) {
  const { ways, found, odds, living } = asked;
  const all = ways.length > 0 && found.length === ways.length;
  return (
    <section aria-label="Ways out" className="my-1 border-l-2 border-base-300 pl-3">
      <ul>
        {ways.map((way) => {
          const result = found.find((f) => f.key === way.key);
          const added = oddsAdded(plan, way, odds);
          return (
            <li key={way.key} className="ruled flex flex-wrap items-center gap-x-3 py-1">
              <span className="min-w-52 font-semibold">{way.name}</span>
              <span className="min-w-0 flex-1">
                {result
                  ? `${readyWords(plan, answer, result)}; costs ${way.price}${moneyMore(plan, answer, cost, way, result)}`
                  : 'planning …'}
                {added && <strong>; {added}</strong>}
              </span>
              <button
                type="button"
                className="btn btn-sm hidden lg:inline-flex"
                disabled={!result}
                onClick={() => result && onBeside({ name: way.name, tasks: result.plan.tasks })}
                aria-label={`Show beside it: ${way.name}`}
              >
                Show
              </button>
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
      {plan.launchAt !== null && (
        <button
          type="button"
          className="btn btn-sm my-1"
          disabled={!all || living}
          onClick={() => void asked.askOdds()}
        >
          {living ? `Odds: ${Math.max(0, odds.size - 1)} of ${ways.length}` : 'What each adds to the odds'}
        </button>
      )}
    </section>
  );
}

/** "makes it in 9 of 10, 3 more" */
function oddsAdded({ view }: BoatPlan, way: Way, odds: ReadonlyMap<string, LaunchOdds>): string | null {
  const share = (found: LaunchOdds | undefined) => found?.boats.find((b) => b.id === view.boat.id)?.share ?? null;
  const [then, now] = [share(odds.get(way.key)), share(odds.get(''))];
  if (then === null || now === null) return null;
  const more = Math.round(then * 10) - Math.round(now * 10);
  return `in time in ${Math.round(then * 10)} of 10${more === 0 ? '' : `, ${Math.abs(more)} ${more > 0 ? 'more' : 'fewer'}`}`;
}

function readyWords(
  { view, launchAt }: BoatPlan,
  answer: PlanAnswer,
  { plan: other, ready: readyOf, launchAt: moved }: WayFound,
): string {
  const at = readyOf[view.boat.id] ?? null;
  if (at === null) return `still not ready: ${counted(other.violations.length, 'thing')} against it`;
  const limit = moved[view.boat.id] ?? launchAt;
  const late = limit !== null && at > limit;
  const ready = answer.ready[view.boat.id] ?? null;
  const gain = ready === null ? '' : gainWords(ready - at);
  return `ready ${timeWords(at, answer.now, view.boat.timeZone)}${gain}${late ? ', still late' : limit !== null ? ', in time' : ''}`;
}

function moneyMore(plan: BoatPlan, answer: PlanAnswer, cost: PlanCost, way: Way, found: WayFound): string {
  const { view } = plan;
  const job = view.jobs[view.jobs.length - 1];
  const other = moneyOf(plan, {
    plan: found.plan,
    now: answer.now,
    readyAt: found.ready[view.boat.id] ?? answer.until,
    hands: way.hands,
    shelters: way.request.boats.find((b) => b.id === view.boat.id)?.plan?.shelters ?? [],
  });
  const more = other.totalMinor - cost.totalMinor;
  const heat = other.heatMinor - cost.heatMinor;
  const currency = job?.currency ?? 'EUR';
  return [
    ...(more === 0 ? [] : [`, ${more > 0 ? '+' : '−'}${moneyWords(Math.abs(more), currency)} in all`]),
    ...(heat > 0 ? [` (${moneyWords(heat, currency)} of heat)`] : []),
  ].join('');
}

const HOUR_MS = 3_600_000;

function gainWords(ms: number): string {
  const hours = Math.round(Math.abs(ms) / HOUR_MS);
  if (hours < 2) return ', no sooner';
  const size = hours < 36 ? counted(hours, 'hour') : counted(Math.round(hours / 24), 'day');
  return `, ${size} ${ms > 0 ? 'sooner' : 'later'}`;
}
