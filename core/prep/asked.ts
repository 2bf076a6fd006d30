import type { Coat } from '../coat/fold';
import { concentrateL } from '../mix/concentrate';
import type { AbradeFor, Layer } from '../model/layer';
import type { PrepKind, PrepWay } from '../model/prep';
import type { SheetBody } from '../model/sheet';
import type { OpenWork, Surface } from '../model/surface';
import { chemistryOf } from '../system/stack';
import type { Fairing } from './fairing';
import { WET_H, type SurfaceClock, type SurfaceFacts } from './surfaceClocks';
import { RINSE, wash, WAYS, type WayNeeds } from './ways';

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

/** A step that is asked for, before anybody looks at what was done. */
export interface Asked {
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
  /** Since when all of its edges are taped, epoch ms; null or left out: they are not. */
  readonly maskedAt?: number | null;
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

export function workSteps({ openWork = [] }: PrepFacts['surface']): Asked[] {
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
export function standardSteps(
  facts: PrepFacts,
  way: PrepWay | null,
  { rounds, clocks }: { rounds: Fairing; clocks: readonly SurfaceClock[] },
): Asked[] {
  return way === null ? betweenCoats(facts, rounds, clocks) : beforeFirst(facts, way, rounds);
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

function betweenCoats(facts: PrepFacts, rounds: Fairing, clocks: readonly SurfaceClock[]): Asked[] {
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
  const blush = cured && chemistryOf(lastSheet) === 'epoxy' && lastSheet.parts.length > 1;
  const dirt = clocks.find((c) => c.kind === 'clean' && c.until !== null && c.until <= facts.now)?.endedBy;
  const dirty = dirt?.by === 'rain' || dirt?.by === 'washingDown';
  const washes = closed || blush || dirty;
  const old = closed
    ? [ask('degrease', 'state', 'It counts as an old coating now.', needsOf(wash(50), surface.areaM2))]
    : [];
  const rinse = washes
    ? [
        ask(
          'rinse',
          'rule',
          blush ? 'With plain water before anything else: blush of the epoxy sands in.' : 'What fell on it, off.',
          needsOf(RINSE, surface.areaM2),
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
  return [looks, ...old, ...rinse, ...fair, ...abrade, ...wiped, ...mask, ...tack];
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
    fill: no === 0 ? (work && work.note) || 'Low places.' : `Round ${no + 1}: the last look found more.`,
    guideCoat: `Round ${no}: dust or pencil over all of it.`,
    block: `Round ${no}: till the guide comes off evenly.`,
    inspect: `Round ${no}: in low light along the hull.`,
    spotPrime: 'It is fair: prime where it was cut through.',
  };
  return [{ key: `fairing${no}:${stage}`, kind: stage, source: 'work', why: words[stage], needs: {}, anew: true }];
}
