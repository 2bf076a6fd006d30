import { DateTime } from 'luxon';
import { type SourcedHour } from '#core/air/weather';
import type { LogEntry } from '#core/model/log';
import { applyHours } from '#core/coat/coatAdvice';
import { coatClocks, type CoatClocks } from '#core/coat/coatClocks';
import { zoneSeries } from '#core/coat/zoneSeries';
import { NO_JOB_PLAN } from '#core/model/jobPlan';
import type { Layer } from '#core/model/layer';
import { USUAL_LOSS } from '#core/film/spreading';
import type { AreaRecord } from '#core/model/area';
import { USUAL_EXPOSURE } from '#core/hull/zones';
import type { ExistingCoating, Substrate, ZoneKind } from '#core/model/surface';
import type { Boat, BuildUpRow, SurfaceDraft, SurfaceRow } from '#contracts/rows/boat';
import type { BorderRow } from '#contracts/rows/system';
import { BoatCache } from '../db/boatCache';
import { withAreas } from '../db/boats';
import type { Db } from '../db/database';
import { boats, borders, buildUps, jobs, surfaces } from '../db/schema';
import type { FileStore } from '../keep/files';
import { sourcedHours, weatherPlace } from '../weather';
import { fixedId, LIBRARY_SHEETS, revisionIdOf } from '../library';
import { libraryBody, type LibrarySheet } from '../library/sheets';

export const HOUR_MS = 3_600_000;
export const DAY_MS = 24 * HOUR_MS;
export const QUARTER_MS = HOUR_MS / 4;

/** Where the yard lies. */
export const ZONE = 'Atlantic/Canary';

/** The demo has the same addresses every time. */
export const demoId = fixedId;

export interface Zone {
  row: SurfaceRow;
  layers: Layer[];
  boat: Boat;
  hours: SourcedHour[];
}

/** A made-up yard while it is written: what boats, zones and coats of it have in common. */
export class DemoYard {
  private serial = 0;
  readonly log: LogEntry[] = [];
  constructor(
    readonly db: Db,
    readonly files: FileStore,
    readonly now: number,
  ) {}

  /** A number that is given once. */
  next(): number {
    this.serial += 1;
    return this.serial;
  }

  atLocal(days: number, hour: number): number {
    return DateTime.fromMillis(this.now, { zone: ZONE }).plus({ days }).startOf('day').toMillis() + hour * HOUR_MS;
  }

  async boat(
    n: number,
    what: Pick<Boat, 'name' | 'hullMaterial' | 'keels' | 'form' | 'loaM' | 'lwlM' | 'beamM' | 'draftM' | 'freeboardM'>,
    job: { out: number; launch: number; cost: number; movedIn?: number; headingDeg?: number },
  ): Promise<Boat> {
    const boat: Boat = {
      ...what,
      id: demoId(1, n),
      place: 'Sallow Haven',
      latitudeDeg: 28,
      timeZone: ZONE,
      waters: 'salt',
      shelter: 'open',
      estimated: [],
      version: 1,
      deleted: false,
    };
    await this.db.insert(boats).values(boat);
    const day = (d: number) => DateTime.fromMillis(this.now, { zone: ZONE }).plus({ days: d }).toISODate() as string;
    const moved = job.movedIn;
    const at = (hour: number) =>
      DateTime.fromMillis(this.now, { zone: ZONE })
        .plus({ days: moved ?? 0 })
        .startOf('day')
        .set({ hour })
        .toMillis();
    await this.db.insert(jobs).values({
      id: demoId(4, n),
      boatId: boat.id,
      outOn: day(job.out),
      inOn: day(job.launch),
      yardCostPerDayMinor: job.cost,
      currency: 'EUR',
      planning: {
        ...NO_JOB_PLAN,
        headingDeg: job.headingDeg ?? null,
        appointments:
          moved === undefined
            ? []
            : [{ id: demoId(17, n), kind: 'move', name: 'The yard moves her', from: at(10), to: at(12), zoneIds: [] }],
      },
      version: 1,
      deleted: false,
    });
    return boat;
  }

  async zone(
    boat: Boat,
    n: number,
    name: string,
    kind: ZoneKind,
    substrate: Substrate,
    existing: ExistingCoating,
    area: { areaM2: number; share: number } | AreaRecord['dimensions'] | AreaRecord,
    layers: Layer[],
    more: Partial<SurfaceDraft> = {},
    plan: Partial<BuildUpRow> = {},
  ): Promise<Zone> {
    const record: AreaRecord =
      'method' in area
        ? area
        : 'areaM2' in area
          ? { method: 'typed', dimensions: {}, typed: area }
          : { method: 'dimensions', dimensions: area, typed: null };
    const stored: SurfaceDraft = {
      id: demoId(5, n),
      boatId: boat.id,
      name,
      kind,
      substrate,
      exposure: USUAL_EXPOSURE[kind],
      existing,
      area: record,
      side: 'both',
      partShare: null,
      notes: '',
      maskList: [],
      openWork: [],
      parentId: null,
      patchKind: null,
      sharedCoats: null,
      shelter: null,
      holds: null,
      sort: n,
      version: 1,
      deleted: false,
      ...more,
    };
    await this.db.insert(surfaces).values(stored);
    if (layers.length > 0)
      await this.db.insert(buildUps).values({
        id: demoId(6, n),
        boatId: boat.id,
        surfaceId: stored.id,
        layers,
        namedId: plan.namedId ?? null,
        targetMicron: plan.targetMicron ?? null,
        records: plan.records ?? [],
        version: 1,
        deleted: false,
      });
    const hours = sourcedHours({ place: weatherPlace(boat), typed: [], now: this.now, from: this.now - 16 * DAY_MS });
    const rows = await new BoatCache(this.db).get(boat.id);
    const row = withAreas(rows?.surfaces ?? [], boat, rows?.hull ?? null).find((r) => r.id === stored.id) as SurfaceRow;
    return { row, layers, boat, hours };
  }

  layers(sheet: LibrarySheet, colours: string[], ...decided: Partial<Layer>[]): Layer[] {
    const body = libraryBody(sheet);
    return colours.map((colour, i) => {
      return {
        id: demoId(7, this.next()),
        sheetRevisionId: revisionIdOf(sheet),
        dftMicron: body.dftMicron,
        method: 'roller',
        thinnerShare: 0,
        loss: USUAL_LOSS.roller,
        deadVolumeLPerM2: 0,
        colour,
        colourHex: body.colours.find((c) => c.name === colour)?.hex ?? '#999999',
        ...decided[Math.min(i, decided.length - 1)],
      };
    });
  }

  bodyOf(revisionId: string) {
    const found = LIBRARY_SHEETS.find((s) => s.revisionId === revisionId);
    if (!found) throw new Error(`no sheet ${revisionId} in the library`);
    return found.body;
  }

  async border(
    boat: Boat,
    n: number,
    upper: Zone,
    lower: Zone,
    what: Pick<BorderRow, 'rule' | 'widthM' | 'note'>,
  ): Promise<void> {
    await this.db.insert(borders).values({
      id: demoId(17, n),
      boatId: boat.id,
      upperId: upper.row.id,
      lowerId: lower.row.id,
      epoxyRunsOn: true,
      handStripM: 0,
      ...what,
      version: 1,
      deleted: false,
    });
  }

  /** The latest start, in working hours if there is one, that leaves the coat's clocks as wanted now. */
  startWhere(zone: Zone, layerIndex: number, wanted: (clocks: CoatClocks) => boolean): number {
    const layer = zone.layers[layerIndex] as Layer;
    const next = zone.layers[layerIndex + 1];
    const temps = zoneSeries(zone.row, zone.hours, []);
    let anyHour: number | null = null;
    for (let at = Math.floor(this.now / QUARTER_MS) * QUARTER_MS; at > this.now - 12 * DAY_MS; at -= QUARTER_MS) {
      const finishedAt = at + applyHours(zone.row.areaM2, layer) * HOUR_MS;
      if (finishedAt > this.now) continue;
      const clocks = coatClocks({
        coat: { startedAt: at, finishedAt, handTests: [] },
        sheet: this.bodyOf(layer.sheetRevisionId),
        following: next ? this.bodyOf(next.sheetRevisionId) : null,
        temps,
        readings: [],
        hours: zone.hours,
      });
      if (!wanted(clocks)) continue;
      anyHour ??= at;
      const { hour } = DateTime.fromMillis(at, { zone: ZONE });
      if (hour >= 7 && hour < 18) return at;
    }
    return anyHour ?? this.now - DAY_MS;
  }
}
