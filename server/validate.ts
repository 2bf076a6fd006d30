import type { Request } from 'express';
import Joi from 'joi';
import { id } from '#contracts/schemas/common';
import { OPTIONS, sentence } from '#contracts/schemas/messages';
import { unsoundText } from '#contracts/rows/text';
import { Refusal } from './errors';

/** Check a value against a contract. @throws Refusal 400 with a sentence and the field at fault */
export function check<T>(schema: Joi.Schema, value: unknown): T {
  const unsound = unsoundText(value);
  if (unsound)
    throw new Refusal(
      400,
      'invalid',
      'A text holds a character that cannot be kept. Type it again.',
      unsound.length > 0 ? { field: unsound.join('.') } : {},
    );
  const result = schema.validate(value, { ...OPTIONS, abortEarly: true });
  if (!result.error) return result.value as T;
  const [detail] = result.error.details;
  const field = detail?.path.join('.');
  throw new Refusal(400, 'invalid', sentence(detail?.message ?? 'The request is not right.'), field ? { field } : {});
}

const noQuery = Joi.object({});

/** One id of a path, checked. */
export function idIn(value: unknown): string {
  return check<string>(id.required().label('The id'), value);
}

/** The id in the path, checked; a query where there should be none is refused. */
export function idOf(req: Request): string {
  check(noQuery, req.query);
  return idIn(req.params.id);
}

export function checkNoQuery(req: Request): void {
  check(noQuery, req.query);
}
