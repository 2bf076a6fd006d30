import { eq } from 'drizzle-orm';
import { DateTime } from 'luxon';
import { weatherAt, type SourcedHour } from '#core/air/weather';
import { temperatureAt } from '#core/air/surfaceSeries';
import type { CoatTarget, LogEntry, LogKind } from '#core/model/log';
import { checkAppend } from '#core/coat/fold';
import { applyHours } from '#core/coat/coatAdvice';
import { coatClocks, type CoatClocks } from '#core/coat/coatClocks';
import { windowState } from '#core/coat/zoneState';
import { zoneSeries } from '#core/coat/zoneSeries';
import type { Layer } from '#core/model/layer';
import { litresNeeded, USUAL_LOSS, wetFilmMicron } from '#core/film/spreading';
import type { AreaRecord } from '#core/model/area';
import { USUAL_EXPOSURE } from '#core/hull/zones';
import type { ExistingCoating, Substrate, ZoneKind } from '#core/model/surface';
import { potLifeH } from '#core/mix/pot';
import { splitBatch } from '#core/mix/splitBatch';
import type { Boat, BuildUpRow, SurfaceDraft, SurfaceRow } from '#contracts/rows/boat';
import type { BorderRow } from '#contracts/rows/system';
import type { Clock } from '../clock';
import { BoatCache } from '../db/boatCache';
import { withAreas } from '../db/boats';
import type { Db } from '../db/database';
import {
  boats,
  borders,
  buildUps,
  entries,
  facts,
  hulls,
  jobs,
  lots,
  namedBuildUps,
  sheetRevisions,
  sheets,
  surfaces,
  TABLES,
} from '../db/schema';
import { isTouched, SEEDED } from '../db/touched';
import type { FileStore } from '../keep/files';
import type { Yard } from '../keep/yard';
import { sourcedHours, weatherPlace } from '../weather';
import { sloopGirths, sloopOffsets, workboatMesh } from './hulls';
import { fixedId, LIBRARY_SHEETS, LIBRARY_STARTERS, revisionIdOf, sheetIdOf } from '../library';
import { LIBRARY, libraryBody, type LibrarySheet } from '../library/sheets';

const HOUR_MS = 3_600_000;
const DAY_MS = 24 * HOUR_MS;
const QUARTER_MS = HOUR_MS / 4;
/** An untouched demo older than this is made anew, so that Today is always alive. */
const STALE_MS = HOUR_MS / 2;
const ZONE = 'Atlantic/Canary';

/**
 * The demo: a made-up yard with three made-up boats, dated relative to the clock. Left alone once a
 * person has changed anything.
 */
export async function seedDemo(yard: Yard, clock: Clock): Promise<void> {
  const { db } = yard.store;
  const [seeded] = await db.select().from(facts).where(eq(facts.key, SEEDED));
  const now = clock.now();
  if (seeded && (Math.abs(now - (seeded.value as number)) < STALE_MS || (await isTouched(db)))) return;
  // Nobody has anything to lose in it: it begins anew, journal and backups too.
  await yard.forget();
  await yard.store.replace(() =>
    db.transaction(async (tx) => {
      for (const table of Object.values(TABLES).reverse()) await tx.delete(table);
      await new DemoYard(tx, yard.files, now).seed();
      await tx.insert(facts).values({ key: SEEDED, value: now });
    }),
  );
}

/** The demo has the same addresses every time. */
const demoId = fixedId;

interface Zone {
  row: SurfaceRow;
  layers: Layer[];
  boat: Boat;
  hours: SourcedHour[];
}

const TACK: Partial<Layer> = { prep: 'tackWindow' };
const FIRST_ON: Partial<Layer> = { prep: 'abrade', abradeFor: 'bond', grit: 120, wipe: true };
const GLOSS: Partial<Layer> = { prep: 'abrade', abradeFor: 'bond', grit: 320 };
const YARD_BOTTOM = demoId(14, 90);

class DemoYard {
  private serial = 0;
  private readonly log: LogEntry[] = [];
  constructor(
    private readonly db: Db,
    private readonly files: FileStore,
    private readonly now: number,
  ) {}

  async seed(): Promise<void> {
    await this.db.insert(sheets).values(LIBRARY_SHEETS.map((s) => ({ id: s.id, withdrawn: false, version: 1 })));
    await this.db.insert(sheetRevisions).values(
      LIBRARY_SHEETS.map((s) => ({
        id: s.revisionId,
        sheetId: s.id,
        revision: 1,
        body: s.body,
        createdAt: this.now - 40 * DAY_MS,
      })),
    );
    await this.db.insert(namedBuildUps).values(
      LIBRARY_STARTERS.map((n) => ({
        ...n,
        substrates: [...n.substrates],
        layers: [...n.layers],
        version: 1,
        deleted: false,
      })),
    );
    await this.shelf();
    await this.sloop();
    await this.workboat();
    await this.gig();
  }

  private async sloop(): Promise<void> {
    const boat = await this.boat(
      1,
      {
        name: 'Pewit’s Errand',
        hullMaterial: 'grp',
        keels: 'twin',
        form: 'longKeel',
        loaM: 9.6,
        lwlM: 8.1,
        beamM: 3.1,
        draftM: 1.15,
        freeboardM: 1.05,
      },
      { out: -13, launch: 9, cost: 3200 },
    );
    const bottom = () => [
      ...this.layers('barrier', ['grey', 'white', 'grey', 'white'], FIRST_ON, TACK),
      ...this.layers('tieCoat', ['red oxide'], TACK),
      ...this.layers('antifouling', ['red', 'dark blue']),
    ];
    await this.db.insert(namedBuildUps).values({
      id: YARD_BOTTOM,
      name: 'Yard bottom: barrier, tie coat, antifouling',
      substrates: ['gelcoat', 'laminate'],
      exposure: 'immersed',
      bond: 'chemical',
      note: 'What this yard puts under water, if the weather gives the windows.',
      targetMicron: 250,
      layers: bottom(),
      version: 1,
      deleted: false,
    });
    const yardBottom = { namedId: YARD_BOTTOM, targetMicron: 250 };
    const adhesion = (n: number, note: string): BuildUpRow['records'] => [
      { id: demoId(16, n), kind: 'adhesionTest', at: this.now - 10 * DAY_MS, painter: 'Ines', note },
    ];
    await this.db
      .insert(hulls)
      .values({ id: demoId(11, 1), boatId: boat.id, offsets: sloopOffsets(), mesh: null, version: 1, deleted: false });
    const mask = (n: number, thing: SurfaceDraft['maskList'][number]['thing'], count: number, note: string) => ({
      id: demoId(12, n),
      thing,
      count,
      note,
    });
    const hull = await this.zone(
      boat,
      1,
      'Underwater hull',
      'underwater',
      'gelcoat',
      'bare',
      { method: 'dimensions', dimensions: { draftM: 0.55 }, typed: null, girths: sloopGirths() },
      bottom(),
      {
        notes: 'Dried out since March: 4 % at the keel stubs.',
        maskList: [
          mask(1, 'anode', 2, 'one each side of the skeg'),
          mask(2, 'transducer', 1, 'own coating, last day'),
          mask(3, 'logWheel', 1, ''),
        ],
      },
      yardBottom,
    );
    const keels = await this.zone(
      boat,
      2,
      'Twin keels',
      'keel',
      'laminate',
      'bare',
      { areaM2: 6.4, share: 0.06 },
      bottom().map((l, i) => (i === 3 ? { ...l, dftMicron: 80 } : l)),
      {},
      yardBottom,
    );
    const rudder = await this.zone(
      boat,
      3,
      'Rudder and skeg',
      'rudder',
      'laminate',
      'bare',
      { areaM2: 1.9, share: 0.06 },
      bottom(),
      {},
      yardBottom,
    );
    const bootTop = await this.zone(
      boat,
      4,
      'Boot-top',
      'bootTop',
      'gelcoat',
      'twoPack',
      { bandM: 0.15 },
      this.layers('topcoat', ['cream', 'cream'], GLOSS),
    );
    const topsides = await this.zone(
      boat,
      5,
      'Topsides',
      'topsides',
      'gelcoat',
      'twoPack',
      {},
      this.layers('topcoat', ['harbour blue', 'harbour blue', 'harbour blue'], GLOSS),
      {},
      { records: adhesion(1, 'Cross-cut class 1 amidships, both sides.') },
    );
    await this.border(boat, 1, topsides, bootTop, {
      rule: 'butt',
      widthM: 0,
      note: 'One tape for both, pulled while the boot-top is wet.',
    });
    await this.border(boat, 2, bootTop, hull, { rule: 'overlap', widthM: 0.02, note: '' });
    await this.zone(
      boat,
      7,
      'Under the stands',
      'underwater',
      'gelcoat',
      'bare',
      {
        method: 'shapes',
        dimensions: {},
        typed: null,
        shapes: [
          {
            id: demoId(12, 4),
            name: 'pad',
            figure: { kind: 'rectangle', lengthM: 0.3, widthM: 0.25 },
            count: 4,
            deduct: false,
            share: 0.1,
            group: null,
          },
        ],
      },
      bottom(),
      {
        parentId: hull.row.id,
        patchKind: 'standPad',
        openWork: [
          {
            id: demoId(12, 5),
            kind: 'underStand',
            note: 'The yard moves the stands after the last barrier coat.',
            done: false,
          },
        ],
      },
      yardBottom,
    );
    await this.zone(
      boat,
      8,
      'Keel toes',
      'keel',
      'laminate',
      'bare',
      { method: 'band', dimensions: {}, typed: null, band: { place: 'keelBottom', widthM: 0.3, lengthM: null } },
      this.layers('antifouling', ['red']),
      { parentId: keels.row.id, patchKind: 'highWear' },
    );
    await this.zone(boat, 6, 'Bilge under the sole', 'bilge', 'laminate', 'unknown', { areaM2: 3.2, share: 0.2 }, []);

    // The hull's window is open now; the keels' is about to close; the rudder is still wet.
    const third = this.startWhere(
      hull,
      2,
      (c) => windowState(c, this.now) === 'bonds' && (c.window?.bondsUntil ?? 0) > this.now + 5 * HOUR_MS,
    );
    const second = this.startWhere(
      keels,
      1,
      (c) =>
        between(c.window?.bondsUntil, this.now + 1.6 * HOUR_MS, this.now + 2.4 * HOUR_MS) &&
        windowState(c, this.now) === 'bonds',
    );
    await this.coat([hull, keels, rudder], 0, second - 2 * DAY_MS);
    await this.coat([hull], 1, third - DAY_MS);
    await this.coat([keels], 1, second, { micron: [138, 150, 145, 132, 151] });
    await this.coat([hull], 2, third, {
      micron: [150, 142, 138, 160, 147, 155],
      note: 'Port quarter a little thin under the counter, went over it again.',
    });
    await this.coat([rudder], 1, this.now - 1.6 * HOUR_MS, { hours: 0.5 });
  }

  private async workboat(): Promise<void> {
    const boat = await this.boat(
      2,
      {
        name: 'Grey Wether',
        hullMaterial: 'aluminium',
        keels: 'none',
        form: 'full',
        loaM: 7.2,
        lwlM: 6.6,
        beamM: 2.5,
        draftM: 0.55,
        freeboardM: 0.85,
      },
      { out: -6, launch: 5, cost: 2600 },
    );
    await this.db.insert(hulls).values({
      id: demoId(11, 2),
      boatId: boat.id,
      offsets: null,
      mesh: await workboatMesh(boat, this.files),
      version: 1,
      deleted: false,
    });
    const bottom = await this.zone(
      boat,
      11,
      'Underwater hull',
      'underwater',
      'aluminium',
      'bare',
      { method: 'mesh', dimensions: {}, typed: null, mesh: { part: 'below' } },
      [
        ...this.layers('lightMetalPrimer', ['green'], { ...FIRST_ON, stripe: true }),
        ...this.layers('barrier', ['grey', 'white'], TACK),
        ...this.layers('copperFree', ['black', 'black'], TACK, {}),
      ],
      {},
      { targetMicron: 250 },
    );
    const sides = await this.zone(
      boat,
      12,
      'Topsides',
      'topsides',
      'aluminium',
      'twoPack',
      {},
      this.layers('topcoat', ['harbour blue', 'harbour blue'], GLOSS),
    );
    await this.zone(
      boat,
      14,
      'Wheelhouse front',
      'coachroof',
      'aluminium',
      'unknown',
      { areaM2: 3.1, share: 0.08 },
      this.layers('topcoat', ['cream', 'cream'], GLOSS),
    );
    await this.zone(boat, 13, 'Deck', 'deck', 'aluminium', 'unknown', { openingsM2: 1.5 }, []);
    const past = this.startWhere(
      bottom,
      0,
      (c) => windowState(c, this.now) === 'abrade' && this.now - (c.window?.bondsUntil ?? 0) < 20 * HOUR_MS,
    );
    await this.coat([bottom], 0, past);
    await this.coat([sides], 0, this.now - 25 * 60_000, { open: true });
  }

  private async gig(): Promise<void> {
    const boat = await this.boat(
      3,
      {
        name: 'Sallow Lass',
        hullMaterial: 'timber',
        keels: 'none',
        form: 'longKeel',
        loaM: 6.1,
        lwlM: 5.6,
        beamM: 1.5,
        draftM: 0.3,
        freeboardM: 0.5,
      },
      { out: -9, launch: 14, cost: 900 },
    );
    const outside = await this.zone(boat, 21, 'Outside, to the gunwale', 'topsides', 'timber', 'bare', {}, [
      ...this.layers('sealer', ['clear amber', 'clear amber'], { absorption: 0.25 }, TACK),
      ...this.layers('enamel', ['oxide red', 'oxide red'], GLOSS),
    ]);
    const inside = await this.zone(
      boat,
      22,
      'Bottom boards and bilge',
      'bilge',
      'timber',
      'onePack',
      { areaM2: 4.5, share: 0.15 },
      this.layers('bilge', ['white']),
    );
    await this.coat([outside], 0, this.atLocal(-3, 9));
    await this.coat([outside], 1, this.atLocal(-2, 9.5));
    await this.coat([outside], 2, this.atLocal(-1, 10));
    await this.coat([inside], 0, this.atLocal(-2, 14));
  }

  private atLocal(days: number, hour: number): number {
    return DateTime.fromMillis(this.now, { zone: ZONE }).plus({ days }).startOf('day').toMillis() + hour * HOUR_MS;
  }

  private async boat(
    n: number,
    what: Pick<Boat, 'name' | 'hullMaterial' | 'keels' | 'form' | 'loaM' | 'lwlM' | 'beamM' | 'draftM' | 'freeboardM'>,
    job: { out: number; launch: number; cost: number },
  ): Promise<Boat> {
    const boat: Boat = {
      ...what,
      id: demoId(1, n),
      place: 'Sallow Haven',
      latitudeDeg: 28,
      timeZone: ZONE,
      waters: 'salt',
      version: 1,
      deleted: false,
    };
    await this.db.insert(boats).values(boat);
    const day = (d: number) => DateTime.fromMillis(this.now, { zone: ZONE }).plus({ days: d }).toISODate() as string;
    await this.db.insert(jobs).values({
      id: demoId(4, n),
      boatId: boat.id,
      outOn: day(job.out),
      inOn: day(job.launch),
      yardCostPerDayMinor: job.cost,
      currency: 'EUR',
      version: 1,
      deleted: false,
    });
    return boat;
  }

  private async zone(
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

  private layers(sheet: LibrarySheet, colours: string[], ...decided: Partial<Layer>[]): Layer[] {
    const body = libraryBody(sheet);
    return colours.map((colour, i) => {
      this.serial += 1;
      return {
        id: demoId(7, this.serial),
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

  private bodyOf(revisionId: string) {
    const found = LIBRARY_SHEETS.find((s) => s.revisionId === revisionId);
    if (!found) throw new Error(`no sheet ${revisionId} in the library`);
    return found.body;
  }

  private async border(
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

  /** Tins of the yard, as they were last looked at a fortnight ago. */
  private async shelf(): Promise<void> {
    const day = (days: number) => DateTime.fromMillis(this.now, { zone: ZONE }).plus({ days }).toISODate();
    let n = 0;
    const tin = async (
      sheet: LibrarySheet,
      part: string,
      sizeL: number,
      leftL: number,
      more: { bought?: number; opened?: number; expires?: number; batch?: string; note?: string } = {},
    ) => {
      n += 1;
      await this.db.insert(lots).values({
        id: demoId(15, n),
        sheetId: sheetIdOf(sheet),
        part,
        sizeL,
        leftL,
        batchNumber: more.batch ?? '',
        supplier:
          LIBRARY[sheet].packs[0] && 'supplier' in LIBRARY[sheet].packs[0]
            ? (LIBRARY[sheet].packs[0].supplier ?? '')
            : '',
        boughtOn: day(more.bought ?? -60),
        openedOn: more.opened === undefined ? null : day(more.opened),
        expiresOn: more.expires === undefined ? null : day(more.expires),
        measuredAt: this.now - 15 * DAY_MS,
        weighed: null,
        note: more.note ?? '',
        version: 1,
        deleted: false,
      });
    };
    const kit = async (sheet: LibrarySheet, baseL: number, hardenerL: number, batch: string, opened?: number) => {
      await tin(sheet, 'Base', baseL, baseL, { batch: `${batch} B`, ...(opened === undefined ? {} : { opened }) });
      await tin(sheet, 'Hardener', hardenerL, hardenerL, {
        batch: `${batch} H`,
        ...(opened === undefined ? {} : { opened }),
      });
    };
    await kit('barrier', 3.75, 1.25, 'SG 2604-11', -14);
    await kit('barrier', 3.75, 1.25, 'SG 2604-11');
    await kit('barrier', 3.75, 1.25, 'SG 2604-12');
    await tin('antifouling', 'Paint', 2.5, 2.5, { batch: 'DN 118' });
    await tin('antifouling', 'Paint', 0.75, 0.4, {
      batch: 'DN 96',
      opened: -200,
      note: 'From last season, stirred and sound.',
    });
    await kit('topcoat', 1.33, 0.67, 'LN 7 blue');
    await tin('enamel', 'Paint', 2.5, 1.6, { batch: 'WK 41', opened: -30 });
    await tin('converter', 'Paint', 0.5, 0.3, { bought: -420, opened: -300, batch: 'TN 8', note: 'Skin on it.' });
    await tin('surfacer', 'Base', 0.5, 0.5, { bought: -300, expires: 20, batch: 'HW 3' });
  }

  /** The latest start, in working hours if there is one, that leaves the coat's clocks as wanted now. */
  private startWhere(zone: Zone, layerIndex: number, wanted: (clocks: CoatClocks) => boolean): number {
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

  /** One stint over one or more zones: mixed, started, read, combed, finished. */
  private async coat(
    zones: Zone[],
    layerIndex: number,
    wantedStart: number,
    more: { micron?: number[]; note?: string; open?: boolean; hours?: number } = {},
  ): Promise<void> {
    const first = zones[0] as Zone;
    const layer = first.layers[layerIndex] as Layer;
    const sheet = this.bodyOf(layer.sheetRevisionId);
    const startedAt = Math.floor(wantedStart / 60_000) * 60_000;
    const hours = more.hours ?? zones.reduce((sum, z) => sum + applyHours(z.row.areaM2, layer), 0);
    const finishedAt = Math.min(startedAt + Math.round((hours * HOUR_MS) / 60_000) * 60_000, this.now);
    const on: CoatTarget[] = zones.map((z) => ({ surfaceId: z.row.id, layerId: (z.layers[layerIndex] as Layer).id }));
    const litres = zones.reduce(
      (sum, z) =>
        sum +
        litresNeeded({
          areaM2: z.row.areaM2,
          dftMicron: layer.dftMicron,
          solids: sheet.solids,
          loss: layer.loss,
          deadVolumeLPerM2: 0,
        }),
      0,
    );

    this.serial += 1;
    const coatId = demoId(8, this.serial);
    const batchId = demoId(9, this.serial);
    const temps = zoneSeries(first.row, first.hours, []);
    const weather = weatherAt(first.hours, startedAt);
    const surfaceC = Number(temperatureAt(temps, startedAt).toFixed(1));
    const log = async (stream: LogEntry['stream'], streamId: string, kind: LogKind, at: number, body: object) => {
      this.serial += 1;
      const entry = {
        id: demoId(10, this.serial),
        boatId: first.boat.id,
        stream,
        streamId,
        kind,
        occurredAt: at,
        recordedAt: at,
        painter: 'Ines',
        device: 'demo',
        supersedes: null,
        body,
      } as LogEntry;
      checkAppend(this.log, entry);
      this.log.push(entry);
      await this.db.insert(entries).values(entry);
    };
    const mixedAt = startedAt - ((sheet.inductionMin ?? 0) + 4) * 60_000;
    const batch = splitBatch({ parts: sheet.parts, basis: sheet.ratioBasis, mixedL: Math.ceil(litres * 20) / 20 });
    await log('batch', batchId, 'mixed', mixedAt, {
      sheetRevisionId: layer.sheetRevisionId,
      on,
      parts: batch.parts,
      thinnerL: 0,
      totalL: batch.totalL,
      standMin: sheet.inductionMin ?? 0,
      potLifeH: sheet.potLife ? potLifeH({ table: sheet.potLife, tempC: weather?.airC ?? 20 }).hours : null,
      potTempC: weather?.airC ?? 20,
    });
    await log('coat', coatId, 'started', startedAt, {
      on,
      sheetRevisionId: layer.sheetRevisionId,
      method: layer.method,
      thinner: 0,
      dftMicron: layer.dftMicron,
      colour: layer.colour,
      colourHex: layer.colourHex,
      overrideReason: null,
      abradedGrit: null,
    });
    await log('coat', coatId, 'reading', startedAt, {
      airC: round(weather?.airC ?? 20, 1),
      rh: round(weather?.rh ?? 0.6, 2),
      surfaceC,
    });
    await log('coat', coatId, 'batchOn', startedAt, { batchId, litres: batch.totalL });
    if ((sheet.inductionMin ?? 0) > 0) await log('batch', batchId, 'silenced', startedAt, { timer: 'stand' });
    if (more.open) return;
    const wet = wetFilmMicron({ dftMicron: layer.dftMicron, solids: sheet.solids, thinner: 0 });
    await log('coat', coatId, 'wetFilm', Math.round((startedAt + finishedAt) / 2), {
      micron: more.micron ?? [wet * 0.97, wet * 1.04, wet].map(Math.round),
    });
    if (more.note) await log('coat', coatId, 'note', finishedAt, { text: more.note });
    await log('coat', coatId, 'finished', finishedAt, { litresOn: round(batch.totalL * 0.97, 2) });
    await log('batch', batchId, 'emptied', finishedAt, { litresLeft: round(batch.totalL * 0.03, 2) });
  }
}

const round = (value: number, digits: number) => Number(value.toFixed(digits));
const between = (value: number | null | undefined, low: number, high: number) =>
  value !== null && value !== undefined && value >= low && value <= high;
