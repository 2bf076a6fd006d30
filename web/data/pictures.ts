import { openDB } from 'idb';
import { useEffect } from 'react';
import { create } from 'zustand';
import type { PictureBody } from '#core/model/log';
import { Fault, NoAnswer } from './api';
import { ofThisYard } from './base';
import { sendFile } from './files';
import { logEntry } from './store';
import { toast } from './toasts';

/** A picture that waits on this device for a signal. */
interface WaitingPicture {
  readonly id: number;
  readonly boatId: string;
  /** The coat or the zone that it belongs to. */
  readonly stream: 'coat' | 'zone';
  readonly streamId: string;
  readonly at: number;
  readonly blob: Blob;
  readonly body: Omit<PictureBody, 'hash'>;
}

const STORE = 'pictures';
const open = () =>
  openDB(ofThisYard('jack-plane-pictures'), 2, {
    upgrade(db, from, _to, change) {
      if (from === 0) db.createObjectStore(STORE, { keyPath: 'id', autoIncrement: true });
      const waiting = change.objectStore(STORE);
      // What waited before zones had pictures was of a coat.
      void waiting.getAll().then((all: (WaitingPicture & { coatId?: string })[]) => {
        for (const old of all)
          if (old.coatId !== undefined) void waiting.put({ ...old, stream: 'coat', streamId: old.coatId });
      });
    },
  });

/** How many wait. */
export const usePicturesWaiting = create<{ count: number }>(() => ({ count: 0 }));

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

/** Keep a picture: on the device first, then sent; what cannot be sent now is sent later. */
export async function keepPicture(picture: Omit<WaitingPicture, 'id'>): Promise<void> {
  const db = await open();
  await db.add(STORE, picture);
  db.close();
  await sendPictures();
}

let sending = false;

/** Send what waits, one after the other. */
export async function sendPictures(): Promise<void> {
  if (sending) return;
  sending = true;
  const db = await open();
  try {
    for (const waiting of (await db.getAll(STORE)) as WaitingPicture[]) {
      const { boatId, stream, streamId, at, blob, body } = waiting;
      try {
        const { fileHash } = await sendFile(new File([blob], 'picture.jpg'));
        void logEntry(
          {
            boatId,
            stream,
            streamId,
            kind: 'picture',
            occurredAt: at,
            body: { ...body, hash: fileHash },
          },
          'Picture kept',
        );
        await db.delete(STORE, waiting.id);
      } catch (error) {
        if (error instanceof Fault || error instanceof NoAnswer || isNoSignal(error)) break;
        // What the server will not have, it will not have later either.
        toast(`The picture was not kept. ${(error as Error).message}`);
        await db.delete(STORE, waiting.id);
      }
    }
    usePicturesWaiting.setState({ count: await db.count(STORE) });
  } finally {
    db.close();
    sending = false;
  }
}

/** Send what waits now, when the signal comes back, and every quarter minute while anything does. */
export function usePicturesSending(): void {
  useEffect(() => {
    const send = () => void sendPictures().catch(() => undefined);
    send();
    const timer = setInterval(() => usePicturesWaiting.getState().count > 0 && send(), AGAIN_MS);
    addEventListener('online', send);
    return () => {
      clearInterval(timer);
      removeEventListener('online', send);
    };
  }, []);
}

const AGAIN_MS = 15_000;

const isNoSignal = (error: unknown) => error instanceof Error && error.cause instanceof NoAnswer;
