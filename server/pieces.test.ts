import Papa from 'papaparse';
import { mkdtempSync, readdirSync, rmSync } from 'node:fs';
import { createServer } from 'node:http';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import Joi from 'joi';
import { afterEach, describe, expect, it } from 'vitest';
import { makeClock } from './clock';
import { readConfig } from './config';
import { same } from './db/versioned';
import { Refusal } from './errors';
import { lockFolder } from './keep/lock';
import { patient } from './patient';
import { coatSheetsCsv } from './record';
import { check } from './validate';
import type { BoatBundle } from '#contracts/rows/boat';
import type { LogEntry } from '#core/model/log';
import { sheet } from '#core/sheet/example.fixture';

describe('the environment', () => {
  it('has defaults that serve this machine only', () => {
    expect(readConfig({})).toMatchObject({
      port: 4620,
      host: '127.0.0.1',
      now: null,
      freeze: false,
      demo: false,
      open: false,
      hosts: [],
    });
    expect(readConfig({}).dataDir).toMatch(/\.data\/yard$/);
    expect(readConfig({ JACKPLANE_DEMO: '1' }).dataDir).toMatch(/\.data\/demo$/);
  });
  it('takes what is set and refuses what cannot be', () => {
    expect(
      readConfig({
        PORT: '0',
        HOST: '0.0.0.0',
        JACKPLANE_OPEN: '1',
        JACKPLANE_HOSTS: 'yard.local, 10.0.0.9:80',
        JACKPLANE_DATA: '/x',
        JACKPLANE_NOW: '2026-05-14T09:40:00Z',
        JACKPLANE_FREEZE: '1',
      }),
    ).toEqual({
      port: 0,
      host: '0.0.0.0',
      dataDir: '/x',
      now: Date.UTC(2026, 4, 14, 9, 40),
      databaseUrl: null,
      freeze: true,
      demo: false,
      open: true,
      hosts: ['yard.local', '10.0.0.9:80'],
    });
    for (const PORT of ['70000', '-1', '4.5', 'http', '', ' '])
      expect(() => readConfig({ PORT })).toThrow(/PORT must be/);
    expect(() => readConfig({ JACKPLANE_NOW: 'yesterday' })).toThrow(/JACKPLANE_NOW/);
    expect(readConfig({ DATABASE_URL: 'postgres://a@b/c' }).databaseUrl).toBe('postgres://a@b/c');
    expect(() => readConfig({ DATABASE_URL: 'mysql://a' })).toThrow(/DATABASE_URL must be an address/);
    expect(() => readConfig({ DATABASE_URL: 'postgres://a@b/c', JACKPLANE_DEMO: '1' })).toThrow(
      /demo makes a database/,
    );
    // Nobody opens a yard to the network by the way.
    for (const HOST of ['0.0.0.0', '::', '192.168.1.4', 'yard.local'])
      expect(() => readConfig({ HOST })).toThrow(/JACKPLANE_OPEN=1/);
    for (const HOST of ['', '127.0.0.1', '127.0.0.2', 'localhost', '::1'])
      expect(readConfig({ HOST }).open).toBe(false);
  });
});

describe('the clock', () => {
  it('starts where it is told and runs on from there', async () => {
    const clock = makeClock({ startAt: 1000, freeze: false });
    const first = clock.now();
    await new Promise((done) => setTimeout(done, 30));
    expect(first).toBeGreaterThanOrEqual(1000);
    expect(clock.now()).toBeGreaterThan(first);
    expect(clock.now()).toBeLessThan(6000);
  });
  it('stands still when frozen', async () => {
    const clock = makeClock({ startAt: 1000, freeze: true });
    await new Promise((done) => setTimeout(done, 20));
    expect(clock.now()).toBe(1000);
    expect(clock.frozen).toBe(true);
  });
});

describe('a slow line', () => {
  it('is not cut off while something comes, however long that takes; one without a byte is', () => {
    const server = createServer();
    patient(server);
    expect(server.requestTimeout).toBe(0);
    expect(server.headersTimeout).toBe(60_000);
    expect(server.timeout).toBe(120_000);
  });
});

describe('comparing rows', () => {
  it('minds data, not the order of keys', () => {
    expect(same({ a: 1, b: { c: [1, 2], d: null } }, { b: { d: null, c: [1, 2] }, a: 1 })).toBe(true);
    expect(same({ a: [1, 2] }, { a: [2, 1] })).toBe(false);
    expect(same({ a: 1 }, { a: '1' })).toBe(false);
    expect(same({ a: 1 }, { a: 1, b: null })).toBe(false);
  });
});

describe('checking input', () => {
  it('names the field and what to do', () => {
    const schema = Joi.object({
      deep: Joi.object({ size: Joi.number().positive().required().label('Size') }).required(),
    });
    expect(check(schema, { deep: { size: '4' } })).toEqual({ deep: { size: 4 } });
    try {
      check(schema, { deep: { size: -4 } });
      expect.unreachable();
    } catch (error) {
      expect(error).toBeInstanceOf(Refusal);
      expect(error).toMatchObject({
        status: 400,
        code: 'invalid',
        message: 'Size must be more than zero.',
        detail: { field: 'deep.size' },
      });
    }
    expect(() => check(schema, undefined)).not.toThrow();
    expect(() => check(schema.required(), undefined)).toThrow(/is missing/);
  });
});

describe('the lock of a folder', () => {
  const dirs: string[] = [];
  afterEach(() => dirs.splice(0).forEach((dir) => rmSync(dir, { recursive: true, force: true })));
  it('is one file, whether it is taken, refused or given back', () => {
    const dir = mkdtempSync(join(tmpdir(), 'jack-plane-lock-'));
    dirs.push(dir);
    const release = lockFolder(dir);
    expect(readdirSync(dir)).toEqual(['lock']);
    expect(() => lockFolder(dir)).toThrow(/in use/);
    expect(readdirSync(dir)).toEqual(['lock']);
    release();
    lockFolder(dir)();
    expect(readdirSync(dir)).toEqual(['lock']);
  });
});

describe('coat sheets as CSV', () => {
  const at = Date.UTC(2026, 6, 1, 8);
  const entry = (id: string, kind: string, body: object, hour = 0): LogEntry =>
    ({
      id,
      boatId: 'b',
      stream: 'coat',
      streamId: 'c',
      kind,
      occurredAt: at + hour * 3_600_000,
      recordedAt: at,
      painter: '@Ada',
      device: '',
      supersedes: null,
      body,
    }) as unknown as LogEntry;
  const bundle = (entries: LogEntry[]): BoatBundle => ({
    now: at,
    frozen: true,
    jobs: [],
    hull: null,
    removedZones: [],
    buildUps: [],
    borders: [],
    hours: [],
    workSpans: [],
    typedDays: [],
    boat: { id: 'b', name: 'Punt, "small"', timeZone: 'America/New_York' } as BoatBundle['boat'],
    surfaces: [{ id: 'z', name: 'Keel' }] as BoatBundle['surfaces'],
    sheets: [{ id: 'r', sheetId: 's', revision: 2, createdAt: 0, body: sheet }],
    entries,
  });
  const start = entry('1', 'started', {
    on: [
      { surfaceId: 'z', layerId: 'l' },
      { surfaceId: 'gone', layerId: 'l' },
    ],
    sheetRevisionId: 'r',
    method: 'roller',
    thinner: 0.05,
    dftMicron: 100,
    colour: 'grey',
    colourHex: '#888888',
    overrideReason: null,
    abradedGrit: 180,
  });

  it('has one row a coat and zone, in the boat’s own time, films and air worked out', () => {
    const csv = coatSheetsCsv(
      bundle([
        start,
        entry('2', 'reading', { airC: 20, rh: 0.8, surfaceC: 20 }),
        entry('3', 'wetFilm', { micron: [210, 210] }, 1),
        entry('4', 'finished', { litresOn: 2.5 }, 2),
      ]),
    );
    const [head, first, second] = csv.split('\r\n');
    expect(head?.startsWith('boat,zone,product')).toBe(true);
    expect(first).toContain(
      '"Punt, ""small""",Keel,Example barrier,Made up,2,grey,roller,2026-07-01T04:00:00-04:00,2026-07-01T06:00:00-04:00,20,80,20,16.4,3.6,5,100,210 210,210,100,,,,2.5,,',
    );
    expect(first).toContain('"\'@Ada",180');
    expect(second).toContain('(removed zone)');
  });
  it('tells paint mixed, left and lost, its stand, what it was abraded for and each hand test', () => {
    const pot = { stream: 'batch', streamId: 'p' };
    const mixed = {
      sheetRevisionId: 'r',
      on: [],
      parts: [{ name: 'Base', volumeL: 2, massKg: null }],
      thinnerL: 0.2,
      totalL: 2.2,
      standMin: 20,
      potLifeH: 2,
      potTempC: 20,
    };
    const csv = coatSheetsCsv(
      bundle([
        {
          ...start,
          body: { ...start.body, abradedFor: 'level', against: ['stand'], overrideReason: 'rain is coming' },
        },
        { ...entry('2', 'mixed', mixed), ...pot },
        entry('3', 'batchOn', { batchId: 'p', litres: 2.2 }),
        entry('4', 'finished', { litresOn: null, leftL: 0.2, lostL: 0.1 }, 2),
        entry('5', 'handTest', { test: 'thumb', passed: true, surfaceId: 'z' }, 6),
      ] as LogEntry[]),
    );
    const { data } = Papa.parse<Record<string, string>>(csv, { header: true });
    expect(data[0]).toMatchObject({
      'litres mixed': '2.2',
      'litres left in pot': '0.2',
      'litres lost': '0.1',
      'litres on': '',
      'thinner poured L': '0.2',
      'thinner % of mixed': '10',
      stand: 'to stand 20 min from 2026-07-01T04:00:00-04:00',
      'grit beneath': '180',
      'abraded for': 'level',
      'against it at the start': 'stand',
      'started against advice because': 'rain is coming',
      'hand tests': '2026-07-01T10:00:00-04:00 thumb passed on Keel',
    });
  });
  it('leaves empty what was not measured', () => {
    const csv = coatSheetsCsv(bundle([start]));
    expect(csv.split('\r\n')[1]).toContain('2026-07-01T04:00:00-04:00,,,,,,,5,100,,,,,,');
  });
});
