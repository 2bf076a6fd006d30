import { Router } from 'express';
import { sheetBody, sheetImportBody } from '#contracts/schemas/sheet';
import type { Library } from '#contracts/rows/sheet';
import type { Context } from '../context';
import { getSheet, importSheets, listSheets, putSheet, type SheetChange } from '../db/sheets';
import { LIBRARY_SHEETS, LIBRARY_STARTERS } from '../library';
import { check, checkNoQuery, idOf } from '../validate';

export function sheetRoutes({ store, clock }: Context): Router {
  const router = Router();
  router.get('/sheets', async (req, res) => {
    checkNoQuery(req);
    res.json(await listSheets(store.db));
  });
  router.get('/sheets/:id', async (req, res) => {
    res.json(await getSheet(store.db, idOf(req)));
  });
  router.put('/sheets/:id', async (req, res) => {
    const change = check<SheetChange>(sheetBody, req.body);
    res.json(await putSheet(store, idOf(req), change, clock.now()));
  });
  router.put('/sheet-imports/:id', async (req, res) => {
    idOf(req);
    const wanted = check<Parameters<typeof importSheets>[1]>(sheetImportBody, req.body);
    res.json({ written: await importSheets(store, wanted, clock.now()) });
  });
  router.get('/library', (req, res) => {
    checkNoQuery(req);
    const library: Library = { sheets: [...LIBRARY_SHEETS], starters: [...LIBRARY_STARTERS] };
    res.json(library);
  });
  return router;
}
