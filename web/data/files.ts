import { BASE } from './base';
import { call, NoAnswer } from './api';

/** Files go straight to the server and back, not through the queue of entries: they need a signal. */
const NO_SIGNAL = 'No answer from the server. Everything typed here is still here: try again with a signal.';

/** Keep a file with the boat's data, named by its content. @throws Error with a sentence */
export async function sendFile(file: File): Promise<{ fileHash: string; bytes: number }> {
  try {
    const { hash, bytes } = await call<{ hash: string; bytes: number }>('POST', '/files', file);
    return { fileHash: hash, bytes };
  } catch (error) {
    throw error instanceof NoAnswer ? new Error(NO_SIGNAL, { cause: error }) : error;
  }
}

/** @throws Error with a sentence */
export async function fetchFile(hash: string): Promise<Blob> {
  const response = await fetch(`${BASE}/api/files/${hash}`).catch(() => null);
  if (!response?.ok)
    throw new Error(response?.status === 404 ? 'The mesh file is not here any more. Choose it again.' : NO_SIGNAL);
  return response.blob();
}
