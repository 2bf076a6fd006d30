import { Router } from 'express';
import Joi from 'joi';
import type { Context } from '../context';
import { bodyOf } from '../body';
import { asBytes } from '../door';
import { notFound, Refusal } from '../errors';
import { FILE_MAX_BYTES, tooLarge } from '../keep/files';
import { pictureTypeOf } from '../keep/pictures';
import { check, checkNoQuery } from '../validate';

const hashOf = (value: unknown) =>
  check<string>(Joi.string().hex().lowercase().length(64).required().label('The file’s name'), value);

/** Files go in and out as streams, past the limit for JSON, under one of their own. */
export function fileRoutes({ yard: { files } }: Context): Router {
  const router = Router();
  router.post('/files', asBytes, async (req, res) => {
    checkNoQuery(req);
    if (Number(req.headers['content-length'] ?? 0) > FILE_MAX_BYTES) throw tooLarge(FILE_MAX_BYTES);
    const stored = await files.put(bodyOf(req));
    if (stored.bytes === 0) throw new Refusal(400, 'empty', 'The file is empty. Choose another one.');
    res.json(stored);
  });
  router.get('/files/:hash', (req, res) => {
    checkNoQuery(req);
    const hash = hashOf(req.params.hash);
    if (!files.has(hash)) throw notFound('file');
    res.setHeader('Content-Length', files.size(hash));
    res.attachment(`${hash.slice(0, 12)}.mesh`).type('application/octet-stream');
    files.read(hash).pipe(res);
  });
  router.get('/pictures/:hash', async (req, res) => {
    checkNoQuery(req);
    const hash = hashOf(req.params.hash);
    const type = await pictureTypeOf(files, hash);
    // A file is named by its content: it never changes.
    res.setHeader('Cache-Control', 'private, max-age=31536000, immutable');
    res.setHeader('Content-Length', files.size(hash));
    res.type(type);
    files.read(hash).pipe(res);
  });
  return router;
}
