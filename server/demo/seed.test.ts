import { eq } from 'drizzle-orm';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { foldLog } from '#core/coat/fold';
import { lotStates } from '#core/stores/lots';
import { shareShelf } from '#core/stores/share';
import { ledger } from '#core/system/ledger';
import { followers } from '#core/system/system';
import { getBundle } from '../db/boats';
import type { Db } from '../db/database';
import { boats, buildUps, facts, lots } from '../db/schema';
import { listNamed } from '../db/stores';
import { isTouched } from '../db/touched';
import { openYard, type Yard } from '../keep/yard';
import { LIBRARY_SHEETS, LIBRARY_STARTERS } from '../library';
import { seedDemo } from './seed';
import { Summaries } from '../summaries';

const NOW = Date.parse('2026-05-14T09:40:00Z');
const clock = { at: NOW, now: () => clock.at, frozen: true, set: true };
let yard: Yard;
let db: Db;
beforeAll(async () => {
  yard = await openYard({ dataDir: null, now: clock.now, demo: true });
  db = yard.store.db;
  await seedDemo(yard, clock);
});
afterAll(() => yard.close());

const bodies = new Map(LIBRARY_SHEETS.map((s) => [s.id, s.body]));
const sheetOf = (id: string) => bodies.get(id);

describe('the demo yard', () => {
  it('has one boat with a stop to look at, and no other stop anywhere', async () => {
    const stops: string[] = [];
    for (const { id } of await db.select({ id: boats.id }).from(boats)) {
      const bundle = await getBundle(yard.store, id, clock);
      const plan = (surfaceId: string) => bundle.buildUps.find((b) => b.surfaceId === surfaceId);
      const told = ledger({
        zones: bundle.surfaces.map((surface) => ({
          surface,
          layers: plan(surface.id)?.layers ?? [],
          targetMicron: plan(surface.id)?.targetMicron ?? null,
          records: plan(surface.id)?.records ?? [],
        })),
        coats: foldLog(bundle.entries).coats,
        revisionById: new Map(bundle.sheets.map((s) => [s.id, s])),
        waters: bundle.boat.waters,
        sheetOf,
        onHandOf: () => [],
        chance: 0.9,
      });
      expect(told.without).toEqual([]);
      for (const zone of told.zones)
        for (const f of zone.findings)
          if (f.severity === 'stop')
            stops.push(`${bundle.surfaces.find((s) => s.id === zone.surfaceId)?.name}: ${f.rule}`);
      // Everything that is planned can be bought from its own sheet.
      for (const product of told.products) expect(product.purchase, product.sheet.name).not.toBeNull();
    }
    expect(stops).toEqual(['Wheelhouse front: strongOverOnePack']);
  });
  it('has zones that follow its own build-up and one that departed', async () => {
    const { named, uses } = await listNamed(db);
    expect(named).toHaveLength(LIBRARY_STARTERS.length + 1);
    const own = named.find((n) => n.name.startsWith('Yard bottom'))!;
    const rows = await db.select().from(buildUps).where(eq(buildUps.namedId, own.id));
    expect(uses[own.id]).toHaveLength(rows.length);
    const { follow, departed } = followers({ named: own.layers, zones: rows, sheetOf: (id) => id });
    expect([follow.length, departed.map((d) => d.differences)]).toEqual([3, [['coat 4 is thicker']]]);
  });
  it('has a shelf that batches drew on, with something stale, and nothing promised twice', async () => {
    const stores = await new Summaries(yard.store, clock, { demo: true, open: false }, yard.notices).stores();
    const states = lotStates({
      lots: stores.lots,
      pours: stores.pours,
      today: stores.today,
      shelfOf: (id) => sheetOf(id) ?? {},
    });
    expect(states.some((l) => l.stale)).toBe(true);
    expect(states.some((l) => l.tappedOn !== null)).toBe(true);
    expect(stores.boats.map((b) => b.launchOn)).toEqual([...stores.boats.map((b) => b.launchOn)].sort());
    const shared = shareShelf({ lots: states, boats: stores.boats, sheetOf, chance: stores.rules.chance });
    for (const [sheetId, free] of shared.freeL) {
      free.forEach((litres, p) => {
        const part = sheetOf(sheetId)!.parts[p]!.name;
        const standing = states
          .filter((l) => l.sheetId === sheetId && l.part === part && !l.stale)
          .reduce((sum, l) => sum + l.nowL, 0);
        const taken = shared.reserved
          .filter((r) => r.sheetId === sheetId)
          .reduce((sum, r) => sum + (r.takenL[p] as number), 0);
        expect(taken + litres).toBeCloseTo(standing, 6);
      });
    }
  });
  it('is made anew while nobody has touched it, and left alone after', async () => {
    const tin = (await db.select().from(lots))[0]!;
    clock.at = NOW + 3 * 3_600_000;
    await seedDemo(yard, clock);
    expect((await db.select().from(lots).where(eq(lots.id, tin.id)))[0]?.measuredAt).toBe(
      tin.measuredAt + 3 * 3_600_000,
    );
    await db.insert(facts).values({ key: 'demoTouched', value: true });
    expect(await isTouched(db)).toBe(true);
    clock.at = NOW + 9 * 3_600_000;
    await seedDemo(yard, clock);
    expect((await db.select().from(lots).where(eq(lots.id, tin.id)))[0]?.measuredAt).toBe(
      tin.measuredAt + 3 * 3_600_000,
    );
  });
});
