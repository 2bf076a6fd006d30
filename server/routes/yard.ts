import { Router } from 'express';
import type { Context } from '../context';
import { checkNoQuery } from '../validate';

/** The whole yard at a glance: each boat's zones and what rings next. The same computation as in the browser. */
export function yardRoutes({ summaries }: Context): Router {
  const router = Router();
  router.get('/yard', async (req, res) => {
    checkNoQuery(req);
    res.type('json').send(await summaries.yardJson());
  });
  return router;
}
