import type { Coat } from './fold';
import type { Layer } from '../model/layer';
import { type OpenWork, type Surface, PATCHES } from '../model/surface';
import { type CoatClocks } from './coatClocks';
import type { TestedWindow } from '../cure/window';
import type { BuildUp } from '../model/buildUp';
import type { SheetRevision } from '../model/sheet';

/**
 * What the zone says for the next coat. `shut` not before; `bonds` as is; `abrade` first; `closed` treat as an
 * old coating; `ready` nothing of this job beneath; `inHand` a coat is going on; `complete` no coat left;
 * `noTimes` the sheet beneath gives no overcoat time; `noWeather` the weather does not reach back to the coat;
 * `leftBare` a bonding strip that gets no paint;
 * `unready` its surface is not: metal that waited too long, dirt, damp, a guide coat on it;
 * `openWork` something is to be mended before paint; `waits` a patch on a zone that gets other coats first.
 */
export type ZoneState =
  | 'noBuildUp'
  | 'leftBare'
  | 'ready'
  | 'inHand'
  | 'shut'
  | 'bonds'
  | 'abrade'
  | 'closed'
  | 'complete'
  | 'noTimes'
  | 'noWeather'
  | 'openWork'
  | 'unready'
  | 'waits';

/** What a zone's state rests on. */
export interface StateFacts {
  readonly now: number;
  readonly surface: Surface;
  readonly layers: readonly Layer[];
  readonly coats: readonly Coat[];
  readonly lastCoat: Coat | null;
  readonly nextLayer: Layer | null;
  /** Of the last coat; null while it is going on, and where the weather does not reach back to it. */
  readonly clocks: CoatClocks | null;
  readonly buildUps: readonly BuildUp[];
  readonly sheets: readonly SheetRevision[];
  /** Something of its surface keeps the next coat off. */
  readonly unready: boolean;
}

/** Where a zone stands: the first of these that holds. */
export function zoneState(facts: StateFacts): ZoneState {
  const { now, surface, layers, lastCoat, nextLayer, clocks } = facts;
  if (lastCoat && lastCoat.finishedAt === null) return 'inHand';
  if (layers.length === 0 && !lastCoat) return surface.patchKind === 'bondingStrip' ? 'leftBare' : 'noBuildUp';
  if (!nextLayer) return 'complete';
  if (blockingWork(surface).length > 0) return 'openWork';
  if (waitsForZone({ ...facts, nextLayer })) return 'waits';
  const state = !lastCoat ? 'ready' : clocks ? windowState(clocks, now) : 'noWeather';
  return facts.unready && state !== 'shut' ? 'unready' : state;
}

/**
 * A patch that lies on its zone gets its own coats when the zone has come to the same product, or has all of its
 * coats; one that shares a number of coats, when those are on. [CP: the extra coat of a wear band goes on first]
 */
function waitsForZone({ surface, nextLayer, coats, buildUps, sheets }: StateFacts & { nextLayer: Layer }): boolean {
  const { parentId, patchKind, sharedCoats = null } = surface;
  if (!parentId || !patchKind || PATCHES[patchKind] !== 'overlay') return false;
  const onZone = coats.filter((c) => c.on.some((t) => t.surfaceId === parentId));
  if (sharedCoats !== null) return onZone.length < sharedCoats;
  const layers = buildUps.find((b) => b.surfaceId === parentId)?.layers ?? [];
  const done = new Set(onZone.flatMap((c) => c.on.filter((t) => t.surfaceId === parentId).map((t) => t.layerId)));
  const coming = layers.find((l) => !done.has(l.id));
  const product = (layer: Layer) =>
    sheets.find((s) => s.id === layer.sheetRevisionId)?.sheetId ?? layer.sheetRevisionId;
  return coming !== undefined && product(coming) !== product(nextLayer);
}

/**
 * Work on a zone that has to be done before it is painted; under a stand, that it is moved.
 * @example blockingWork({ openWork: [{ id: 'w', kind: 'underStand', note: '', done: true }] }) // → []
 */
export function blockingWork({ openWork = [], patchKind }: Pick<Surface, 'openWork' | 'patchKind'>): OpenWork[] {
  const open = openWork.filter((w) => !w.done);
  const underStand = patchKind === 'standPad' && !openWork.some((w) => w.kind === 'underStand');
  return underStand ? [...open, UNDER_STAND] : open;
}

/** Where a stand stands nothing can be painted until somebody says that it was moved. */
export const UNDER_STAND: OpenWork = { id: 'stand', kind: 'underStand', note: '', done: false };

/**
 * Which side of its window a coat is on.
 * @example
 *   windowState(
 *     coatClocks({ coat: coats[0], sheet, following: copper.body, temps, readings: [], hours: steady }),
 *     noon + 5 * hour,
 *   ) // → 'bonds'
 */
export function windowState(
  clocks: CoatClocks,
  now: number,
): Extract<ZoneState, 'shut' | 'bonds' | 'abrade' | 'closed' | 'noTimes'> {
  const { window } = clocks;
  if (!window) return 'noTimes';
  if (window.opensAt === null || now < window.opensAt) return 'shut';
  if (window.closesAt !== null && now > window.closesAt) return 'closed';
  if (clocks.alwaysAbrade) return 'abrade';
  if (clocks.abradeFrom !== null && now > clocks.abradeFrom && !isOnByHand(window, now)) return 'abrade';
  if (window.bondsUntil !== null && now > window.bondsUntil) return isOnByHand(window, now) ? 'bonds' : 'abrade';
  return 'bonds';
}

/** Past what was worked out, a print of the thumb has said that it still bonds. */
function isOnByHand({ handTest, byHandUntil }: Pick<TestedWindow, 'handTest' | 'byHandUntil'>, now: number): boolean {
  return handTest !== null && byHandUntil !== null && now >= handTest.at && now <= byHandUntil;
}
