import type { PlannedTask } from '#core/plan/problem';
import type { BoatView } from '../../data/store';
import type { PlanAnswer } from '../../workers/plan';
import type { DrawnCoat } from './ZoneFilm';

/** A zone of the chart: its film, and what is done to it besides. */
export interface ChartRow {
  readonly zoneId: string;
  readonly name: string;
  readonly coats: readonly DrawnCoat[];
  readonly works: readonly PlannedTask[];
  readonly tasks: readonly PlannedTask[];
  readonly baseMicron: number;
  readonly fullMicron: number;
}

/** The zones that still have something to do, in the order of the boat; all to one scale of µm. */
export function chartRows(view: BoatView, answer: PlanAnswer): ChartRow[] {
  const byId = new Map(answer.plan.tasks.map((t) => [t.id, t]));
  const rows = view.surfaces.flatMap((surface): Omit<ChartRow, 'fullMicron'>[] => {
    if (!answer.zones.some((z) => z.id === surface.id)) return [];
    const status = view.statuses.find((s) => s.surfaceId === surface.id);
    const layers = view.buildUps.find((b) => b.surfaceId === surface.id)?.layers ?? [];
    const done = layers.slice(0, status?.layersDone ?? 0);
    const films = answer.films[surface.id] ?? [];
    const onTop = films.find((f) => f.task.startsWith('done:'));
    const under = onTop ? done.slice(0, -1) : done;
    const coats = films.flatMap((step): DrawnCoat[] => {
      const task = byId.get(step.task) ?? null;
      const layer = task ? answer.labels.find((l) => l.task === step.task)?.layer : done[done.length - 1];
      return [{ step, task, micron: layer?.dftMicron ?? 50, hex: layer?.colourHex ?? status?.colourHex ?? '#8a9094' }];
    });
    const tasks = answer.plan.tasks.filter((t) => t.zone === surface.id);
    return [
      {
        zoneId: surface.id,
        name: surface.name,
        coats,
        works: tasks.filter((t) => t.kind !== 'coat'),
        tasks,
        baseMicron: under.reduce((sum, l) => sum + l.dftMicron, 0),
      },
    ];
  });
  const most = Math.max(1, ...rows.map((r) => r.baseMicron + r.coats.reduce((sum, c) => sum + c.micron, 0)));
  return rows.map((row) => {
    const own = row.baseMicron + row.coats.reduce((sum, c) => sum + c.micron, 0);
    // To one scale, but a thin film is not a line: it has a third of the height at least.
    return { ...row, fullMicron: Math.max(own, Math.min(most, own * 3)) };
  });
}
