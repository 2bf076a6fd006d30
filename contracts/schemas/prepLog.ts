import { ABRADE_FOR } from '#core/model/layer';
import { DIRT, FAIRING_FOUND, PREP_KINDS, PREP_WAYS, RUST_NEXT, TAPE_PULLS } from '#core/model/prep';
import { OPEN_WORK_KINDS } from '#core/model/surface';
import { EVIDENCE, MARK_FROM, MARK_SIDES, MARKED_BY } from '#core/model/waterline';
import { BAND_MODES } from '#core/waterline/skin';
import { WATERS_KINDS } from '#core/waterline/waterplane';
import type { BoatEntry, LogKind, ZoneEntry } from '#core/model/log';
import Joi from 'joi';
import { civilDate, drawnAt, id, instant, share } from './common';

const words = (max = 500) => Joi.string().trim().max(max).allow('');
const key = Joi.string().trim().min(1).max(120);
const job = Joi.string()
  .pattern(/^(edge|thing):[\w-]{1,60}$/)
  .required()
  .label('What is masked');
/** Along or across a boat, or up: m. */
const placeM = (label: string) => Joi.number().min(-150).max(150).required().label(label);
const ids = Joi.array().items(id).max(200).unique().required();

/** How a zone is got ready: one body for each kind of entry. */
export const zoneBodies = {
  prepared: Joi.object({
    step: Joi.valid(...PREP_KINDS).required(),
    key,
    workId: Joi.string().max(60),
    grit: Joi.number().integer().min(16).max(5000).label('Grit'),
    abradeFor: Joi.valid(...ABRADE_FOR),
    waterL: Joi.number().min(0).max(100_000).label('Water'),
    concentrateL: Joi.number().min(0).max(10_000).label('Concentrate'),
    profileMicron: Joi.number().positive().max(1000).label('Profile'),
    holdsH: Joi.number().positive().max(2000).label('Hours that it holds'),
    areaM2: Joi.number().positive().max(100_000).label('Area'),
    bothFaces: Joi.boolean(),
    found: Joi.array()
      .items(Joi.valid(...FAIRING_FOUND))
      .max(FAIRING_FOUND.length)
      .unique(),
    text: words(2000),
    drawnAt,
  }),
  prepPlanned: Joi.object({
    way: Joi.valid(...PREP_WAYS, null).required(),
    added: Joi.array()
      .items(
        Joi.object({
          key: key.required(),
          kind: Joi.valid(...PREP_KINDS).required(),
          text: Joi.string().trim().min(1).max(300).required().label('The step'),
        }),
      )
      .max(40)
      .required(),
    leftOut: Joi.array()
      .items(
        Joi.object({
          key: key.required(),
          reason: Joi.string().trim().min(3).max(500).required().label('The reason'),
        }),
      )
      .max(60)
      .required(),
    order: Joi.array().items(key).max(100).unique().required(),
  }),
  dirtied: Joi.object({ by: Joi.valid(...DIRT).required(), text: words().required() }),
  rustLooked: Joi.object({
    convertedShare: share.allow(null).required().label('The share that is converted'),
    next: Joi.valid(...RUST_NEXT).required(),
    reason: Joi.when('next', {
      is: 'leave',
      then: Joi.string().trim().min(3).max(500).required().label('Why it is left'),
      otherwise: words(),
    }),
    dueOn: Joi.when('next', { is: 'leave', then: civilDate.required().label('By when'), otherwise: civilDate }),
    pitMm: Joi.number().min(0).max(100).label('Pits'),
    thicknessMm: Joi.number().positive().max(200).label('Plate now'),
    originalMm: Joi.number().positive().max(200).label('Plate as built'),
    text: words(2000),
    drawnAt,
  }),
  masked: Joi.object({
    job,
    lifeDays: Joi.number().positive().max(365).required().label('Life of the tape'),
    pull: Joi.valid(...TAPE_PULLS).required(),
    text: words(),
  }),
  unmasked: Joi.object({ job, text: words() }),
  foundWork: Joi.object({
    workId: Joi.string().max(60).required(),
    work: Joi.valid(...OPEN_WORK_KINDS).required(),
    text: Joi.string().trim().min(1).max(300).required().label('What was found'),
    drawnAt,
  }),
  structureAsked: Joi.object({ structureDone: Joi.boolean().required() }),
  wayOut: Joi.object({
    faces: Joi.array()
      .items(
        Joi.object({
          name: Joi.string().trim().min(1).max(80).required().label('The face'),
          fromExitM: Joi.number().min(0).max(100).required().label('How far from the way out'),
          awkward: Joi.boolean().required(),
          leanOn: Joi.boolean().required(),
        }),
      )
      .min(1)
      .max(40)
      .required(),
    aired: Joi.boolean().required(),
    second: words(80).required(),
  }),
} satisfies Record<Exclude<ZoneEntry['kind'], 'cautioned'>, Joi.ObjectSchema>;

const point = Joi.object({
  name: words(80).required(),
  xM: placeM('Forward'),
  yM: placeM('To port'),
  onBoatM: placeM('Height on the boat'),
  aboveGroundM: placeM('Height above ground'),
});

/** What is logged of the boat as a whole. */
export const boatBodies = {
  standsMoved: Joi.object({ freed: ids, now: ids, text: words(2000).required(), reason: words() }),
  stood: Joi.object({ points: Joi.array().items(point).min(1).max(60).required() }),
  marked: Joi.object({
    lineId: id.required(),
    xM: placeM('Forward'),
    side: Joi.valid(...MARK_SIDES).required(),
    by: Joi.valid(...MARKED_BY).required(),
    from: Joi.valid(...MARK_FROM).required(),
    valueM: placeM('The mark'),
    no: Joi.number().integer().min(1).max(2000).label('Number of the station'),
  }),
  lineSet: Joi.object({
    lineId: id.required(),
    name: Joi.string().trim().min(1).max(80).required().label('Name of the line'),
    levelM: placeM('Height of the line').allow(null),
    noiseM: Joi.number().min(0).max(10).allow(null).required().label('How far off a mark may be'),
    raiseM: Joi.number().min(-5).max(5).required().label('Raised by'),
    bandM: Joi.number().min(0).max(5).required().label('Boot-top'),
    bandMode: Joi.valid(...BAND_MODES).required(),
    chosen: Joi.boolean().required(),
    removed: Joi.boolean(),
  }),
  evidence: Joi.object({
    what: Joi.valid(...EVIDENCE).required(),
    xM: placeM('Forward'),
    heightM: placeM('Height'),
    plusMinusM: Joi.number().min(0).max(5).required().label('±'),
    text: words().required(),
    hash: Joi.string().hex().length(64),
  }),
  weights: Joi.object({
    items: Joi.array()
      .items(
        Joi.object({
          name: words(80).required(),
          kg: Joi.number().min(-1e6).max(1e6).required().label('The weight'),
          xM: placeM('Forward'),
          yM: placeM('To port'),
        }),
      )
      .max(60)
      .required(),
    water: Joi.valid(...WATERS_KINDS).required(),
    displacementKg: Joi.number().positive().max(1e8).allow(null).required().label('What she weighs'),
    coefficient: Joi.number().positive().max(1).allow(null).required().label('Coefficient'),
  }),
  setOff: Joi.object({
    lineId: id.required(),
    no: Joi.number().integer().min(1).max(2000).required(),
    side: Joi.valid(...MARK_SIDES).required(),
  }),
  planAccepted: Joi.object({
    tasks: Joi.array()
      .items(
        Joi.object({
          id: Joi.string().max(160).required(),
          zoneId: id.required(),
          kind: Joi.valid('work', 'coat', 'abrade').required(),
          name: words(200).required(),
          painters: Joi.array().items(Joi.string().max(60)).max(40).required(),
          start: instant.required(),
          end: instant.required(),
        }),
      )
      .max(1000)
      .required(),
    finish: instant.allow(null).required(),
    odds: Joi.number().min(0).max(1).allow(null).required(),
    note: words(500).required(),
  }),
} satisfies Record<BoatEntry['kind'], Joi.ObjectSchema>;

export type PrepLogKind = Extract<LogKind, keyof typeof zoneBodies | keyof typeof boatBodies>;
