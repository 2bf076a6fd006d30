import { DateTime } from 'luxon';
import type { Content, TableCell, TDocumentDefinitions } from 'pdfmake/interfaces';
import { dewPointC } from '#core/air/dewPoint';
import { weatherAt } from '#core/air/weather';
import { litresPerM2 } from '#core/film/layer';
import { formatQuantity, type UnitChoice } from '#core/units/format';
import type { CalendarMoment } from '../../parts/calendar';
import { PAGE_FONT } from '../../parts/pdf';
import { METHOD_WORDS } from '../../parts/words';
import type { PlanAnswer } from '../../workers/plan';
import type { BoatPlan } from './usePlan';

/** Tasks, last calls, appointments and the launch as moments of a calendar; ids stay, so that importing again updates. */
export function planMoments(plan: BoatPlan, answer: PlanAnswer): CalendarMoment[] {
  const { names, view, planning, launchAt } = plan;
  const where = view.boat.place;
  const title = (what: string) => `${view.boat.name}, ${what}`;
  const tasks = answer.plan.tasks.map((t) => ({
    id: `${view.boat.id}-${t.id}`,
    at: t.start,
    until: t.end,
    title: title(`${names.zone(t.zone)}: ${names.of(t.id)} (${t.painters.join(', ')})`),
    where,
  }));
  const calls = Object.values(answer.films)
    .flat()
    .flatMap((f, _, all) => {
      const follows = all.some((n) => n.start > f.start && n !== f);
      if (f.bondsUntil === null || f.bondsUntil < answer.now || !follows) return [];
      const zone = f.task.split(':')[1] ?? '';
      const what = title(`${names.zone(zone)}: ${names.of(f.task)} stops bonding as is`);
      return [{ id: `${view.boat.id}-call-${f.task}`, at: f.bondsUntil, title: what, where }];
    });
  const fixed = planning.appointments.map((a) => ({
    id: `${view.boat.id}-${a.id}`,
    at: a.from,
    until: a.to,
    title: title(a.name),
    where,
  }));
  const launch =
    launchAt === null ? [] : [{ id: `${view.boat.id}-launch`, at: launchAt, title: title('launch'), where }];
  return [...tasks, ...calls, ...fixed, ...launch];
}

/** The plan as rows of a table, times in the boat's own zone. */
export function planCells({ names, view }: BoatPlan, answer: PlanAnswer): string[][] {
  const at = (t: number) =>
    DateTime.fromMillis(t, { zone: view.boat.timeZone }).toISO({ suppressSeconds: true, suppressMilliseconds: true }) ??
    '';
  return [
    ['start', 'end', 'zone', 'kind', 'task', 'painters', 'why'],
    ...answer.plan.tasks.map((t) => [
      at(t.start),
      at(t.end),
      names.zone(t.zone),
      t.kind,
      names.of(t.id),
      t.painters.join(', '),
      names.say(t.why),
    ]),
  ];
}

/** A page for each day: who does what, where, with what, how much, in which conditions. */
export function daySheets(plan: BoatPlan, answer: PlanAnswer, units: UnitChoice): TDocumentDefinitions {
  const { view } = plan;
  const zone = view.boat.timeZone;
  const days = new Map<string, (typeof answer.plan.tasks)[number][]>();
  for (const task of answer.plan.tasks) {
    const day = DateTime.fromMillis(task.start, { zone }).toFormat('cccc d LLLL yyyy');
    days.set(day, [...(days.get(day) ?? []), task]);
  }
  const content = [...days].flatMap(([day, tasks], i): Content[] => [
    { text: `${view.boat.name}, ${day}`, fontSize: 18, bold: true, ...(i > 0 ? { pageBreak: 'before' as const } : {}) },
    {
      layout: 'lightHorizontalLines',
      margin: [0, 8, 0, 8],
      table: {
        headerRows: 1,
        widths: [62, 60, '*', 'auto', 'auto'],
        body: [
          ['When', 'Who', 'What', 'How much', 'The air then'],
          ...tasks.map((t) => dayRow(plan, answer, t, units)),
        ],
      },
    },
  ]);
  return {
    info: { title: `Day sheets, ${view.boat.name}` },
    pageSize: 'A4',
    pageMargins: [40, 40, 40, 40],
    defaultStyle: { font: PAGE_FONT, fontSize: 10.5 },
    content: [
      ...content,
      {
        text: 'Read air and surface at the hull before each coat: a forecast is not a reading. Follow the maker’s current sheet, masks and gloves, and your local rules.',
        fontSize: 9,
      },
    ],
  };
}

function dayRow(
  plan: BoatPlan,
  answer: PlanAnswer,
  task: PlanAnswer['plan']['tasks'][number],
  units: UnitChoice,
): TableCell[] {
  const { names, view, boatWeather } = plan;
  const clock = (t: number) => DateTime.fromMillis(t, { zone: view.boat.timeZone }).toFormat('HH:mm');
  const label = answer.labels.find((l) => l.task === task.id);
  const layer = label?.layer ?? null;
  const sheet = layer ? view.sheetById.get(layer.sheetRevisionId)?.body : undefined;
  const surface = view.surfaces.find((s) => s.id === task.zone);
  const litres = layer && sheet && surface ? litresPerM2({ sheet, layer }) * surface.areaM2 : null;
  const air = boatWeather ? weatherAt(boatWeather.hours, task.start) : null;
  const conditions = air
    ? `${formatQuantity('temperature', air.airC, units)}, ${Math.round(air.rh * 100)} %, dew ${formatQuantity('temperature', dewPointC(air), units)}`
    : '';
  return [
    `${clock(task.start)}–${clock(task.end)}`,
    task.painters.join(', '),
    `${names.zone(task.zone)}: ${names.of(task.id)}${sheet && layer ? `, ${sheet.name}, ${METHOD_WORDS[layer.method].toLowerCase()}` : ''}`,
    litres === null ? '' : formatQuantity('volume', litres, units),
    conditions,
  ];
}
