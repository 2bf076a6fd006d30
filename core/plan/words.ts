import type { ItemClocks } from './clocks';
import type { Item, Model } from './model';
import type { PlanViolation } from './problem';
import { breaksWith, copyPlacement, isPlaced, type Broken, type Job, type Placement } from './score';
import { fixedStarts } from './starts';

/** What keeps a task from starting a step earlier; `now`: it starts at once; `room`: nothing, but it leaves more room so. */
export interface PlanReason {
  readonly rule: Broken['rule'] | 'now' | 'room';
  /** Id of the other task, the painter or the appointment; null where there is none. */
  readonly other: string | null;
}

/** The first of these that holds is told: what the paint asks comes before what people's hours do. */
const TOLD_FIRST: readonly Broken['rule'][] = [
  'minimum',
  'abrade',
  'zone',
  'order',
  'together',
  'limits',
  'rain',
  'appointment',
  'bear',
  'booked',
  'changeover',
  'fresh',
  'tack',
  'maximum',
  'hours',
  'open',
];

/** Why an item of a plan is where it is: it is moved a step earlier, and what breaks is the reason. */
export function reasonOf(job: Job, placement: Placement, index: number): PlanReason {
  const { model } = job;
  const start = placement.start[index] as number;
  if (start === 0) return { rule: 'now', other: null };
  const before = new Set(breaksWith(job, placement, index).map(keyOf));
  const earlier = copyPlacement(placement);
  earlier.start[index] = start - 1;
  const broken = breaksWith(job, earlier, index).filter((b) => !before.has(keyOf(b)));
  const told = TOLD_FIRST.flatMap((rule) => broken.filter((b) => b.rule === rule))[0];
  if (!told) return { rule: 'room', other: null };
  return { rule: told.rule, other: otherName(model, told.item === index ? told : { ...told, other: told.item }) };
}

const keyOf = ({ item, rule, other }: Broken) => `${item} ${rule} ${other}`;

function otherName(model: Model, { rule, other }: Broken): string | null {
  if (rule === 'hours') return model.painters[other]?.id ?? null;
  if (rule === 'appointment' || rule === 'bear') return model.appointments[other]?.id ?? null;
  if (rule === 'order' && other <= -2) return model.appointments[-2 - other]?.id ?? null;
  if (rule === 'notReady') return model.boats[other]?.id ?? null;
  return model.items[other]?.id ?? null;
}

/** The reason as a sentence, with the ids of the problem as names. */
export function reasonSentence({ rule, other }: PlanReason): string {
  switch (rule) {
    case 'now':
      return 'It starts at once.';
    case 'room':
      return 'Earlier would be possible; here its windows have most room.';
    case 'hours':
      return `${other} is not at work before.`;
    case 'booked':
      return `The painter is busy with ${other}.`;
    case 'changeover':
      return `Brushes and rollers are changed over between this and ${other}.`;
    case 'open':
      return 'The zone may not be worked before.';
    case 'limits':
      return 'Started earlier, it would meet air outside its limits before it is touch dry.';
    case 'rain':
      return 'It rains before.';
    case 'zone':
      return `${other} takes up the zone, until it is dry.`;
    case 'together':
      return `${other} is on a zone that is not worked together with this one.`;
    case 'appointment':
      return `${other} takes up the zone.`;
    case 'bear':
      return `It would not be hard enough by ${other}.`;
    case 'order':
      return `It comes after ${other}.`;
    case 'minimum':
      return `The shortest overcoat time of ${other} has to be reached.`;
    case 'tack':
    case 'maximum':
      return `Earlier, the window towards ${other} would close too soon.`;
    case 'abrade':
      return `The abrading has to wait until ${other} can be sanded.`;
    case 'fresh':
      return `Earlier, ${other} would come too late for it.`;
    case 'chain':
    case 'immersionMax':
    case 'unplaced':
    case 'notReady':
      return 'The rest of the plan holds it here.';
  }
}

/** A broken rule as a sentence that names the task and what is against it. */
export function violationOf(job: Job, placement: Placement, broken: Broken): PlanViolation {
  const { model } = job;
  const other = otherName(model, broken) ?? '';
  if (broken.rule === 'notReady')
    return {
      task: `boat:${other}`,
      limit: 'notReady',
      sentence: `${other} is not ready for the water by the end of the plan. Plan more days, or leave something out.`,
    };
  const { id } = model.items[broken.item] as Item;
  return { task: id, limit: broken.rule, sentence: sentenceOf(job, placement, broken, id, other) };
}

function sentenceOf(job: Job, placement: Placement, { item, rule }: Broken, id: string, other: string): string {
  switch (rule) {
    case 'hours':
      return `${id}: ${other} is not at work all that time.`;
    case 'booked':
      return `${id}: its painter is busy with ${other}.`;
    case 'changeover':
      return `${id}: too little time to change over from ${other}.`;
    case 'open':
      return `${id}: the zone may not be worked then.`;
    case 'limits':
      return `${id}: a limit of air or surface is broken before it is touch dry.`;
    case 'rain':
      return `${id}: it rains, and this has to be done dry.`;
    case 'zone':
      return `${id}: ${other} still takes up the zone.`;
    case 'together':
      return `${id}: ${other} is on a zone that is not worked together with this one.`;
    case 'appointment':
      return `${id}: it is in the way of ${other}.`;
    case 'bear':
      return `${id}: it is not hard enough by ${other}, and not put on after it.`;
    case 'order':
      return `${id}: it has to come after ${other}, and does not.`;
    case 'minimum':
      return `${id}: the shortest overcoat time of ${other} is not reached.`;
    case 'tack':
      return `${id}: ${other} no longer bonds as is, and is not abraded.`;
    case 'maximum':
      return `${id}: the window over ${other} is closed.`;
    case 'abrade':
      return `${id}: ${other} has to be abraded in between, once it can be sanded.`;
    case 'fresh':
      return `${id}: too late after ${other}, or it rained in between.`;
    case 'chain':
      return `${id}: it may not be done without ${other}, which is left out.`;
    case 'immersionMax':
      return `${id}: its longest time to the water is over by then.`;
    case 'unplaced':
      return unplacedSentence(job, placement, job.model.items[item] as Item);
    case 'notReady':
      return `${id} is not ready.`;
  }
}

/** What stands against a task that is left out: the first thing that alone is enough. */
function unplacedSentence(job: Job, placement: Placement, item: Item): string {
  const { model, clocks } = job;
  const { id } = item;
  if (item.crews.length === 0) return `${id} is left out: nobody can do it. Name a painter for it.`;
  const chained = item.followers.find((f) => {
    const next = model.items[f] as Item;
    const fresh = next.links.some((l) => l.before === item.index && l.fresh);
    return !isPlaced(placement, f) && !next.done && (fresh || next.coat?.over?.chained === true);
  });
  const fixed = fixedStarts(job);
  const any = (starts: Uint8Array) => starts.includes(1);
  if (!item.crews.some((_, crew) => any(fixed(item.index, crew))))
    return `${id} is left out: ${neverSentence(job, item)}`;
  const missing = item.links.find((l) => !(model.items[l.before] as Item).done && !isPlaced(placement, l.before));
  if (missing)
    return `${id} is left out: it comes after ${(model.items[missing.before] as Item).id}, which is left out.`;
  if (chained !== undefined)
    return `${id} is left out: ${(model.items[chained] as Item).id} has to follow it in time, and cannot.`;
  const own = clocks[item.index] as ItemClocks;
  if (own.over && item.coat?.over?.minimum)
    return `${id} is left out: no start is left in the window over ${item.coat.over.coat} that its people, the air and the days of the plan allow.`;
  return `${id} is left out: where it could be done, its people or the zone are taken, or the days of the plan end first.`;
}

/** No start at all, whatever else is planned: is it the hours, or the air? */
function neverSentence({ model, clocks }: Job, item: Item): string {
  const { now } = model.problem;
  const zone = model.zones[item.zone] as Model['zones'][number];
  const fits = (spans: readonly { from: number; to: number }[], steps: number) =>
    spans.some((s) => Math.min(s.to, model.problem.until) - Math.max(s.from, now) >= steps * model.stepMs);
  const people = item.crews.some(({ painters, steps }) =>
    painters.every((p) => fits((model.painters[p] as Model['painters'][number]).available, steps)),
  );
  if (!people) return 'nobody who can do it has hours enough in one go. Give them longer days, or add a painter.';
  if (zone.open && !item.crews.some(({ steps }) => fits(zone.open ?? [], steps)))
    return 'the zone is never open long enough. Give it light, or more hours.';
  const { nextBreak, nextRain } = clocks[item.index] as ItemClocks;
  if (nextBreak) {
    let holds = 0;
    for (let k = 0; k <= model.last; k += 1) if ((nextBreak[k] as number) > k) holds += 1;
    return holds === 0
      ? 'the air is outside its limits in all the days of the plan. Shelter or heat it, or take another product.'
      : 'the air never keeps within its limits, in its people’s hours, until it is touch dry. Shelter or heat it, or take another product.';
  }
  return item.needsDry && nextRain
    ? 'it is never dry long enough in its people’s hours. Cover the zone.'
    : 'no time in the plan is open for it. Look at its appointments and what it has to follow.';
}
