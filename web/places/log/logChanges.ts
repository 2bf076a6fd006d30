import { DateTime } from 'luxon';
import { v7 as uuid } from 'uuid';
import { startEntries, type Against } from '#core/coat/start';
import { estimateDimensions, STAND_IN_DIMENSIONS } from '#core/hull/estimate';
import type { Layer } from '#core/model/layer';
import type { SheetKind, SheetRevision } from '#core/model/sheet';
import type { HullMaterial, ZoneKind } from '#core/model/surface';
import { nameOnlySheet } from '#core/sheet/nameOnly';
import { layerOf } from '#core/system/mend';
import type { Boat, SurfaceRow } from '#contracts/rows/boat';
import type { Change } from '../../data/changes';
import type { ZonePlace } from '../../data/device';
import { now } from '../../data/now';
import { signed, type BoatView, type EntryDraft } from '../../data/store';
import { emptyBuildUp } from '../../data/usual';
import { newSurface, nextSort } from '../../parts/newZone';
import { usualColour } from '../sheets/values';

/** A coat as it is told on one page; null and '' where something new is named instead of picked. */
export interface Told {
  readonly boatId: string | null;
  readonly boatName: string;
  readonly surfaceId: string | null;
  readonly zoneKind: ZoneKind;
  readonly sheetId: string | null;
  readonly productName: string;
  readonly productKind: SheetKind;
  readonly when: 'now' | 'done';
  readonly startedAt: number;
  readonly finishedAt: number;
  readonly reason: string;
}

/** A boat of which only the name is known: middling figures, all marked as nobody's measure. */
export function namedBoat(name: string, timeZone: string, place: ZonePlace | null): Boat {
  const form = 'finKeel';
  const hullMaterial: HullMaterial = 'grp';
  return {
    id: uuid(),
    name,
    hullMaterial,
    keels: 'single',
    form,
    ...STAND_IN_DIMENSIONS,
    ...estimateDimensions({ loaM: STAND_IN_DIMENSIONS.loaM, form }),
    estimated: ['loaM', 'beamM', 'draftM', 'lwlM', 'freeboardM', 'latitudeDeg'],
    place: '',
    latitudeDeg: place?.latitudeDeg ?? 50,
    timeZone,
    waters: null,
    shelter: 'open',
    version: 0,
    deleted: false,
  };
}

export interface Written {
  /** What has to be there before the coat; and the coat itself, nothing for one that only starts now. */
  readonly first: Change[];
  readonly coat: Change[];
  readonly boatId: string;
  readonly surfaceId: string;
  readonly coatId: string;
}

/** All that a told coat comes to. @param options.view the boat's own, null for a new one */
export function changesOf(options: {
  told: Told;
  view: BoatView | null;
  timeZone: string;
  place: ZonePlace | null;
  revision: SheetRevision | null;
  against: readonly Against[];
}): Written {
  const { told, view, timeZone, place, revision, against } = options;
  const boat = view?.boat ?? namedBoat(told.boatName.trim(), timeZone, place);
  const known = view?.surfaces.find((s) => s.id === told.surfaceId);
  const zone = known ?? newSurface(boat, told.zoneKind, nextSort(view?.surfaces ?? []));
  const sheet = revision ?? newRevision(told);
  const build = view?.buildUps.find((b) => b.surfaceId === zone.id) ?? emptyBuildUp(zone);
  const status = view?.statuses.find((s) => s.surfaceId === zone.id);
  const planned = plannedLayer(view, told);
  const layer = planned ?? layerOf(sheet, uuid());
  const at = status?.layersDone ?? 0;
  const coatId = uuid();
  const first: Change[] = [
    ...(view ? [] : [{ kind: 'boat', row: boat } as const, { kind: 'job', row: newJob(boat, told, place) } as const]),
    ...(known ? [] : [{ kind: 'surface', row: zone } as const]),
    ...(revision
      ? []
      : [
          {
            kind: 'sheet',
            id: sheet.sheetId,
            revisionId: sheet.id,
            body: sheet.body,
            withdrawn: false,
            deleted: false,
            version: 0,
          } as const,
        ]),
    ...(planned
      ? []
      : [
          {
            kind: 'buildUp',
            row: { ...build, layers: [...build.layers.slice(0, at), layer, ...build.layers.slice(at)] as Layer[] },
          } as const,
        ]),
  ];
  return {
    first,
    coat: told.when === 'now' ? [] : coatEntries({ told, boat, zone, layer, coatId, against }),
    boatId: boat.id,
    surfaceId: zone.id,
    coatId,
  };
}

/** The coat that the plan has next on the zone, where it is of the product that was told. */
export function plannedLayer(view: BoatView | null, told: Told): Layer | null {
  const next = view?.statuses.find((s) => s.surfaceId === told.surfaceId)?.nextLayer;
  return next && view.sheetById.get(next.sheetRevisionId)?.sheetId === told.sheetId ? next : null;
}

function newRevision({ productName, productKind }: Told): SheetRevision {
  const body = nameOnlySheet({ name: productName.trim(), kind: productKind, colour: usualColour(productKind) });
  return { id: uuid(), sheetId: uuid(), revision: 1, body, createdAt: now() };
}

function newJob(boat: Boat, told: Told, place: ZonePlace | null) {
  const out = told.when === 'now' ? now() : Math.min(now(), told.startedAt);
  return {
    id: uuid(),
    boatId: boat.id,
    outOn: DateTime.fromMillis(out, { zone: boat.timeZone }).toISODate() as string,
    inOn: null,
    yardCostPerDayMinor: null,
    currency: place?.currency ?? 'EUR',
    choices: null,
    planning: null,
    version: 0,
    deleted: false,
  };
}

function coatEntries(options: {
  told: Told;
  boat: Boat;
  zone: SurfaceRow;
  layer: Layer;
  coatId: string;
  against: readonly Against[];
}): Change[] {
  const { told, boat, zone, layer, coatId, against } = options;
  const entries = startEntries({
    coat: {
      boatId: boat.id,
      coatId,
      on: [{ surfaceId: zone.id, layerId: layer.id }],
      sheetRevisionId: layer.sheetRevisionId,
      method: layer.method,
      thinner: 0,
      dftMicron: layer.dftMicron,
      colour: layer.colour,
      colourHex: layer.colourHex,
      batches: [],
    },
    wish: {
      when: 'earlier',
      startedAt: told.startedAt,
      finishedAt: told.finishedAt,
      readings: { airC: null, rh: null, surfaceC: null },
      grit: '',
      reason: told.reason,
    },
    now: now(),
    against,
  });
  return entries.map((e) => ({ kind: 'entry', entry: signed(e as EntryDraft) }));
}
