import type { BoatBundle } from '#contracts/rows/boat';
import type { Stores } from '#contracts/rows/stores';
import type { NamedBuildUpRow } from '#contracts/rows/system';
import { boat } from './boat';
import { border } from './border';
import { buildUp } from './buildUp';
import { buildUps } from './buildUps';
import type { Before, ChangeKind, Signature, Versioned } from './changeKind';
import { entry } from './entry';
import { hull } from './hull';
import { job } from './job';
import { lot } from './lot';
import { named } from './named';
import { named as namedPicture, picture } from './picture';
import { rules } from './rules';
import { sheet } from './sheet';
import { sheetImport } from './sheetImport';
import { surface } from './surface';
import { typedWeather } from './typedWeather';

/** All that can be written. A new kind is a file beside these and its name in this list. */
const KINDS = [
  boat,
  job,
  surface,
  hull,
  buildUp,
  buildUps,
  border,
  sheet,
  sheetImport,
  named,
  lot,
  rules,
  entry,
  picture,
  typedWeather,
] as const;

type ChangeOf<Kind> = Kind extends ChangeKind<infer C> ? C : never;

/** A change as data: it can wait, be sent, be shown before it is sent, and be undone. */
export type Change = ChangeOf<(typeof KINDS)[number]>;
export type { Before } from './changeKind';
export type { NewSheet } from './sheetImport';

const byKind = new Map<string, unknown>(KINDS.map((kind) => [kind.kind, kind]));
const kindOf = (change: Change) => byKind.get(change.kind) as ChangeKind<Change>;

/** Where a change is sent and what with. */
export const requestOf = (change: Change): { path: string; body: object } => ({
  path: kindOf(change).path(change),
  body: kindOf(change).body(change),
});

/** A change as it is sent once the file that goes with it has a name. */
export const withFile = (change: Change, hash: string): Change =>
  change.kind === 'picture' ? namedPicture(change, hash) : change;

/** What a change is about, in a word or two. */
export const wordsOf = (change: Change): string => kindOf(change).words;

/** The boat whose bundle a change shows in; null for what belongs to the yard. */
export const boatOf = (change: Change): string | null => kindOf(change).boat(change);

/** Ids that a change writes, and ids that must be there before it. */
export const linksOf = (change: Change): { touches: string[]; needs: string[] } => ({
  touches: kindOf(change).touches(change),
  needs: kindOf(change).needs(change),
});

/** A boat's bundle as it will be once a change has landed. */
export const applyChange = (bundle: BoatBundle, change: Change): BoatBundle =>
  kindOf(change).show.bundle?.(bundle, change) ?? bundle;

/** The shelf as it will be once a change has landed. */
export const applyToStores = (stores: Stores, change: Change): Stores =>
  kindOf(change).show.stores?.(stores, change) ?? stores;

/** The named build-ups as they will be once a change has landed. */
export const applyToNamed = (rows: NamedBuildUpRow[], change: Change): NamedBuildUpRow[] =>
  kindOf(change).show.named?.(rows, change) ?? rows;

/** What takes a change back: the row as it was, at the version the change made; an entry is withdrawn. */
export const inverseOf = (change: Change, before: Before, signature: Signature): Change | null =>
  kindOf(change).undo(change, before, signature);

/** A row that stands on the server where this device thought of another: its id, and the version it is at now. */
export interface Rebase {
  readonly from: Versioned;
  readonly to: Versioned;
}

/**
 * How a refused change can be put on top of what stands there now: for each of its rows that was changed, or made by
 * someone else under another id. Empty where it was not refused for that.
 */
export function rebasesOf(change: Change, current: unknown): Rebase[] {
  const theirs = ((current as { rows?: unknown[] } | null)?.rows ?? [current]) as (Partial<
    Versioned & { surfaceId: string }
  > | null)[];
  const mine = kindOf(change).versioned?.rows(change) ?? [];
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
  const move = <Row extends Versioned>(row: Row): Row => {
    const found = rebases.find((r) => r.from.id === row.id);
    return found ? { ...row, id: found.to.id, version: row.version - found.from.version + found.to.version } : row;
  };
  return kindOf(change).versioned?.moved(change, move) ?? change;
}
