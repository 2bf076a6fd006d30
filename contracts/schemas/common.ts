import Joi from 'joi';
/**
 * Ids are made by the client (UUID v7), so that a retry of a create never doubles it. In small letters only: one id,
 * one spelling, wherever it is compared.
 */
export const id = Joi.string()
  .pattern(/^[0-9a-f]{8}-[0-9a-f]{4}-[47][0-9a-f]{3}-[89ab][0-9a-f]{3}-[0-9a-f]{12}$/)
  .messages({ 'string.pattern.base': '{{#label}} is not a valid id.' });

export const name = Joi.string().trim().min(1).max(120);

/** As large as the database's whole numbers, less one for the next. */
export const version = Joi.number().integer().min(0).max(2_147_483_646).required();

/** Epoch ms between 1990 and 2200: a figure outside is a slip of unit. */
export const instant = Joi.number().integer().min(631_152_000_000).max(7_258_118_400_000);

/** A day of the calendar that exists, from 1900 to 2199. */
export const civilDate = Joi.string()
  .pattern(/^(19|20|21)\d\d-\d\d-\d\d$/)
  .custom((value: string, helpers) =>
    (new Date(`${value}T00:00:00Z`).toJSON() as string | null)?.startsWith(value)
      ? value
      : helpers.error('string.pattern.base'),
  )
  .messages({ 'string.pattern.base': '{{#label}} must be a date like 2026-05-31.' });

export const share = Joi.number().min(0).max(1);

export const colourHex = Joi.string().pattern(/^#[0-9a-f]{6}$/i);

/** A place on the drawing of a zone. */
export const drawnAt = Joi.object({ surfaceId: id.required(), x: share.required(), y: share.required() });
