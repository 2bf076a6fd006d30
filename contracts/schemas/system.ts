import { BOND_SCHOOLS } from '#core/model/buildUp';
import { EXPOSURES } from '#core/model/surface';
import { BORDER_RULES } from '#core/system/borders';
import Joi from 'joi';
import { layersBody, targetMicron } from './boat';
import { id, name, version } from './common';
import { SUBSTRATES } from '#core/model/surface';

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
