import { eq } from 'drizzle-orm';
import { Router } from 'express';
import { lotBody, yardRulesBody } from '#contracts/schemas/stores';
import { YARD_RULES_ID, type LotRow, type YardRules } from '#contracts/rows/stores';
import { namedBuildUpBody } from '#contracts/schemas/system';
import type { NamedBuildUpRow } from '#contracts/rows/system';
import type { Context } from '../context';
import { lots, namedBuildUps, sheets } from '../db/schema';
import { checkLayerSheets, getSheet } from '../db/sheets';
import { listNamed } from '../db/stores';
import type { Writing } from '../db/store';
import { putVersioned } from '../db/versioned';
import { notFound, Refusal } from '../errors';
import { check, checkNoQuery, idOf } from '../validate';

/** What belongs to the yard and not to a boat: the shelf, its rules, named build-ups. */
export function storesRoutes({ store, summaries }: Context): Router {
  const router = Router();

  router.get('/stores', async (req, res) => {
    checkNoQuery(req);
    res.type('json').send(await summaries.storesJson());
  });

  router.put('/lots/:id', async (req, res) => {
    const row = { ...check<Omit<LotRow, 'id'>>(lotBody, req.body), id: idOf(req) };
    if (row.leftL > row.sizeL * 1.1)
      throw new Refusal(422, 'impossible', 'More is left than the tin holds. Check both figures and their units.', {
        field: 'leftL',
      });
    if (row.weighed && row.weighed.grossKg < row.weighed.tareKg)
      throw new Refusal(422, 'impossible', 'The full tin weighs less than the empty one. Check the two weights.', {
        field: 'weighed',
      });
    if (row.boughtOn !== null && row.openedOn !== null && row.openedOn < row.boughtOn)
      throw new Refusal(422, 'impossible', 'The tin was opened before it was bought. Check the two dates.', {
        field: 'openedOn',
      });
    res.json(
      await store.write(async (tx) => {
        await checkPart(tx, row);
        const [before] = await tx.db.select().from(lots).where(eq(lots.id, row.id));
        // Whoever does not tell of earlier looks does not mean to forget them.
        return putVersioned(tx, 'lots', { ...row, past: row.past ?? before?.past ?? [] }, 'tin');
      }),
    );
  });

  router.get('/ratio-ledger/:id', async (req, res) => {
    checkNoQuery(req);
    res.json(await summaries.ledgerFacts(idOf(req)));
  });

  router.put('/yard-rules/:id', async (req, res) => {
    const row = { ...check<Omit<YardRules, 'id'>>(yardRulesBody, req.body), id: idOf(req) };
    if (row.id !== YARD_RULES_ID)
      throw new Refusal(422, 'impossible', 'The yard has one set of rules. Reload and change those.');
    res.json(await store.write((tx) => putVersioned(tx, 'yardRules', row, 'rules of the yard')));
  });

  router.get('/named-build-ups', async (req, res) => {
    checkNoQuery(req);
    res.json(await listNamed(store.db));
  });

  router.put('/named-build-ups/:id', async (req, res) => {
    const row = { ...check<Omit<NamedBuildUpRow, 'id'>>(namedBuildUpBody, req.body), id: idOf(req) };
    res.json(
      await store.write(async (tx) => {
        const [before] = await tx.db.select().from(namedBuildUps).where(eq(namedBuildUps.id, row.id));
        await checkLayerSheets(tx.db, row.layers, before?.layers);
        return putVersioned(tx, 'namedBuildUps', row, 'build-up');
      }),
    );
  });

  return router;
}

/** A tin holds a part of a product that is here; one that is thrown away, of a product that was. */
async function checkPart(tx: Writing, row: LotRow): Promise<void> {
  if (row.deleted) {
    const [known] = await tx.db.select({ id: sheets.id }).from(sheets).where(eq(sheets.id, row.sheetId));
    if (!known) throw notFound('data sheet');
    return;
  }
  const sheet = await getSheet(tx.db, row.sheetId);
  if (
    !sheet.revisions.some(({ body }) => body.parts.some((p) => p.name === row.part) || body.thinner?.name === row.part)
  )
    throw new Refusal(
      422,
      'impossible',
      `${sheet.current.body.name} has no part called "${row.part}". Choose one of its parts.`,
      { field: 'part' },
    );
}
