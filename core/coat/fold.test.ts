import { describe, expect, it } from 'vitest';
import { checkAppend, foldLog, measuredFilm, testedOn, zoneReadings, type LogEntry } from '../index';
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
    expect(refused([begun, done], entry('withdrawn', 13, { reason: '' }, { supersedes: begun.id }))).toContain(
      'Take back the later entries',
    );
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
