import { netAreas, NO_MODEL } from '#core/hull/zoneArea';
import type { LogEntry, NewEntry } from '#core/coat/events';
import type { SheetBody } from '#core/sheet/sheet';
import type { LotRow, Stores, YardRules } from '#contracts/stores';
import type { SheetRow } from '#contracts/sheet';
import type { BorderRow, NamedBuildUpRow } from '#contracts/system';
import type { Boat, BoatBundle, BuildUpRow, HullRow, Job, SurfaceRow, TypedDayRow } from '#contracts/boat';

/** Everything that can be written, as data: it can wait, be sent, be shown before it is sent, and be undone. */
export type Change =
  | { kind: 'boat'; row: Boat }
  | { kind: 'job'; row: Job }
  | { kind: 'surface'; row: SurfaceRow }
  | { kind: 'hull'; row: HullRow }
  | { kind: 'buildUp'; row: BuildUpRow }
  | { kind: 'buildUps'; boatId: string; rows: BuildUpRow[] }
  | { kind: 'border'; row: BorderRow }
  | {
      kind: 'sheet';
      id: string;
      revisionId: string;
      body: SheetBody;
      withdrawn: boolean;
      deleted: boolean;
      version: number;
    }
  | { kind: 'sheetImport'; id: string; taken: boolean; sheets: NewSheet[] }
  | { kind: 'named'; row: NamedBuildUpRow }
  | { kind: 'lot'; row: LotRow }
  | { kind: 'rules'; row: YardRules }
  | { kind: 'entry'; entry: NewEntry }
  | { kind: 'typedWeather'; boatId: string; issueId: string; days: TypedDayRow[] };

export interface NewSheet {
  id: string;
  revisionId: string;
  body: SheetBody;
}

/** What stood before a change, as far as this device knows it. */
export interface Before {
  bundle: BoatBundle | null;
  sheets: readonly SheetRow[];
  named: readonly NamedBuildUpRow[];
  stores: Stores | null;
}

/** Where a change is sent and what with. */
export function requestOf(change: Change): { path: string; body: unknown } {
  switch (change.kind) {
    case 'boat':
      return { path: `/boats/${change.row.id}`, body: without(change.row, 'id') };
    case 'job':
      return { path: `/jobs/${change.row.id}`, body: without(change.row, 'id') };
    case 'surface':
      return { path: `/surfaces/${change.row.id}`, body: without(change.row, 'id', 'areaM2', 'areaShare', 'grossM2') };
    case 'hull':
      return { path: `/hulls/${change.row.id}`, body: without(change.row, 'id') };
    case 'buildUp':
      return { path: `/build-ups/${change.row.id}`, body: without(change.row, 'id') };
    case 'buildUps':
      return { path: `/boats/${change.boatId}/build-ups`, body: { rows: change.rows } };
    case 'border':
      return { path: `/borders/${change.row.id}`, body: without(change.row, 'id') };
    case 'sheet':
      return { path: `/sheets/${change.id}`, body: without(change, 'id', 'kind') };
    case 'sheetImport':
      return { path: `/sheet-imports/${change.id}`, body: { taken: change.taken, sheets: change.sheets } };
    case 'named':
      return { path: `/named-build-ups/${change.row.id}`, body: without(change.row, 'id') };
    case 'lot':
      return { path: `/lots/${change.row.id}`, body: without(change.row, 'id') };
    case 'rules':
      return { path: `/yard-rules/${change.row.id}`, body: without(change.row, 'id') };
    case 'entry':
      return { path: `/entries/${change.entry.id}`, body: without(change.entry, 'id') };
    case 'typedWeather':
      return { path: `/boats/${change.boatId}/typed-weather/${change.issueId}`, body: { days: change.days } };
  }
}

/** The boat whose bundle a change shows in; null for what belongs to the yard. */
export function boatOf(change: Change): string | null {
  switch (change.kind) {
    case 'boat':
      return change.row.id;
    case 'sheet':
    case 'sheetImport':
    case 'named':
    case 'lot':
    case 'rules':
      return null;
    case 'entry':
      return change.entry.boatId;
    case 'buildUps':
    case 'typedWeather':
      return change.boatId;
    default:
      return change.row.boatId;
  }
}

/** Ids that a change writes, and ids that must be there before it. */
export function linksOf(change: Change): { touches: string[]; needs: string[] } {
  switch (change.kind) {
    case 'boat':
      return { touches: [change.row.id], needs: [] };
    case 'job':
    case 'hull':
    case 'surface':
      return {
        touches: [change.row.id],
        needs: [change.row.boatId, ...('parentId' in change.row && change.row.parentId ? [change.row.parentId] : [])],
      };
    case 'buildUp':
      return {
        touches: [change.row.id],
        needs: [change.row.boatId, change.row.surfaceId, ...sheetsOf(change.row.layers)],
      };
    case 'buildUps':
      return {
        touches: change.rows.map((r) => r.id),
        needs: [change.boatId, ...change.rows.flatMap((r) => [r.surfaceId, ...sheetsOf(r.layers)])],
      };
    case 'border':
      return { touches: [change.row.id], needs: [change.row.boatId, change.row.upperId, change.row.lowerId] };
    case 'sheet':
      return { touches: [change.id, change.revisionId], needs: [] };
    case 'sheetImport':
      return { touches: change.sheets.flatMap((s) => [s.id, s.revisionId]), needs: [] };
    case 'named':
      return { touches: [change.row.id], needs: sheetsOf(change.row.layers) };
    case 'lot':
      return { touches: [change.row.id], needs: [change.row.sheetId] };
    case 'rules':
      return { touches: [change.row.id], needs: [] };
    case 'entry': {
      const { entry } = change;
      const targets = entry.kind === 'started' || entry.kind === 'mixed' ? entry.body.on.map((t) => t.surfaceId) : [];
      const batch = entry.kind === 'batchOn' ? [entry.body.batchId] : [];
      // A start is what its whole coat hangs on.
      const opens = entry.kind === 'started' || entry.kind === 'mixed';
      return {
        touches: [entry.id, ...(opens ? [entry.streamId] : [])],
        needs: [
          entry.boatId,
          ...targets,
          ...batch,
          ...(opens ? [] : [entry.streamId]),
          ...(entry.supersedes ? [entry.supersedes] : []),
        ],
      };
    }
    case 'typedWeather':
      return { touches: [change.issueId], needs: [change.boatId] };
  }
}

/** A row that stands on the server where this device thought of another: its id, and the version it is at now. */
export interface Rebase {
  readonly from: { readonly id: string; readonly version: number };
  readonly to: { readonly id: string; readonly version: number };
}

/**
 * How a refused change can be put on top of what stands there now: for each of its rows that was changed, or made by
 * someone else under another id. Empty where it was not refused for that.
 */
export function rebasesOf(change: Change, current: unknown): Rebase[] {
  const theirs = ((current as { rows?: unknown[] } | null)?.rows ?? [current]) as {
    id?: string;
    surfaceId?: string;
    version?: number;
  }[];
  const mine =
    change.kind === 'buildUps'
      ? change.rows
      : change.kind === 'sheet'
        ? [{ id: change.id, version: change.version }]
        : 'row' in change
          ? [change.row]
          : [];
  return mine.flatMap((row): Rebase[] => {
    const found =
      theirs.find((t) => t?.id === row.id) ??
      theirs.find((t) => 'surfaceId' in row && t?.surfaceId === row.surfaceId) ??
      (mine.length === 1 ? theirs[0] : undefined);
    return typeof found?.version === 'number'
      ? [{ from: { id: row.id, version: row.version }, to: { id: found.id ?? row.id, version: found.version } }]
      : [];
  });
}

/** A change as it is to be sent after what it started from was put elsewhere: same content, that id and version. */
export function rebased(change: Change, rebases: readonly Rebase[]): Change {
  const moved = <Row extends { id: string; version: number }>(row: Row): Row => {
    const found = rebases.find((r) => r.from.id === row.id);
    return found ? { ...row, id: found.to.id, version: row.version - found.from.version + found.to.version } : row;
  };
  if (change.kind === 'buildUps') return { ...change, rows: change.rows.map(moved) };
  if (change.kind === 'sheet') return { ...change, ...moved({ id: change.id, version: change.version }) };
  return 'row' in change ? ({ ...change, row: moved(change.row) } as Change) : change;
}

const sheetsOf = (layers: readonly { sheetRevisionId: string }[]) => [...new Set(layers.map((l) => l.sheetRevisionId))];

/** A boat's bundle as it will be once a change has landed. */
export function applyChange(bundle: BoatBundle, change: Change): BoatBundle {
  switch (change.kind) {
    case 'boat': {
      return withAreas({ ...bundle, boat: landed(change.row) });
    }
    case 'job':
      return { ...bundle, jobs: upsert(bundle.jobs, landed(change.row)) };
    case 'surface':
      return withAreas({
        ...bundle,
        surfaces: upsert(bundle.surfaces, landed(change.row)).sort((a, b) => a.sort - b.sort),
      });
    case 'hull':
      return withAreas({ ...bundle, hull: change.row.deleted ? null : landed(change.row) });
    case 'buildUp':
      return { ...bundle, buildUps: upsert(bundle.buildUps, landed(change.row)) };
    case 'buildUps':
      return { ...bundle, buildUps: change.rows.reduce((rows, row) => upsert(rows, landed(row)), bundle.buildUps) };
    case 'border':
      return { ...bundle, borders: upsert(bundle.borders, landed(change.row)) };
    case 'entry':
      if (bundle.entries.some((e) => e.id === change.entry.id)) return bundle;
      return {
        ...bundle,
        entries: [...bundle.entries, { ...change.entry, recordedAt: change.entry.occurredAt } as LogEntry],
      };
    case 'typedWeather':
      return { ...bundle, typedDays: change.days };
    default:
      return bundle;
  }
}

/** The shelf as it will be once a change has landed. */
export function applyToStores(stores: Stores, change: Change): Stores {
  if (change.kind === 'lot') return { ...stores, lots: upsert(stores.lots, landed(change.row)) };
  return change.kind === 'rules' ? { ...stores, rules: landed(change.row) } : stores;
}

/** The named build-ups as they will be once a change has landed. */
export function applyToNamed(named: NamedBuildUpRow[], change: Change): NamedBuildUpRow[] {
  return change.kind === 'named' ? upsert(named, landed(change.row)) : named;
}

/** What takes a change back: the row as it was, at the version the change made; an entry is withdrawn. */
export function inverseOf(
  change: Change,
  before: Before,
  ids: { id: string; at: number; painter: string; device: string },
): Change | null {
  const { bundle } = before;
  switch (change.kind) {
    case 'boat':
      return bundle
        ? { kind: 'boat', row: { ...bundle.boat, version: change.row.version + 1 } }
        : { kind: 'boat', row: { ...change.row, version: change.row.version + 1, deleted: true } };
    case 'job':
      return { kind: 'job', row: back(bundle?.jobs, change.row) };
    case 'surface':
      return { kind: 'surface', row: back(bundle?.surfaces, change.row) };
    case 'border':
      return { kind: 'border', row: back(bundle?.borders, change.row) };
    case 'named':
      return { kind: 'named', row: back(before.named, change.row) };
    case 'lot':
      return { kind: 'lot', row: back(before.stores?.lots, change.row) };
    case 'rules':
      return before.stores ? { kind: 'rules', row: { ...before.stores.rules, version: change.row.version + 1 } } : null;
    case 'hull': {
      const { hull } = bundle ?? {};
      // A boat has one hull for good: taking back its first measure leaves it empty, not gone.
      return {
        kind: 'hull',
        row: { ...(hull ?? { ...change.row, offsets: null, mesh: null }), version: change.row.version + 1 },
      };
    }
    case 'buildUp':
      return { kind: 'buildUp', row: unbuilt(bundle, change.row) };
    case 'buildUps':
      return { ...change, rows: change.rows.map((row) => unbuilt(bundle, row)) };
    case 'entry': {
      const { entry } = change;
      if (entry.kind === 'withdrawn' || entry.kind === 'silenced') return null;
      const undone = {
        ...entry,
        id: ids.id,
        kind: 'withdrawn',
        occurredAt: ids.at,
        painter: ids.painter,
        device: ids.device,
        supersedes: entry.id,
        body: { reason: '' },
      };
      return { kind: 'entry', entry: undone as NewEntry };
    }
    case 'typedWeather':
      return { kind: 'typedWeather', boatId: change.boatId, issueId: ids.id, days: bundle?.typedDays ?? [] };
    case 'sheet': {
      const old = before.sheets.find((s) => s.id === change.id);
      const version = change.version + 1;
      // A revision stays for good: what it said before becomes the next one.
      return old
        ? { ...change, revisionId: ids.id, body: old.current.body, withdrawn: old.withdrawn, deleted: false, version }
        : { ...change, revisionId: ids.id, deleted: true, version };
    }
    case 'sheetImport':
      return { ...change, id: ids.id, taken: !change.taken };
  }
}

/** A zone has one build-up for good: taking back its first coats leaves it empty, not gone. */
function unbuilt(bundle: BoatBundle | null, row: BuildUpRow): BuildUpRow {
  const old = bundle?.buildUps.find((b) => b.id === row.id);
  return {
    ...(old ?? { ...row, layers: [], namedId: null, targetMicron: null, overrides: [], records: [] }),
    version: row.version + 1,
  };
}

function back<Row extends { id: string; version: number; deleted: boolean }>(
  rows: readonly Row[] | undefined,
  changed: Row,
): Row {
  const old = rows?.find((r) => r.id === changed.id);
  return old
    ? { ...old, version: changed.version + 1 }
    : { ...changed, version: changed.version + 1, deleted: !changed.deleted };
}

function landed<Row extends { version: number }>(row: Row): Row {
  return { ...row, version: row.version + 1 };
}

function upsert<Row extends { id: string; deleted: boolean }>(rows: Row[], row: Row): Row[] {
  const kept = rows.some((r) => r.id === row.id) ? rows.map((r) => (r.id === row.id ? row : r)) : [...rows, row];
  return kept.filter((r) => !r.deleted);
}

/** Areas anew, after something they rest on has changed. A patch is gone with its zone. */
function withAreas(bundle: BoatBundle): BoatBundle {
  const shown = bundle.surfaces.filter((s) => !s.parentId || bundle.surfaces.some((p) => p.id === s.parentId));
  try {
    const areas = netAreas({ boat: bundle.boat, hull: bundle.hull ?? NO_MODEL, surfaces: shown });
    return {
      ...bundle,
      surfaces: shown.map((row) => {
        const area = areas.get(row.id);
        return area ? { ...row, areaM2: area.areaM2, areaShare: area.share, grossM2: area.grossM2 } : row;
      }),
    };
  } catch {
    // The server will refuse it with a reason; until then areas stand as they were.
    return { ...bundle, surfaces: shown };
  }
}

function without<T extends object, K extends keyof T>(value: T, ...keys: K[]): Omit<T, K> {
  const rest = { ...value };
  for (const key of keys) delete rest[key];
  return rest;
}
