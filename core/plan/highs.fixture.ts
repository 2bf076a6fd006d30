import loadHighs from 'highs';
import { stepsIn, zoneOracle } from './exhaustive.fixture';
import type { PlanProblem } from './problem';

/** Tests only: lateness, forced abradings and finish of a small problem by a time-indexed model and an integer solver. */
export async function highsPlan(): Promise<
  (problem: PlanProblem) => { late: number; forced: number; finish: number } | null
> {
  const highs = await loadHighs();
  return (problem) => {
    const { text, weights } = modelText(problem);
    const answer = highs.solve(text, { mip_rel_gap: 0, mip_abs_gap: 0 });
    if (answer.Status !== 'Optimal') return null;
    const value = (name: string) => Math.round((answer.Columns[name] as { Primal: number } | undefined)?.Primal ?? 0);
    const sum = (names: readonly string[]) => names.reduce((s, n) => s + value(n), 0);
    return { late: sum(weights.late), forced: sum(weights.forced), finish: sum(weights.finish) };
  };
}

interface Column {
  readonly name: string;
  readonly start: number;
  readonly end: number;
  readonly dry: number;
  readonly painters: number;
}

/** One column for every task, crew and start; what may follow what is said by sums over the starts before it. */
function modelText(problem: PlanProblem) {
  const last = stepsIn(problem);
  const rows: string[] = [];
  const binaries: string[] = [];
  const weights = { late: [] as string[], forced: [] as string[], finish: [] as string[] };
  const sum = (list: readonly { name: string }[]) => list.map((c) => c.name).join(' + ');
  const row = (text: string) => rows.push(` r${rows.length}: ${text}`);
  const all: { zone: string; column: Column }[] = [];
  problem.boats.forEach((boat, b) => {
    const ready = `ready${b}`;
    weights.finish.push(ready);
    if (boat.launchAt === null) return;
    weights.late.push(`late${b}`);
    row(`late${b} - ${ready} >= ${-Math.floor((boat.launchAt - problem.now) / 3_600_000)}`);
  });
  for (const zone of problem.zones) {
    const oracle = zoneOracle(problem, zone.id);
    const ready = `ready${problem.boats.findIndex((b) => b.id === zone.boat)}`;
    const columns = new Map<string, Column[]>();
    const made = (id: string, choices: (typeof oracle.choices)[number]) =>
      choices.map(({ crew, put }, n) => {
        const column = { name: `x${binaries.length}`, ...put, painters: oracle.maskOf(crew), n, id };
        binaries.push(column.name);
        all.push({ zone: zone.id, column });
        return column;
      });
    oracle.tasks.forEach((task, i) => {
      const own = made(task.id, oracle.choices[i]!);
      columns.set(task.id, own);
      row(`${sum(own) || '0 ready0'} = 1`);
      for (const c of own) {
        const table = task.kind === 'coat' ? (task.immersion?.minimum ?? null) : null;
        const at = task.kind === 'coat' && table ? oracle.reach(table, c.end, task.minCureC) : c.end;
        if (at === Infinity) row(`${c.name} = 0`);
        else row(`${ready} - ${at} ${c.name} >= 0`);
      }
      const follows = (c: Column, before: readonly { name: string }[]) =>
        row(`${c.name}${before.map((x) => ` - ${x.name}`).join('')} <= 0`);
      for (const { id, hours } of task.after)
        for (const c of own)
          follows(
            c,
            columns.get(id)!.filter((x) => x.end + hours <= c.start + 1e-6),
          );
      for (const { id, hours, untilRain } of task.fresh)
        for (const c of own)
          follows(
            c,
            columns
              .get(id)!
              .filter(
                (x) =>
                  x.end <= c.start &&
                  (hours === null || c.start <= x.start + hours + 1e-3) &&
                  !(untilRain && oracle.rains(x.start, c.start + 1)),
              ),
          );
      const over = task.kind === 'coat' ? task.over : null;
      if (!over) return;
      const below = columns.get(over.coat)!;
      const cure = (oracle.tasks.find((t) => t.id === over.coat) as { minCureC: number | null }).minCureC;
      const abrading = made(`abrade:${task.id}`, oracle.abradings[i]!);
      if (abrading.length > 0) row(`${sum(abrading)} <= 1`);
      if (!over.alwaysAbrade) weights.forced.push(...abrading.map((a) => a.name));
      for (const a of abrading)
        follows(
          a,
          below.filter((x) => x.end <= a.start && oracle.reach(over.sandable ?? over.minimum, x.end, cure) <= a.start),
        );
      for (const c of own) {
        const near = below.filter(
          (x) =>
            x.end <= c.start &&
            oracle.reach(over.minimum, x.end, cure) <= c.start &&
            c.start <= oracle.hold(over.maximum, x.start),
        );
        follows(c, near);
        const bonds = over.alwaysAbrade ? [] : near.filter((x) => c.start <= oracle.hold(over.tackLimit, x.start));
        follows(c, [...bonds, ...abrading.filter((a) => a.end <= c.start)]);
      }
    });
  }
  const change = problem.changeoverMin / 60;
  if (change > 0) throw new Error('The model has no changing over.');
  for (let k = 0; k < last; k += 1) {
    for (let p = 0; p < problem.painters.length; p += 1) {
      const busy = all.filter(({ column: c }) => (c.painters & (1 << p)) !== 0 && c.start <= k && k < c.end);
      if (busy.length > 1) row(`${sum(busy.map((x) => x.column))} <= 1`);
    }
    const taken = (zone: string, dry: boolean) =>
      all.filter((x) => x.zone === zone && x.column.start <= k && k < (dry ? x.column.dry : x.column.end));
    for (const zone of problem.zones) {
      const own = taken(zone.id, true);
      if (own.length > 1) row(`${sum(own.map((x) => x.column))} <= 1`);
    }
    for (const { zones, untilDry } of problem.notTogether) {
      const both = zones.flatMap((z) => taken(z, untilDry));
      if (both.length > 1) row(`${sum(both.map((x) => x.column))} <= 1`);
    }
  }
  const goal = [
    ...weights.late.map((n) => `1000000 ${n}`),
    ...weights.forced.map((n) => `10000 ${n}`),
    ...weights.finish,
  ].join(' + ');
  const bounds = problem.boats.map((_, b) => ` 0 <= ready${b} <= ${last}\n 0 <= late${b} <= ${last}`).join('\n');
  const integers = problem.boats.map((_, b) => `ready${b} late${b}`).join(' ');
  return {
    text: `Minimize\n obj: ${goal}\nSubject To\n${rows.join('\n')}\nBounds\n${bounds}\nGeneral\n ${integers}\nBinary\n ${binaries.join(' ')}\nEnd`,
    weights,
  };
}
