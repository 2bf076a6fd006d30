import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';

/** What a device keeps, and what its clock does. */
const stored = new Map<string, string>();
beforeEach(() => {
  vi.resetModules();
  stored.clear();
  vi.stubGlobal('localStorage', {
    getItem: (key: string) => stored.get(key) ?? null,
    setItem: (key: string, value: string) => void stored.set(key, value),
  });
  vi.stubGlobal('addEventListener', () => undefined);
  vi.stubGlobal('navigator', { language: 'en-GB' });
  vi.stubGlobal('matchMedia', () => ({ matches: false }));
  vi.stubGlobal('document', { documentElement: { dataset: {} } });
});
afterEach(() => {
  vi.useRealTimers();
  vi.unstubAllGlobals();
  vi.restoreAllMocks();
});

describe('settings', () => {
  const read = async (value: unknown) => {
    stored.set('jack-plane/settings', typeof value === 'string' ? value : JSON.stringify(value));
    return (await import('./settings')).settings();
  };
  it('are taken as they were kept', async () => {
    const kept = {
      units: { system: 'us', except: { film: 'metric' } },
      painter: 'Ines',
      words: 'uk',
      measure: 'scale',
    };
    expect(await read(kept)).toMatchObject(kept);
  });
  it('of another shape give way one by one, and the others stay', async () => {
    expect(
      await read({ units: 'metric', theme: 7, painter: 'Ines', keys: 'no', measure: 'bucket', words: 3 }),
    ).toMatchObject({
      units: { system: expect.stringMatching(/^(us|metric)$/) as string },
      theme: 'chalk',
      painter: 'Ines',
      keys: true,
      measure: 'cup',
      words: null,
    });
  });
  it('that are no settings at all are fresh ones', async () => {
    for (const odd of [
      'null',
      '7',
      '"x"',
      '[]',
      '{',
      JSON.stringify({ units: { system: 'us', except: { moon: 'us' } } }),
    ])
      expect((await read(odd)).units.system).toMatch(/^(us|metric)$/);
  });
});

describe('the clock', () => {
  it('goes on as it did when the device’s is set back, and asks the server when it jumps ahead', async () => {
    let [date, run] = [1_000_000_000_000, 0];
    vi.spyOn(Date, 'now').mockImplementation(() => date);
    vi.spyOn(performance, 'now').mockImplementation(() => run);
    const clock = await import('./now');
    const asked = vi.fn();
    clock.whenClockJumps(asked);
    const server = 1_800_000_000_000;
    clock.syncClock({ now: server, frozen: false });
    const pass = (ms: number, set = 0) => {
      run += ms;
      date += ms + set;
    };
    pass(5000);
    expect(clock.now()).toBe(server + 5000);
    // A month back.
    pass(1000, -30 * 86_400_000);
    expect(clock.now()).toBe(server + 6000);
    expect(asked).not.toHaveBeenCalled();
    // A day ahead, or asleep for it: only the server can tell.
    pass(1000, 86_400_000);
    clock.now();
    expect(asked).toHaveBeenCalledOnce();
    clock.syncClock({ now: server + 7000, frozen: false });
    pass(500);
    expect(clock.now()).toBe(server + 7500);
  });
});
