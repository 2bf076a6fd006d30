import type { LogEntry, NewEntry } from '#core/model/log';
import { without, type ChangeKind } from './changeKind';

export interface EntryChange {
  readonly kind: 'entry';
  readonly entry: NewEntry;
}

/** A start is what its whole coat, or batch, hangs on. */
const opens = ({ kind }: NewEntry): boolean => kind === 'started' || kind === 'mixed';

/** An entry of the log. It stays: what is wrong is superseded, what is undone is withdrawn. */
export const entry: ChangeKind<EntryChange> = {
  kind: 'entry',
  words: 'entry of the log',
  path: (change) => `/entries/${change.entry.id}`,
  body: (change) => without(change.entry, 'id'),
  boat: (change) => change.entry.boatId,
  touches: ({ entry: own }) => [own.id, ...(opens(own) ? [own.streamId] : [])],
  needs: ({ entry: own }) => [
    own.boatId,
    ...(own.kind === 'started' || own.kind === 'mixed' ? own.body.on.map((t) => t.surfaceId) : [own.streamId]),
    ...(own.kind === 'batchOn' ? [own.body.batchId] : []),
    ...(own.supersedes ? [own.supersedes] : []),
  ],
  show: {
    bundle: (bundle, { entry: own }) =>
      bundle.entries.some((e) => e.id === own.id)
        ? bundle
        : { ...bundle, entries: [...bundle.entries, { ...own, recordedAt: own.occurredAt }] },
  },
  undo: ({ entry: own }, { bundle }, signature) => {
    if (own.kind === 'silenced') return null;
    if (own.kind === 'withdrawn')
      return loggedAgain(
        bundle?.entries.find((e) => e.id === own.supersedes),
        signature.id,
      );
    const { id, at, painter, device } = signature;
    const withdrawn = { kind: 'withdrawn', occurredAt: at, painter, device, supersedes: own.id, body: { reason: '' } };
    return { kind: 'entry', entry: { ...own, ...withdrawn, id } as NewEntry };
  },
};

/** A withdrawal stands: what it took back is logged again under an id of its own. Of one that was a correction nothing simple is left to log. */
export function loggedAgain(withdrawn: NewEntry | LogEntry | undefined, id: string): EntryChange | null {
  if (!withdrawn || withdrawn.supersedes !== null) return null;
  return { kind: 'entry', entry: { ...without(withdrawn as LogEntry, 'recordedAt'), id } as NewEntry };
}
