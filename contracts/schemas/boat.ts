import { AXES } from '#core/hull/placement';
import { SHAPE_KINDS } from '#core/hull/shapes';
import { WEAR_PLACES } from '#core/hull/wear';
import { AREA_METHODS, MESH_PARTS } from '#core/model/area';
import { BOND_SCHOOLS } from '#core/model/buildUp';
import { ABRADE_FOR, PRIMER_FOR } from '#core/model/layer';
import { PAINT_METHODS } from '#core/model/paintMethod';
import { THINNER_FAMILIES, WATERS } from '#core/model/sheet';
import {
  EXISTING_COATINGS,
  EXPOSURES,
  HULL_MATERIALS,
  KEELS,
  MASKED_THINGS,
  OPEN_WORK_KINDS,
  PATCH_KINDS,
  SHELTERS,
  SIDES,
  SUBSTRATES,
  TANK_HOLDS,
  ZONE_KINDS,
} from '#core/model/surface';
import { RECORD_KINDS } from '#core/system/stack';
import Joi from 'joi';
import { ESTIMATED_FIGURES } from '../rows/boat';
import { civilDate, colourHex, id, instant, name, share, version } from './common';
import { planningBody } from './planning';
import { MESH_UNITS } from '#core/hull/placement';
import { SHAPE_FIGURES } from '#core/hull/shapes';

const metres = (label: string) => Joi.number().positive().max(100).required().label(label);

export const boatBody = Joi.object({
  name: name.required().label('Name'),
  hullMaterial: Joi.valid(...HULL_MATERIALS).required(),
  keels: Joi.valid(...KEELS).required(),
  loaM: metres('Length overall'),
  lwlM: metres('Waterline length'),
  beamM: metres('Beam'),
  draftM: metres('Draught'),
  freeboardM: metres('Freeboard'),
  form: Joi.valid('full', 'longKeel', 'finKeel').required(),
  place: Joi.string().trim().max(120).allow('').required(),
  latitudeDeg: Joi.number().min(-75).max(75).required().label('Latitude'),
  timeZone: Joi.string().max(64).required().label('Time zone'),
  waters: Joi.valid(...WATERS)
    .allow(null)
    .default(null)
    .label('Waters'),
  shelter: Joi.valid(...SHELTERS).default('open'),
  estimated: Joi.array()
    .items(Joi.valid(...ESTIMATED_FIGURES))
    .unique()
    .default([])
    .label('Estimated figures'),
  deleted: Joi.boolean().default(false),
  version,
}).required();

export const jobBody = Joi.object({
  boatId: id.required(),
  outOn: civilDate.required().label('Out on'),
  inOn: civilDate.allow(null).required().label('Launch on'),
  yardCostPerDayMinor: Joi.number().integer().min(0).max(1e9).allow(null).required(),
  currency: Joi.string()
    .pattern(/^[A-Z]{3}$/)
    .required(),
  choices: Joi.object({
    bond: Joi.valid(...BOND_SCHOOLS).required(),
    packs: Joi.valid('onePack', 'twoPack').required(),
    method: Joi.valid(...PAINT_METHODS).required(),
    tip: Joi.boolean().required(),
    primerFor: Joi.valid(...PRIMER_FOR).required(),
    abradeFor: Joi.valid(...ABRADE_FOR).required(),
  })
    .allow(null)
    .default(null),
  planning: planningBody.allow(null).default(null),
  deleted: Joi.boolean().default(false),
  version,
}).required();

/** Left out or left empty is the same. */
const optional = Joi.number().empty(null);

const areaM2 = Joi.number().positive().max(20_000).label('Area');

const orNull = (schema: Joi.Schema) => schema.empty(null).default(null);

const lengthM = (label: string) => Joi.number().positive().max(500).required().label(label);

const position = (label: string) => Joi.number().min(-500).max(500).required().label(label);

const halfM = (label: string) => Joi.number().min(0).max(100).allow(null).required().label(label);

const girths = Joi.object({
  even: Joi.boolean().required(),
  stations: Joi.array()
    .items(
      Joi.object({ xM: position('Position'), halfGirthM: halfM('Half-girth'), halfBreadthM: halfM('Half-breadth') }),
    )
    .min(2)
    .max(100)
    .required()
    .label('Stations'),
});

/** A shape's own figures, by its kind. */
const shapeFigure = Joi.alternatives().conditional(
  Joi.object({ kind: Joi.valid(...SHAPE_KINDS).required() }).unknown(),
  {
    then: Joi.object().custom((value: Record<string, unknown>, helpers) => {
      const keys = SHAPE_FIGURES[value.kind as keyof typeof SHAPE_FIGURES];
      const schema = Joi.object({
        kind: Joi.any(),
        ...Object.fromEntries(
          keys.map(([key, words]) => {
            const figure = Joi.number().min(0).max(500).label(words);
            return [key, key === 'lids' ? figure : figure.required()];
          }),
        ),
      });
      const { error } = schema.validate(value, { errors: { wrap: { label: false } } });
      return error ? helpers.message({ custom: error.message }) : value;
    }),
    otherwise: Joi.forbidden(),
  },
);

const shapes = Joi.array()
  .items(
    Joi.object({
      id: id.required(),
      name: Joi.string().trim().max(60).allow('').required(),
      figure: shapeFigure.required(),
      count: Joi.number().integer().min(1).max(1000).required().label('Count'),
      deduct: Joi.boolean().required(),
      share: share.max(0.9).required().label('±'),
      group: Joi.string().trim().max(60).empty('').allow(null).default(null),
    }),
  )
  .max(100)
  .label('Shapes');

const area = Joi.object({
  method: Joi.valid(...AREA_METHODS).required(),
  dimensions: Joi.object({
    draftM: optional.positive().max(20).label('Draught'),
    openingsM2: optional.min(0).max(5000).label('Openings'),
    bandM: optional.positive().max(5).label('Band height'),
    lapped: Joi.boolean(),
  }).required(),
  typed: Joi.object({ areaM2: areaM2.required(), share: share.max(0.9).required().label('±') })
    .allow(null)
    .required(),
  denny: orNull(
    Joi.object({
      displacedM3: Joi.number().positive().max(5000).required().label('Displaced volume'),
      draftM: Joi.number().positive().max(20).allow(null).required().label('Draught'),
    }),
  ),
  girths: orNull(girths),
  offsets: orNull(
    Joi.object({
      fromM: Joi.number().min(-20).max(20).allow(null).required().label('From'),
      toM: Joi.number().min(-20).max(20).allow(null).required().label('Up to'),
    }),
  ),
  mesh: orNull(Joi.object({ part: Joi.valid(...MESH_PARTS).required() })),
  shapes: orNull(shapes),
  calibrated: orNull(
    Joi.object({
      coatId: id.allow(null).required(),
      litres: Joi.number().positive().max(10_000).required().label('Litres on'),
      wetFilmMicron: Joi.number().positive().max(10_000).required().label('Wet film'),
      thinner: Joi.number().min(0).max(0.5).required().label('Thinner'),
      readings: Joi.number().integer().min(1).max(1000).required().label('Comb readings'),
    }),
  ),
  band: orNull(
    Joi.object({
      place: Joi.valid(...WEAR_PLACES).required(),
      widthM: lengthM('Width of the band'),
      lengthM: Joi.number().positive().max(500).allow(null).required().label('Length of the band'),
    }),
  ),
});

export const surfaceBody = Joi.object({
  boatId: id.required(),
  name: name.required().label('Name'),
  kind: Joi.valid(...ZONE_KINDS).required(),
  substrate: Joi.valid(...SUBSTRATES).required(),
  exposure: Joi.valid(...EXPOSURES).required(),
  existing: Joi.valid(...EXISTING_COATINGS).required(),
  area: area.required(),
  side: Joi.valid(...SIDES).default('both'),
  partShare: orNull(Joi.number().greater(0).max(1).label('Part of the whole')),
  notes: Joi.string().trim().max(2000).allow('').default('').label('Notes'),
  maskList: Joi.array()
    .items(
      Joi.object({
        id: id.required(),
        thing: Joi.valid(...MASKED_THINGS).required(),
        count: Joi.number().integer().min(1).max(1000).required().label('Count'),
        note: Joi.string().trim().max(200).allow('').required(),
      }),
    )
    .max(60)
    .default([])
    .label('What is masked'),
  openWork: Joi.array()
    .items(
      Joi.object({
        id: id.required(),
        kind: Joi.valid(...OPEN_WORK_KINDS).required(),
        note: Joi.string().trim().max(300).allow('').required(),
        done: Joi.boolean().required(),
      }),
    )
    .max(60)
    .default([])
    .label('Open work'),
  parentId: orNull(id),
  patchKind: orNull(Joi.valid(...PATCH_KINDS)),
  sharedCoats: orNull(Joi.number().integer().min(0).max(40).label('Coats shared')),
  shelter: Joi.valid(...SHELTERS, null).default(null),
  holds: Joi.valid(...TANK_HOLDS, null).default(null),
  sort: Joi.number().required(),
  deleted: Joi.boolean().default(false),
  version,
}).required();

const ascendingLabel = (label: string) =>
  Joi.array().items(position(label)).min(2).max(200).required().label(`${label}s`);

const plane = Joi.object({
  heightM: Joi.number().min(-50).max(50).required().label('Waterline'),
  heelDeg: Joi.number().min(-60).max(60).required().label('Heel'),
  trimDeg: Joi.number().min(-30).max(30).required().label('Trim'),
});

const figure = Joi.number().required();

const figures = Joi.array().items(Joi.number()).max(200).required();

const count = Joi.number().integer().min(0).required();

export const hullBody = Joi.object({
  boatId: id.required(),
  offsets: Joi.object({
    stationsM: ascendingLabel('Station'),
    waterlinesM: ascendingLabel('Waterline'),
    halfBreadthsM: Joi.array()
      .items(Joi.array().items(Joi.number().min(0).max(50).allow(null)).max(200))
      .max(200)
      .required()
      .label('Half-breadths'),
    waterlineM: position('Height she floats at'),
    fromBow: Joi.boolean().required(),
    includeBottom: Joi.boolean().required(),
  })
    .allow(null)
    .required(),
  mesh: Joi.object({
    fileHash: Joi.string().hex().length(64).required(),
    fileName: Joi.string().max(200).required(),
    bytes: count,
    triangles: count,
    placement: Joi.object({
      unit: Joi.valid(...Object.keys(MESH_UNITS)).required(),
      forward: Joi.valid(...AXES).required(),
      up: Joi.valid(...AXES).required(),
      mirror: Joi.boolean().required(),
    }).required(),
    waterline: plane.required(),
    bandM: Joi.number().positive().max(5).required().label('Height of the band'),
    size: Joi.object({ lengthM: figure, beamM: figure, depthM: figure }).required(),
    areas: Joi.object({
      belowM2: figure.min(0),
      bandM2: figure.min(0),
      aboveM2: figure.min(0),
      volumeBelowM3: figure.min(0),
      cutShare: figure.min(0),
    }).required(),
    defects: Joi.object({ openEdges: count, degenerate: count, inverted: count }).allow(null).required(),
    waterlineGirthM: figure.min(0),
    lines: Joi.object({
      known: Joi.valid('mesh').required(),
      stationsM: figures,
      heightsM: figures,
      halfBreadthsM: Joi.array()
        .items(Joi.array().items(Joi.number().allow(null)).max(200))
        .max(200)
        .required(),
      topM: figures,
      bottomM: figures,
    }).required(),
  })
    .allow(null)
    .required(),
  deleted: Joi.boolean().default(false),
  version,
}).required();

/** Not decided, however that is told. */
const undecided = (schema: Joi.Schema) => schema.empty(null);

export const layerBody = Joi.object({
  id: id.required(),
  sheetRevisionId: id.required(),
  dftMicron: Joi.number().positive().max(5000).required().label('Dry film'),
  method: Joi.valid(...PAINT_METHODS).required(),
  thinnerShare: Joi.number().min(0).max(0.5).required().label('Thinner'),
  loss: Joi.number().min(0).max(0.9).required().label('Loss'),
  deadVolumeLPerM2: Joi.number().min(0).max(2).required().label('Dead volume'),
  colour: Joi.string().trim().max(60).allow('').required(),
  colourHex: colourHex.required(),
  prep: undecided(Joi.valid('tackWindow', 'abrade')),
  grit: undecided(Joi.number().integer().min(16).max(5000)).label('Grit'),
  abradeFor: undecided(Joi.valid(...ABRADE_FOR)),
  wipe: undecided(Joi.boolean()),
  mask: undecided(Joi.boolean()),
  stripe: undecided(Joi.boolean()),
  absorption: undecided(Joi.number().min(0).max(3)).label('What soaks in'),
  thinnerFamily: undecided(Joi.valid(...THINNER_FAMILIES)),
  holdMonths: undecided(Joi.number().min(0).max(60)).label('Months it is to hold'),
  primerFor: undecided(Joi.valid(...PRIMER_FOR)),
  tip: undecided(Joi.boolean()),
});

export const layersBody = Joi.array().items(layerBody).max(40);

export const targetMicron = Joi.number().positive().max(20_000).allow(null).label('Target');

const painter = Joi.string().trim().max(80).allow('').required();

const buildUpFields = {
  surfaceId: id.required(),
  layers: layersBody.required(),
  namedId: id.allow(null).default(null),
  targetMicron: targetMicron.default(null),
  overrides: Joi.array()
    .items(
      Joi.object({
        rule: Joi.string().max(60).required(),
        key: Joi.string().max(240).required(),
        reason: Joi.string().trim().min(3).max(500).required().label('The reason'),
        at: instant.required(),
        painter,
      }),
    )
    .max(100)
    .default([]),
  records: Joi.array()
    .items(
      Joi.object({
        id: id.required(),
        kind: Joi.valid(...RECORD_KINDS).required(),
        at: instant.required(),
        painter,
        note: Joi.string().trim().max(500).allow('').required(),
      }),
    )
    .max(100)
    .default([]),
  deleted: Joi.boolean().default(false),
  version,
};

export const buildUpBody = Joi.object({ boatId: id.required(), ...buildUpFields }).required();

/** Several zones of one boat at once, all or none. */
export const buildUpsBody = Joi.object({
  rows: Joi.array()
    .items(Joi.object({ id: id.required(), boatId: id.required(), ...buildUpFields }))
    .min(1)
    .max(200)
    .unique('id')
    .required()
    .label('Zones'),
}).required();
