import { BASE } from './base';
import type { ApiError } from '#contracts/rows/common';
import { OWN_HEADER } from '#contracts/rows/door';

/** The server said no, with a reason. */
export class Refused extends Error {
  constructor(
    readonly status: number,
    readonly code: string,
    message: string,
    readonly field: string | null,
    readonly current: unknown,
  ) {
    super(message);
  }
}

/** The server itself failed at what it was asked, and says so. */
export class Fault extends Error {
  constructor(
    readonly status: number,
    readonly code: string,
    message: string,
  ) {
    super(message);
  }
}

/** No answer that counts: no signal, a server that is away or cannot do it just now. Worth trying again. */
export class NoAnswer extends Error {
  /** @param said what was said to it, in a sentence; null where nothing was */
  constructor(
    message: string,
    readonly said: string | null = null,
  ) {
    super(message);
  }
}

/** A line that brings nothing for so long brings nothing any more; what is sent may be this slow, bytes a second. */
const LIMIT_MS = 30_000;
const SLOW_BYTES_PER_MS = 10;

/** How long an answer to such a body is waited for, ms. */
export const limitMs = (body: unknown): number => LIMIT_MS + (body instanceof Blob ? body.size / SLOW_BYTES_PER_MS : 0);

/** Of all that a server may answer, only a 500 is a fault of its own with just this: the others mean "not now". */
const FAULT = 500;

export async function call<T>(
  method: 'GET' | 'PUT' | 'POST',
  path: string,
  body?: unknown,
  options: { signal?: AbortSignal; limitMs?: number } = {},
): Promise<T> {
  const ending = new AbortController();
  const end = () => ending.abort();
  const timer = setTimeout(end, options.limitMs ?? limitMs(body));
  options.signal?.addEventListener('abort', end);
  try {
    const raw = body instanceof Blob;
    const response = await fetch(`${BASE}/api${path}`, {
      method,
      headers: {
        ...(method === 'GET' ? {} : { [OWN_HEADER]: '1' }),
        ...(body === undefined ? {} : { 'Content-Type': raw ? 'application/octet-stream' : 'application/json' }),
      },
      ...(body === undefined ? {} : { body: raw ? body : JSON.stringify(body) }),
      signal: ending.signal,
    });
    const told: unknown = await response.json().catch(() => null);
    if (response.ok && told !== null) return told as T;
    throw problemOf(response.status, told as Partial<ApiError> | null);
  } catch (error) {
    if (error instanceof Refused || error instanceof Fault || error instanceof NoAnswer) throw error;
    throw new NoAnswer('No answer from the server.');
  } finally {
    clearTimeout(timer);
    options.signal?.removeEventListener('abort', end);
  }
}

function problemOf(status: number, told: Partial<ApiError> | null): Error {
  const error = told?.error;
  // A proxy, a portal or a server that is going down answers without our shape of error.
  if (!error) return new NoAnswer('The server cannot answer just now.');
  if (status === FAULT) return new Fault(status, error.code, error.message);
  if (status > FAULT) return new NoAnswer('The server cannot answer just now.', error.message);
  return new Refused(status, error.code, error.message, error.field ?? null, error.current ?? null);
}
