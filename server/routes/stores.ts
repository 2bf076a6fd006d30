import { eq } from 'drizzle-orm';
import { Router } from 'express';
import { lotBody, YARD_RULES_ID, yardRulesBody, type LotRow, type YardRules } from '#contracts/stores';
import { namedBuildUpBody, type NamedBuildUpRow } from '#contracts/system';
import type { Context } from '../context';
import type { Db } from '../db/open';
import { lots, namedBuildUps, yardRules } from '../db/schema';
import { checkLayerSheets, getSheet } from '../db/sheets';
import { getStores, listNamed } from '../db/stores';
import { putVersioned } from '../db/versioned';
import { Refusal } from '../errors';
import { check, checkNoQuery, idOf } from '../validate';

/** What belongs to the yard and not to a boat: the shelf, its rules, named build-ups. */
export function storesRoutes({ db, clock }: Context): Router {
  const router = Router();
  const inOne = <T>(work: (tx: Db) => Promise<T>): Promise<T> => db.transaction((tx) => work(tx as unknown as Db));

  router.get('/stores', async (req, res) => {
    checkNoQuery(req);
    res.json(await getStores(db, clock.now()));
  });

  router.put('/lots/:id', async (req, res) => {
    const row = { ...check<Omit<LotRow, 'id'>>(lotBody, req.body), id: idOf(req) };
    if (row.leftL > row.sizeL * 1.1) throw new Refusal(422, 'impossible', 'More is left than the tin holds. Check both figures and their units.', { field: 'leftL' });
    if (row.weighed && row.weighed.grossKg < row.weighed.tareKg) throw new Refusal(422, 'impossible', 'The full tin weighs less than the empty one. Check the two weights.', { field: 'weighed' });
    if (row.boughtOn !== null && row.openedOn !== null && row.openedOn < row.boughtOn) throw new Refusal(422, 'impossible', 'The tin was opened before it was bought. Check the two dates.', { field: 'openedOn' });
    if (!row.deleted) {
      const sheet = await getSheet(db, row.sheetId);
      if (!sheet.revisions.some((r) => r.body.parts.some((p) => p.name === row.part))) throw new Refusal(422, 'impossible', `${sheet.current.body.name} has no part called "${row.part}". Choose one of its parts.`, { field: 'part' });
    }
    res.json(await inOne((tx) => putVersioned(tx, lots, row, 'tin')));
  });

  router.put('/yard-rules/:id', async (req, res) => {
    const row = { ...check<Omit<YardRules, 'id'>>(yardRulesBody, req.body), id: idOf(req) };
    if (row.id !== YARD_RULES_ID) throw new Refusal(422, 'impossible', 'The yard has one set of rules. Reload and change those.');
    res.json(await inOne((tx) => putVersioned(tx, yardRules, row, 'rules of the yard')));
  });

  router.get('/named-build-ups', async (req, res) => {
    checkNoQuery(req);
    res.json(await listNamed(db));
  });

  router.put('/named-build-ups/:id', async (req, res) => {
    const row = { ...check<Omit<NamedBuildUpRow, 'id'>>(namedBuildUpBody, req.body), id: idOf(req) };
    res.json(
      await inOne(async (tx) => {
        const [before] = await tx.select().from(namedBuildUps).where(eq(namedBuildUps.id, row.id));
        await checkLayerSheets(tx, row.layers, before?.layers);
        return putVersioned(tx, namedBuildUps, row, 'build-up');
      }),
    );
  });

  return router;
}
