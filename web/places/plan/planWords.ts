import { DateTime } from 'luxon';
import type { AcceptedTask } from '#core/model/jobPlan';
import { firstBreak, type FirstBreak } from '#core/plan/firstBreak';
import type { PlanChange } from '#core/plan/planChanges';
import type { TaskLabel } from '#core/plan/jobZone';
import type { PlannedTask } from '#core/plan/problem';
import type { SheetRevision } from '#core/model/sheet';
import { PREP_WORDS } from '../../parts/prepWords';
import { coatName, timeWords } from '../../parts/words';
import type { PlanAnswer } from '../../workers/plan';

/** Another plan, looked at beside the one that stands. */
export interface Beside {
  readonly name: string;
  readonly tasks: readonly { readonly id: string; readonly start: number }[];
}

/** Ids of a plan in the words of the job. */
export interface PlanNames {
  readonly of: (task: string) => string;
  readonly zone: (zoneId: string) => string;
  readonly say: (sentence: string) => string;
}

type Named = Pick<PlanAnswer, 'labels' | 'appointments'>;

export function namesOf(
  { labels, appointments }: Named,
  options: {
    sheetById: ReadonlyMap<string, SheetRevision>;
    zoneName: (id: string) => string;
    appointment: (id: string) => string;
    boat: (id: string) => string;
  },
): PlanNames {
  const byTask = new Map(labels.map((l) => [l.task, l]));
  const of = (task: string): string => {
    if (task.startsWith('abrade:')) return `abrade before ${shortOf(byTask.get(task.slice(7)), options.sheetById)}`;
    if (task.startsWith('done:')) return 'the coat that is on';
    if (appointments.some((a) => a.id === task)) return options.appointment(task);
    return shortOf(byTask.get(task), options.sheetById);
  };
  const zoneOf = (task: string) => byTask.get(task.replace(/^abrade:/, ''))?.zoneId ?? task.split(':')[1] ?? '';
  const long = (task: string) => {
    const zone = options.zoneName(zoneOf(task));
    return task.startsWith('boat:') ? options.boat(task.slice(5)) : `${zone}: ${of(task)}`;
  };
  const ids = [
    ...byTask.keys(),
    ...labels.map((l) => `abrade:${l.task}`),
    ...labels.map((l) => `done:${l.zoneId}`),
    ...appointments.map((a) => a.id),
  ];
  const longest = [...new Set(ids)].sort((a, b) => b.length - a.length);
  return {
    of,
    zone: options.zoneName,
    say: (sentence) => {
      let said = sentence;
      for (const id of longest)
        if (said.includes(id))
          said = said.replaceAll(id, appointments.some((a) => a.id === id) ? options.appointment(id) : long(id));
      return said.replace(/^./, (c) => c.toUpperCase());
    },
  };
}

function shortOf(label: TaskLabel | undefined, sheets: ReadonlyMap<string, SheetRevision>): string {
  if (!label) return 'this';
  if (label.layer) {
    const sheet = sheets.get(label.layer.sheetRevisionId);
    return sheet ? coatName(sheet.body.kind, label.number) : 'coat';
  }
  if (label.task.startsWith('unmask:')) return 'tape off';
  const [first, ...rest] = label.steps.map((s) => PREP_WORDS[s].toLowerCase());
  const words =
    rest.length > 0 ? `${first}, ${rest.length > 2 ? `${rest[0]} …` : rest.join(', ')}` : (first ?? 'get ready');
  return label.number > 0 ? `${words} (${label.number})` : words;
}

/** "Thu 14:20 to 16:00, Ines": when and who. */
export function whenWords(task: Pick<PlannedTask, 'start' | 'end' | 'painters'>, now: number, zone: string): string {
  const end = DateTime.fromMillis(task.end, { zone }).toFormat('HH:mm');
  return `${timeWords(task.start, now, zone)} to ${end}, ${task.painters.join(' and ')}`;
}

/** A plan as it is kept: in words that stay when the film is changed later. */
export const asAccepted = (answer: PlanAnswer, names: PlanNames): AcceptedTask[] =>
  answer.plan.tasks.map((t) => ({
    id: t.id,
    zoneId: t.zone,
    kind: t.kind,
    name: `${names.zone(t.zone)}: ${names.of(t.id)}`,
    painters: t.painters,
    start: t.start,
    end: t.end,
  }));

/** What has changed, in a sentence: "Keel: barrier 4 moves to Thu 09:00, was Wed 15:00". */
export function changeWords({ kind, name, from, to }: PlanChange, now: number, zone: string): string {
  const at = (t: number | null) => (t === null ? '' : timeWords(t, now, zone));
  if (kind === 'added') return `${name} comes in, ${at(to)}`;
  if (kind === 'gone') return `${name} is no longer in it`;
  return `${name} moves to ${at(to)}, was ${at(from)}`;
}

/** The date is missed, or not known to be made. */
export const isLate = (ready: number | null, launchAt: number | null): boolean =>
  launchAt !== null && (ready === null || ready > launchAt);

/** The first coat that a plan breaks on; where only the date is missed, the one that is ready for the water last. */
export const firstOf = ({ plan, labels, films }: PlanAnswer, late: boolean): FirstBreak | null => {
  const water = new Map(Object.values(films).flatMap((film) => film.map((f) => [f.task, f.waterFrom] as const)));
  return firstBreak({ plan, order: labels, late, waterFrom: (task) => water.get(task) });
};
