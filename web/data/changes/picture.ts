import type { NewEntry } from '#core/model/log';
import type { ChangeKind } from './changeKind';
import { entry, type EntryChange } from './entry';

/** An entry with a picture: its file goes first, and gives it its name. Until then it has none. */
export interface PictureChange {
  readonly kind: 'picture';
  readonly entry: Extract<NewEntry, { kind: 'picture' | 'evidence' }>;
}

/** An entry whose picture is still on this device. */
export const UNSENT = '';

const asEntry = (change: PictureChange): EntryChange => ({ kind: 'entry', entry: change.entry });

/** A picture is an entry of the log like any other, but for the file that goes before it. */
export const picture: ChangeKind<PictureChange> = {
  kind: 'picture',
  words: 'picture',
  path: (change) => entry.path(asEntry(change)),
  body: (change) => entry.body(asEntry(change)),
  boat: (change) => change.entry.boatId,
  touches: (change) => entry.touches(asEntry(change)),
  needs: (change) => entry.needs(asEntry(change)),
  show: { bundle: (bundle, change) => entry.show.bundle?.(bundle, asEntry(change)) ?? bundle },
  undo: (change, before, signature) =>
    entry.undo(asEntry(change), before, signature) as unknown as PictureChange | null,
};

/** The change as it is sent once its file has a name. */
export function named(change: PictureChange, hash: string): PictureChange {
  return { ...change, entry: { ...change.entry, body: { ...change.entry.body, hash } } as PictureChange['entry'] };
}
