import Joi from 'joi';
import { boatBody, buildUpBody, hullBody, jobBody, surfaceBody } from './boat';
import { id, instant, name } from './common';
import { entryBody } from './log';
import { sheetContent } from './sheet';
import { lotBody, yardRulesBody } from './stores';
import { borderBody, namedBuildUpBody } from './system';
import { typedDaysBody } from './weather';

const withId = (body: Joi.ObjectSchema) => body.append({ id: id.required() });

const editable = {
  version: Joi.number().integer().min(0).max(2_147_483_647).required(),
  deleted: Joi.boolean().required(),
};

/** A time zone that this program knows: without one nothing of a boat can be worked out. */
const timeZone = Joi.string()
  .max(64)
  .required()
  .custom((value: string, helpers) =>
    isTimeZone(value)
      ? value
      : helpers.message({ custom: '{{#label}} "{{#value}}" is not one that this program knows.' }),
  )
  .label('Time zone');

function isTimeZone(name: string): boolean {
  try {
    return new Intl.DateTimeFormat('en', { timeZone: name }).resolvedOptions().timeZone !== '';
  } catch {
    return false;
  }
}

/** Every row of a backup, by its table: what the same thing is held to when it is written, and what the server adds. */
export const ARCHIVE_ROWS = {
  boats: withId(boatBody).append({ timeZone }),
  jobs: withId(jobBody),
  surfaces: withId(surfaceBody),
  hulls: withId(hullBody),
  buildUps: withId(buildUpBody),
  borders: withId(borderBody),
  namedBuildUps: withId(namedBuildUpBody),
  sheets: Joi.object({ id: id.required(), withdrawn: Joi.boolean().required(), ...editable }),
  sheetRevisions: Joi.object({
    id: id.required(),
    sheetId: id.required(),
    revision: Joi.number().integer().min(1).max(2_147_483_647).required(),
    body: sheetContent.required(),
    createdAt: instant.required(),
  }),
  lots: withId(lotBody),
  yardRules: withId(yardRulesBody),
  entries: withId(entryBody).append({ recordedAt: instant.required() }),
  typedForecasts: Joi.object({
    id: id.required(),
    boatId: id.required(),
    issuedAt: instant.required(),
    days: typedDaysBody.extract('days'),
    hours: typedDaysBody.extract('hours'),
  }),
  pastPlaces: Joi.object({
    id: id.required(),
    boatId: id.required(),
    untilAt: instant.required(),
    name: name.required(),
    latitudeDeg: Joi.number().min(-75).max(75).required(),
    timeZone,
  }),
  facts: Joi.object({ key: Joi.valid('demoSeededAt', 'demoTouched').required(), value: Joi.any() }),
} satisfies Record<string, Joi.ObjectSchema>;

export const archiveHead = Joi.object({
  format: Joi.valid('jack-plane-backup').required(),
  version: Joi.number().integer().min(1).required(),
  createdAt: Joi.string().isoDate().required(),
  history: id.allow(null),
  change: Joi.number().integer().min(0),
  tables: Joi.object(),
});

const hash = Joi.string().pattern(/^[0-9a-f]{64}$/);

export const archiveRows = Joi.object({
  table: Joi.string().required(),
  rows: Joi.array().items(Joi.object()).max(10_000).required(),
});

export const archiveFile = Joi.object({
  file: hash.required(),
  piece: Joi.string().base64(),
  bytes: Joi.number().integer().min(0),
  beside: Joi.valid(true),
  end: Joi.valid(true),
}).xor('piece', 'beside', 'end');

export const archiveEnd = Joi.object({ end: Joi.valid(true).required(), sha256: hash });
