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

/** The server itself could not do it, and says why: not for want of a signal. */
export class Fault extends Error {
  constructor(
    readonly status: number,
    readonly code: string,
    message: string,
  ) {
    super(message);
  }
}

/** No answer came: no signal, or the server is restarting. Worth trying again. */
export class NoAnswer extends Error {}

export async function call<T>(method: 'GET' | 'PUT' | 'POST', path: string, body?: unknown): Promise<T> {
  let response: Response;
  try {
    const raw = body instanceof Blob;
    response = await fetch(`${BASE}/api${path}`, {
      method,
      headers: {
        ...(method === 'GET' ? {} : { [OWN_HEADER]: '1' }),
        ...(body === undefined ? {} : { 'Content-Type': raw ? 'application/octet-stream' : 'application/json' }),
      },
      ...(body === undefined ? {} : { body: raw ? body : JSON.stringify(body) }),
    });
  } catch {
    throw new NoAnswer('No answer from the server.');
  }
  if (response.ok) return (await response.json()) as T;
  const problem = (await response.json().catch(() => null)) as Partial<ApiError> | null;
  // A proxy or a server that is going down answers without our shape of error.
  if (!problem?.error) throw new NoAnswer('The server cannot answer just now.');
  if (response.status >= 500) throw new Fault(response.status, problem.error.code, problem.error.message);
  throw new Refused(
    response.status,
    problem.error.code,
    problem.error.message,
    problem.error.field ?? null,
    problem.error.current ?? null,
  );
}
