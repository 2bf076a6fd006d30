import { eq } from 'drizzle-orm';
import { Router } from 'express';
import { weatherAt, type SourcedHour } from '#core/air/weather';
import { batchTimers, comingClocks } from '#core/coat/clocks';
import { foldBatches } from '#core/coat/fold';
import { zoneStatuses } from '#core/coat/zoneStatus';
import type { Yard, YardBoat } from '#contracts/yard';
import type { Context } from '../context';
import { getBundle } from '../db/boats';
import { boats } from '../db/schema';
import { checkNoQuery } from '../validate';

/** The whole yard at a glance: each boat's zones and what rings next. The same computation as in the browser. */
export function yardRoutes({ db, clock, demo }: Context): Router {
  const router = Router();
  router.get('/yard', async (req, res) => {
    checkNoQuery(req);
    const rows = await db.select({ id: boats.id }).from(boats).where(eq(boats.deleted, false)).orderBy(boats.name);
    const list: YardBoat[] = [];
    for (const { id } of rows) list.push(summary(await getBundle(db, id, clock)));
    const yard: Yard = { now: clock.now(), frozen: clock.frozen, demo, boats: list };
    res.json(yard);
  });
  return router;
}

function summary(bundle: Awaited<ReturnType<typeof getBundle>>): YardBoat {
  const { now, boat, jobs, surfaces } = bundle;
  const statuses = zoneStatuses(bundle);
  const timers = batchTimers(foldBatches(bundle.entries), now);
  const air = weatherAt(bundle.hours, now) as SourcedHour | null;
  return {
    boat,
    job: jobs[jobs.length - 1] ?? null,
    zones: statuses.map((s, i) => ({
      surfaceId: s.surfaceId,
      name: surfaces[i]?.name ?? '',
      kind: surfaces[i]?.kind ?? '',
      patchKind: surfaces[i]?.patchKind ?? null,
      state: s.state,
      colourHex: s.colourHex,
      nextName: s.nextSheet?.name ?? null,
      nextNumber: s.nextNumber,
      bondsUntil: s.clocks?.window?.bondsUntil ?? null,
      opensAt: s.clocks?.window?.opensAt ?? null,
      lastStartAt: s.advice?.lastStartAt ?? null,
      nowHolds: s.advice?.nowHolds ?? null,
      firstStartAt: s.advice?.firstStartAt ?? null,
    })),
    clocks: comingClocks(statuses, timers, now).slice(0, 12),
    timers,
    air: air ? { airC: air.airC, rh: air.rh, simulated: bundle.hours.findLast((h) => h.at <= now)?.source === 'simulated' } : null,
  };
}
