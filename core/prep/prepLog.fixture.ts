import { entries } from '../examples.fixture';
import type { LogEntry } from '../model/log';

/** Entries of a zone's or a boat's log for tests, each with an id of its own. */
export function logger(boatId = 'boat') {
  let count = 0;
  return (
    streamId: string,
    kind: LogEntry['kind'],
    at: number,
    body: object,
    supersedes: string | null = null,
  ): LogEntry =>
    ({
      id: `e${++count}`,
      boatId,
      stream: streamId === boatId ? 'boat' : 'zone',
      streamId,
      kind,
      occurredAt: at,
      recordedAt: at,
      painter: 'Ada',
      device: '',
      supersedes,
      body,
    }) as LogEntry;
}

/** The start of a coat that puts a layer on the zone. */
export const startOf = (layerId: string) => ({ ...entries[0]!.body, on: [{ surfaceId: 'bottom', layerId }] });
