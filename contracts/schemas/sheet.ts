import { PAINT_METHODS } from '#core/model/paintMethod';
import {
  ADDITIVE_KINDS,
  ANTIFOULING_TYPES,
  CHEMISTRIES,
  GLOSSES,
  PART_ROLES,
  SHEET_KINDS,
  THINNER_FAMILIES,
} from '#core/model/sheet';
import Joi from 'joi';
import { civilDate, colourHex, id, name, version } from './common';
import { WATERS } from '#core/model/sheet';
import { SHEETS_MAX } from '#core/sheet/exchange';

const table = Joi.array()
  .items(
    Joi.object({
      tempC: Joi.number().min(-40).max(120).required().label('Temperature'),
      hours: Joi.number().positive().max(100_000).required().label('Time'),
    }),
  )
  .min(1)
  .max(12)
  .unique('tempC')
  .messages({
    'array.min': '{{#label}} is empty. Type at least one temperature and time.',
    'array.unique': '{{#label}} has one temperature twice. Keep one of them.',
  });

const orNull = (schema: Joi.Schema) => schema.allow(null).required();

const temperature = Joi.number().min(-60).max(120);

const left = (schema: Joi.Schema) => schema.empty([null, '']);

const micron = (label: string) => left(Joi.number().positive().max(20_000).label(label));

const yes = left(Joi.boolean());

const months = (label: string) => left(Joi.number().integer().min(0).max(240).label(label));

/** What a sheet may say besides; whatever is left out is not on it. */
const details = {
  nameOnly: yes,
  chemistry: left(Joi.valid(...CHEMISTRIES)).label('Chemistry'),
  makerRevision: left(Joi.string().trim().max(60)).label('Maker’s revision'),
  issuedOn: left(civilDate).label('Date of the sheet'),
  soldIn: left(Joi.valid('tin', 'aerosol')).label('Sold in'),
  canCoversM2: left(Joi.number().positive().max(100)).label('What one can covers'),
  methods: left(
    Joi.array()
      .items(
        Joi.object({
          method: Joi.valid(...PAINT_METHODS).required(),
          dftMicron: micron('Dry film of a method'),
          dftMaxMicron: micron('Largest dry film of a method'),
          thinnerMax: left(Joi.number().min(0).max(0.5)).label('Thinner of a method'),
        }),
      )
      .max(6),
  ).label('Ways of putting it on'),
  handle: left(table.label('Handle')),
  immersionMax: left(table.label('Into the water, longest')),
  moistureMax: left(Joi.number().greater(0).max(1)).label('Moisture'),
  cleanliness: left(Joi.string().trim().max(300)).label('Cleanliness'),
  profileMinMicron: micron('Smallest profile'),
  profileMaxMicron: micron('Largest profile'),
  surfaceGrit: left(Joi.number().integer().min(16).max(5000)).label('Grit'),
  neverAbrade: yes,
  gloss: left(Joi.valid(...GLOSSES)),
  hidingCoats: left(Joi.number().integer().min(1).max(12)).label('Coats that hide'),
  uvResistant: yes,
  immersible: yes,
  holdingMonths: months('Months it holds'),
  antifouling: left(
    Joi.object({
      type: left(Joi.valid(...ANTIFOULING_TYPES)),
      waters: left(
        Joi.array()
          .items(Joi.valid(...WATERS))
          .unique()
          .max(WATERS.length),
      ),
      years: left(Joi.number().positive().max(20)).label('Years'),
      dryOutDays: left(Joi.number().min(0).max(2000)).label('Days it may dry out'),
    }),
  ),
  copper: yes,
  biocide: yes,
  isocyanate: yes,
  strongSolvent: yes,
  potable: yes,
  flashPointClass: left(Joi.string().trim().max(80)).label('Flash point'),
  vocGPerL: left(Joi.number().min(0).max(1500)).label('VOC'),
  ratioTolerance: left(Joi.number().min(0.001).max(0.5)).label('Tolerance of the ratio'),
  useRatios: left(
    Joi.array()
      .items(
        Joi.object({
          use: Joi.string().trim().min(1).max(120).required().label('The use'),
          ratio: Joi.array().items(Joi.number().positive().max(10_000)).min(1).max(6).required().label('Its ratio'),
          source: Joi.string().trim().min(3).max(300).required().label('Where the maker says so'),
        }),
      )
      .max(8)
      .unique('use'),
  ).label('Ratios for a use'),
  additives: left(
    Joi.array()
      .items(
        Joi.object({
          name: Joi.string().trim().min(1).max(120).required().label('Name of the additive'),
          kind: Joi.valid(...ADDITIVE_KINDS).required(),
          maxShare: Joi.number().positive().max(0.3).required().label('Largest share'),
          potFactor: Joi.number().min(0.05).max(10).required().label('Pot life with it'),
          windowFactor: Joi.number().min(0.05).max(10).required().label('Drying times with it'),
        }),
      )
      .max(6)
      .unique('name'),
  ).label('Additives'),
  wetEdgeMin: left(Joi.number().positive().max(600)).label('Wet edge'),
  shelfClosedMonths: months('Shelf life closed'),
  shelfOpenMonths: months('Shelf life open'),
};

const part = Joi.string().trim().max(120);

const pack = Joi.object({
  name: Joi.string().trim().max(80).allow('').required(),
  sizeL: Joi.number().positive().max(1000).required().label('Pack size'),
  priceMinor: orNull(Joi.number().integer().min(0).max(1e9)),
  part: left(part),
  partsL: left(Joi.array().items(Joi.number().min(0).max(1000)).min(1).max(6)).label('Litres of each part'),
  breaks: left(
    Joi.array()
      .items(
        Joi.object({
          from: Joi.number().integer().min(2).max(1000).required().label('Price from so many'),
          priceMinor: Joi.number().integer().min(0).max(1e9).required().label('Price'),
        }),
      )
      .max(6),
  ),
  supplier: left(Joi.string().trim().max(120)).label('Supplier'),
});

export const sheetContent = Joi.object({
  ...details,
  name: name.required().label('Name'),
  maker: Joi.string().trim().max(120).allow('').required(),
  code: Joi.string().trim().max(60).allow('').required(),
  kind: Joi.valid(...SHEET_KINDS).required(),
  quick: Joi.boolean().required(),
  parts: Joi.array()
    .items(
      Joi.object({
        name: name.required().label('Name of the part'),
        role: Joi.valid(...PART_ROLES).required(),
        ratio: Joi.number().positive().max(10_000).required().label('Ratio'),
        densityKgPerL: orNull(Joi.number().positive().max(10)).label('Density'),
      }),
    )
    .min(1)
    .max(6)
    .required()
    .label('Parts'),
  ratioBasis: Joi.valid('volume', 'mass').required(),
  solids: Joi.number().positive().max(1).required().label('Volume solids'),
  dftMicron: Joi.number().positive().max(5000).required().label('Dry film'),
  dftMaxMicron: orNull(Joi.number().positive().max(20_000)),
  thinner: orNull(
    Joi.object({
      name: Joi.string().trim().max(120).allow('').required(),
      maxShare: Joi.number().min(0).max(0.5).required(),
      of: Joi.valid('base', 'mixed').required(),
      family: left(Joi.valid(...THINNER_FAMILIES)),
      packs: left(Joi.array().items(pack).max(12)),
    }),
  ),
  inductionMin: orNull(
    Joi.number()
      .min(0)
      .max(24 * 60),
  ),
  potLife: orNull(table.label('Pot life')),
  touchDry: orNull(table.label('Touch dry')),
  sandable: orNull(table.label('Dry to sand')),
  immersion: orNull(table.label('Immersion')),
  fullCure: orNull(table.label('Full cure')),
  overcoat: Joi.array()
    .items(
      Joi.object({
        after: Joi.valid('any', ...SHEET_KINDS).required(),
        minimum: table.required().label('Shortest overcoat time'),
        tackLimit: orNull(table.label('Longest time as is')),
        maximum: orNull(table.label('Longest time')),
        alwaysAbrade: Joi.boolean().required(),
      }),
    )
    .max(12)
    .required(),
  limits: Joi.object({
    airMinC: orNull(temperature),
    airMaxC: orNull(temperature),
    surfaceMinC: orNull(temperature),
    surfaceMaxC: orNull(temperature),
    rhMax: orNull(Joi.number().greater(0).max(1)),
    spreadMinC: orNull(Joi.number().min(0).max(20)),
  }).required(),
  minCureC: orNull(temperature),
  packs: Joi.array().items(pack).max(20).required(),
  colours: Joi.array()
    .items(Joi.object({ name: Joi.string().trim().max(60).required(), hex: colourHex.required() }))
    .max(40)
    .required(),
  caution: Joi.string().trim().max(2000).allow('').required(),
});

/** Saving a sheet writes its next revision; the ones before stay as they were. */
export const sheetBody = Joi.object({
  revisionId: id.required(),
  body: sheetContent.required(),
  withdrawn: Joi.boolean().default(false),
  deleted: Joi.boolean().default(false),
  version,
}).required();

/** Many sheets taken in at once, all or none; `taken: false` takes them back. Those that are here already stay as they are. */
export const sheetImportBody = Joi.object({
  taken: Joi.boolean().required(),
  sheets: Joi.array()
    .items(Joi.object({ id: id.required(), revisionId: id.required(), body: sheetContent.required() }))
    .min(1)
    .max(SHEETS_MAX)
    .unique('id')
    .required()
    .label('Sheets'),
}).required();
