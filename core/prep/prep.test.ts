import { describe, expect, it } from 'vitest';
import {
  bareMetalUntil,
  blastDay,
  cleanUntil,
  comingClocks,
  concentrateL,
  fairing,
  keepsOff,
  prepOf,
  surfaceClocks,
  WAYS,
  waysFor,
  zoneStatuses,
} from '../index';
import { hour, layers, noon, revision, copper, sheet, steady, zone } from '../examples.fixture';
import type { LogEntry } from '../model/log';
import { logger, startOf } from './prepLog.fixture';
import { zonePrep } from './zonePrep';

const log = logger();
const steel = { ...zone, substrate: 'steel', existing: 'bare' } as const;
const rainAt = (at: number, mm = 1) => steady.map((h) => ({ ...h, rainMm: h.at === at ? mm : 0 }));
const boat = (entries: LogEntry[], now: number, hours = steady) => ({
  entries,
  buildUps: [{ surfaceId: 'bottom', layers }],
  sheets: [revision, copper],
  hours,
  borders: [],
  now,
});

/** The list of a zone, as the boat's own status leads to it. */
function listOf(surface: typeof zone, entries: LogEntry[], now: number, hours = steady) {
  const b = boat(entries, now, hours);
  const status = zoneStatuses({ ...b, surfaces: [surface] })[0]!;
  return { ...zonePrep(b, surface, status), status };
}
const kinds = (list: { steps: readonly { kind: string }[] }) => list.steps.map((s) => s.kind);
const stateOf = (list: ReturnType<typeof listOf>, kind: string) => list.steps.find((s) => s.kind === kind)?.state;

describe('washes by hand', () => {
  it('1 : 50 in a bucket of 10 L is 0.2 L, 1 : 100 in 25 L is 0.25 L', () => {
    expect(concentrateL({ waterL: 10, parts: 50 })).toBeCloseTo(0.2, 12);
    expect(concentrateL({ waterL: 25, parts: 100 })).toBeCloseTo(0.25, 12);
  });

  it('a bilge of 10 m² is degreased with 20 L and 0.4 L of concentrate, in seven steps', () => {
    const bilge = { ...zone, kind: 'bilge', exposure: 'bilge', areaM2: 10 } as const;
    const list = listOf(bilge, [], noon);
    expect(kinds(list)).toEqual(['lookOver', 'degrease', 'rinse', 'dry', 'abrade', 'vacuum', 'wipe']);
    expect(WAYS.bilge).toHaveLength(7);
    const degrease = list.steps[1]!;
    expect([degrease.needs.waterL, degrease.needs.parts, degrease.needs.concentrateL]).toEqual([20, 50, 0.4]);
    expect(list.steps[3]?.needs).toMatchObject({ dryH: 24, fan: true });
  });
});

describe('bare metal [common practice: 4 h, and many steel specifications]', () => {
  it('by default, by the sheet, and never by none', () => {
    expect(bareMetalUntil({ blastedAt: noon })).toBe(noon + 4 * hour);
    expect(bareMetalUntil({ blastedAt: noon, hours: 8 })).toBe(noon + 8 * hour);
    expect(() => bareMetalUntil({ blastedAt: noon, hours: 0 })).toThrow(/more than zero/);
    expect(() => bareMetalUntil({ blastedAt: NaN })).toThrow(/date and time/);
  });

  it('brings blasting back onto the list when it has waited too long', () => {
    const entries = [log('bottom', 'prepared', noon, { step: 'blast', profileMicron: 75 })];
    const soon = listOf(steel, entries, noon + 3.9 * hour);
    expect([stateOf(soon, 'blast'), soon.status.state]).toEqual(['done', 'ready']);
    const late = listOf(steel, entries, noon + 4.1 * hour);
    expect([stateOf(late, 'blast'), late.status.state]).toEqual(['again', 'unready']);
    expect(late.steps.find((s) => s.kind === 'blast')?.ranOut).toEqual({ by: 'time', at: noon + 4 * hour });
    expect(comingClocks([soon.status], [], noon + hour).find((c) => c.kind === 'bareMetalEnds')?.at).toBe(
      noon + 4 * hour,
    );
  });

  it('a passivating wash buys days, metal that has turned ends it', () => {
    const passive = [
      log('bottom', 'prepared', noon, { step: 'blast' }),
      log('bottom', 'prepared', noon + hour, { step: 'passivate' }),
    ];
    expect(listOf(steel, passive, noon + 30 * hour).keptOffBy.map((c) => c.kind)).toEqual([]);
    const turned = [...passive, log('bottom', 'dirtied', noon + 20 * hour, { by: 'turned', text: '' })];
    expect(listOf(steel, turned, noon + 30 * hour).keptOffBy.map((c) => c.kind)).toEqual(['bareMetal']);
    const own = [log('bottom', 'prepared', noon, { step: 'blast', holdsH: 10 })];
    expect(listOf(steel, own, noon + 9 * hour).ready).toBe(false);
    expect(listOf(steel, own, noon + 9 * hour).keptOffBy).toEqual([]);
  });

  it('a welded patch runs a clock of its own, on the face behind it too', () => {
    const entries = ['weld', 'locker'].map((id) =>
      log(id, 'prepared', noon, { step: 'grind', bothFaces: true, drawnAt: { surfaceId: 'bottom', x: 0.4, y: 0.5 } }),
    );
    for (const id of ['weld', 'locker']) {
      const clocks = listOf({ ...steel, id }, entries, noon + hour).clocks;
      expect(clocks.map((c) => [c.kind, c.until])).toEqual([['bareMetal', noon + 4 * hour]]);
    }
    expect(listOf(steel, entries, noon + hour).clocks).toEqual([]);
  });

  it('bare aluminium turns from its abrading on, painted aluminium does not', () => {
    const entries = [log('bottom', 'prepared', noon, { step: 'abrade', grit: 80 })];
    const bare = { ...zone, substrate: 'aluminium', existing: 'bare' } as const;
    expect(listOf(bare, entries, noon + hour).clocks.map((c) => c.kind)).toContain('bareMetal');
    expect(listOf({ ...bare, existing: 'twoPack' }, entries, noon + hour).clocks).toEqual([]);
  });
});

describe('clean is a clock [common practice]', () => {
  it('ends with the next rain, or what was logged, whichever is first', () => {
    const weather = [
      { at: noon - hour, rainMm: 3 },
      { at: noon + hour, rainMm: 0.05 },
      { at: noon + 5 * hour, rainMm: 2 },
    ];
    expect(cleanUntil({ cleanedAt: noon + 1, weather })).toBe(noon + 5 * hour);
    expect(cleanUntil({ cleanedAt: noon, weather, events: [{ at: noon + 2 * hour, by: 'dust' }] })).toBe(
      noon + 2 * hour,
    );
    expect(cleanUntil({ cleanedAt: noon + 7 * hour, weather, events: [{ at: noon, by: 'dust' }] })).toBeNull();
    // In the middle of a wet hour it is wet at once.
    expect(cleanUntil({ cleanedAt: noon + 5.5 * hour, weather })).toBe(noon + 5.5 * hour);
  });

  it('washed, rain since: wash again; a degreasing stands', () => {
    const at = (i: number) => noon - (40 - i) * hour;
    const entries = [
      log('bottom', 'prepared', at(0), { step: 'degrease' }),
      log('bottom', 'prepared', at(1), { step: 'abrade', grit: 80 }),
      log('bottom', 'prepared', at(2), { step: 'rinse' }),
    ];
    const wet = listOf({ ...zone, existing: 'bare' }, entries, noon, rainAt(noon - 6 * hour));
    expect([stateOf(wet, 'degrease'), stateOf(wet, 'rinse'), stateOf(wet, 'abrade')]).toEqual([
      'done',
      'again',
      'done',
    ]);
    expect(wet.status.state).toBe('unready');
    // Under a roof rain does not count.
    const roofed = listOf({ ...zone, existing: 'bare', shelter: 'tent' }, entries, noon, rainAt(noon - 6 * hour));
    expect([stateOf(roofed, 'rinse'), roofed.status.state]).toEqual(['done', 'ready']);
    // Rain to come is when it ends.
    const ahead = listOf({ ...zone, existing: 'bare' }, entries, noon, rainAt(noon + 6 * hour));
    expect(ahead.clocks.find((c) => c.kind === 'clean')?.until).toBe(noon + 6 * hour);
  });

  it('wiping before sanding is wiped again, drying before rinsing dried again', () => {
    const entries = [
      log('bottom', 'prepared', noon - 9 * hour, { step: 'dry' }),
      log('bottom', 'prepared', noon - 8 * hour, { step: 'wipe' }),
      log('bottom', 'prepared', noon - 7 * hour, { step: 'abrade', grit: 80 }),
      log('bottom', 'prepared', noon - hour, { step: 'rinse' }),
    ];
    const list = listOf({ ...zone, existing: 'bare' }, entries, noon);
    expect([stateOf(list, 'wipe'), stateOf(list, 'dry')]).toEqual(['again', 'again']);
    expect(list.keptOffBy.map((c) => c.kind)).toEqual(['drying']);
    const dry = listOf({ ...zone, existing: 'bare' }, entries, noon + 26 * hour);
    expect(dry.keptOffBy).toEqual([]);
  });

  it('what a neighbour washes down onto a coat makes it unready, a wash mends it', () => {
    const coat = [
      { ...log('coat', 'started', noon - 20 * hour, startOf('first')), stream: 'coat' },
      { ...log('coat', 'finished', noon - 19 * hour, { litresOn: 2 }), stream: 'coat' },
    ] as LogEntry[];
    const dirty = [...coat, log('bottom', 'dirtied', noon - hour, { by: 'washingDown', text: '' })];
    const list = listOf(zone, dirty, noon);
    expect(list.status.state).toBe('unready');
    expect(kinds(list)).toContain('rinse');
    const mended = [
      ...dirty,
      log('bottom', 'prepared', noon, { step: 'rinse' }),
      log('bottom', 'prepared', noon + 1, { step: 'dry' }),
    ];
    expect(listOf(zone, mended, noon + 2).status.state).not.toBe('unready');
  });
});

describe('what dirt asks for again [common practice]', () => {
  const did = (step: string, h: number) => log('bottom', 'prepared', noon - h * hour, { step });
  const dirt = (by: string) => log('bottom', 'dirtied', noon - hour, { by, text: '' });
  const kept = { ...zone, existing: 'twoPack' } as const;
  const all = [did('degrease', 40), did('rinse', 39), did('dry', 34), did('abrade', 30), did('wipe', 28)];
  const again = (by: string, entries = all) =>
    listOf(kept, [...entries, dirt(by)], noon)
      .steps.filter((s) => s.state === 'again')
      .map((s) => s.kind);

  it('dust and hands want a wipe, overspray a scuff too, rain a wash', () => {
    expect(again('dust')).toEqual(['wipe']);
    expect(again('hands')).toEqual(['wipe']);
    expect(again('overspray')).toEqual(['abrade', 'wipe']);
    expect(again('washingDown')).toEqual(['rinse', 'wipe']);
  });

  it('where the list has nothing that takes it off, a step is asked for', () => {
    const list = listOf(kept, [did('rinse', 39), did('dry', 34), dirt('dust')], noon);
    expect(list.steps.filter((s) => s.kind === 'wipe').map((s) => s.state)).toEqual(['toDo']);
    const steelList = listOf(steel, [did('blast', 3), did('vacuum', 2), dirt('hands')], noon);
    expect(steelList.steps.find((s) => s.key === 'clean:wipe')?.state).toBe('toDo');
    const wiped = listOf(steel, [did('blast', 3), did('vacuum', 2), dirt('hands'), did('wipe', 0.5)], noon);
    expect([wiped.keptOffBy, wiped.steps.some((s) => s.key === 'clean:wipe')]).toEqual([[], false]);
  });

  it('rain before blasting does not count after it', () => {
    const list = listOf(steel, [did('degrease', 20), did('blast', 2)], noon, rainAt(noon - 10 * hour));
    expect([list.status.state, list.keptOffBy]).toEqual(['ready', []]);
  });
});

describe('the list', () => {
  it('is there for every substrate without a word typed', () => {
    for (const substrate of [
      'gelcoat',
      'steel',
      'aluminium',
      'timber',
      'plywood',
      'sealedTimber',
      'ferrocement',
    ] as const)
      for (const existing of ['bare', 'onePack', 'twoPack', 'antifoulingHard', 'unknown'] as const) {
        const list = listOf({ ...zone, substrate, existing }, [], noon);
        expect(list.steps.length).toBeGreaterThan(3);
        expect(list.steps.every((s) => s.why.length > 0)).toBe(true);
        expect(waysFor({ ...zone, substrate, existing })[0]).toBe(list.way);
      }
  });

  it('is added to, left out with a reason and ordered, and keeps what was done', () => {
    const plan = log('bottom', 'prepPlanned', noon, {
      way: 'steelByHand',
      added: [{ key: 'tap', kind: 'other', text: 'Tap the frames from inside' }],
      leftOut: [{ key: 'convert', reason: 'Bright metal after the needle gun' }],
      order: ['tap', 'lookOver'],
    });
    const done = log('bottom', 'prepared', noon + 1, { step: 'other', key: 'tap' });
    const list = listOf(steel, [plan, done], noon + hour);
    expect(kinds(list).slice(0, 3)).toEqual(['other', 'lookOver', 'degrease']);
    expect([stateOf(list, 'other'), stateOf(list, 'convert')]).toEqual(['done', 'leftOut']);
    expect(list.way).toBe('steelByHand');
  });

  it('what a hand changed of it is for the coat to come, not for those after it', () => {
    const plan = log('bottom', 'prepPlanned', noon - 30 * hour, {
      way: null,
      added: [{ key: 'tap', kind: 'other', text: 'Tap the frames' }],
      leftOut: [],
      order: [],
    });
    const coat = [
      { ...log('coat', 'started', noon - 8 * hour, startOf('first')), stream: 'coat' },
      { ...log('coat', 'finished', noon - 7 * hour, { litresOn: 2 }), stream: 'coat' },
    ] as LogEntry[];
    expect(listOf(zone, [plan], noon).steps.some((s) => s.key === 'tap')).toBe(true);
    expect(listOf(zone, [plan, ...coat], noon).steps.some((s) => s.key === 'tap')).toBe(false);
  });

  it('the sheet of the next coat goes before the usual figures', () => {
    const asks = { ...revision, body: { ...sheet, profileMinMicron: 40, profileMaxMicron: 70, surfaceGrit: 60 } };
    const b = { ...boat([], noon), sheets: [asks, copper] };
    const [status] = zoneStatuses({ ...b, surfaces: [steel] });
    const blast = zonePrep(b, steel, status!).steps.find((s) => s.kind === 'blast');
    expect([blast?.needs.profileMicron, blast?.source]).toEqual([[40, 70], 'sheet']);
  });

  it('between coats: nothing to do while it bonds, abrading when it does not', () => {
    const coat = [
      { ...log('coat', 'started', noon - 8 * hour, startOf('first')), stream: 'coat' },
      { ...log('coat', 'finished', noon - 7 * hour, { litresOn: 2 }), stream: 'coat' },
    ] as LogEntry[];
    const bonding = listOf(zone, coat, noon);
    const cured = listOf(zone, coat, noon + 60 * hour);
    expect(bonding.status.state).toBe('bonds');
    expect(kinds(bonding)).toEqual(['lookOver']);
    expect(cured.status.state).toBe('abrade');
    expect(kinds(cured)).toEqual(['lookOver', 'rinse', 'dry', 'abrade', 'wipe']);
  });

  it('open work comes first, with steps of its own', () => {
    const surface = {
      ...steel,
      openWork: [{ id: 'w', kind: 'hotWork', note: 'Doubler at frame 6', done: false }],
    } as const;
    const list = listOf(surface, [log('bottom', 'prepared', noon, { step: 'weld', workId: 'w' })], noon + hour);
    expect(list.steps.slice(0, 4).map((s) => [s.kind, s.state, s.workId])).toEqual([
      ['lookOver', 'toDo', 'w'],
      ['weld', 'done', 'w'],
      ['grind', 'toDo', 'w'],
      ['inspect', 'toDo', 'w'],
    ]);
    expect(list.status.state).toBe('openWork');
  });
});

describe('rust that was looked at', () => {
  it('puts back onto the list what has to be done again', () => {
    const did = (step: string, h: number) => log('bottom', 'prepared', noon + h * hour, { step });
    const entries = [
      log('bottom', 'prepPlanned', noon - hour, { way: 'steelByHand', added: [], leftOut: [], order: [] }),
      did('needleGun', 0),
      did('wireBrush', 1),
      did('convert', 2),
    ];
    const look = (next: string) => log('bottom', 'rustLooked', noon + 20 * hour, { convertedShare: 0.7, next });
    const states = (next: string) => {
      const list = listOf(steel, [...entries, look(next)], noon + 21 * hour);
      return ['needleGun', 'wireBrush', 'convert'].map((kind) => stateOf(list, kind));
    };
    expect(states('again')).toEqual(['done', 'again', 'again']);
    expect(states('scrape')).toEqual(['again', 'again', 'again']);
    expect(states('scuff')).toEqual(['done', 'done', 'done']);
  });
});

describe('fairing rounds [common practice: plan for two]', () => {
  const did = (step: string, h: number, more: object = {}) =>
    log('bottom', 'prepared', noon + h * hour, { step, ...more });
  const next = (...entries: LogEntry[]) => fairing(prepOf(entries, 'bottom')).next;

  it('fill, guide coat, block, look; what the look finds is the next round', () => {
    const first = [did('fill', 0), did('guideCoat', 1), did('block', 2)];
    expect(next()).toBeNull();
    expect(next(first[0]!)).toBe('guideCoat');
    expect(next(...first.slice(0, 2))).toBe('block');
    expect(next(...first)).toBe('inspect');
    const found = did('inspect', 3, { found: ['lows'], drawnAt: { surfaceId: 'bottom', x: 0.2, y: 0.4 } });
    expect(next(...first, found)).toBe('fill');
    const second = [did('fill', 4), did('guideCoat', 5), did('block', 6), did('inspect', 7, { found: ['fair'] })];
    expect(next(...first, found, ...second)).toBe('spotPrime');
    expect(next(...first, found, ...second, did('spotPrime', 8))).toBeNull();
    const { rounds } = fairing(prepOf([...first, found, ...second], 'bottom'));
    expect(rounds.map((r) => [r.no, r.found])).toEqual([
      [1, ['lows']],
      [2, ['fair']],
    ]);
    expect(rounds[0]?.places).toHaveLength(1);
  });

  it('a guide coat that is on keeps paint off until it is blocked', () => {
    const list = listOf({ ...zone, existing: 'bare' }, [did('fill', 0), did('guideCoat', 1)], noon + 2 * hour);
    expect(list.keptOffBy.map((c) => c.kind)).toEqual(['guideCoat']);
    expect(list.steps.find((s) => s.kind === 'block')?.state).toBe('toDo');
  });
});

describe('blast only what can be primed', () => {
  // 8 m²/h blasted, two painters 10 m²/h each, an hour between, four hours: 3 h of blasting are 24 m².
  const day = { areaM2: 60, blastM2PerH: 8, primeM2PerH: 10, painters: 2, betweenH: 1 };
  it('by hand', () => {
    expect(blastDay({ ...day, dayH: 9 })).toEqual({ areaM2: 24, blastH: 3, primeH: 1.2, heldBy: 'bareMetal', days: 3 });
    // With 4.5 h of day: 3.5 h shared as 1/8 and 1/20 of an hour a m²: 20 m².
    expect(blastDay({ ...day, dayH: 4.5 })).toMatchObject({ areaM2: expect.closeTo(20, 9), heldBy: 'day', days: 3 });
    // Slow priming holds it down: 3 h of one painter at 5 m²/h.
    expect(blastDay({ ...day, primeM2PerH: 5, painters: 1, dayH: 12 }).areaM2).toBeCloseTo(15, 9);
    expect(blastDay({ ...day, areaM2: 10, dayH: 9 })).toMatchObject({ areaM2: 10, days: 1 });
    expect(blastDay({ ...day, dayH: 0.5 })).toMatchObject({ areaM2: 0, days: Infinity });
    expect(() => blastDay({ ...day, dayH: 9, painters: 0 })).toThrow(/Painters/);
  });
});

describe('coats that wait', () => {
  const facts = {
    surface: zone,
    log: prepOf([], 'bottom'),
    lastCoat: { startedAt: noon - hour, finishedAt: noon, on: [] },
    nextSheet: copper.body,
    rain: [],
  };
  it('a holding primer for its months, penetrating epoxy for a day [common practice]', () => {
    const held = surfaceClocks({ ...facts, lastSheet: { ...sheet, holdingMonths: 6 }, lastLayer: null });
    expect(held.map((c) => c.kind)).toEqual(['holding']);
    expect((held[0]!.until! - noon) / hour / 24).toBeCloseTo(182.6, 1);
    const soaked = surfaceClocks({ ...facts, lastSheet: { ...sheet, kind: 'sealer' }, lastLayer: null });
    expect(soaked.map((c) => [c.kind, c.until])).toEqual([['sealer', noon + 24 * hour]]);
    expect(keepsOff([...held, ...soaked], noon + 9999 * hour)).toEqual([]);
  });
});
