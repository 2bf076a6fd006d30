import { expect } from 'vitest';

/** The one shape of errors, and the sentence in it. */
export async function refused(
  call: PromiseLike<{ status: number; body: { error?: { code: string; message: string; field?: string } } }>,
  status: number,
  message: RegExp,
) {
  const res = await call;
  expect(res.status).toBe(status);
  expect(Object.keys(res.body)).toEqual(['error']);
  expect(res.body.error?.message).toMatch(message);
  expect(res.body.error?.message).toMatch(/\.$/);
  return res.body.error!;
}
