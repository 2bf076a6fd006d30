import { Router, type Response } from 'express';
import Joi from 'joi';
import { DateTime } from 'luxon';
import { sql } from 'drizzle-orm';
import type { Health, Keeping, Restored } from '#contracts/rows/keeping';
import type { Context } from '../context';
import { asBytes } from '../door';
import { listBackups } from '../keep/backups';
import { restoreKept, restoreSent, sendArchive } from '../keep/putBack';
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
    res.attachment(`jack-plane-${day}.jsonl.gz`).type('application/gzip');
    await sendArchive(yard, clock.now(), res).catch((error: unknown) => {
      // Whoever asked went away: nobody is left to be told.
      if (res.destroyed) return;
      res.removeHeader('Content-Disposition');
      throw error;
    });
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
      notices: [...yard.notices.list],
      work: yard.work.state,
    };
    res.json(keeping);
  });
  router.post('/keeping/read', (req, res) => {
    checkNoQuery(req);
    yard.notices.clear();
    res.json({ ok: true });
  });
  router.post('/restore', asBytes, async (req, res) => {
    checkNoQuery(req);
    const { restoring } = await restoreSent(yard, req, clock.now, demo);
    await answerInTime(res, restoring);
  });
  router.post('/backups/:name/restore', async (req, res) => {
    checkNoQuery(req);
    const name = check<string>(Joi.string().max(120).required().label('The backup'), req.params.name);
    await answerInTime(res, restoreKept(yard, name, clock.now, demo));
  });
  return router;
}

/** Work that is done so soon is answered with what it did; longer work with 202: how far it is stands under /keeping. */
const AT_ONCE_MS = 10_000;

async function answerInTime(res: Response, work: Promise<Restored>): Promise<void> {
  const late = new Promise<null>((done) => setTimeout(done, AT_ONCE_MS, null).unref());
  const done = await Promise.race([work, late]);
  if (done) return void res.json(done);
  // How it ends is told under /keeping.
  work.catch(() => undefined);
  res.status(202).json({ ok: true });
}
