import type { Coat } from '../coat/fold';
import { concentrateL } from '../mix/concentrate';
import type { AbradeFor, Layer } from '../model/layer';
import type { PrepKind, PreparedBody, PrepWay } from '../model/prep';
import type { SheetBody } from '../model/sheet';
import type { OpenWork, Surface } from '../model/surface';
import { chemistryOf } from '../system/stack';
import { fairing, type Fairing } from './fairing';
import type { Logged } from './prepLog';
import {
  cleans,
  doneSince,
  keepsOff,
  surfaceClocks,
  WET_H,
  wets,
  type SurfaceClock,
  type SurfaceFacts,
} from './surfaceClocks';
import { usualWay, WAYS, type WayNeeds } from './ways';

/** What asks for a step. */
export type WhySource = 'rule' | 'sheet' | 'school' | 'state' | 'work' | 'added';

export interface StepNeeds {
  readonly grit?: number;
  readonly abradeFor?: AbradeFor;
  readonly parts?: number;
  readonly waterL?: number;
  readonly concentrateL?: number;
  readonly dryH?: number;
  readonly fan?: true;
  readonly moistureMax?: number;
  readonly profileMicron?: readonly [number, number];
  readonly cleanliness?: string;
}

/** `again`: it was done, and has run out. `ifNeeded`: the list does not wait for it. */
export type StepState = 'toDo' | 'done' | 'again' | 'leftOut' | 'ifNeeded';

export interface PrepStep {
  /** The same from list to list: a kind, and what sets several of it apart. */
  readonly key: string;
  readonly kind: PrepKind;
  readonly state: StepState;
  readonly source: WhySource;
  readonly why: string;
  readonly needs: StepNeeds;
  /** Open work that it belongs to. */
  readonly workId?: string;
  /** As it was last done. */
  readonly done: Logged<PreparedBody> | null;
  /** Why it is to be done again. */
  readonly ranOut: RanOut | null;
  /** Why it is left out. */
  readonly reason: string | null;
}

/** What took a step back onto the list, and when. */
export type RanOut =
  | { readonly by: 'time' | 'rain' | 'washingDown' | 'dust' | 'overspray' | 'hands' | 'turned'; readonly at: number }
  /** A later step undid it: dust after wiping, water after drying. */
  | { readonly by: 'step'; readonly kind: PrepKind; readonly at: number };

/** What a zone's list is worked out from. */
export interface PrepFacts extends Omit<SurfaceFacts, 'surface' | 'lastCoat' | 'lastLayer'> {
  readonly now: number;
  readonly surface: Pick<Surface, 'id' | 'kind' | 'substrate' | 'existing' | 'areaM2'> & {
    readonly openWork?: readonly OpenWork[];
  };
  readonly lastCoat: Pick<Coat, 'startedAt' | 'finishedAt' | 'on'> | null;
  readonly lastLayer: Pick<Layer, 'holdMonths' | 'primerFor'> | null;
  readonly nextLayer: Pick<Layer, 'prep' | 'grit' | 'abradeFor' | 'wipe' | 'mask'> | null;
  /** How the window of the last coat stands: whether it bonds as it is. */
  readonly bonds: boolean;
  /** Past a longest time even when abraded: an old coating. */
  readonly closed: boolean;
  /** Edges that are taped for the next coat. */
  readonly masks: boolean;
}

export interface PrepList {
  readonly way: PrepWay | null;
  readonly steps: readonly PrepStep[];
  readonly clocks: readonly SurfaceClock[];
  /** What of the clocks keeps the next coat off. */
  readonly keptOffBy: readonly SurfaceClock[];
  readonly fairing: Fairing;
  /** Steps that the next coat waits for. */
  readonly open: number;
  readonly ready: boolean;
}

interface Asked {
  readonly key: string;
  readonly kind: PrepKind;
  readonly source: WhySource;
  readonly why: string;
  readonly needs: StepNeeds;
  readonly ifNeeded?: true;
  readonly workId?: string;
  /** Asked anew by what was found: what was done of its kind before does not count. */
  readonly anew?: true;
}

/** Leaves dust on the face. */
const DUSTY: ReadonlySet<PrepKind> = new Set([
  'abrade',
  'blast',
  'block',
  'grind',
  'needleGun',
  'scrape',
  'strip',
  'wireBrush',
] as const);
const DUSTED: ReadonlySet<PrepKind> = new Set(['vacuum', 'wipe', 'tack'] as const);

/**
 * What stands between a zone and its next coat, in order: from its substrate, what is on it, the next coat of its
 * build-up and that coat's sheet, its open work, and what was logged since the last coat. What ran out (a wash that was
 * rained on, metal that waited too long) is asked for again. Pure.
 * @param facts areas in m², times in epoch ms; a list changed by hand comes with the log
 * @returns steps in order, each with why, what it needs (grit, litres, hours, µm), and what was done
 * @example
 *   prepSteps({
 *     now: noon,
 *     surface: { ...zone, existing: 'bare' },
 *     log: prepOf([], 'bottom'),
 *     lastCoat: null,
 *     lastSheet: null,
 *     lastLayer: null,
 *     nextLayer: layer,
 *     nextSheet: sheet,
 *     rain: [],
 *     bonds: false,
 *     closed: false,
 *     masks: false,
 *   }).steps.map((s) => s.kind) // → ['lookOver', 'degrease', 'abrade', 'rinse', 'dry', 'wipe']
 */
export function prepSteps(facts: PrepFacts): PrepList {
  const { surface, log, lastCoat, now } = facts;
  const way = lastCoat ? null : (log.plan?.way ?? usualWay(surface));
  const rounds = fairing(log, lastCoat?.startedAt);
  const asked =
    facts.nextLayer || !lastCoat ? arranged([...workSteps(surface), ...standardSteps(facts, way, rounds)], facts) : [];
  const clocks = surfaceClocks(facts);
  const done = doneSince(facts);
  const leftOut = new Map(log.plan?.leftOut.map((l) => [l.key, l.reason]));
  const steps = asked.map((a): PrepStep => {
    const own = lastOf(done, a);
    const reason = leftOut.get(a.key) ?? null;
    const drying = clocks.find((c) => c.kind === 'drying');
    const ranOut = own ? ranOutBy(a, own, { facts, done, clocks }) : null;
    const dried = a.kind === 'dry' && !own && drying?.until != null && now >= drying.until;
    const state =
      reason !== null
        ? 'leftOut'
        : own || dried
          ? ranOut && ranOut.at <= now
            ? 'again'
            : 'done'
          : a.ifNeeded
            ? 'ifNeeded'
            : 'toDo';
    return { ...a, state, done: own, ranOut, reason };
  });
  const keptOffBy = keepsOff(clocks, now);
  const open = steps.filter((s) => s.state === 'toDo' || s.state === 'again').length;
  return { way, steps, clocks, keptOffBy, fairing: rounds, open, ready: open === 0 && keptOffBy.length === 0 };
}

/** The newest log of a step: by its key where it was added by hand, by its kind otherwise. */
function lastOf(done: readonly Logged<PreparedBody>[], a: Asked): Logged<PreparedBody> | null {
  if (a.anew) return null;
  return (
    done.findLast((d) =>
      a.workId !== undefined
        ? d.workId === a.workId && d.step === a.kind
        : d.key !== undefined
          ? d.key === a.key
          : d.step === a.kind && a.source !== 'added' && d.workId === undefined,
    ) ?? null
  );
}

/** Why something that was done counts no more: by dirt, by time, or by what was done after it. */
function ranOutBy(
  a: Asked,
  own: Logged<PreparedBody>,
  by: { facts: PrepFacts; done: readonly Logged<PreparedBody>[]; clocks: readonly SurfaceClock[] },
): RanOut | null {
  const { facts, done, clocks } = by;
  if (cleans(a.kind) && a.kind !== 'degrease' && a.kind !== 'saltRinse') {
    const dirty = clocks.find((c) => c.kind === 'clean' && c.endedBy !== null)?.endedBy;
    if (dirty && dirty.at > own.at) return { by: dirty.by, at: dirty.at };
  }
  if (a.kind === 'dry') {
    const wet = facts.rain.find((h) => (h.rainMm ?? 0) >= 0.1 && h.at > own.at);
    if (wet) return { by: 'rain', at: wet.at };
    const later = done.find((d) => wets(d.step) && d.at > own.at);
    if (later) return { by: 'step', kind: later.step, at: later.at };
  }
  if (DUSTED.has(a.kind)) {
    const later = done.find((d) => DUSTY.has(d.step) && d.at > own.at);
    if (later) return { by: 'step', kind: later.step, at: later.at };
  }
  const metal = clocks.find((c) => c.kind === 'bareMetal');
  if (metal && (a.kind === 'blast' || a.kind === 'grind') && metal.until !== null)
    return { by: metal.endedBy ? 'turned' : 'time', at: metal.until };
  return null;
}

/** The list as a person ordered it, with what was added. */
function arranged(steps: readonly Asked[], { log }: PrepFacts): Asked[] {
  const added = (log.plan?.added ?? []).map((s): Asked => ({
    key: s.key,
    kind: s.kind,
    source: 'added',
    why: s.text,
    needs: {},
  }));
  const order = new Map(log.plan?.order.map((key, i) => [key, i]));
  const all = [...steps, ...added];
  const place = (a: Asked, i: number) => order.get(a.key) ?? order.size + i;
  return all
    .map((a, i) => ({ a, at: place(a, i) }))
    .sort((x, y) => x.at - y.at)
    .map(({ a }) => a);
}

/** What each kind of open work takes before the zone is painted. [CP] */
const WORK_STEPS: Readonly<Record<OpenWork['kind'], readonly (readonly [PrepKind, string])[]>> = {
  repair: [
    ['grind', 'Back to what is sound, edges tapered.'],
    ['dry', 'Nothing damp is closed in.'],
    ['fill', 'Made good, proud of the face.'],
    ['abrade', 'Down to the face around it.'],
  ],
  hotWork: [
    ['lookOver', 'Paint, lining and cables behind the plate cleared away; a fire watch.'],
    ['weld', 'The heat burns the coating on both faces.'],
    ['grind', 'Bright metal both sides: a clock of its own.'],
    ['inspect', 'The back looked at, and whether it is tight.'],
  ],
  drilling: [
    ['other', 'Holes drilled and fitted dry, before the finish.'],
    ['spotPrime', 'Bare edges of the holes sealed.'],
  ],
  // Round by round, by what each look finds.
  fairing: [],
  drying: [['dry', 'Till the meter says so.']],
  underStand: [['other', 'The yard moves the stand.']],
};

function workSteps({ openWork = [] }: PrepFacts['surface']): Asked[] {
  return openWork
    .filter((w) => !w.done && w.id !== 'stand')
    .flatMap((w) =>
      WORK_STEPS[w.kind].map(([kind, why]): Asked => ({
        key: `${w.id}:${kind}`,
        kind,
        source: 'work',
        why: w.note ? `${w.note}: ${why.charAt(0).toLowerCase()}${why.slice(1)}` : why,
        needs: {},
        workId: w.id,
      })),
    );
}

/** Before the first coat the usual way; between coats what the window, the sheet and the school ask. */
function standardSteps(facts: PrepFacts, way: PrepWay | null, rounds: Fairing): Asked[] {
  return way === null ? betweenCoats(facts, rounds) : beforeFirst(facts, way, rounds);
}

function beforeFirst(facts: PrepFacts, way: PrepWay, rounds: Fairing): Asked[] {
  const { surface, nextSheet, nextLayer, masks } = facts;
  const steps = WAYS[way]
    .filter((s) => s.kind !== 'mask' || masks || nextLayer?.mask === true)
    .map((s): Asked => {
      const sheetAsks = nextSheet ? sheetNeeds(s.kind, nextSheet) : {};
      const layerAsks = s.kind === 'abrade' && nextLayer?.grit ? { grit: nextLayer.grit } : {};
      const needs = { ...needsOf(s.needs, surface.areaM2), ...sheetAsks, ...layerAsks };
      const source = Object.keys(sheetAsks).length > 0 ? 'sheet' : 'rule';
      return {
        key: s.kind,
        kind: s.kind,
        source,
        why: s.why,
        needs,
        ...(s.ifNeeded ? { ifNeeded: true as const } : {}),
      };
    });
  // Filled, blocked and looked at before it is made clean.
  const clean = steps.findIndex((s) => CLEANING.has(s.kind));
  const at = clean < 0 ? steps.length : clean;
  return [...steps.slice(0, at), ...fairingSteps(surface, rounds), ...steps.slice(at)];
}

const CLEANING: ReadonlySet<PrepKind> = new Set(['vacuum', 'wipe', 'tack', 'mask'] as const);

/** What the sheet of the next coat asks of a step. */
function sheetNeeds(kind: PrepKind, sheet: SheetBody): StepNeeds {
  const { profileMinMicron, profileMaxMicron, cleanliness, surfaceGrit, moistureMax } = sheet;
  if (kind === 'blast')
    return {
      ...(profileMinMicron !== undefined && profileMaxMicron !== undefined
        ? { profileMicron: [profileMinMicron, profileMaxMicron] as const }
        : {}),
      ...(cleanliness === undefined ? {} : { cleanliness }),
    };
  if (kind === 'abrade' && surfaceGrit !== undefined) return { grit: surfaceGrit };
  if (kind === 'dry' && moistureMax !== undefined) return { moistureMax };
  return {};
}

/** A way's needs on an area: litres of water, and of concentrate in it. */
function needsOf(needs: WayNeeds | undefined, areaM2: number): StepNeeds {
  if (!needs) return {};
  const { waterLPerM2, parts, ...rest } = needs;
  if (waterLPerM2 === undefined) return rest;
  const waterL = Math.max(1, Math.ceil(waterLPerM2 * areaM2));
  return parts === undefined
    ? { ...rest, waterL }
    : { ...rest, waterL, parts, concentrateL: concentrateL({ waterL, parts }) };
}

function betweenCoats(facts: PrepFacts, rounds: Fairing): Asked[] {
  const { surface, lastSheet, nextLayer, nextSheet, bonds, closed, masks } = facts;
  if (!nextLayer || !nextSheet) return [];
  const ask = (kind: PrepKind, source: WhySource, why: string, needs: StepNeeds = {}): Asked => ({
    key: kind,
    kind,
    source,
    why,
    needs,
  });
  const abrade = abradeAsked(facts);
  const cured = !bonds && lastSheet !== null;
  const blush = cured && lastSheet !== null && chemistryOf(lastSheet) === 'epoxy' && lastSheet.parts.length > 1;
  const washL = Math.max(1, Math.ceil(2 * surface.areaM2));
  const dirty = surfaceClocks(facts).some((c) => c.kind === 'clean' && c.until !== null && c.until <= facts.now);
  const washes = closed || blush || dirty;
  const wash = closed
    ? [
        ask('degrease', 'state', 'It counts as an old coating now.', {
          waterL: washL,
          parts: 50,
          concentrateL: concentrateL({ waterL: washL, parts: 50 }),
        }),
      ]
    : [];
  const rinse = washes
    ? [
        ask(
          'rinse',
          'rule',
          blush ? 'With plain water before anything else: blush of the epoxy sands in.' : 'What fell on it, off.',
          { waterL: washL },
        ),
        ask('dry', 'rule', 'Before anything goes over it.', { dryH: WET_H }),
      ]
    : [];
  const looks = ask('lookOver', 'rule', 'Runs, nibs, thin and missed places: in daylight.');
  const wiped =
    abrade.length > 0 || nextLayer.wipe
      ? [ask('wipe', abrade.length > 0 ? 'rule' : 'school', 'Dust off, by clean cloths.')]
      : [];
  const gloss = nextSheet.kind === 'topcoat' || nextSheet.kind === 'undercoat';
  const tack = gloss ? [ask('tack', 'rule', 'The last dust, drawn and not pressed.')] : [];
  const mask = masks || nextLayer.mask ? [ask('mask', 'rule', 'Edges, and what is never painted.')] : [];
  const fair = fairingSteps(surface, rounds);
  return [looks, ...wash, ...rinse, ...fair, ...abrade, ...wiped, ...mask, ...tack];
}

/** Whether the next coat wants a scratch, what for, and who says so. */
function abradeAsked({ lastSheet, nextLayer, nextSheet, bonds, closed }: PrepFacts): Asked[] {
  if (!nextLayer || !nextSheet) return [];
  const never = lastSheet?.neverAbrade === true;
  const grit = nextLayer.grit ?? nextSheet.surfaceGrit ?? USUAL_GRIT[nextLayer.abradeFor ?? 'bond'];
  const ask = (source: WhySource, why: string, abradeFor: AbradeFor): Asked[] => [
    { key: 'abrade', kind: 'abrade', source, why, needs: { grit, abradeFor } },
  ];
  if (closed) return ask('state', 'Past its longest time: abraded as an old coating.', 'bond');
  if (!bonds) return ask('state', 'It bonds no more as it is.', 'bond');
  if (nextLayer.prep === 'abrade' && nextLayer.abradeFor !== 'level' && nextLayer.abradeFor !== 'nibs')
    return ask('school', 'Planned so: cured, abraded, coated.', 'bond');
  if (never || !nextLayer.abradeFor) return [];
  return nextLayer.abradeFor === 'level'
    ? ask('school', 'To level it, though it would bond.', 'level')
    : nextLayer.abradeFor === 'nibs'
      ? ask('school', 'Nibs only.', 'nibs')
      : ask('school', 'Planned so.', 'bond');
}

/** Usual grit by task. [CP: 120 to level, 220 before undercoat, 320 between gloss, 400 for nibs] */
const USUAL_GRIT: Readonly<Record<AbradeFor, number>> = { bond: 120, level: 120, nibs: 400 };

/** What fairing asks for next: the first filling of open work, or what the last stage and look left to do. */
function fairingSteps({ openWork = [] }: PrepFacts['surface'], { rounds, next }: Fairing): Asked[] {
  const work = openWork.find((w) => w.kind === 'fairing' && !w.done);
  const stage = next ?? (work && rounds.length === 0 ? 'fill' : null);
  if (stage === null) return [];
  const no = rounds.length;
  const words: Record<typeof stage, string> = {
    fill: no === 0 ? (work?.note ?? '') || 'Low places.' : `Round ${no + 1}: the last look found more.`,
    guideCoat: `Round ${no}: dust or pencil over all of it.`,
    block: `Round ${no}: till the guide comes off evenly.`,
    inspect: `Round ${no}: in low light along the hull.`,
    spotPrime: 'It is fair: prime where it was cut through.',
  };
  return [{ key: `fairing${no}:${stage}`, kind: stage, source: 'work', why: words[stage], needs: {}, anew: true }];
}
