import type { Surface } from '#core/model/surface';
import type { LogEntry } from '#core/model/log';
import type { StatusInput } from '#core/coat/zoneStatus';
import { sheet } from '#core/sheet/example.fixture';
import { layerFields, uuid, zoneFields } from '../server/app.fixture';
import { sourcedHours } from '../server/weather';

const HOUR_MS = 3_600_000;

export interface BenchBoat {
  readonly boatId: string;
  readonly zones: readonly string[];
  readonly layersOf: ReadonlyMap<string, ReturnType<typeof layerFields>[]>;
  readonly entries: LogEntry[];
}

/** A made-up boat for the measures: so many zones, on each so many coats, six entries a coat, the last one done an hour ago. */
export function benchBoat(options: {
  revisionId: string;
  zones: number;
  coats: number;
  now: number;
  everyMs?: number;
}): BenchBoat {
  const { revisionId, now, everyMs = 8 * HOUR_MS } = options;
  const boatId = uuid();
  const zones = Array.from({ length: options.zones }, () => uuid());
  // One coat is left to do.
  const layersOf = new Map(
    zones.map((zone) => [zone, Array.from({ length: options.coats + 1 }, () => layerFields(revisionId))]),
  );
  const entries: LogEntry[] = [];
  for (let coat = 0; coat < options.coats; coat += 1) {
    for (const surfaceId of zones) {
      const streamId = uuid();
      const batchId = uuid();
      const layerId = layersOf.get(surfaceId)?.[coat]?.id as string;
      const startedAt = now - 3 * HOUR_MS - (options.coats - 1 - coat) * everyMs;
      const on = [{ surfaceId, layerId }];
      const add = (stream: 'coat' | 'batch', kind: string, minutes: number, body: object) =>
        entries.push({
          id: uuid(),
          boatId,
          stream,
          streamId: stream === 'coat' ? streamId : batchId,
          kind,
          occurredAt: startedAt + minutes * 60_000,
          recordedAt: startedAt + minutes * 60_000,
          painter: 'Ada',
          device: 'bench',
          supersedes: null,
          body,
        } as LogEntry);
      add('batch', 'mixed', -20, {
        sheetRevisionId: revisionId,
        on,
        parts: [
          { name: 'Base', volumeL: 0.75, massKg: 1.1 },
          { name: 'Hardener', volumeL: 0.25, massKg: 0.3 },
        ],
        thinnerL: 0,
        totalL: 1,
        standMin: 15,
        potLifeH: 2,
        potTempC: 18,
      });
      add('coat', 'started', 0, {
        on,
        sheetRevisionId: revisionId,
        method: 'roller',
        thinner: 0,
        dftMicron: 100,
        colour: 'grey',
        colourHex: '#888888',
        overrideReason: null,
        abradedGrit: null,
      });
      add('coat', 'reading', 1, { airC: 16, rh: 0.6, surfaceC: 15 });
      add('coat', 'batchOn', 5, { batchId, litres: 1 });
      add('coat', 'wetFilm', 20, { micron: [190, 200, 210] });
      add('coat', 'finished', 90, { litresOn: 1 });
    }
  }
  return { boatId, zones, layersOf, entries };
}

/** What `zoneStatuses` is asked with for such a boat. */
export function statusInput(boat: BenchBoat, now: number, revisionId: string): StatusInput {
  const hours = sourcedHours({
    place: { name: 'Bench', latitudeDeg: 50, timeZone: 'UTC' },
    typed: [],
    now,
    from: now - 60 * 24 * HOUR_MS,
  });
  return {
    now,
    surfaces: boat.zones.map((id, i) => ({
      ...(zoneFields(boat.boatId) as unknown as Omit<Surface, 'id' | 'areaM2' | 'areaShare'>),
      id,
      name: `Zone ${i}`,
      substrate: 'gelcoat',
      exposure: 'immersed',
      existing: 'bare',
      kind: 'underwater',
      areaM2: 12,
      areaShare: 0.1,
    })),
    buildUps: boat.zones.map((surfaceId) => ({ surfaceId, layers: boat.layersOf.get(surfaceId) as never })),
    entries: boat.entries,
    sheets: [{ id: revisionId, sheetId: uuid(), revision: 1, createdAt: 0, body: sheet }],
    hours,
  };
}
