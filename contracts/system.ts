import Joi from 'joi';
import { EXPOSURES, SUBSTRATES } from '#core/hull/zones';
import { BORDER_RULES, type Border } from '#core/system/borders';
import { BOND_SCHOOLS } from '#core/system/schools';
import type { NamedBuildUp } from '#core/system/system';
import { layersBody, targetMicron } from './boat';
import { id, name, version } from './common';

/** A named build-up of the yard. */
export interface NamedBuildUpRow extends NamedBuildUp {
  version: number;
  deleted: boolean;
}

/** Where one stands on the boats in hand. */
export interface NamedUse {
  boatId: string;
  boatName: string;
  surfaceId: string;
  zoneName: string;
}

export interface BorderRow extends Border {
  boatId: string;
  version: number;
  deleted: boolean;
}

export const namedBuildUpBody = Joi.object({
  name: name.required().label('Name'),
  substrates: Joi.array()
    .items(Joi.valid(...SUBSTRATES))
    .min(1)
    .max(SUBSTRATES.length)
    .unique()
    .required()
    .label('Substrates'),
  exposure: Joi.valid(...EXPOSURES)
    .required()
    .label('Exposure'),
  bond: Joi.valid(...BOND_SCHOOLS).required(),
  note: Joi.string().trim().max(1000).allow('').required().label('Note'),
  targetMicron: targetMicron.required(),
  layers: layersBody.required(),
  deleted: Joi.boolean().default(false),
  version,
}).required();

const widthM = (label: string) => Joi.number().min(0).max(5).required().label(label);

export const borderBody = Joi.object({
  boatId: id.required(),
  upperId: id.required(),
  lowerId: id.required(),
  rule: Joi.valid(...BORDER_RULES).required(),
  widthM: widthM('Width'),
  epoxyRunsOn: Joi.boolean().required(),
  handStripM: widthM('Strip by hand'),
  note: Joi.string().trim().max(500).allow('').required(),
  deleted: Joi.boolean().default(false),
  version,
}).required();
