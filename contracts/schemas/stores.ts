import { PAINT_METHODS } from '#core/model/paintMethod';
import { PER } from '#core/stores/consumables';
import Joi from 'joi';
import { USUAL_RULES, type TakenRate } from '../rows/stores';
import { civilDate, id, instant, version } from './common';

const litres = (label: string) => Joi.number().min(0).max(10_000).label(label);

const day = (label: string) => civilDate.allow(null).required().label(label);

const words = (max: number) => Joi.string().trim().max(max).allow('').required();

const kg = (label: string) => Joi.number().min(0).max(20_000).required().label(label);

export const lotBody = Joi.object({
  sheetId: id.required(),
  part: Joi.string().trim().min(1).max(120).required().label('Part'),
  sizeL: litres('Size').positive().required(),
  batchNumber: words(80),
  supplier: words(120),
  boughtOn: day('Bought on'),
  openedOn: day('Opened on'),
  expiresOn: day('Use by'),
  leftL: litres('What is left').required(),
  measuredAt: instant.required(),
  weighed: Joi.object({ grossKg: kg('Gross'), tareKg: kg('Tare') })
    .allow(null)
    .required(),
  past: Joi.array()
    .items(Joi.object({ at: instant.required(), leftL: litres('What was left').required() }))
    .max(500),
  note: words(500),
  deleted: Joi.boolean().default(false),
  version,
}).required();

const minuteOfDay = (label: string) => Joi.number().integer().min(0).max(1440).required().label(label);

const handBody = Joi.object({
  name: Joi.string().trim().min(1).max(60).required().label('Name of the painter'),
  fromMin: minuteOfDay('Begins at'),
  toMin: minuteOfDay('Ends at').greater(Joi.ref('fromMin')),
  weekdays: Joi.array().items(Joi.number().integer().min(1).max(7)).unique().required().label('Days of the week'),
  off: Joi.array()
    .items(Joi.object({ from: civilDate.required().label('Off from'), to: civilDate.required().label('Off to') }))
    .max(100)
    .required(),
  perHourMinor: Joi.number().integer().min(0).max(1e7).allow(null).required().label('Cost of an hour'),
  pace: Joi.number().min(0.2).max(5).required().label('Pace'),
});

const mm = (label: string) => Joi.number().positive().max(2000).required().label(label);

const tools = (fields: Record<string, Joi.Schema>) =>
  Joi.array()
    .items(
      Joi.object({
        id: Joi.string().max(60).required(),
        name: Joi.string().trim().min(1).max(80).required(),
        ...fields,
      }),
    )
    .max(40)
    .unique('id')
    .required();

const kit = Joi.object({
  pots: tools({
    bottomMm: mm('Across, at the bottom'),
    topMm: mm('Across, at the rim'),
    depthMm: mm('Depth'),
  }),
  pumps: tools({ mlPerStroke: Joi.number().positive().max(5000).required().label('What a stroke gives') }),
  syringes: tools({ ml: Joi.number().positive().max(2000).required().label('What the syringe holds') }),
  scaleStepG: Joi.number().positive().max(100).required().label('The step of the scale'),
});

const minute = (label: string) =>
  Joi.number()
    .integer()
    .min(0)
    .max(24 * 60)
    .label(label);

export const yardRulesBody = Joi.object({
  chance: Joi.number().min(0.5).max(0.999).required().label('The chance'),
  consumables: Joi.array()
    .items(
      Joi.object({
        id: Joi.string().max(60).required(),
        name: Joi.string().trim().min(1).max(80).required().label('Name'),
        amount: Joi.number().min(0).max(1000).required().label('Amount'),
        per: Joi.valid(...PER).required(),
        method: Joi.valid(...PAINT_METHODS)
          .allow(null)
          .required(),
        inPack: Joi.number().integer().min(1).max(10_000).required().label('How many in a pack'),
        priceMinor: Joi.number().integer().min(0).max(1e9).allow(null).required().label('Price'),
        supplier: words(120),
      }),
    )
    .max(60)
    .unique('id')
    .required(),
  workFromMin: minute('The start of the day').default(USUAL_RULES.workFromMin),
  workToMin: minute('The end of the day').greater(Joi.ref('workFromMin')).default(USUAL_RULES.workToMin),
  currency: Joi.string()
    .pattern(/^[A-Z]{3}$/)
    .default(USUAL_RULES.currency)
    .label('Currency')
    .messages({ 'string.pattern.base': 'Type the currency as its three letters, for example EUR or USD.' }),
  kit: kit.default(USUAL_RULES.kit),
  rates: Joi.array()
    .items(
      Joi.object({
        sheetId: id.required(),
        method: Joi.valid(...PAINT_METHODS).required(),
        rateM2PerH: Joi.number().positive().max(1000).required().label('The rate'),
        coats: Joi.number().integer().min(1).required(),
      }),
    )
    .max(400)
    .unique((a: TakenRate, b: TakenRate) => a.sheetId === b.sheetId && a.method === b.method)
    .default([]),
  drying: Joi.array()
    .items(
      Joi.object({
        sheetId: id.required(),
        factor: Joi.number().min(0.2).max(5).required().label('How it dries'),
        coats: Joi.number().integer().min(1).required(),
      }),
    )
    .max(400)
    .unique('sheetId')
    .default([]),
  hands: Joi.array().items(handBody).max(40).unique('name').default([]),
  heat: Joi.object({
    wattsPerC: Joi.number().min(1).max(100_000).required().label('Heat lost for each degree'),
    priceMinorPerKWh: Joi.number().min(0).max(100_000).required().label('Price of heat'),
  })
    .allow(null)
    .default(null),
  version,
}).required();
