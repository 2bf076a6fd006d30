import {
  bigint,
  bigserial,
  boolean,
  date,
  doublePrecision,
  index,
  integer,
  jsonb,
  pgTable,
  text,
  uniqueIndex,
  uuid,
} from 'drizzle-orm/pg-core';
import type { LogEntry } from '#core/model/log';
import type { Layer } from '#core/model/layer';
import type { AreaRecord, MeshRecord, OffsetRecord } from '#core/model/area';
import { USUAL_KIT } from '#core/model/kit';
import type { SheetBody } from '#core/model/sheet';
import type { WeatherHour } from '#core/air/weather';
import type { Boat, BuildUpRow, Job, SurfaceRow, TypedDayRow } from '#contracts/rows/boat';
import type { LotRow, YardRules } from '#contracts/rows/stores';
import type { BorderRow, NamedBuildUpRow } from '#contracts/rows/system';

/** Epoch milliseconds fit a double exactly until the year 287396. */
const instant = (name: string) => bigint(name, { mode: 'number' });
/** Rows that people edit carry a version; a delete only marks them, so that it can be undone. */
const editable = { version: integer('version').notNull(), deleted: boolean('deleted').notNull().default(false) };

export const boats = pgTable('boats', {
  id: uuid('id').primaryKey(),
  name: text('name').notNull(),
  hullMaterial: text('hull_material').$type<Boat['hullMaterial']>().notNull(),
  keels: text('keels').$type<Boat['keels']>().notNull(),
  loaM: doublePrecision('loa_m').notNull(),
  lwlM: doublePrecision('lwl_m').notNull(),
  beamM: doublePrecision('beam_m').notNull(),
  draftM: doublePrecision('draft_m').notNull(),
  freeboardM: doublePrecision('freeboard_m').notNull(),
  form: text('form').$type<Boat['form']>().notNull(),
  place: text('place').notNull(),
  latitudeDeg: doublePrecision('latitude_deg').notNull(),
  timeZone: text('time_zone').notNull(),
  waters: text('waters').$type<Boat['waters']>(),
  shelter: text('shelter').$type<Boat['shelter']>().notNull().default('open'),
  estimated: jsonb('estimated').$type<Boat['estimated']>().notNull().default([]),
  ...editable,
});

export const jobs = pgTable(
  'jobs',
  {
    id: uuid('id').primaryKey(),
    boatId: uuid('boat_id')
      .notNull()
      .references(() => boats.id),
    outOn: date('out_on').notNull(),
    inOn: date('in_on'),
    yardCostPerDayMinor: integer('yard_cost_per_day_minor'),
    currency: text('currency').notNull(),
    choices: jsonb('choices').$type<Job['choices']>(),
    planning: jsonb('planning').$type<Job['planning']>(),
    ...editable,
  },
  (t) => [index('jobs_boat').on(t.boatId)],
);

/** Zones and the patches of zones in one table: the boat owns them, not the job. */
export const surfaces = pgTable(
  'surfaces',
  {
    id: uuid('id').primaryKey(),
    boatId: uuid('boat_id')
      .notNull()
      .references(() => boats.id),
    name: text('name').notNull(),
    kind: text('kind').$type<SurfaceRow['kind']>().notNull(),
    substrate: text('substrate').$type<SurfaceRow['substrate']>().notNull(),
    exposure: text('exposure').$type<SurfaceRow['exposure']>().notNull(),
    existing: text('existing').$type<SurfaceRow['existing']>().notNull(),
    area: jsonb('area').$type<AreaRecord>().notNull(),
    side: text('side').$type<SurfaceRow['side']>().notNull().default('both'),
    partShare: doublePrecision('part_share'),
    notes: text('notes').notNull().default(''),
    maskList: jsonb('mask_list').$type<SurfaceRow['maskList']>().notNull().default([]),
    openWork: jsonb('open_work').$type<SurfaceRow['openWork']>().notNull().default([]),
    parentId: uuid('parent_id'),
    patchKind: text('patch_kind').$type<SurfaceRow['patchKind']>(),
    sharedCoats: integer('shared_coats'),
    shelter: text('shelter').$type<SurfaceRow['shelter']>(),
    holds: text('holds').$type<SurfaceRow['holds']>(),
    sort: doublePrecision('sort').notNull(),
    ...editable,
  },
  (t) => [index('surfaces_boat').on(t.boatId)],
);

/** What is known of a hull as a whole: table of offsets, mesh. The mesh file itself lies in the files folder. */
export const hulls = pgTable(
  'hulls',
  {
    id: uuid('id').primaryKey(),
    boatId: uuid('boat_id')
      .notNull()
      .references(() => boats.id),
    offsets: jsonb('offsets').$type<OffsetRecord>(),
    mesh: jsonb('mesh').$type<MeshRecord>(),
    ...editable,
  },
  (t) => [uniqueIndex('hulls_boat').on(t.boatId)],
);

export const buildUps = pgTable(
  'build_ups',
  {
    id: uuid('id').primaryKey(),
    boatId: uuid('boat_id')
      .notNull()
      .references(() => boats.id),
    surfaceId: uuid('surface_id')
      .notNull()
      .references(() => surfaces.id),
    layers: jsonb('layers').$type<Layer[]>().notNull(),
    /** No foreign key: a build-up stays where its named one is gone. */
    namedId: uuid('named_id'),
    targetMicron: doublePrecision('target_micron'),
    overrides: jsonb('overrides').$type<BuildUpRow['overrides']>().notNull().default([]),
    records: jsonb('records').$type<BuildUpRow['records']>().notNull().default([]),
    ...editable,
  },
  (t) => [uniqueIndex('build_ups_surface').on(t.surfaceId)],
);

/** Where two zones of a boat meet. */
export const borders = pgTable(
  'borders',
  {
    id: uuid('id').primaryKey(),
    boatId: uuid('boat_id')
      .notNull()
      .references(() => boats.id),
    upperId: uuid('upper_id')
      .notNull()
      .references(() => surfaces.id),
    lowerId: uuid('lower_id')
      .notNull()
      .references(() => surfaces.id),
    rule: text('rule').$type<BorderRow['rule']>().notNull(),
    widthM: doublePrecision('width_m').notNull(),
    epoxyRunsOn: boolean('epoxy_runs_on').notNull(),
    handStripM: doublePrecision('hand_strip_m').notNull(),
    note: text('note').notNull(),
    ...editable,
  },
  (t) => [index('borders_boat').on(t.boatId)],
);

/** Build-ups that carry a name and can go on many zones. */
export const namedBuildUps = pgTable('named_build_ups', {
  id: uuid('id').primaryKey(),
  name: text('name').notNull(),
  substrates: jsonb('substrates').$type<NamedBuildUpRow['substrates']>().notNull(),
  exposure: text('exposure').$type<NamedBuildUpRow['exposure']>().notNull(),
  bond: text('bond').$type<NamedBuildUpRow['bond']>().notNull(),
  note: text('note').notNull(),
  targetMicron: doublePrecision('target_micron'),
  layers: jsonb('layers').$type<Layer[]>().notNull(),
  ...editable,
});

export const sheets = pgTable('sheets', {
  id: uuid('id').primaryKey(),
  withdrawn: boolean('withdrawn').notNull().default(false),
  ...editable,
});

/** Immutable: a change to a sheet is its next revision. */
export const sheetRevisions = pgTable(
  'sheet_revisions',
  {
    id: uuid('id').primaryKey(),
    sheetId: uuid('sheet_id')
      .notNull()
      .references(() => sheets.id),
    revision: integer('revision').notNull(),
    body: jsonb('body').$type<SheetBody>().notNull(),
    createdAt: instant('created_at').notNull(),
  },
  (t) => [uniqueIndex('sheet_revisions_number').on(t.sheetId, t.revision)],
);

/** Tins on the shelf. What is left now is worked out from what was measured and what batches took since. */
export const lots = pgTable(
  'lots',
  {
    id: uuid('id').primaryKey(),
    sheetId: uuid('sheet_id')
      .notNull()
      .references(() => sheets.id),
    part: text('part').notNull(),
    sizeL: doublePrecision('size_l').notNull(),
    batchNumber: text('batch_number').notNull(),
    supplier: text('supplier').notNull(),
    boughtOn: date('bought_on'),
    openedOn: date('opened_on'),
    expiresOn: date('expires_on'),
    leftL: doublePrecision('left_l').notNull(),
    measuredAt: instant('measured_at').notNull(),
    weighed: jsonb('weighed').$type<LotRow['weighed']>(),
    past: jsonb('past').$type<NonNullable<LotRow['past']>>().notNull().default([]),
    note: text('note').notNull(),
    ...editable,
  },
  (t) => [index('lots_sheet').on(t.sheetId)],
);

/** What the yard has decided for all its jobs: one row. */
export const yardRules = pgTable('yard_rules', {
  id: uuid('id').primaryKey(),
  chance: doublePrecision('chance').notNull(),
  consumables: jsonb('consumables').$type<YardRules['consumables']>().notNull(),
  workFromMin: integer('work_from_min').notNull().default(480),
  workToMin: integer('work_to_min').notNull().default(1080),
  currency: text('currency').notNull().default('EUR'),
  kit: jsonb('kit').$type<YardRules['kit']>().notNull().default(USUAL_KIT),
  rates: jsonb('rates').$type<YardRules['rates']>().notNull().default([]),
  drying: jsonb('drying').$type<YardRules['drying']>().notNull().default([]),
  hands: jsonb('hands').$type<YardRules['hands']>().notNull().default([]),
  heat: jsonb('heat').$type<YardRules['heat']>(),
  version: integer('version').notNull(),
});

/** The log of coats, batches and readings. Rows are only ever added. */
export const entries = pgTable(
  'entries',
  {
    seq: bigserial('seq', { mode: 'number' }).primaryKey(),
    id: uuid('id').notNull().unique(),
    boatId: uuid('boat_id')
      .notNull()
      .references(() => boats.id),
    stream: text('stream').$type<LogEntry['stream']>().notNull(),
    streamId: uuid('stream_id').notNull(),
    kind: text('kind').$type<LogEntry['kind']>().notNull(),
    occurredAt: instant('occurred_at').notNull(),
    recordedAt: instant('recorded_at').notNull(),
    painter: text('painter').notNull(),
    device: text('device').notNull(),
    supersedes: uuid('supersedes'),
    body: jsonb('body').$type<LogEntry['body']>().notNull(),
  },
  (t) => [index('entries_boat').on(t.boatId), index('entries_stream').on(t.streamId)],
);

/** Forecasts as people typed them; the newest known at a moment is in force. The simulated one is worked out, not kept. */
export const typedForecasts = pgTable(
  'typed_forecasts',
  {
    id: uuid('id').primaryKey(),
    boatId: uuid('boat_id')
      .notNull()
      .references(() => boats.id),
    issuedAt: instant('issued_at').notNull(),
    days: jsonb('days').$type<TypedDayRow[]>().notNull(),
    hours: jsonb('hours').$type<WeatherHour[]>(),
  },
  (t) => [uniqueIndex('typed_forecasts_once').on(t.boatId, t.issuedAt)],
);

/** Where a boat stood before she was said to stand elsewhere: her past weather stays what it was. */
export const pastPlaces = pgTable(
  'past_places',
  {
    id: uuid('id').primaryKey(),
    boatId: uuid('boat_id')
      .notNull()
      .references(() => boats.id),
    untilAt: instant('until_at').notNull(),
    name: text('name').notNull(),
    latitudeDeg: doublePrecision('latitude_deg').notNull(),
    timeZone: text('time_zone').notNull(),
  },
  (t) => [index('past_places_boat').on(t.boatId)],
);

/** Facts about this database itself, such as when the demo was seeded. */
export const facts = pgTable('facts', { key: text('key').primaryKey(), value: jsonb('value').notNull() });

/** In the order in which rows may be written, parents first. */
export const TABLES = {
  boats,
  jobs,
  hulls,
  surfaces,
  buildUps,
  borders,
  sheets,
  sheetRevisions,
  namedBuildUps,
  lots,
  yardRules,
  entries,
  typedForecasts,
  pastPlaces,
  facts,
} as const;
export type TableName = keyof typeof TABLES;
