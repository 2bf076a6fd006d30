import { openDB } from 'idb';
import type { PictureBody } from '#core/model/log';
import { ofThisYard } from './base';
import { UNSENT, type PictureChange } from './changes/picture';
import { useOutbox } from './outbox';
import { save, signed, type EntryDraft } from './store';
import type { Outcome } from './waiting';

/** Longest edge and quality of what is kept of a picture. */
const EDGE_PX = 1600;
const QUALITY = 0.82;

/**
 * A picture as the camera gave it, scaled down.
 * @throws Error with a sentence where it is none, or cannot be read
 */
export async function scaledDown(file: Blob): Promise<{ blob: Blob; widthPx: number; heightPx: number }> {
  const bitmap = await createImageBitmap(file).catch(() => null);
  if (!bitmap) throw new Error('This file is no picture that can be read here. Choose a JPEG or PNG.');
  const scale = Math.min(1, EDGE_PX / Math.max(bitmap.width, bitmap.height));
  const [widthPx, heightPx] = [
    Math.max(1, Math.round(bitmap.width * scale)),
    Math.max(1, Math.round(bitmap.height * scale)),
  ];
  const canvas = document.createElement('canvas');
  canvas.width = widthPx;
  canvas.height = heightPx;
  canvas.getContext('2d')?.drawImage(bitmap, 0, 0, widthPx, heightPx);
  bitmap.close();
  const blob = await new Promise<Blob | null>((done) => canvas.toBlob(done, 'image/jpeg', QUALITY));
  if (!blob) throw new Error('The picture could not be scaled down here. Take it smaller, or choose another one.');
  return { blob, widthPx, heightPx };
}

/** Log a picture: kept on the device with its entry, sent from any page, shown as waiting until then. */
export function keepPicture(
  draft: Pick<EntryDraft, 'boatId' | 'stream' | 'streamId' | 'kind' | 'occurredAt'> & { body: object },
  file: Blob,
  label: string,
): Promise<Outcome> {
  const entry = signed({ ...draft, body: { ...draft.body, hash: UNSENT } } as EntryDraft) as PictureChange['entry'];
  return save({ kind: 'picture', entry }, label, { file });
}

/** The file of a picture that waits on this device, by its entry; undefined where it is on the server. */
export function useWaitingPicture(entryId: string, hash: string | undefined): Blob | undefined {
  const waiting = useOutbox();
  if (hash !== UNSENT) return undefined;
  return waiting.find((w) => w.change.kind === 'picture' && w.change.entry.id === entryId)?.file;
}

/** A picture as an earlier version kept it, in a store of its own. */
interface OldPicture {
  readonly boatId: string;
  readonly stream?: 'coat' | 'zone';
  readonly streamId?: string;
  readonly coatId?: string;
  readonly at: number;
  readonly blob: Blob;
  readonly body: Omit<PictureBody, 'hash'>;
}

/** What waits in the store of an earlier version is taken over, once. */
export async function takeOverOldPictures(): Promise<void> {
  const name = ofThisYard('jack-plane-pictures');
  // Not every browser can tell.
  if (!('databases' in indexedDB)) return;
  const known = await indexedDB.databases();
  if (!known.some((db) => db.name === name)) return;
  const db = await openDB(name);
  if (db.objectStoreNames.contains('pictures')) {
    for (const key of await db.getAllKeys('pictures')) {
      const old = (await db.get('pictures', key)) as OldPicture;
      const { boatId, stream = 'coat', streamId = old.coatId ?? '', at, blob, body } = old;
      void keepPicture({ boatId, stream, streamId, kind: 'picture', occurredAt: at, body }, blob, 'Picture kept');
      await db.delete('pictures', key);
    }
  }
  db.close();
  indexedDB.deleteDatabase(name);
}
