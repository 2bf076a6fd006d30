import type { ErrorRequestHandler, RequestHandler } from 'express';
import { DrizzleQueryError } from 'drizzle-orm';
import type { Logger } from 'pino';
import type { ApiError } from '#contracts/rows/common';
import { Impossible } from '#core/impossible';
import { letGoOfBody } from './body';

/** A refusal with a reason, told to the client in the one shape of errors. */
export class Refusal extends Error {
  constructor(
    readonly status: number,
    readonly code: string,
    message: string,
    readonly detail: { field?: string; current?: unknown } = {},
  ) {
    super(message);
  }
}

export const notFound = (what: string) =>
  new Refusal(404, 'not_found', `There is no such ${what}. It may have been removed.`);

export const unknownPath: RequestHandler = (req) => {
  throw new Refusal(404, 'unknown_path', `There is nothing at ${req.method} ${req.baseUrl}${req.path}.`);
};

/** Turn whatever was thrown into an answer. Only what nobody foresaw is a 500, and that is logged whole. */
export function errorHandler(log: Logger): ErrorRequestHandler {
  return (error, req, res, next) => {
    if (res.headersSent) {
      next(error);
      return;
    }
    letGoOfBody(req, res);
    const refusal = asRefusal(error);
    if (refusal.status >= 500) log.error({ err: error, id: (req as { id?: unknown }).id }, 'unforeseen');
    const body: ApiError = { error: { code: refusal.code, message: refusal.message, ...refusal.detail } };
    res.status(refusal.status).json(body);
  };
}

/** What the database refuses, by its codes [P: PostgreSQL, appendix A]; the checks before it should leave it nothing to say. */
const SQL_STATES: readonly (readonly [RegExp, readonly [number, string, string]])[] = [
  [/^23505$/, [409, 'id_taken', 'Something else already has this id. Reload and try again.']],
  [/^23/, [422, 'no_such', 'This names something that is not here. It may have been removed: reload and try again.']],
  [/^22/, [422, 'impossible', 'A figure or a text in it is none that can be kept. Check what was typed.']],
  [/^53/, [507, 'disk_full', 'There is no room left on the disk: this was not saved. Make room, then send it again.']],
  [
    /^(XX|58)/,
    [
      503,
      'damaged',
      'The database cannot be read: it is damaged. Nothing that was saved is lost. Stop the program and run "npm run recover".',
    ],
  ],
];

/** The code with which the database refused; empty where it was not the database. */
export function sqlStateOf(error: unknown): string {
  for (let at = error; at instanceof Error; at = at.cause) {
    const { code } = at as { code?: unknown };
    if (typeof code === 'string' && /^[0-9A-Z]{5}$/.test(code)) return code;
  }
  return '';
}

/** The line to a database server broke: whether it carried out what it was asked, nobody knows. */
export function connectionBroke(error: unknown): boolean {
  if (/^(08|57P)/.test(sqlStateOf(error))) return true;
  for (let at = error; at instanceof Error; at = at.cause) {
    const { code } = at as { code?: unknown };
    if (['ECONNREFUSED', 'ECONNRESET', 'EPIPE', 'ETIMEDOUT'].includes(String(code))) return true;
    if (/^(Connection terminated|timeout exceeded when trying to connect|Query read timeout)/i.test(at.message))
      return true;
  }
  return false;
}

function asRefusal(error: unknown): Refusal {
  if (error instanceof Refusal) return error;
  // The core refuses impossible figures with a sentence of its own; any other RangeError is a slip of the program.
  if (error instanceof Impossible) return new Refusal(422, 'impossible', error.message);
  const { type, status, code } = error as { type?: string; status?: number; code?: string };
  if (error instanceof DrizzleQueryError && connectionBroke(error))
    return new Refusal(503, 'database_away', 'The database server does not answer. Try again in a moment.');
  const known = SQL_STATES.find(([states]) => states.test(sqlStateOf(error)));
  if (known) return new Refusal(...known[1]);
  if (type === 'entity.parse.failed') return new Refusal(400, 'malformed_json', 'The request is not valid JSON.');
  if (type === 'entity.too.large')
    return new Refusal(413, 'too_large', 'The request is too large. JSON may have up to 1 MB.');
  if (code === 'ENOSPC' || code === 'EDQUOT')
    return new Refusal(
      507,
      'disk_full',
      'There is no room left on the disk: this was not saved. Make room, then send it again.',
    );
  if (code === 'ERR_STREAM_PREMATURE_CLOSE' || code === 'ECONNRESET')
    return new Refusal(400, 'cut_off', 'The file did not arrive whole. Send it again.');
  if (error instanceof URIError) return new Refusal(400, 'malformed_path', 'The address cannot be read.');
  if (typeof status === 'number' && status >= 400 && status < 500)
    return new Refusal(status, 'bad_request', 'The request cannot be read.');
  return new Refusal(500, 'internal', 'Something went wrong on the server. Nothing was saved. Try again.');
}
