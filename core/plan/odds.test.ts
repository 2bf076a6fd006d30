import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { memberOf } from '../air/forecast';
import { instance } from './instances.fixture';
import { launchOdds } from './odds';
import { planCoats } from './planCoats';
import type { PlanProblem, PlanSeries } from './problem';

const DAY = 86_400_000;

/** Weathers about the problem's own: the surface goes with its air. */
const weathers = (problem: PlanProblem, seed: number) => (member: number) =>
  Object.fromEntries(
    Object.entries(problem.series).map(([name, series]): [string, PlanSeries] => {
      const air = memberOf(series.air, { seed, issuedAt: problem.now, member });
      const off = new Map(series.air.map((h, i) => [h.at, air[i]!.airC - h.airC]));
      return [name, { air, surface: series.surface.map((s) => ({ ...s, tempC: s.tempC + (off.get(s.at) ?? 0) })) }];
    }),
  );

/** A problem whose launch lies so many days ahead. */
function withLaunch(seed: number, days: number): PlanProblem {
  const problem = instance(seed, { days: 14, zones: 3, coats: 9, painters: 2 });
  return { ...problem, boats: problem.boats.map((b) => ({ ...b, launchAt: problem.now + days * DAY })) };
}

describe('the odds of a plan', () => {
  it('are certain in the weather that was foretold, and nothing where the date is over', () => {
    const problem = JSON.parse(
      readFileSync(new URL('./fixtures/steel-primer.json', import.meta.url), 'utf8'),
    ) as PlanProblem;
    const dated = (at: number) => ({ ...problem, boats: [{ id: 'sandpiper', launchAt: at }] });
    const foretold = { members: 3, seed: 1, seriesOf: () => problem.series };
    const sure = launchOdds(dated(problem.until), foretold);
    expect(sure.share).toBe(1);
    expect(sure.finish).toEqual({
      early: problem.now + 58 * 3_600_000,
      likely: problem.now + 58 * 3_600_000,
      late: problem.now + 58 * 3_600_000,
    });
    expect(sure.breaks).toEqual([]);
    expect(launchOdds(dated(problem.now - DAY), foretold).share).toBe(0);
    expect(() => launchOdds(problem, { ...foretold, members: 0 })).toThrow(/at least one weather/);
  });

  it('are the same again from the same seed, and stop when told to', () => {
    const problem = withLaunch(5, 8);
    const ask = { members: 12, seed: 3, seriesOf: weathers(problem, 3) };
    expect(launchOdds(problem, ask)).toEqual(launchOdds(problem, ask));
    const signal = { aborted: false };
    const stopped = launchOdds(problem, { ...ask, signal, onProgress: (share) => (signal.aborted = share > 0.2) });
    expect(stopped.members).toBe(3);
  });

  it('grow with the room that is left', () => {
    const shares = [3, 6, 12].map((days) => {
      const problem = withLaunch(9, days);
      return launchOdds(problem, { members: 30, seed: 1, seriesOf: weathers(problem, 1) }).share;
    });
    expect(shares[1]).toBeGreaterThanOrEqual(shares[0]!);
    expect(shares[2]).toBeGreaterThanOrEqual(shares[1]!);
    expect(shares[2]).toBeGreaterThan(0.5);
  });

  it('of plans that are said to make it in about 80 of 100, 72 to 88 do on fresh weathers', () => {
    const said: number[] = [];
    const came: number[] = [];
    for (let seed = 1; said.length < 5 && seed < 80; seed += 1)
      for (const days of [5, 6, 7, 8]) {
        const problem = withLaunch(seed, days);
        const plan = planCoats(problem, { steps: 40 });
        if (plan.score[1] > 0 || plan.score[2] > 0) continue;
        const odds = (seedOf: number, members: number) =>
          launchOdds(problem, { members, seed: seedOf, plan, seriesOf: weathers(problem, seedOf) }).share;
        const share = odds(seed, 60);
        if (share < 0.73 || share > 0.87) continue;
        said.push(share);
        came.push(odds(1000 + seed, 60));
      }
    const mean = (list: readonly number[]) => list.reduce((sum, x) => sum + x, 0) / list.length;
    expect(said.length).toBeGreaterThanOrEqual(3);
    expect(mean(came) - mean(said) + 0.8).toBeGreaterThanOrEqual(0.72);
    expect(mean(came) - mean(said) + 0.8).toBeLessThanOrEqual(0.88);
  }, 120_000);
});
