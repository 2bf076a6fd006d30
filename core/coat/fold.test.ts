import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  batchFollows,
  batchTimers,
  calibratedArea,
  checkAppend,
  entriesUntil,
  finishProblem,
  foldLog,
  measuredFilm,
  paintOn,
  pouredBody,
  testedOn,
  zoneReadings,
  type LogEntry,
} from '../index';
import { entry, H, start, T0 } from './log.fixture';

describe('the log', () => {
  it('folds a coat from its entries, in whatever order they arrive', () => {
    const log = [
      entry('finished', 12, { litresOn: 4.2 }),
      entry('wetFilm', 11, { micron: [200, 220] }),
      start(10),
      entry('reading', 10, { airC: 18, rh: 0.6, surfaceC: 17 }),
    ];
    const {
      coats: [coat],
    } = foldLog(log);
    expect(coat).toMatchObject({
      id: 'c1',
      startedAt: T0 + 10 * H,
      finishedAt: T0 + 12 * H,
      litresOn: 4.2,
      painter: 'Ada',
    });
    expect(coat?.readings).toHaveLength(1);
    expect(coat?.superseded).toEqual([]);
    expect(measuredFilm(coat!, 0.5)).toEqual({ wetMicron: 210, dryMicron: 100, readings: 2 });
  });
  it('a correction takes the place of the wrong entry, which stays readable', () => {
    const wrong = entry('finished', 12, { litresOn: null });
    const log = [
      start(10),
      wrong,
      entry('finished', 13, { litresOn: 5 }, { supersedes: wrong.id, recordedAt: T0 + 20 * H }),
    ];
    const {
      coats: [coat],
    } = foldLog(log);
    expect(coat?.finishedAt).toBe(T0 + 13 * H);
    expect(coat?.superseded.map((e) => e.id)).toEqual([wrong.id]);
  });
  it('a withdrawn start takes the coat out, a withdrawn finish opens it again', () => {
    const begun = start(10);
    const done = entry('finished', 12, { litresOn: null });
    const undo = (what: LogEntry) => entry('withdrawn', 13, { reason: 'wrong zone' }, { supersedes: what.id });
    expect(foldLog([begun, done, undo(done)]).coats[0]?.finishedAt).toBeNull();
    expect(foldLog([begun, undo(begun)]).coats).toEqual([]);
  });
  it('folds a batch, its timers silenced', () => {
    const mixed = entry(
      'mixed',
      9,
      { sheetRevisionId: 'r1', on: [], parts: [], thinnerL: 0, totalL: 2, standMin: 15, potLifeH: 2, potTempC: 20 },
      { stream: 'batch', streamId: 'b1' },
    );
    const {
      batches: [batch],
    } = foldLog([mixed, entry('silenced', 9.3, { timer: 'stand' }, { stream: 'batch', streamId: 'b1' })]);
    expect(batch).toMatchObject({ id: 'b1', totalL: 2, silenced: ['stand'], emptied: false });
  });
  it('thinner that was really poured reaches the coat', () => {
    // 4 L of paint with 0.4 L of thinner, then 2 L without: 0.4 in 6 is 6.67 % [by hand]; 5 % was said at the start.
    const pour = (id: string, hour: number, totalL: number, thinnerL: number) => [
      entry(
        'mixed',
        hour,
        { sheetRevisionId: 'r1', on: [], parts: [], thinnerL, totalL, standMin: 0, potLifeH: null, potTempC: 20 },
        { stream: 'batch', streamId: id },
      ),
      entry('batchOn', hour, { batchId: id, litres: totalL }),
    ];
    const { coats } = foldLog([start(10), ...pour('a', 10, 4.4, 0.4), ...pour('b', 11, 2, 0)]);
    expect(coats[0]?.thinner).toBeCloseTo(0.4 / 6, 9);
    expect(coats[0]?.batches.map((b) => b.unthinnedL)).toEqual([expect.closeTo(4, 9), expect.closeTo(2, 9)]);
    expect(foldLog([start(10)]).coats[0]?.thinner).toBe(0.05);
    // A corrected batch corrects the coat.
    const [mixed, on] = pour('a', 10, 4.4, 0.4) as [LogEntry, LogEntry];
    const right = { ...mixed, id: 'right', supersedes: mixed.id, body: { ...mixed.body, thinnerL: 0.2, totalL: 4.2 } };
    expect(foldLog([start(10), mixed, on, right as LogEntry]).coats[0]?.thinner).toBeCloseTo(0.05, 9);
  });
  it('finds the readings of a zone in its coats and in its own stream', () => {
    const log = [
      start(10),
      entry('reading', 10, { airC: null, rh: null, surfaceC: 17 }),
      entry('reading', 8, { airC: null, rh: null, surfaceC: 12 }, { stream: 'zone', streamId: 'z' }),
      entry('reading', 8, { airC: null, rh: null, surfaceC: 30 }, { stream: 'zone', streamId: 'other' }),
    ];
    expect(zoneReadings(log, 'z').map((r) => r.surfaceC)).toEqual([12, 17]);
  });

  it('a reading and a hand test on one zone of a coat say nothing of the others', () => {
    const one = start(10);
    const on = [
      { surfaceId: 'deck', layerId: 'a' },
      { surfaceId: 'bilge', layerId: 'b' },
    ];
    const two = { ...one, body: { ...one.body, on } } as LogEntry;
    const log = [
      two,
      entry('reading', 10, { airC: null, rh: null, surfaceC: 40, surfaceId: 'deck' }),
      entry('reading', 11, { airC: null, rh: null, surfaceC: 15 }),
      entry('finished', 12, { litresOn: null }),
      entry('handTest', 14, { test: 'thumb', passed: true, surfaceId: 'deck' }),
    ];
    expect(zoneReadings(log, 'deck').map((r) => r.surfaceC)).toEqual([40, 15]);
    expect(zoneReadings(log, 'bilge').map((r) => r.surfaceC)).toEqual([15]);
    const [coat] = foldLog(log).coats;
    expect(testedOn(coat!, ['deck']).handTests).toHaveLength(1);
    expect(testedOn(coat!, ['bilge']).handTests).toHaveLength(0);
  });

  const refused = (log: LogEntry[], next: LogEntry) => {
    try {
      checkAppend(log, next);
      return 'accepted';
    } catch (error) {
      expect(error).toBeInstanceOf(RangeError);
      return (error as Error).message;
    }
  };
  it('refuses a second coat of one layer of a zone, whoever starts it, and says what to do', () => {
    const again = start(11, { streamId: 'second' });
    expect(refused([start(10)], again)).toContain('going on already');
    const done = entry('finished', 12, { litresOn: null });
    expect(refused([start(10), done], start(13, { streamId: 'second' }))).toContain('correct its finish');
    // Another layer, and the same one once the first start was withdrawn, may go on.
    expect(refused([start(10), done], start(13, { streamId: 'second' }, 'l2'))).toBe('accepted');
    const first = start(10);
    const taken = entry('withdrawn', 10.5, { reason: 'wrong zone' }, { supersedes: first.id });
    expect(refused([first, taken], again)).toBe('accepted');
    // A start that is corrected onto a layer that is on already.
    const other = start(11, { streamId: 'second' }, 'l2');
    const moved = { ...start(11, { streamId: 'second' }), id: 'moved', supersedes: other.id };
    expect(refused([start(10), other], moved)).toContain('going on already');
  });
  it('refuses what cannot have happened', () => {
    const begun = start(10);
    const done = entry('finished', 12, { litresOn: null });
    expect(refused([], entry('finished', 12, { litresOn: null }))).toBe('Start the coat first.');
    expect(refused([begun], entry('finished', 9, { litresOn: null }))).toContain('finish before it started');
    expect(refused([begun], start(11))).toContain('already started');
    expect(refused([begun, done], entry('finished', 13, { litresOn: null }))).toContain('already finished');
    expect(refused([begun], entry('handTest', 13, { test: 'thumb', passed: true }))).toContain(
      'Finish the coat before',
    );
    const test = entry('handTest', 14, { test: 'thumb', passed: true });
    expect(refused([begun, done, test], entry('withdrawn', 15, { reason: '' }, { supersedes: done.id }))).toContain(
      'Withdraw the test first',
    );
    expect(refused([begun, done], entry('handTest', 11, { test: 'thumb', passed: true }))).toContain(
      'after the coat is finished',
    );
    expect(refused([begun], entry('wetFilm', 9, { micron: [200] }))).toContain('before the coat was started');
    // A start goes with all that was logged of it.
    expect(refused([begun, done], entry('withdrawn', 13, { reason: '' }, { supersedes: begun.id }))).toBe('accepted');
    expect(refused([begun], entry('finished', 13, { litresOn: null }, { supersedes: 'nope' }))).toContain(
      'not in this log',
    );
    expect(refused([begun], entry('finished', 13, { litresOn: null }, { supersedes: begun.id }))).toContain(
      'one of its kind',
    );
    expect(refused([], entry('silenced', 9, { timer: 'pot' }, { stream: 'batch', streamId: 'b' }))).toContain(
      'mixing of this batch',
    );
    expect(refused([begun], done)).toBe('accepted');
    expect(refused([begun, done], start(9, { supersedes: begun.id }))).toBe('accepted');
    expect(refused([begun, done], start(13, { supersedes: begun.id }))).toContain('finish before it started');
  });
  it('refuses to correct one entry twice', () => {
    const begun = start(10);
    const second = start(9, { supersedes: begun.id });
    expect(refused([begun, second], start(8, { supersedes: begun.id }))).toContain('already corrected');
    expect(refused([begun, second], start(8, { supersedes: second.id }))).toBe('accepted');
  });
});

describe('what left the pot, and what is left in it', () => {
  const mixed = (id: string, totalL: number, hour: number) =>
    entry('mixed', hour, { ...MIX, totalL, parts: [{ name: 'Base', volumeL: totalL, massKg: null }] }, ofBatch(id));
  const MIX = { sheetRevisionId: 'r1', on: [], thinnerL: 0, standMin: 0, potLifeH: 2, potTempC: null };
  const ofBatch = (id: string) => ({ stream: 'batch' as const, streamId: id });
  const on = (id: string, litres: number, hour: number, more = {}) =>
    entry('batchOn', hour, { batchId: id, litres }, more);
  const finish = (hour: number, body: object, more = {}) => entry('finished', hour, { litresOn: null, ...body }, more);
  const two = [mixed('a', 1, 8), mixed('b', 1, 9), start(8), on('a', 1, 8), on('b', 1, 9)];
  const rests = (entries: LogEntry[]) =>
    Object.fromEntries(foldLog(entries).batches.map((b) => [b.id, [b.inUse, Number(b.restL.toFixed(6))]]));

  it('a mixed pot is whole until a coat has it, in use while that goes on, empty when it is finished', () => {
    expect(rests([mixed('a', 1, 8)])).toEqual({ a: [false, 1] });
    expect(rests(two)).toEqual({ a: [true, 0], b: [true, 0] });
    expect(rests([...two, finish(10, {})])).toEqual({ a: [false, 0], b: [false, 0] });
  });
  it('what is left is in the last pot, and serves the next coat', () => {
    const first = [...two, finish(10, { leftL: 0.3 })];
    expect(rests(first)).toEqual({ a: [false, 0], b: [false, 0.3] });
    expect(foldLog(first).coats[0]?.batches.map((b) => b.litres)).toEqual([1, 0.7]);
    const c2 = { streamId: 'c2' };
    const second = [...first, start(11, c2, 'l2'), on('b', 0.3, 11, c2)];
    expect(rests(second)).toEqual({ a: [false, 0], b: [true, 0] });
    expect(rests([...second, finish(12, { leftL: 0.1 }, c2)])).toEqual({ a: [false, 0], b: [false, 0.1] });
    expect(rests([...first, entry('emptied', 11, { litresLeft: 0.3 }, ofBatch('b'))]).b).toEqual([false, 0]);
  });
  it('more left than the last pot held is in the one before too', () => {
    expect(rests([...two, finish(10, { leftL: 1.2 })])).toEqual({ a: [false, 0.2], b: [false, 1] });
  });
  it('its timers stop with the coat, unless something is left', () => {
    const now = T0 + 10.5 * H;
    const ringing = (entries: LogEntry[]) => batchTimers(foldLog(entries).batches, now).map((t) => t.batchId);
    expect(ringing(two)).toEqual(['a', 'b']);
    expect(ringing([...two, finish(10, {})])).toEqual([]);
    expect(ringing([...two, finish(10, { leftL: 0.3 })])).toEqual(['b']);
  });
});

describe('where the paint of a coat went', () => {
  const coat = {
    batches: [{ batchId: 'a', litres: 2, unthinnedL: 2 }],
    litresOn: null,
    leftL: 0.4,
    lostL: null,
    thinner: 0,
  };
  const layer = { dftMicron: 100, loss: 0.1, deadVolumeLPerM2: 0 };
  const half = { solids: 0.5 };
  it('mixed, left, lost and on the hull are told apart, by hand', () => {
    expect(paintOn({ coat, sheet: half, layer, wetMicron: null })).toEqual({
      mixedL: 2.4,
      leftL: 0.4,
      lostL: 0.2,
      onL: 1.8,
      filmL: null,
    });
    expect(paintOn({ coat: { ...coat, lostL: 0.5 }, sheet: half, layer, wetMicron: null }).onL).toBeCloseTo(1.5, 9);
    // Said to be on the hull: what is lost is the difference, and the loss is not taken off again.
    expect(paintOn({ coat: { ...coat, litresOn: 1.7 }, sheet: half, layer, wetMicron: null })).toMatchObject({
      onL: 1.7,
      lostL: expect.closeTo(0.3, 9),
    });
    const nothing = { ...coat, batches: [], leftL: null };
    expect(paintOn({ coat: nothing, sheet: half, layer, wetMicron: 200 })).toMatchObject({ onL: null, filmL: null });
  });
  it('a transom of 10 m² on a 100 µm profile is told as 10 m² by its paint, edges and tray too', () => {
    // 10 m² at 100 µm dry of a paint of 50 % solids, unthinned: 200 µm wet. The profile takes 2/3 · 100 µm = 0.0667 L dry
    // a m², so 0.333 L a m² of the paint; a stripe coat a tenth more; a tenth is lost: (0.2 + 0.1333) · 10 · 1.1 / 0.9.
    const pouredL = ((0.2 + 0.1 * (2 / 3) * 2) * 10 * 1.1) / 0.9;
    const { filmL } = paintOn({
      coat: { ...coat, leftL: null, batches: [{ batchId: 'a', litres: pouredL, unthinnedL: pouredL }] },
      sheet: half,
      layer: { ...layer, deadVolumeLPerM2: 0.1 * (2 / 3), stripe: true },
      wetMicron: 200,
    });
    expect(calibratedArea({ litres: filmL as number, wetFilmMicron: 200 })).toBeCloseTo(10, 9);
  });
  it('thinner makes the wet film thicker, and what fills the profile with it', () => {
    // As above with 10 % thinner: 220 µm wet, and 1.1 times the litres.
    const litres = (0.22 + 0.1 * (2 / 3) * 2 * 1.1) * 10;
    const { filmL } = paintOn({
      coat: { ...coat, thinner: 0.1, leftL: null, batches: [], litresOn: litres },
      sheet: half,
      layer: { ...layer, deadVolumeLPerM2: 0.1 * (2 / 3) },
      wetMicron: 220,
    });
    expect(calibratedArea({ litres: filmL as number, wetFilmMicron: 220 })).toBeCloseTo(10, 9);
  });
  it('more than was mixed is challenged, more left than mixed refused', () => {
    const said = { litresOn: null, leftL: null, lostL: null };
    expect(finishProblem({ said, mixedL: 2 })).toBeNull();
    expect(finishProblem({ said: { ...said, litresOn: 5 }, mixedL: 0 })).toBeNull();
    expect(finishProblem({ said: { ...said, litresOn: 1.8, leftL: 0.2 }, mixedL: 2 })).toBeNull();
    expect(finishProblem({ said: { ...said, litresOn: 1.8, leftL: 0.4 }, mixedL: 2 })).toMatchObject({
      challenge: true,
    });
    expect(finishProblem({ said: { ...said, leftL: 2.1 }, mixedL: 2 })).toMatchObject({ challenge: false });
    expect(finishProblem({ said: { ...said, leftL: Number.NaN }, mixedL: 0 })?.text).toMatch(/cannot be read/);
  });
});

describe('a batch put right', () => {
  it('takes coats that had all of it along, and leaves the others', () => {
    const was = entry(
      'mixed',
      8,
      { sheetRevisionId: 'r1', on: [], parts: [], thinnerL: 0, totalL: 1, standMin: 0, potLifeH: null, potTempC: null },
      { stream: 'batch', streamId: 'a' },
    );
    const all = entry('batchOn', 8, { batchId: 'a', litres: 1 });
    const some = entry('batchOn', 11, { batchId: 'a', litres: 0.2 }, { streamId: 'c2' });
    const entries = [was, start(8), all, start(11, { streamId: 'c2' }, 'l2'), some];
    expect(batchFollows({ entries, was: was as never, totalL: 2 })).toEqual([
      { of: all, body: { batchId: 'a', litres: 2 } },
    ]);
  });
  it('weighs what its litres weigh, and is the sum of its parts', () => {
    const body = {
      parts: [
        { name: 'Base', volumeL: 0.75, massKg: 1.14 },
        { name: 'Hardener', volumeL: 0.25, massKg: null },
      ],
      thinnerL: 0,
      totalL: 1,
    };
    // 1.5 L of 1.52 kg/L is 2.28 kg.
    // What its tins gave follows, and an additive stays in the pot.
    const named = { ...body, from: [{ part: body.parts[0]!.name, lotId: 't', litres: body.parts[0]!.volumeL / 2 }] };
    const more = pouredBody(
      { ...named, additives: [{ name: 'A', litres: 0.02, potFactor: 1, windowFactor: 1 }] },
      { partsL: [1.5, 0.5], thinnerL: 0.1 },
    );
    expect(more.from[0]?.litres).toBeCloseTo(0.75, 9);
    expect(more.totalL).toBeCloseTo(2.12, 9);
    expect(pouredBody(body, { partsL: [1.5, 0.5], thinnerL: 0.1 })).toEqual({
      parts: [
        { name: 'Base', volumeL: 1.5, massKg: expect.closeTo(2.28, 9) },
        { name: 'Hardener', volumeL: 0.5, massKg: null },
      ],
      thinnerL: 0.1,
      totalL: 2.1,
    });
  });
});

describe('a log as it was', () => {
  it('has what had happened by then, as it is known now', () => {
    const wrong = start(10);
    const right = start(14, { supersedes: wrong.id });
    expect(entriesUntil([wrong, right], T0 + 12 * H)).toEqual([]);
    expect(entriesUntil([wrong, right], T0 + 15 * H)).toEqual([right]);
  });
});

describe('a log in any order', () => {
  it('comes to the same coats, batches and readings, however its entries arrive', () => {
    const mixed = entry(
      'mixed',
      8,
      { sheetRevisionId: 'r1', on: [], parts: [], thinnerL: 0.1, totalL: 2, standMin: 0, potLifeH: 2, potTempC: 20 },
      { stream: 'batch', streamId: 'pot' },
    );
    const wrong = entry('finished', 12, { litresOn: 9 });
    const log = [
      mixed,
      start(9),
      entry('reading', 9, { airC: 18, rh: 0.6, surfaceC: 17 }),
      entry('batchOn', 9, { batchId: 'pot', litres: 2 }),
      entry('wetFilm', 10, { micron: [200, 190] }),
      wrong,
      entry('finished', 11, { litresOn: null, leftL: 0.5 }, { supersedes: wrong.id, recordedAt: T0 + 20 * H }),
      entry('handTest', 20, { test: 'thumb', passed: true }),
      start(22, { streamId: 'c2' }, 'l2'),
      entry('batchOn', 22, { batchId: 'pot', litres: 0.5 }, { streamId: 'c2' }),
    ];
    // Told by hand, from the entries: 2 L of which 0.5 are left, 1/19.5 … of thinner, finished at 11.
    fc.assert(
      fc.property(fc.shuffledSubarray(log, { minLength: log.length }), (shuffled) => {
        const { coats, batches, readingsOf } = foldLog(shuffled);
        expect(coats.map((c) => [c.id, (c.startedAt - T0) / H, c.finishedAt && (c.finishedAt - T0) / H])).toEqual([
          ['c1', 9, 11],
          ['c2', 22, null],
        ]);
        expect(coats[0]).toMatchObject({ leftL: 0.5, litresOn: null, batches: [{ batchId: 'pot', litres: 1.5 }] });
        expect(coats[0]?.thinner).toBeCloseTo(0.1 / 1.9, 9);
        expect(coats[0]?.handTests).toHaveLength(1);
        expect(batches.map((b) => [b.id, b.inUse, b.restL])).toEqual([['pot', true, 0]]);
        expect(readingsOf.get('z')).toEqual([{ at: T0 + 9 * H, surfaceC: 17 }]);
      }),
    );
  });
});
