import { describe, expect, it } from 'vitest';
import {
  drawLine,
  foldWaterline,
  howHigh,
  hullShape,
  linesFromOffsets,
  lineCells,
  lineTable,
  markHeight,
  missingStations,
  readList,
  setOffKey,
  standingPlane,
  stationsAlong,
} from '../index';
import { box, noon } from '../examples.fixture';
import { logger } from '../prep/prepLog.fixture';

const log = logger();
const boat = { loaM: 4, lwlM: 4, beamM: 2, draftM: 0.5, freeboardM: 1, form: 'full', keels: 'none' } as const;
/** Box 4 × 2 m, rail 0.5 m above the water, bottom 0.5 m below it. */
const shape = hullShape(boat, linesFromOffsets(box));
const level = standingPlane({
  points: [
    { xM: 0, yM: 0, onBoatM: 0, aboveGroundM: 1 },
    { xM: 4, yM: 0, onBoatM: 0, aboveGroundM: 1.2 },
    { xM: 0, yM: 1, onBoatM: 0, aboveGroundM: 1.1 },
  ],
});
const hull = { shape, standing: level };
const line = {
  lineId: 'l',
  name: 'Line',
  levelM: null,
  noiseM: null,
  raiseM: 0,
  bandM: 0,
  bandMode: 'height',
  chosen: true,
} as const;
const mark = (xM: number, valueM: number, more: object = {}) =>
  ({ id: `m${xM}`, lineId: 'l', xM, side: 'port', by: 'level', from: 'line', valueM, ...more }) as const;

describe('a mark, from what it was measured from, by hand', () => {
  it('above the ground, with trim and heel', () => {
    // At x = 2, port side 1 m out: 1 + 0.1 + 0.1 is the datum's height.
    const at = { xM: 2, side: 'port', from: 'ground', valueM: 1.35 } as const;
    expect(markHeight(at, hull).heightM).toBeCloseTo(0.15, 9);
    expect(markHeight({ ...at, side: 'starboard' }, hull).heightM).toBeCloseTo(0.35, 9);
    expect(markHeight(at, { ...hull, standing: null })).toEqual({ heightM: null, problem: 'notStood' });
  });

  it('below the rail, and what cannot be', () => {
    expect(markHeight({ xM: 2, side: 'port', from: 'rail', valueM: 0.35 }, hull).heightM).toBeCloseTo(0.15, 9);
    expect(markHeight({ xM: 2, side: 'port', from: 'line', valueM: 0.7 }, hull).problem).toBe('aboveRail');
    expect(markHeight({ xM: 2, side: 'port', from: 'rail', valueM: 1.4 }, hull).problem).toBe('belowHull');
    expect(markHeight({ xM: 9, side: 'port', from: 'line', valueM: 0 }, hull)).toEqual({
      heightM: null,
      problem: 'offHull',
    });
  });
});

describe('a line', () => {
  it('through marks of both sides: those at one place count as their mean', () => {
    const { marks, heightM } = drawLine({
      line,
      hull,
      marks: [mark(3, 0.12), mark(0, 0.1), mark(0, 0.14, { id: 'other' })],
    });
    expect(marks.map((m) => [m.xM, m.heightM, m.ids.length])).toEqual([
      [0, expect.closeTo(0.12, 9), 2],
      [3, 0.12, 1],
    ]);
    expect(heightM(1.5)).toBeCloseTo(0.12, 9);
  });

  it('a metre typed for a centimetre is a stray and above the rail', () => {
    const marks = [0, 0.5, 1, 1.5, 2, 2.5, 3, 3.5].map((x) => mark(x, x === 2 ? 12 : 0.12 + 0.001 * x));
    const { faired, problems, heightM } = drawLine({ line, hull, marks });
    expect(faired?.strays).toEqual([4]);
    expect(problems).toEqual([{ id: 'm2', problem: 'aboveRail' }]);
    expect(heightM(2)).toBeCloseTo(0.122, 6);
  });

  it('as a table: heights on the boat, below the rail and above the ground; a line that leaves the hull says so', () => {
    const drawn = drawLine({ line: { ...line, levelM: 0.1, bandM: 0.08 }, hull, marks: [] });
    const rows = lineTable({ line: drawn, shape, standing: level, xM: [0, 2, 4] });
    expect(rows[1]).toMatchObject({ no: 2, heightM: 0.1, bandHeightM: 0.08 });
    expect(rows[1]?.belowRailM).toBeCloseTo(0.4, 9);
    expect(rows[1]?.groundPortM).toBeCloseTo(1.3, 9);
    expect(rows[1]?.groundStarboardM).toBeCloseTo(1.1, 9);
    expect(lineCells(rows)[2]?.join(',')).toBe('2,2.000,0.100,0.400,1.300,1.100,0.0,0.080,0.080');
    const off = drawLine({ line: { ...line, levelM: 0.7 }, hull, marks: [] });
    expect(lineTable({ line: off, shape, standing: null, xM: [2] })[0]).toMatchObject({
      heightM: null,
      belowRailM: null,
    });
  });

  it('stations are even, and gaps of a copied list are named', () => {
    expect(stationsAlong(4, 0.5)).toHaveLength(9);
    expect(missingStations([1, 2, 4, 7])).toEqual([3, 5, 6]);
    expect(missingStations([])).toEqual([]);
  });
});

describe('the log of it', () => {
  it('the newest of each counts, what was removed or withdrawn does not', () => {
    const set = log('boat', 'lineSet', noon, { ...line });
    const marked = log('boat', 'marked', noon + 1, mark(1, 0.1));
    const wrong = log('boat', 'marked', noon + 2, mark(2, 9));
    const right = log('boat', 'marked', noon + 2, mark(2, 0.11), wrong.id);
    const entries = [
      set,
      log('boat', 'lineSet', noon + 3, { ...line, raiseM: 0.02 }),
      log('boat', 'lineSet', noon + 3, { ...line, lineId: 'old' }),
      log('boat', 'lineSet', noon + 4, { ...line, lineId: 'old', removed: true }),
      marked,
      wrong,
      right,
      log('boat', 'setOff', noon + 5, { lineId: 'l', no: 3, side: 'starboard' }),
    ];
    const folded = foldWaterline(entries);
    expect(folded.lines.map((l) => [l.lineId, l.raiseM])).toEqual([['l', 0.02]]);
    expect(folded.marks.map((m) => m.valueM)).toEqual([0.1, 0.11]);
    expect(folded.setOff.has(setOffKey({ lineId: 'l', no: 3, side: 'starboard' }))).toBe(true);
    expect(folded.stood).toBeNull();
  });
});

describe('a list that is read out', () => {
  const read = (text: string, system: 'metric' | 'us' = 'metric') => readList({ text, first: 1, system });
  it('a figure a station, in its own order, with gaps named', () => {
    expect(read('52.5\n53\ngap\n54')).toEqual({
      stations: [
        { no: 1, valueM: expect.closeTo(0.525, 12) },
        { no: 2, valueM: expect.closeTo(0.53, 12) },
        { no: 3, valueM: null },
        { no: 4, valueM: expect.closeTo(0.54, 12) },
      ],
      gaps: [3],
      problem: null,
    });
    expect(read('52.5 53 53.5').stations).toHaveLength(3);
    expect(read('4: 52.5; 7: 53').gaps).toEqual([5, 6]);
    // 20 5/8 in by hand: 0.523875 m.
    expect(read('20 5/8', 'us').stations[0]?.valueM).toBeCloseTo(0.523875, 9);
  });
  it('says what cannot be read, and what comes twice', () => {
    expect(read('52.5\nfifty').problem).toMatch(/Station 2, “fifty”/);
    expect(read('1: 52\n1: 53').problem).toMatch(/Station 1 comes twice/);
    expect(read('').stations).toEqual([]);
  });
});

describe('how high, by hand', () => {
  it('every station has its margin over the water that is to come', () => {
    const stations = [
      { xM: 0, lineM: 0.06, waterM: 0.01 },
      { xM: 4, lineM: 0.06, waterM: 0.04 },
    ];
    const { least, raiseM, wear } = howHigh({ stations, marginM: 0.05 });
    expect(least).toEqual({ xM: 4, overWaterM: expect.closeTo(0.02, 12) });
    expect(raiseM).toBeCloseTo(0.03, 12);
    expect(wear).toEqual({ fromM: expect.closeTo(0.02, 12), toM: expect.closeTo(0.05, 12) });
    expect(howHigh({ stations: [] }).least).toBeNull();
  });
});
