import { proxy, releaseProxy, wrap, type Remote } from 'comlink';
import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import type { LaunchOdds } from '#core/plan/odds';
import type { CoatPlan } from '#core/plan/problem';
import type {
  OtherCoat,
  PlanAnswer,
  PlanRequest,
  PlanWeather,
  PlanWorker,
  Rehearsal,
  WayFound,
  ZoneHours,
} from '../../workers/plan';

export interface Planning {
  readonly answer: PlanAnswer | null;
  readonly weather: readonly PlanWeather[];
  /** It still looks for a better one. */
  readonly busy: boolean;
  readonly problem: string | null;
  readonly stop: () => void;
  /** Where a task may start; null until that is known. */
  readonly open: (task: string) => Promise<{ from: number; to: number }[]>;
  readonly moved: (task: string, start: number) => Promise<PlanAnswer | null>;
  readonly ways: (
    requests: readonly { key: string; request: PlanRequest }[],
    tell: (way: WayFound) => void,
  ) => Promise<void>;
  readonly oddsOfWay: (request: PlanRequest, plan: CoatPlan, members: number) => Promise<LaunchOdds | null>;
  readonly fit: (from: number, to: number, other: OtherCoat | null) => Promise<readonly ZoneHours[]>;
  readonly rehearse: (member: number) => Promise<Rehearsal | null>;
  readonly odds: (members: number, tell: (share: number) => void) => Promise<LaunchOdds | null>;
}

/** Plans are made in a worker; the page only shows them. A request that has changed begins anew, with what was found. */
export function usePlanWorker(request: PlanRequest | null): Planning {
  const held = useRef<{ worker: Worker; remote: Remote<PlanWorker> } | null>(null);
  const [answer, setAnswer] = useState<PlanAnswer | null>(null);
  const [weather, setWeather] = useState<readonly PlanWeather[]>([]);
  const [problem, setProblem] = useState<string | null>(null);
  /** What was asked for when the search was ended: an answer that was on its way then does not begin it again. */
  const [stopped, setStopped] = useState<PlanRequest | null>(null);

  useEffect(
    () => () => {
      held.current?.remote[releaseProxy]();
      held.current?.worker.terminate();
      held.current = null;
    },
    [],
  );

  useEffect(() => {
    if (!request) return;
    if (!held.current) {
      const worker = new Worker(new URL('../../workers/plan.ts', import.meta.url), { type: 'module' });
      held.current = { worker, remote: wrap<PlanWorker>(worker) };
    }
    let current = true;
    const tell = (next: PlanAnswer) => {
      if (!current) return;
      setAnswer(next);
      setProblem(null);
    };
    held.current.remote.plan(request, proxy(tell)).then(
      (hours) => current && setWeather(hours),
      (error: unknown) => current && setProblem(error instanceof Error ? error.message : String(error)),
    );
    return () => {
      current = false;
    };
  }, [request]);

  const remote = () => held.current?.remote;
  const stop = useCallback(() => {
    void remote()?.stop();
    setStopped(request);
  }, [request]);
  const open = useCallback(async (task: string) => (await remote()?.open(task)) ?? [], []);
  // What is tried by hand is tried on the plan that is seen: the search ends with the first try.
  const moved = useCallback(
    async (task: string, start: number) => {
      stop();
      return (await remote()?.moved(task, start)) ?? null;
    },
    [stop],
  );
  const odds = useCallback(
    async (members: number, tell: (share: number) => void) => (await remote()?.odds(members, proxy(tell))) ?? null,
    [],
  );
  const ways = useCallback(
    async (requests: readonly { key: string; request: PlanRequest }[], tell: (way: WayFound) => void) => {
      await remote()?.ways(requests, proxy(tell));
    },
    [],
  );
  const oddsOfWay = useCallback(
    async (way: PlanRequest, plan: CoatPlan, members: number) =>
      (await remote()?.oddsOfWay(way, plan, members)) ?? null,
    [],
  );
  const fit = useCallback(
    async (from: number, to: number, other: OtherCoat | null) => (await remote()?.fit(from, to, other)) ?? [],
    [],
  );
  const rehearse = useCallback(async (member: number) => (await remote()?.rehearse(member)) ?? null, []);
  const busy = answer !== null && !answer.done && stopped !== request;
  return useMemo(
    () => ({ answer, weather, busy, problem, stop, open, moved, ways, oddsOfWay, fit, rehearse, odds }),
    [answer, weather, busy, problem, stop, open, moved, ways, oddsOfWay, fit, rehearse, odds],
  );
}
