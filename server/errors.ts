import type { ErrorRequestHandler, RequestHandler } from 'express';
import type { Logger } from 'pino';
import type { ApiError } from '#contracts/common';

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

export const notFound = (what: string) => new Refusal(404, 'not_found', `There is no such ${what}. It may have been removed.`);

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
    const refusal = asRefusal(error);
    if (refusal.status >= 500) log.error({ err: error, id: (req as { id?: unknown }).id }, 'unforeseen');
    const body: ApiError = { error: { code: refusal.code, message: refusal.message, ...refusal.detail } };
    res.status(refusal.status).json(body);
  };
}

function asRefusal(error: unknown): Refusal {
  if (error instanceof Refusal) return error;
  // The core refuses impossible figures with a sentence of its own.
  if (error instanceof RangeError) return new Refusal(422, 'impossible', error.message);
  const { type, status, code } = error as { type?: string; status?: number; code?: string };
  if (type === 'entity.parse.failed') return new Refusal(400, 'malformed_json', 'The request is not valid JSON.');
  if (type === 'entity.too.large') return new Refusal(413, 'too_large', 'The request is too large. JSON may have up to 1 MB.');
  if (code === 'ERR_STREAM_PREMATURE_CLOSE') return new Refusal(400, 'cut_off', 'The file did not arrive whole. Send it again.');
  if (error instanceof URIError) return new Refusal(400, 'malformed_path', 'The address cannot be read.');
  if (typeof status === 'number' && status >= 400 && status < 500) return new Refusal(status, 'bad_request', 'The request cannot be read.');
  return new Refusal(500, 'internal', 'Something went wrong on the server. Nothing was saved. Try again.');
}
