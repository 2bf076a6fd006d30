import type { LogEntry } from '../index';

/** Entries of a made-up coat, by hours from a midnight. */
export const H = 3_600_000;
export const T0 = Date.UTC(2026, 4, 1);
let serial = 0;

export function entry(kind: LogEntry['kind'], hour: number, body: object, more: Partial<LogEntry> = {}): LogEntry {
  serial += 1;
  const base = {
    id: `e${serial}`,
    boatId: 'boat',
    stream: 'coat',
    streamId: 'c1',
    kind,
    occurredAt: T0 + hour * H,
    recordedAt: T0 + hour * H,
    painter: 'Ada',
    device: 'd',
    supersedes: null,
    body,
  };
  return { ...base, ...more } as LogEntry;
}

export const start = (hour: number, more: Partial<LogEntry> = {}, layerId = 'l1') =>
  entry(
    'started',
    hour,
    {
      on: [{ surfaceId: 'z', layerId }],
      sheetRevisionId: 'r1',
      method: 'roller',
      thinner: 0.05,
      dftMicron: 100,
      colour: 'grey',
      colourHex: '#888888',
      overrideReason: null,
      abradedGrit: null,
    },
    more,
  );
