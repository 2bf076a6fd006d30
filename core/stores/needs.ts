import { errorGroup } from '../hull/uncertainty';
import { coatOf, type Coat } from '../coat/fold';
import { blockingWork } from '../coat/zoneState';
import type { PrepWork } from '../prep/prepWork';
import type { BuildUp } from '../model/buildUp';
import type { Surface } from '../model/surface';
import type { TimeTable } from '../model/timeTable';
import { layerPerM2, type LayerPerM2 } from '../film/layer';
import type { Layer } from '../model/layer';
import { USUAL_RATE_M2_PER_H } from '../film/spreading';
import { planBatches } from '../mix/batchPlan';
import { batchLimitL, potLifeH } from '../mix/pot';
import type { SheetBody, SheetRevision } from '../model/sheet';
import type { WorkDone } from './consumables';
import type { CoatToBuy } from './shopping';

/** A coat that is still to go on, with what it takes. */
export interface CoatNeed extends CoatToBuy {
  readonly surfaceId: string;
  readonly zoneName: string;
  readonly layerId: string;
  /** Its place in the build-up, from 1. */
  readonly number: number;
  readonly sheetId: string;
  readonly sheetRevisionId: string;
  readonly thinnerL: number;
  readonly method: Layer['method'];
  readonly tipped: boolean;
  readonly areaM2: number;
  readonly abraded: boolean;
  readonly batches: number;
}

/** Temperature that batches are counted at, °C: what a pot holds on a mild day. */
const MILD_C = 20;

const mildPotLifeH = new WeakMap<TimeTable, number>();

/** Pot life on a mild day, worked out once for each sheet: a job asks for it hundreds of times at every frame of a drag. */
function potLifeOnMildDayH(table: TimeTable): number {
  const known = mildPotLifeH.get(table);
  if (known !== undefined) return known;
  const { hours } = potLifeH({ table, tempC: MILD_C });
  mildPotLifeH.set(table, hours);
  return hours;
}

/** How many batches a coat is mixed in, so that each goes on within its pot life at 20 °C, by one painter. */
export function batchesFor({
  litres,
  areaM2,
  method,
  sheet,
}: {
  litres: number;
  areaM2: number;
  method: Layer['method'];
  sheet: SheetBody;
}): number {
  if (litres <= 0 || areaM2 <= 0) return 0;
  if (sheet.potLife === null) return 1;
  const limitL = batchLimitL({
    potLifeH: potLifeOnMildDayH(sheet.potLife),
    inductionH: (sheet.inductionMin ?? 0) / 60,
    rateM2PerH: USUAL_RATE_M2_PER_H[method],
    painters: 1,
    litresPerM2: litres / areaM2,
  });
  return planBatches({ stillL: litres, limitL })?.count ?? 1;
}

export interface Needs {
  readonly needs: readonly CoatNeed[];
  /** Coats whose figures cannot be worked out, named. */
  readonly without: readonly string[];
}

/**
 * The coats of a boat that are still to go on, zone by zone. A coat in hand needs what its batches have not brought yet;
 * one that is finished needs nothing more. A coat whose figures cannot be worked out is left out and named.
 * @returns litres of unthinned mixed paint
 * @example
 *   coatNeeds({
 *     surfaces: [zone],
 *     buildUps: [{ surfaceId: 'bottom', layers }],
 *     coats,
 *     revisionById,
 *   }).needs.map((n) => n.layerId) // → ['second']
 */
export function coatNeeds({
  surfaces,
  buildUps,
  coats,
  revisionById,
}: {
  surfaces: readonly Surface[];
  buildUps: readonly BuildUp[];
  coats: readonly Coat[];
  revisionById: ReadonlyMap<string, SheetRevision>;
}): Needs {
  const zones = surfaces.map((surface) => {
    const layers = buildUps.find((b) => b.surfaceId === surface.id)?.layers ?? [];
    return { surface, layers, perM2: perM2Of(layers, revisionById) };
  });
  const wholeOf = wholeOfCoats(zones);
  const each = zones.map((zone) => zoneNeeds({ ...zone, coats, revisionById, wholeOf }));
  return { needs: each.flatMap((e) => e.needs), without: each.flatMap((e) => e.without) };
}

/** What each coat takes of a m²; null where its sheet is not here or its figures cannot be worked out. */
export function perM2Of(
  layers: readonly Layer[],
  revisionById: ReadonlyMap<string, SheetRevision>,
): (LayerPerM2 | null)[] {
  return layers.map((layer) => {
    const sheet = revisionById.get(layer.sheetRevisionId)?.body;
    if (!sheet) return null;
    try {
      return layerPerM2({ layer, sheet });
    } catch {
      return null;
    }
  });
}

/** What a coat takes of a whole zone, litres without thinner; undefined where that is not known. */
export type WholeOf = (surfaceId: string, layerId: string) => number | undefined;

/** What every coat of some zones takes whole. */
export function wholeOfCoats(
  zones: readonly {
    readonly surface: Pick<Surface, 'id' | 'areaM2'>;
    readonly layers: readonly Pick<Layer, 'id'>[];
    readonly perM2: readonly (LayerPerM2 | null)[];
  }[],
): WholeOf {
  const whole = new Map<string, number>();
  for (const { surface, layers, perM2 } of zones)
    layers.forEach((layer, i) => {
      const litres = (perM2[i]?.litres ?? Number.NaN) * surface.areaM2;
      if (litres >= 0) whole.set(`${surface.id}/${layer.id}`, litres);
    });
  return (surfaceId, layerId) => whole.get(`${surfaceId}/${layerId}`);
}

/** Litres without thinner that a coat's batches have brought to one of its zones: each gets of them as it takes. */
function broughtTo(coat: Coat, surfaceId: string, ownL: number, wholeOf: WholeOf): number {
  const paintL = coat.batches.reduce((sum, b) => sum + b.unthinnedL, 0);
  const allL = coat.on.reduce(
    (sum, t) => sum + (t.surfaceId === surfaceId ? ownL : (wholeOf(t.surfaceId, t.layerId) ?? ownL)),
    0,
  );
  return allL > 0 ? (paintL * ownL) / allL : 0;
}

/** The coats of one zone that are still to go on. @param options.perM2 of each of its layers */
export function zoneNeeds({
  surface,
  layers,
  perM2,
  coats,
  revisionById,
  wholeOf,
}: {
  surface: Surface;
  layers: readonly Layer[];
  perM2: readonly (LayerPerM2 | null)[];
  coats: readonly Coat[];
  revisionById: ReadonlyMap<string, SheetRevision>;
  wholeOf: WholeOf;
}): Needs {
  const needs: CoatNeed[] = [];
  const without: string[] = [];
  const { areaM2, areaShare } = surface;
  layers.forEach((layer, i) => {
    const on = coatOf(coats, surface.id, layer.id);
    if (on && on.finishedAt !== null) return;
    const revision = revisionById.get(layer.sheetRevisionId);
    const q = perM2[i];
    if (!revision || revision.body.nameOnly || !q || !(areaM2 >= 0)) {
      without.push(`${surface.name}, coat ${i + 1}`);
      return;
    }
    const wholeL = q.litres * areaM2;
    const brought = on ? broughtTo(on, surface.id, wholeL, wholeOf) : 0;
    const likelyL = Math.max(0, wholeL - brought);
    needs.push({
      zone: (surface.area && errorGroup(surface.area.method)) ?? surface.id,
      surfaceId: surface.id,
      zoneName: surface.name,
      layerId: layer.id,
      number: i + 1,
      sheetId: revision.sheetId,
      sheetRevisionId: revision.id,
      patch: Boolean(surface.parentId),
      likelyL,
      areaShare,
      thinnerL: wholeL > 0 ? (q.thinnerL * areaM2 * likelyL) / wholeL : 0,
      method: layer.method,
      tipped: layer.tip ?? false,
      areaM2,
      abraded: layer.prep === 'abrade',
      batches: batchesFor({ litres: likelyL, areaM2, method: layer.method, sheet: revision.body }),
    });
  });
  return { needs, without };
}

const NO_PREP_WORK: PrepWork = { abradedM2: 0, concentrateL: 0 };

/**
 * What coats to come amount to, by what rules of consumables count.
 * @example workOf({ needs, borderM: 4, days: 2 }).coats.length // → 2
 */
export function workOf({
  needs,
  borderM,
  prep = NO_PREP_WORK,
  days,
}: {
  needs: readonly CoatNeed[];
  borderM: number;
  prep?: PrepWork;
  days: number;
}): WorkDone {
  return {
    zones: new Set(needs.map((n) => n.surfaceId)).size,
    coats: needs.map((n) => ({
      method: n.method,
      tipped: n.tipped,
      areaM2: n.areaM2,
      abradedM2: n.abraded ? n.areaM2 : 0,
      batches: n.batches,
    })),
    borderM,
    prepM2: prep.abradedM2,
    washL: prep.concentrateL,
    days,
  };
}

/**
 * Whether structure is still open beneath a zone's paint; stands to be moved are no structure.
 * @example structureIsOpen({ openWork: [{ id: 'w', kind: 'laminate', note: '', done: false }] }) // → true
 */
export function structureIsOpen(surface: Pick<Surface, 'openWork'>): boolean {
  return blockingWork(surface).some((w) => w.kind !== 'underStand');
}
