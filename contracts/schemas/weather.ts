import Joi from 'joi';
import { civilDate, instant } from './common';

/** Six weeks of hours. */
export const MOST_FORECAST_HOURS = 1100;

/** A forecast in a person's own hands: days as they were typed, or the hours of a file. */
export const typedDaysBody = Joi.object({
  days: Joi.array()
    .items(
      Joi.object({
        date: civilDate.required(),
        lowC: Joi.number().min(-60).max(60).required().label('Low'),
        highC: Joi.number().min(-60).max(60).required().label('High'),
        rh: Joi.number().greater(0).max(1).allow(null).required().label('Humidity'),
        dewC: Joi.number().min(-60).max(45).allow(null).required().label('Dew point'),
        rainFrom: Joi.number().min(0).max(24).allow(null).required(),
        rainTo: Joi.number().min(0).max(24).allow(null).required(),
        windMs: Joi.number().min(0).max(80).allow(null).required().label('Wind'),
      }),
    )
    .max(21)
    .required(),
  hours: Joi.array()
    .items(
      Joi.object({
        at: instant.required(),
        airC: Joi.number().min(-60).max(60).required().label('Air'),
        rh: Joi.number().greater(0).max(1).required().label('Humidity'),
        windMs: Joi.number().min(0).max(80).label('Wind'),
        rainMm: Joi.number().min(0).max(300).label('Rain'),
        sunWm2: Joi.number().min(0).max(1500).label('Sunshine'),
        cloud: Joi.number().min(0).max(1).label('Cloud'),
      }),
    )
    .max(MOST_FORECAST_HOURS)
    .allow(null)
    .default(null),
}).required();
