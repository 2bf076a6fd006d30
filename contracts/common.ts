import Joi from 'joi';

/** Ids are made by the client (UUID v7), so that a retry of a create never doubles it. */
export const id = Joi.string().guid({ version: ['uuidv7', 'uuidv4'] });
export const name = Joi.string().trim().min(1).max(120);
export const version = Joi.number().integer().min(0).required();
/** Epoch ms between 1990 and 2200: a figure outside is a slip of unit. */
export const instant = Joi.number().integer().min(631_152_000_000).max(7_258_118_400_000);
export const civilDate = Joi.string()
  .pattern(/^\d{4}-(0[1-9]|1[0-2])-(0[1-9]|[12]\d|3[01])$/)
  .messages({ 'string.pattern.base': '{{#label}} must be a date like 2026-05-31.' });
export const share = Joi.number().min(0).max(1);
export const colourHex = Joi.string().pattern(/^#[0-9a-f]{6}$/i);

/** The one shape of every error. */
export interface ApiError {
  error: { code: string; message: string; field?: string; current?: unknown };
}
