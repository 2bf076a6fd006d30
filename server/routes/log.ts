import { Router } from 'express';
import type { LogEntry, NewEntry } from '#core/model/log';
import { entryBody } from '#contracts/schemas/log';
import type { Context } from '../context';
import { getBundle } from '../db/boats';
import { appendEntry } from '../db/log';
import { pictureTypeOf } from '../keep/pictures';
import { coatSheetsCsv } from '../record';
import { check, idOf } from '../validate';

export function logRoutes({ store, clock, yard: { files } }: Context): Router {
  const router = Router();
  router.put('/entries/:id', async (req, res) => {
    const body = check<Omit<LogEntry, 'id' | 'recordedAt'>>(entryBody, req.body);
    const entry = { ...body, id: idOf(req) } as NewEntry;
    if ((entry.kind === 'picture' || entry.kind === 'evidence') && entry.body.hash !== undefined)
      await pictureTypeOf(files, entry.body.hash);
    res.json(await appendEntry(store, entry, clock.now()));
  });
  router.get('/boats/:id/coat-sheets.csv', async (req, res) => {
    const bundle = await getBundle(store, idOf(req), clock);
    res
      .attachment(`${fileName(bundle.boat.name)} coat sheets.csv`)
      .type('text/csv')
      .send(coatSheetsCsv(bundle));
  });
  return router;
}

/** A boat's name may hold anything; a file's may not. */
function fileName(name: string): string {
  return (
    name
      .normalize('NFKD')
      .replace(/[^\w -]+/g, '')
      .trim() || 'boat'
  );
}
