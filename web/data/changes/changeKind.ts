import type { BoatBundle } from '#contracts/rows/boat';
import type { SheetRow } from '#contracts/rows/sheet';
import type { Stores } from '#contracts/rows/stores';
import type { NamedBuildUpRow } from '#contracts/rows/system';

/** What stood before a change, as far as this device knows it. */
export interface Before {
  readonly bundle: BoatBundle | null;
  readonly sheets: readonly SheetRow[];
  readonly named: readonly NamedBuildUpRow[];
  readonly stores: Stores | null;
}

/** What a change that takes another back is signed with. */
export interface Signature {
  readonly id: string;
  readonly at: number;
  readonly painter: string;
  readonly device: string;
}

export interface Versioned {
  readonly id: string;
  readonly version: number;
}

/**
 * One kind of change: all that the rest has to know of it. Changes are data: they wait, are sent, are shown before they
 * are sent, and are undone.
 */
export interface ChangeKind<C extends { readonly kind: string }> {
  readonly kind: C['kind'];
  /** What it is about, in a word or two. */
  readonly words: string;
  /** Where it is put, and what with. */
  path(change: C): string;
  body(change: C): object;
  /** The boat whose bundle it shows in; null for what belongs to the yard. */
  boat(change: C): string | null;
  /** Ids that it writes, and ids that must be there before it. */
  touches(change: C): string[];
  needs(change: C): string[];
  /** Its rows that carry a version; what it is with other ids and versions for them. Left out where none does. */
  versioned?: {
    rows(change: C): readonly Versioned[];
    moved(change: C, move: <Row extends Versioned>(row: Row) => Row): C;
  };
  /** What shows it, as it will be once it has landed. */
  show: {
    bundle?(bundle: BoatBundle, change: C): BoatBundle;
    stores?(stores: Stores, change: C): Stores;
    named?(named: NamedBuildUpRow[], change: C): NamedBuildUpRow[];
  };
  /** What takes it back; null where nothing does. */
  undo(change: C, before: Before, signature: Signature): C | null;
}

export interface RowChange<Kind extends string, Row> {
  readonly kind: Kind;
  readonly row: Row;
}

/** A kind that writes one row of a table: what all of those have in common. @param options.at the table's path */
export function rowKind<Kind extends string, Row extends Versioned>(
  options: { kind: Kind; at: string } & Pick<
    ChangeKind<RowChange<Kind, Row>>,
    'words' | 'boat' | 'needs' | 'show' | 'undo'
  > &
    Partial<Pick<ChangeKind<RowChange<Kind, Row>>, 'body'>>,
): ChangeKind<RowChange<Kind, Row>> {
  return {
    path: ({ row }) => `/${options.at}/${row.id}`,
    body: ({ row }) => without(row, 'id'),
    touches: ({ row }) => [row.id],
    versioned: { rows: ({ row }) => [row], moved: (change, move) => ({ ...change, row: move(change.row) }) },
    ...options,
  };
}

/** A row as the server will have it. */
export function landed<Row extends { version: number }>(row: Row): Row {
  return { ...row, version: row.version + 1 };
}

/** Rows with one more or one changed, without those that are deleted. */
export function upsert<Row extends { id: string; deleted: boolean }>(rows: readonly Row[], row: Row): Row[] {
  const kept = rows.some((r) => r.id === row.id) ? rows.map((r) => (r.id === row.id ? row : r)) : [...rows, row];
  return kept.filter((r) => !r.deleted);
}

/** A row as it was, at the version the change made; one that was new is deleted. */
export function asBefore<Row extends { id: string; version: number; deleted: boolean }>(
  rows: readonly Row[] | undefined,
  changed: Row,
): Row {
  const old = rows?.find((r) => r.id === changed.id);
  return old
    ? { ...old, version: changed.version + 1 }
    : { ...changed, version: changed.version + 1, deleted: !changed.deleted };
}

export function without<T extends object, K extends keyof T>(value: T, ...keys: K[]): Omit<T, K> {
  const rest = { ...value };
  for (const key of keys) delete rest[key];
  return rest;
}

/** Sheet revisions that coats name. */
export const sheetsOf = (layers: readonly { sheetRevisionId: string }[]): string[] => [
  ...new Set(layers.map((l) => l.sheetRevisionId)),
];
