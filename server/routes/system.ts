import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { createGzip } from 'node:zlib';
import { Router } from 'express';
import { DateTime } from 'luxon';
import { sql } from 'drizzle-orm';
import { backupLines, restoreBackup } from '../backup';
import type { Context } from '../context';
import { checkNoQuery } from '../validate';

export function systemRoutes({ db, clock, demo, files }: Context): Router {
  const router = Router();
  router.get('/health', async (req, res) => {
    checkNoQuery(req);
    await db.execute(sql`select 1`);
    res.json({ ok: true, now: clock.now(), frozen: clock.frozen, demo });
  });
  router.get('/backup', async (req, res) => {
    checkNoQuery(req);
    const day = DateTime.fromMillis(clock.now()).toISODate();
    res.attachment(`jack-plane-${day}.jsonl.gz`).type('application/gzip');
    await pipeline(Readable.from(backupLines(db, files, clock.now())), createGzip(), res);
  });
  router.post('/restore', async (req, res) => {
    checkNoQuery(req);
    res.json(await restoreBackup(db, files, req));
  });
  return router;
}
