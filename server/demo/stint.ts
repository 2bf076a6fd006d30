import { weatherAt } from '#core/air/weather';
import { temperatureAt } from '#core/air/surfaceSeries';
import type { CoatTarget, LogEntry, LogKind } from '#core/model/log';
import { checkAppend } from '#core/coat/append';

import { applyHours } from '#core/coat/coatAdvice';
import { zoneSeries } from '#core/coat/zoneSeries';
import type { Layer } from '#core/model/layer';
import { litresNeeded, wetFilmMicron } from '#core/film/spreading';
import { potLifeH } from '#core/mix/pot';
import { splitBatch } from '#core/mix/splitBatch';
import { entries } from '../db/schema';

import { demoId, HOUR_MS, type DemoYard, type Zone } from './demoYard';

type Log = (stream: LogEntry['stream'], streamId: string, kind: LogKind, at: number, body: object) => Promise<void>;

/** Writes entries of one boat, checked as a person's are. */
export function logOf(yard: DemoYard, boatId: string): Log {
  return async (stream: LogEntry['stream'], streamId: string, kind: LogKind, at: number, body: object) => {
    const entry = {
      id: demoId(10, yard.next()),
      boatId,
      stream,
      streamId,
      kind,
      occurredAt: at,
      recordedAt: at,
      painter: 'Ines',
      device: 'demo',
      supersedes: null,
      body,
    } as LogEntry;
    checkAppend([...yard.log], entry);
    yard.log.push(entry);
    await yard.db.insert(entries).values(entry);
  };
}

const litresOn = (zone: Zone, { dftMicron, loss }: Layer, solids: number): number =>
  litresNeeded({ areaM2: zone.row.areaM2, dftMicron, solids, loss, deadVolumeLPerM2: 0 });

/** One stint over one or more zones: mixed, started, read, combed, finished. */
export async function stint(
  yard: DemoYard,
  zones: Zone[],
  layerIndex: number,
  wantedStart: number,
  more: { micron?: number[]; note?: string; open?: boolean; hours?: number } = {},
): Promise<void> {
  const first = zones[0] as Zone;
  const layer = first.layers[layerIndex] as Layer;
  const sheet = yard.bodyOf(layer.sheetRevisionId);
  const startedAt = Math.floor(wantedStart / 60_000) * 60_000;
  const hours = more.hours ?? zones.reduce((sum, z) => sum + applyHours(z.row.areaM2, layer), 0);
  const finishedAt = Math.min(startedAt + Math.round((hours * HOUR_MS) / 60_000) * 60_000, yard.now);
  const on: CoatTarget[] = zones.map((z) => ({ surfaceId: z.row.id, layerId: (z.layers[layerIndex] as Layer).id }));
  const litres = zones.reduce((sum, z) => sum + litresOn(z, layer, sheet.solids), 0);
  const serial = yard.next();
  const coatId = demoId(8, serial);
  const batchId = demoId(9, serial);
  const temps = zoneSeries(first.row, first.hours, []);
  const weather = weatherAt(first.hours, startedAt);
  const surfaceC = Number(temperatureAt(temps, startedAt).toFixed(1));
  const log = logOf(yard, first.boat.id);
  const mixedAt = startedAt - ((sheet.inductionMin ?? 0) + 4) * 60_000;
  const batch = splitBatch({ parts: sheet.parts, basis: sheet.ratioBasis, mixedL: Math.ceil(litres * 20) / 20 });
  await log('batch', batchId, 'mixed', mixedAt, {
    sheetRevisionId: layer.sheetRevisionId,
    on,
    parts: batch.parts,
    thinnerL: 0,
    totalL: batch.totalL,
    standMin: sheet.inductionMin ?? 0,
    potLifeH: sheet.potLife ? potLifeH({ table: sheet.potLife, tempC: weather?.airC ?? 20 }).hours : null,
    potTempC: weather?.airC ?? 20,
  });
  await log('coat', coatId, 'started', startedAt, {
    on,
    sheetRevisionId: layer.sheetRevisionId,
    method: layer.method,
    thinner: 0,
    dftMicron: layer.dftMicron,
    colour: layer.colour,
    colourHex: layer.colourHex,
    overrideReason: null,
    abradedGrit: layer.prep === 'abrade' ? (layer.grit ?? 180) : null,
    ...(layer.prep === 'abrade' ? { abradedFor: layer.abradeFor ?? 'bond' } : {}),
  });
  await log('coat', coatId, 'reading', startedAt, {
    airC: round(weather?.airC ?? 20, 1),
    rh: round(weather?.rh ?? 0.6, 2),
    surfaceC,
  });
  await log('coat', coatId, 'batchOn', startedAt, { batchId, litres: batch.totalL });
  if ((sheet.inductionMin ?? 0) > 0) await log('batch', batchId, 'silenced', startedAt, { timer: 'stand' });
  if (more.open) return;
  const wet = wetFilmMicron({ dftMicron: layer.dftMicron, solids: sheet.solids, thinner: 0 });
  await log('coat', coatId, 'wetFilm', Math.round((startedAt + finishedAt) / 2), {
    micron: more.micron ?? [wet * 0.97, wet * 1.04, wet].map(Math.round),
  });
  if (more.note) await log('coat', coatId, 'note', finishedAt, { text: more.note });
  await log('coat', coatId, 'finished', finishedAt, {
    litresOn: null,
    leftL: round(batch.totalL * 0.03, 2),
  });
  await log('batch', batchId, 'emptied', finishedAt, { litresLeft: round(batch.totalL * 0.03, 2) });
}

const round = (value: number, digits: number) => Number(value.toFixed(digits));
