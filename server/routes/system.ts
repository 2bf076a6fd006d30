import { createReadStream, rmSync } from 'node:fs';
import { pipeline } from 'node:stream/promises';
import { Router } from 'express';
import Joi from 'joi';
import { DateTime } from 'luxon';
import { sql } from 'drizzle-orm';
import type { Health, Keeping } from '#contracts/rows/keeping';
import type { Context } from '../context';
import { asBytes } from '../door';
import { listBackups } from '../keep/backups';
import { archiveForDownload, restoreKept, restoreSent } from '../keep/putBack';
import { check, checkNoQuery } from '../validate';

/** How the server is, and how the yard is kept. */
export function systemRoutes(context: Context): Router {
  const { yard, store, clock, demo, open } = context;
  const router = Router();
  router.get('/health', async (req, res) => {
    checkNoQuery(req);
    await store.db.execute(sql`select 1`);
    const health: Health = { ok: true, now: clock.now(), frozen: clock.frozen, demo, open };
    res.json(health);
  });
  router.get('/backup', async (req, res) => {
    checkNoQuery(req);
    const day = DateTime.fromMillis(clock.now()).toISODate();
    const path = await archiveForDownload(yard, clock.now());
    try {
      res.attachment(`jack-plane-${day}.jsonl.gz`).type('application/gzip');
      await pipeline(createReadStream(path), res);
    } finally {
      rmSync(path, { force: true });
    }
  });
  router.get('/keeping', (req, res) => {
    checkNoQuery(req);
    const { backups } = yard;
    const { n, syncedN, problem } = store.journal.state;
    const keeping: Keeping = {
      dataDir: backups?.dataDir ?? null,
      backups: backups ? listBackups(backups.dataDir).reverse() : [],
      backupProblem: backups?.trouble ?? null,
      journal: { changes: n, onDisk: syncedN, problem },
      open,
      putRight: yard.putRight,
    };
    res.json(keeping);
  });
  router.post('/restore', asBytes, async (req, res) => {
    checkNoQuery(req);
    res.json(await restoreSent(yard, req, clock.now, demo));
  });
  router.post('/backups/:name/restore', async (req, res) => {
    checkNoQuery(req);
    const name = check<string>(Joi.string().max(120).required().label('The backup'), req.params.name);
    res.json(await restoreKept(yard, name, clock.now, demo));
  });
  return router;
}
