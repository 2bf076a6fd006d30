import type { Server } from 'node:http';

/** A line without a byte for so long is dead; one that still brings some may take as long as it needs. */
const SILENT_MS = 120_000;

/** A slow upload over a poor line is not cut off, however long it takes, as long as something comes. */
export function patient(server: Server): void {
  server.requestTimeout = 0;
  server.headersTimeout = 60_000;
  server.setTimeout(SILENT_MS);
  // A connection closed just as a phone sends on it looks like no answer: it is kept for as long as a pause at the hull.
  server.keepAliveTimeout = 75_000;
}
