import { SHELTERS } from '#core/model/surface';
import Joi from 'joi';
import { id, instant } from './common';

const planSpan = {
  id,
  from: instant.required().label('From'),
  to: instant.required().label('To').greater(Joi.ref('from')),
  zoneIds: Joi.array().items(id).max(400).unique().required(),
};

/** What a haul-out is planned by. */
export const planningBody = Joi.object({
  headingDeg: Joi.number().min(0).max(360).allow(null).required().label('Where her bow points'),
  lamps: Joi.boolean().required(),
  shelters: Joi.array()
    .items(
      Joi.object({
        ...planSpan,
        cover: Joi.valid(...SHELTERS).required(),
        heatedToC: Joi.number().min(-20).max(40).allow(null).required().label('Heated to'),
        driedToRh: Joi.number().min(0.1).max(1).allow(null).required().label('Dried to'),
      }),
    )
    .max(60)
    .required(),
  appointments: Joi.array()
    .items(
      Joi.object({
        ...planSpan,
        kind: Joi.valid('move', 'other').required(),
        name: Joi.string().trim().min(1).max(80).required().label('Name of the appointment'),
      }),
    )
    .max(60)
    .required(),
  apart: Joi.array()
    .items(
      Joi.object({ zones: Joi.array().items(id).length(2).unique().required(), untilDry: Joi.boolean().required() }),
    )
    .max(200)
    .required(),
  locks: Joi.array()
    .items(
      Joi.object({
        task: Joi.string().max(160).required(),
        start: instant.required(),
        painters: Joi.array().items(Joi.string().max(60)).max(40).required(),
      }),
    )
    .max(400)
    .unique('task')
    .required(),
  typicalYear: Joi.object({
    fileHash: Joi.string()
      .pattern(/^[0-9a-f]{64}$/)
      .required(),
    name: Joi.string().trim().max(120).allow('').required(),
    latitudeDeg: Joi.number().min(-90).max(90).required(),
  })
    .allow(null)
    .default(null),
});
