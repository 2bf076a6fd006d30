import { describe, expect, it } from 'vitest';
import { cautionsFor, coatLesson, dryLearned, dryLesson, learnedFrom, zoneStatuses, type SourcedHour } from '../index';
import { sheet } from '../sheet/example.fixture';
import { entry, H, start, T0 } from './log.fixture';

const near = (v: number) => expect.closeTo(v, 9);

describe('what coats teach, by hand', () => {
  const layer = { dftMicron: 100, loss: 0.1, deadVolumeLPerM2: 0 };
  const coat = (over: object) =>
    ({
      id: 'c',
      method: 'roller',
      batches: [{ batchId: 'b', litres: 2.5, unthinnedL: 2.5 }],
      stints: [{ from: 0, to: H, painters: ['Ada', 'Bo'] }],
      finishedAt: H,
      wetFilms: [],
      thinner: 0,
      ...over,
    }) as never;
  const solids50 = { ...sheet, solids: 0.5 };
  it('10 m² at 100 µm and half solids take 2 L: 2.5 L gone is 20 % lost, 5 m² an hour each', () => {
    const lesson = coatLesson({ coat: coat({}), sheet: solids50, zones: [{ areaM2: 10, share: 1, layer }] })!;
    expect(lesson).toMatchObject({ filmL: near(2), litres: 2.5, painterHours: 2, combed: false });
    expect(learnedFrom([lesson])).toEqual([
      {
        method: 'roller',
        coats: 1,
        litresPerM2: 0.25,
        plannedLPerM2: near(2 / 9),
        loss: near(0.2),
        rateM2PerH: 5,
      },
    ]);
  });
  it('laid heavier it is film, not loss: combed at 250 µm wet the 2.5 L are all on the hull', () => {
    const lesson = coatLesson({
      coat: coat({ wetFilms: [{ at: 0, micron: [250] }] }),
      sheet: solids50,
      zones: [{ areaM2: 10, share: 1, layer }],
    })!;
    expect(learnedFrom([lesson])[0]?.loss).toBeCloseTo(0, 9);
  });
  it('what cannot be is not learned from: four times the paint, a bottom in six minutes', () => {
    const zones = [{ areaM2: 10, share: 1, layer }];
    const much = coatLesson({
      coat: coat({ batches: [{ batchId: 'b', litres: 8, unthinnedL: 8 }] }),
      sheet: solids50,
      zones,
    })!;
    expect(learnedFrom([much])).toEqual([]);
    const quick = coatLesson({
      coat: coat({ stints: [{ from: 0, to: 0.1 * H, painters: ['Ada'] }] }),
      sheet: solids50,
      zones,
    })!;
    expect(learnedFrom([quick])[0]?.rateM2PerH).toBeNull();
  });
  it('half a zone teaches by its half; a coat without batches, or still going on, teaches nothing', () => {
    const zones = [{ areaM2: 20, share: 0.5, layer }];
    expect(coatLesson({ coat: coat({}), sheet: solids50, zones })?.areaM2).toBe(10);
    expect(coatLesson({ coat: coat({ batches: [] }), sheet: solids50, zones })).toBeNull();
    expect(coatLesson({ coat: coat({ finishedAt: null }), sheet: solids50, zones })).toBeNull();
  });
  it('still tacky at the table’s four hours, dry at six: between 1 and 1.5 times the table', () => {
    const ask = (tests: { at: number; passed: boolean }[]) => dryLesson({ finishedAt: 0, predictedAt: 4 * H, tests });
    expect(
      ask([
        { at: 4 * H, passed: false },
        { at: 6 * H, passed: true },
      ]),
    ).toEqual({ low: 1, high: 1.5 });
    expect(ask([{ at: 3 * H, passed: true }])).toEqual({ low: 0, high: 0.75 });
    expect(ask([])).toBeNull();
    expect(dryLearned([])).toBeNull();
    expect(dryLearned([ask([{ at: 4 * H, passed: false }])!, ask([{ at: 5 * H, passed: true }])!])).toEqual({
      low: 1,
      high: 1.25,
      coats: 2,
      factor: 1.125,
    });
    // Passed at three times the table: the table may be right. Early once may be chance; twice it is not.
    expect(dryLearned([{ low: 0, high: 3 }])?.factor).toBe(1);
    expect(dryLearned([{ low: 0, high: 0.75 }])?.factor).toBe(1);
    expect(
      dryLearned([
        { low: 0, high: 0.75 },
        { low: 0.5, high: 0.8 },
      ])?.factor,
    ).toBe(0.75);
    expect(dryLearned([{ low: 1.3, high: Infinity }])?.factor).toBe(1.3);
    // One that contradicts the other: between the two.
    expect(
      dryLearned([
        { low: 1.4, high: 2 },
        { low: 0, high: 1 },
      ]),
    ).toMatchObject({ low: 1, high: 1.4, factor: 1.2 });
  });
});

describe('what was learned of drying, by hand', () => {
  it('four hours of the table are six at 1.5 times; what must not be missed is no later, and sooner at 0.5', () => {
    const hours: SourcedHour[] = Array.from({ length: 120 }, (_, i) => ({
      at: T0 + i * H,
      airC: 20,
      rh: 0.6,
      source: 'typed',
    }));
    const timed = {
      ...sheet,
      overcoat: [
        {
          after: 'any' as const,
          minimum: [{ tempC: 20, hours: 4 }],
          tackLimit: [{ tempC: 20, hours: 20 }],
          maximum: null,
          alwaysAbrade: false,
        },
      ],
    };
    const zone = {
      id: 'z',
      name: 'Deck',
      kind: 'bilge' as const,
      substrate: 'gelcoat' as const,
      exposure: 'interior' as const,
      existing: 'bare' as const,
      areaM2: 10,
      areaShare: 0.1,
    };
    const of = (dryFactors?: Record<string, number>) => {
      const [status] = zoneStatuses({
        now: T0 + 12 * H,
        surfaces: [zone],
        buildUps: [],
        entries: [start(10), entry('finished', 11, { litresOn: null })],
        sheets: [{ id: 'r1', sheetId: 's1', revision: 1, body: timed, createdAt: 0 }],
        hours,
        ...(dryFactors ? { dryFactors } : {}),
      });
      const window = status!.clocks!.window!;
      return [(window.opensAt! - T0) / H, (window.bondsUntil! - T0) / H];
    };
    expect(of()).toEqual([near(15), near(30)]);
    expect(of({ s1: 1.5 })).toEqual([near(17), near(30)]);
    expect(of({ s1: 0.5 })).toEqual([near(13), near(20)]);
    expect(of({ other: 3 })).toEqual([near(15), near(30)]);
  });
});

describe('cautions at their step [handbook §16]', () => {
  const twoPack = { ...sheet, parts: [sheet.parts[0]!, sheet.parts[0]!], thinner: null };
  it('isocyanates before they are sprayed, epoxy on hands, a bilge as a confined space', () => {
    const gloss = { ...twoPack, chemistry: 'polyurethane' as const, kind: 'topcoat' as const };
    expect(cautionsFor({ step: 'start', sheet: gloss, zones: ['topsides'], method: 'spray' })).toEqual([
      'isocyanate',
      'staging',
    ]);
    expect(cautionsFor({ step: 'mix', sheet: { ...twoPack, chemistry: 'epoxy' }, zones: [], method: 'brush' })).toEqual(
      ['epoxy'],
    );
    expect(
      cautionsFor({ step: 'start', sheet: { ...twoPack, chemistry: 'epoxy' }, zones: ['bilge'], method: 'brush' }),
    ).toEqual(['epoxy', 'confined']);
  });
  it('pots that heat and rags at the end', () => {
    expect(cautionsFor({ step: 'finish', sheet: twoPack, zones: [], method: 'roller' })).toEqual(['hotPot']);
    const oil = { ...sheet, parts: [sheet.parts[0]!], chemistry: 'alkyd' as const };
    expect(cautionsFor({ step: 'finish', sheet: oil, zones: [], method: 'brush' })).toEqual(['rags']);
  });
});
