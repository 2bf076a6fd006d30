import { ABRADE_FOR } from '#core/model/layer';
import { AGAINST_KINDS, BATCH_TIMERS, CAUTIONS, LOG_KINDS, MEASURES, QUICK_REMARKS, STREAMS } from '#core/model/log';
import { PAINT_METHODS } from '#core/model/paintMethod';
import Joi from 'joi';
import { colourHex, drawnAt, id, instant, share } from './common';
import { boatBodies, zoneBodies } from './prepLog';
import type { LogKind } from '#core/model/log';

const kinds = Object.keys(LOG_KINDS) as LogKind[];

const targets = Joi.array()
  .items(Joi.object({ surfaceId: id.required(), layerId: id.required() }))
  .min(1)
  .max(40)
  .unique('surfaceId');

const litres = Joi.number().min(0).max(10_000);

const orNull = (schema: Joi.Schema) => schema.allow(null).required();

const painters = Joi.array().items(Joi.string().trim().min(1).max(80)).max(20).unique();

const micron = Joi.number().positive().max(10_000);

/** A multiple of the sheet's times. */
const factor = Joi.number().min(0.05).max(10).required();

const bodies: Record<LogKind, Joi.ObjectSchema> = {
  started: Joi.object({
    on: targets.required(),
    sheetRevisionId: id.required(),
    method: Joi.valid(...PAINT_METHODS).required(),
    thinner: Joi.number().min(0).max(0.5).required(),
    dftMicron: Joi.number().positive().max(5000).required(),
    colour: Joi.string().trim().max(60).allow('').required(),
    colourHex: colourHex.required(),
    overrideReason: orNull(Joi.string().trim().min(3).max(500)),
    abradedGrit: orNull(Joi.number().integer().min(16).max(5000)),
    abradedFor: Joi.valid(...ABRADE_FOR, null),
    against: Joi.array()
      .items(Joi.valid(...AGAINST_KINDS))
      .max(AGAINST_KINDS.length)
      .unique(),
    painters,
  }),
  reading: Joi.object({
    airC: orNull(Joi.number().min(-60).max(70).label('Air')),
    rh: orNull(Joi.number().greater(0).max(1).label('Humidity')),
    surfaceC: orNull(Joi.number().min(-60).max(90).label('Surface')),
    surfaceId: id.allow(null),
  }),
  wetFilm: Joi.object({
    micron: Joi.array().items(micron).min(1).max(200).required(),
    teeth: Joi.array()
      .items(Joi.array().ordered(Joi.number().min(0).max(10_000).required(), micron.required()))
      .length(Joi.ref('micron.length')),
  }),
  paused: Joi.object({ reason: Joi.string().trim().max(500).allow('').required() }),
  resumed: Joi.object({ painters }),
  covered: Joi.object({
    surfaceId: id.required(),
    share: share.required().label('The share'),
    panels: Joi.array().items(Joi.number().integer().min(0).less(200)).max(200).unique(),
    of: Joi.number().integer().min(1).max(200),
  }).and('panels', 'of'),
  picture: Joi.object({
    hash: Joi.string().hex().lowercase().length(64).required(),
    widthPx: Joi.number().integer().min(1).max(20_000).required(),
    heightPx: Joi.number().integer().min(1).max(20_000).required(),
    text: Joi.string().trim().max(500).allow('').required(),
    drawnAt,
    step: Joi.string().trim().min(1).max(120),
  }),
  batchOn: Joi.object({ batchId: id.required(), litres: litres.required() }),
  finished: Joi.object({ litresOn: orNull(litres), leftL: litres.allow(null), lostL: litres.allow(null) }),
  handTest: Joi.object({
    test: Joi.valid('thumb', 'sanding').required(),
    passed: Joi.boolean().required(),
    surfaceId: id.allow(null),
  }),
  note: Joi.object({
    text: Joi.string().trim().min(1).max(2000).required(),
    quick: Joi.valid(...QUICK_REMARKS),
    about: Joi.valid('airStart'),
    drawnAt,
  }),
  withdrawn: Joi.object({ reason: Joi.string().trim().max(500).allow('').required() }),
  mixed: Joi.object({
    sheetRevisionId: id.required(),
    on: targets.required(),
    parts: Joi.array()
      .items(
        Joi.object({
          name: Joi.string().max(120).required(),
          volumeL: litres.required(),
          massKg: orNull(Joi.number().min(0).max(20_000)),
        }),
      )
      .min(1)
      .max(6)
      .required(),
    thinnerL: litres.required(),
    totalL: litres.positive().required(),
    standMin: Joi.number()
      .min(0)
      .max(24 * 60)
      .required(),
    potLifeH: orNull(Joi.number().positive().max(10_000)),
    potTempC: orNull(Joi.number().min(-60).max(90)),
    stirMin: Joi.number().min(0).max(60),
    use: Joi.string().trim().min(1).max(120),
    ratioReason: Joi.string().trim().min(3).max(500),
    from: Joi.array()
      .items(Joi.object({ part: Joi.string().max(120).required(), lotId: id.required(), litres: litres.required() }))
      .max(40),
    additives: Joi.array()
      .items(
        Joi.object({
          name: Joi.string().trim().min(1).max(120).required(),
          litres: litres.required(),
          potFactor: factor,
          windowFactor: factor,
        }),
      )
      .max(6),
    measuredBy: Joi.valid(...MEASURES),
  }),
  silenced: Joi.object({ timer: Joi.valid(...BATCH_TIMERS).required() }),
  emptied: Joi.object({ litresLeft: litres.required() }),
  cautioned: Joi.object({ caution: Joi.valid(...CAUTIONS).required() }),
  ...zoneBodies,
  ...boatBodies,
};

/** One entry of the log, as the client sends it; `recordedAt` is the server's. */
export const entryBody = Joi.object({
  boatId: id.required(),
  stream: Joi.valid(...STREAMS).required(),
  streamId: id.required(),
  kind: Joi.valid(...kinds).required(),
  occurredAt: instant.required().label('The time'),
  painter: Joi.string().trim().max(80).allow('').required(),
  device: Joi.string().trim().max(80).allow('').required(),
  supersedes: orNull(id),
  body: Joi.when('kind', { switch: kinds.map((kind) => ({ is: kind, then: bodies[kind].required() })) }),
}).required();
