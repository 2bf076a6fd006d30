import { describe, expect, it } from 'vitest';
import {
  boatStillMasked,
  converterVerdict,
  edgeLengthM,
  hullShape,
  linesFromOffsets,
  maskJobs,
  plateLeft,
  prepOf,
  standPlaces,
  surfaceClocks,
  tapeNeed,
  tapings,
  wayOut,
} from '../index';
import { box, copper, hour, layers, noon, revision, zone } from '../examples.fixture';
import type { LogEntry } from '../model/log';
import { logger, startOf } from './prepLog.fixture';

const log = logger();

describe('rust [common practice: black is converted, red is not; one or two coats]', () => {
  const verdict = (convertedShare: number, coats = 1, hoursSince = 20) =>
    converterVerdict({ convertedShare, coats, hoursSince, staleTin: true });
  it('says what is next', () => {
    expect(verdict(1).next).toBe('scuff');
    expect(verdict(0.8).next).toBe('again');
    expect(verdict(0.8, 2).next).toBe('scrape');
    expect(verdict(0.3).next).toBe('scrape');
    expect(verdict(0.3, 1, 3).next).toBe('wait');
    expect([verdict(0.3).staleTin, verdict(1).staleTin]).toEqual([true, false]);
    expect(() => verdict(1.2)).toThrow(/between 0 and 100/);
  });
  it('plate left with the deepest pit off, by hand', () => {
    // 5 mm as built, 4.3 now, a pit of 0.8: 3.5 of 5.
    expect(plateLeft({ thicknessMm: 4.3, originalMm: 5, pitMm: 0.8 })).toEqual({
      share: expect.closeTo(0.7, 12),
      askSurveyor: true,
    });
    expect(plateLeft({ thicknessMm: 4.6, originalMm: 5 }).askSurveyor).toBe(false);
    expect(() => plateLeft({ thicknessMm: 50, originalMm: 5 })).toThrow(/thicker now/);
  });
});

describe('tape', () => {
  it('rolls by hand', () => {
    expect(tapeNeed({ lengthM: 45, rollM: 50 })).toEqual({ rolls: 1, lengthM: 45 });
    expect(tapeNeed({ lengthM: 100, rollM: 50 }).rolls).toBe(2);
    expect(tapeNeed({ lengthM: 96, rollM: 50, overlapShare: 0.1 }).rolls).toBe(3);
    expect(() => tapeNeed({ lengthM: 0, rollM: 50 })).toThrow(/more than zero/);
  });

  it('consecutive days are one taping, a week is off and again [common practice]', () => {
    const dry = { lifeDays: 7 };
    expect(tapings({ days: [], ...dry })).toBe(0);
    expect(tapings({ days: [1, 2, 3], ...dry })).toBe(1);
    expect(tapings({ days: [1, 1, 8], ...dry })).toBe(2);
    expect(tapings({ days: [1, 2, 3, 4], lifeDays: 3 })).toBe(2);
    expect(() => tapings({ days: [3, 1], ...dry })).toThrow(/in order/);
  });

  it('edges of a box by hand: round her at the waterline', () => {
    const dims = { loaM: 4, lwlM: 4, beamM: 2, draftM: 0.5, freeboardM: 0.5, form: 'full', keels: 'none' } as const;
    const lines = linesFromOffsets(box);
    const zones = [
      { ...zone, kind: 'topsides' },
      { ...zone, kind: 'underwater' },
    ] as const;
    const of = (more: object = {}) =>
      edgeLengthM({ zones: [{ ...zones[0], ...more }, zones[1]], boat: dims, lines, bandM: null });
    expect(of()).toEqual({ lengthM: expect.closeTo(12, 9), known: 'shape' });
    expect(of({ side: 'port' }).lengthM).toBeCloseTo(6, 9);
    expect(of({ kind: 'lockers', areaM2: 4 })).toEqual({ lengthM: 8, known: 'guess' });
    expect(hullShape(dims, lines).lengthM).toBe(4);
  });

  it('a border comes to two tapes, rolls for all its tapings', () => {
    const { edges } = maskJobs({
      surfaces: [
        { id: 'up', name: 'Topsides', kind: 'topsides', areaM2: 20 },
        { id: 'low', name: 'Bottom', kind: 'underwater', areaM2: 20 },
      ],
      borders: [
        { id: 'b', upperId: 'up', lowerId: 'low', rule: 'butt', widthM: 0, epoxyRunsOn: true, handStripM: 0, note: '' },
      ],
      boat: { loaM: 4, lwlM: 4, beamM: 2, draftM: 0.5, freeboardM: 0.5, form: 'full', keels: 'none' },
      lines: linesFromOffsets(box),
      bandM: null,
      // The epoxy runs on: only the antifouling stops at the tape.
      toCome: (id) => (id === 'low' ? layers.map((l, i) => ({ ...l, sheet: (i === 0 ? revision : copper).body })) : []),
      sun: false,
    });
    expect(edges[0]).toMatchObject({ job: 'edge:b', tapings: 1, pull: 'touchDry', lifeDays: 7 });
    expect(edges[0]?.tapes.map((t) => [t.kind, t.rolls])).toEqual([
      ['fineLine', 1],
      ['wide', 1],
    ]);
    expect(edges[0]?.tapes[0]?.lengthM).toBeCloseTo(13.2, 9);
  });

  it('a fore and an after half share the edge by their areas', () => {
    const half = (id: string, areaM2: number) => ({ id, name: id, kind: 'underwater', areaM2 }) as const;
    const border = { upperId: 'up', rule: 'butt', widthM: 0, epoxyRunsOn: true, handStripM: 0, note: '' } as const;
    const { edges } = maskJobs({
      surfaces: [{ id: 'up', name: 'Topsides', kind: 'topsides', areaM2: 20 }, half('aft', 12), half('fore', 8)],
      borders: [
        { ...border, id: 'a', lowerId: 'aft' },
        { ...border, id: 'f', lowerId: 'fore' },
      ],
      boat: { loaM: 4, lwlM: 4, beamM: 2, draftM: 0.5, freeboardM: 0.5, form: 'full', keels: 'none' },
      lines: linesFromOffsets(box),
      bandM: null,
      toCome: () => [],
      sun: true,
    });
    // 12 m round the box: 60 and 40 %.
    expect(edges.map((e) => e.lengthM)).toEqual([expect.closeTo(7.2, 9), expect.closeTo(4.8, 9)]);
  });

  it('anodes are to be looked at after every coat around them, and tape must be off', () => {
    const surfaces = [{ ...zone, maskList: [{ id: 'a', thing: 'anode', count: 2, note: '' }] }] as const;
    const coat = { ...log('coat', 'started', noon, startOf('first')), stream: 'coat' } as LogEntry;
    const why = (...entries: LogEntry[]) => boatStillMasked({ surfaces, entries }).map((s) => s.why);
    const mask = (at: number) => log('bottom', 'masked', at, { job: 'thing:a', lifeDays: 14, pull: 'touchDry' });
    const clear = (at: number) => log('bottom', 'unmasked', at, { job: 'thing:a' });
    expect(why()).toEqual([]);
    expect(why(mask(noon - hour))).toEqual(['on']);
    expect(why(coat)).toEqual(['unchecked']);
    expect(why(clear(noon - hour), coat)).toEqual(['unchecked']);
    expect(why(mask(noon - hour), coat, clear(noon + hour))).toEqual([]);
    expect(
      why(coat, log('bottom', 'masked', noon, { job: 'edge:b', lifeDays: 3, pull: 'wet' }), clear(noon + hour)),
    ).toEqual(['on']);
  });

  it('runs from when it was put on', () => {
    const entries = [log('bottom', 'masked', noon, { job: 'edge:b', lifeDays: 3, pull: 'wet' })];
    const facts = { surface: zone, log: prepOf(entries, 'bottom'), lastCoat: null, lastSheet: null, lastLayer: null };
    const [clock] = surfaceClocks({ ...facts, nextSheet: null, rain: [] });
    expect([clock?.kind, clock?.until]).toEqual(['tape', noon + 72 * hour]);
  });
});

describe('way out [common practice]', () => {
  const face = (name: string, fromExitM: number, awkward = false, leanOn = false) => ({
    name,
    fromExitM,
    awkward,
    leanOn,
  });
  it('farthest first, awkward before what is leant on, the last by the exit', () => {
    const order = wayOut([
      face('hatch frame', 0),
      face('sole', 1, false, true),
      face('deckhead', 1, true),
      face('far end', 2),
    ]);
    expect(order.map((f) => f.name)).toEqual(['far end', 'deckhead', 'sole', 'hatch frame']);
    expect(() => wayOut([])).toThrow(/at least one/);
    expect(() => wayOut([face('x', NaN)])).toThrow(/way out/);
  });
});

describe('stands [common practice: moved by the yard, onto paint that bears]', () => {
  it('bear from the handle time on, and it is said where no sheet tells it', () => {
    const status = { surfaceId: 'bottom', lastCoat: {}, clocks: { handleAt: noon } } as never;
    expect(standPlaces([status])).toEqual([{ surfaceId: 'bottom', bearsAt: noon, known: true }]);
    expect(standPlaces([{ surfaceId: 'bottom', lastCoat: {}, clocks: { handleAt: null } } as never])[0]?.known).toBe(
      false,
    );
  });
});
