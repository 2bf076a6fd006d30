import { describe, expect, it } from 'vitest';
import { hourlyFromDays } from '#core/air/typedDays';
import type { LogEntry } from '#core/model/log';
import { zoneStatuses, type StatusInput, type ZoneStatus } from '#core/coat/zoneStatus';
import type { Surface } from '#core/model/surface';
import { sheet } from '#core/sheet/example.fixture';
import type { SheetBody } from '#core/model/sheet';
import { airLine, headline, nextName, windowLine, type Saying } from './zoneWords';

const H = 3_600_000;
const T0 = Date.UTC(2026, 4, 14);
const metric = { system: 'metric' } as const;
const say = (hour: number): Saying => ({ at: T0 + hour * H, zone: 'UTC', units: metric });

/** Steady 20 °C: the example sheet opens 5 h after the finish and bonds as is until 24 h after the start. */
const weather = (lowC = 20, highC = 20, dewC = 8) =>
  hourlyFromDays(
    [0, 1, 2, 3].map((n) => ({ startsAt: T0 + n * 24 * H, endsAt: T0 + (n + 1) * 24 * H, lowC, highC, dewC })),
  ).map((h) => ({ ...h, source: 'typed' as const }));
const zone: Surface = {
  id: 'z',
  name: 'Keel',
  kind: 'bilge',
  substrate: 'laminate',
  exposure: 'bilge',
  existing: 'bare',
  areaM2: 10,
  areaShare: 0.1,
};
const layer = (id: string) => ({
  id,
  sheetRevisionId: 'r',
  dftMicron: 100,
  method: 'roller' as const,
  thinnerShare: 0,
  loss: 0.1,
  deadVolumeLPerM2: 0,
  colour: '',
  colourHex: '#888888',
});
const started = (hour: number): LogEntry => ({
  id: 's',
  boatId: 'b',
  stream: 'coat',
  streamId: 'c',
  kind: 'started',
  occurredAt: T0 + hour * H,
  recordedAt: 0,
  painter: '',
  device: '',
  supersedes: null,
  body: {
    on: [{ surfaceId: 'z', layerId: 'l1' }],
    sheetRevisionId: 'r',
    method: 'roller',
    thinner: 0,
    dftMicron: 100,
    colour: '',
    colourHex: '#888888',
    overrideReason: null,
    abradedGrit: null,
  },
});
const finished = (hour: number): LogEntry => ({
  id: 'f',
  boatId: 'b',
  stream: 'coat',
  streamId: 'c',
  kind: 'finished',
  occurredAt: T0 + hour * H,
  recordedAt: 0,
  painter: '',
  device: '',
  supersedes: null,
  body: { litresOn: null },
});

function status(hour: number, more: Partial<StatusInput> & { body?: SheetBody } = {}): ZoneStatus {
  const { body = sheet, ...input } = more;
  return zoneStatuses({
    now: T0 + hour * H,
    surfaces: [zone],
    buildUps: [{ surfaceId: 'z', layers: [layer('l1'), layer('l2')] }],
    entries: [started(10), finished(12)],
    sheets: [{ id: 'r', sheetId: 's', revision: 1, createdAt: 0, body }],
    hours: weather(),
    ...input,
  })[0]!;
}
const line = (hour: number, more: Parameters<typeof status>[1] = {}) => windowLine(status(hour, more), say(hour));

describe('what the window says', () => {
  it('names the time that matters, as the clock runs', () => {
    expect(line(14)).toBe('not before 17:00');
    expect(line(18)).toBe('bonds as is until tomorrow 10:00');
    expect(line(30)).toBe('bonds as is until 10:00');
    expect(line(35)).toBe('abrade first: it bonded as is until 10:00');
    expect(line(11, { entries: [started(10)] })).toBe('going on since 10:00');
  });
  it('never says that a coat is lost, but what it now takes', () => {
    const closing = { ...sheet, overcoat: [{ ...sheet.overcoat[0]!, maximum: [{ tempC: 20, hours: 40 }] }] };
    expect(line(60, { body: closing })).toBe('closed since 02:00: treat it as an old coating');
    const always = { ...sheet, overcoat: [{ ...sheet.overcoat[0]!, alwaysAbrade: true }] };
    expect(line(20, { body: always })).toBe('abrade first: the sheet always asks for it');
  });
  it('says "no bonding window" when it is too cold for one', () => {
    expect(line(14, { hours: weather(2, 3, 0) })).toBe(
      'not yet: it opens after the forecast ends; no bonding window, it is too cold',
    );
  });
  it('says what is missing and where to put it', () => {
    expect(line(20, { body: { ...sheet, overcoat: [] } })).toContain('no overcoat time: type it in');
    expect(line(20, { hours: weather().slice(20) })).toContain('no weather known for the day of the last coat');
    const noLimit = { ...sheet, overcoat: [{ ...sheet.overcoat[0]!, tackLimit: null }] };
    expect(line(20, { body: noLimit })).toMatch(/^may go on; no longest time on the sheet/);
    expect(line(20, { entries: [], buildUps: [] })).toBe('no build-up yet');
  });
  it('minds what lay there before the first coat', () => {
    const first = (existing: Surface['existing']) => line(9, { entries: [], surfaces: [{ ...zone, existing }] });
    expect(first('bare')).toBe('bare: the first coat may go on');
    expect(first('onePack')).toContain('two-pack over it lifts');
    expect(first('unknown')).toContain('try a patch first');
  });
  it('tells a complete zone when it may be immersed', () => {
    expect(line(20, { buildUps: [{ surfaceId: 'z', layers: [layer('l1')] }] })).toBe(
      'complete; into the water from Sun 12:00',
    );
  });
});

describe('what the air says', () => {
  const outside: Partial<StatusInput> = { surfaces: [{ ...zone, kind: 'keel', exposure: 'immersed' }] };
  it('gives the last start and the reason', () => {
    // Damp from the evening on: dew point 16 °C against 12 °C of air at night.
    const evening = { ...outside, hours: weather(12, 22, 13), entries: [] };
    const now = status(12, evening);
    expect(now.advice?.nowHolds).toBe(true);
    expect(airLine(now, say(12))).toMatch(/^last start 1\d:\d\d, then too damp: spread 2\.\d+ °C, needs 3\.0+ °C$/);
    const late = status(21, evening);
    expect(airLine(late, say(21))).toMatch(
      /^from 2\d:\d\d too damp: spread .* needs 3\.0+ °C; good from tomorrow \d\d:\d\d to tomorrow \d\d:\d\d$/,
    );
  });
  it('steps back where the bonding window ends first', () => {
    const steady = status(30, { ...outside, hours: weather(20, 20, 8) });
    expect(steady.state).toBe('bonds');
    expect(airLine(steady, say(30))).toBe('the air holds longer than that');
  });
  it('says when the air comes too late for the bonding window', () => {
    // Damp until the third morning; the window ends at 10:00 of the second day.
    const damp = weather(20, 20, 18.5).slice(0, 56);
    const dry = weather(20, 20, 8).slice(56);
    const late = status(30, { ...outside, hours: [...damp, ...dry] });
    expect(late.state).toBe('bonds');
    expect(airLine(late, say(30))).toMatch(/^now too damp: .*; good from tomorrow \d\d:\d\d.*, by then abrade first$/);
    expect(headline([late], () => 'Keel', say(30)).text).not.toContain('left');
  });
  it('names the start that the air allows inside the window', () => {
    const damp = weather(20, 20, 18.5).slice(0, 21);
    const dry = weather(20, 20, 8).slice(21);
    const soon = status(18, { ...outside, hours: [...damp, ...dry] });
    expect(headline([soon], () => 'Keel', say(18)).text).toMatch(/^Keel: barrier 2 from 2\d:\d\d, by tomorrow 10:00$/);
  });
  it('is silent where nothing is to start', () => {
    expect(airLine(status(11, { entries: [started(10)] }), say(11))).toBe('');
  });
});

describe('the one line of Today', () => {
  const name = () => 'Keel';
  const head = (hour: number, more: Parameters<typeof status>[1] = {}) =>
    headline([status(hour, more)], name, say(hour)).text;
  it('puts what is in hand first, then what closes, then what opens', () => {
    expect(head(11, { entries: [started(10)] })).toBe('Keel: coat going on since 10:00');
    expect(head(30)).toBe('Keel: barrier 2 by 10:00, 4\u00a0h left');
    expect(head(14)).toBe('Keel: barrier 2, from 17:00');
    expect(head(9, { entries: [] })).toBe('Keel: barrier 1 now');
  });
  it('never leaves a painter without a next thing', () => {
    expect(headline([], name, say(9)).text).toBe('No zones yet: measure the boat first');
    expect(head(80, { buildUps: [{ surfaceId: 'z', layers: [layer('l1')] }] })).toBe('Every coat is on');
    expect(head(9, { entries: [], buildUps: [] })).toBe('Nothing may go on just now');
  });
  it('counts coats of one product', () => {
    expect(nextName(status(20))).toBe('barrier 2');
    expect(nextName(status(20, { entries: [] }))).toBe('barrier 1');
  });
});
