import type { AbradeFor, PrimerFor } from '#core/model/layer';
import type { AdditiveKind, AntifoulingType, Chemistry, ThinnerFamily, Waters } from '#core/model/sheet';
import type { Per } from '#core/stores/consumables';
import type { BorderRule } from '#core/system/borders';
import type { BondSchool } from '#core/model/buildUp';
import type { RecordKind, Severity } from '#core/system/stack';
import type { AgainstKind, Measure, QuickRemark } from '#core/model/log';
import type { MeshUnit } from '#core/hull/placement';
import type { ShapeKind } from '#core/hull/shapes';
import type { WearPlace } from '#core/hull/wear';
import type { AreaMethod, MeshPart } from '#core/model/area';
import type {
  Exposure,
  ExistingCoating,
  HullMaterial,
  MaskedThing,
  OpenWorkKind,
  PatchKind,
  Shelter,
  Side,
  Substrate,
  TankHolds,
  ZoneKind,
} from '#core/model/surface';

/** The trade's words for what the core says. One home for each, so that a thing has one name everywhere. */

/** What the choices of forms and lists are called. */
export const ZONE_WORDS: Record<ZoneKind, string> = {
  underwater: 'Underwater hull',
  keel: 'Keel',
  rudder: 'Rudder',
  sternGear: 'Stern gear',
  bootTop: 'Boot-top',
  topsides: 'Topsides',
  transom: 'Transom',
  deck: 'Deck',
  nonSkid: 'Non-skid panels',
  coachroof: 'Coachroof',
  cockpit: 'Cockpit',
  bilge: 'Bilge',
  lockers: 'Lockers',
  anchorLocker: 'Anchor locker',
  engineBay: 'Engine bay',
  tank: 'Tank',
};

export const SUBSTRATE_WORDS: Record<Substrate, string> = {
  gelcoat: 'GRP gelcoat',
  laminate: 'GRP laminate',
  steel: 'Steel',
  aluminium: 'Aluminium',
  timber: 'Bare timber',
  plywood: 'Plywood',
  sealedTimber: 'Epoxy-sealed timber',
  ferrocement: 'Ferrocement',
};

export const MATERIAL_WORDS: Record<HullMaterial, string> = {
  grp: 'GRP',
  steel: 'Steel',
  aluminium: 'Aluminium',
  timber: 'Timber',
  plywood: 'Plywood',
  ferrocement: 'Ferrocement',
};

export const EXPOSURE_WORDS: Record<Exposure, string> = {
  immersed: 'Immersed',
  splash: 'Splash',
  weather: 'Weather',
  interior: 'Interior',
  bilge: 'Bilge',
  tank: 'Tank',
};

export const EXISTING_WORDS: Record<ExistingCoating, string> = {
  bare: 'Bare',
  onePack: 'Sound one-pack coating',
  twoPack: 'Sound two-pack coating',
  unknown: 'Old coating, unknown',
  antifoulingHard: 'Last year’s antifouling, hard',
  antifoulingAblative: 'Last year’s antifouling, wearing away',
  antifouling: 'Antifouling, of a type nobody knows',
};

export const WATERS_WORDS: Record<Waters, string> = {
  salt: 'Salt water',
  fresh: 'Fresh water',
  slimeProne: 'Water that slimes',
  tropical: 'Warm sea',
};
export const CHEMISTRY_WORDS: Record<Chemistry, string> = {
  epoxy: 'Epoxy',
  polyurethane: 'Polyurethane',
  alkyd: 'Alkyd',
  acrylic: 'Acrylic',
  vinyl: 'Vinyl',
  chlorinatedRubber: 'Chlorinated rubber',
  silicone: 'Silicone',
  acid: 'Acid',
  polyester: 'Polyester',
};
export const THINNER_WORDS: Record<ThinnerFamily, string> = {
  epoxy: 'for epoxy',
  polyurethane: 'for polyurethane',
  whiteSpirit: 'white spirit',
  aromatic: 'aromatic',
  alcohol: 'alcohol',
  water: 'water',
};
export const GLOSS_WORDS = { matt: 'Matt', eggshell: 'Eggshell', semiGloss: 'Semi-gloss', gloss: 'Gloss' } as const;
export const ANTIFOULING_WORDS: Record<AntifoulingType, string> = {
  hard: 'Hard',
  ablative: 'Wearing (ablative)',
  hybrid: 'Slow-wearing (hybrid)',
};
export const SEVERITY_WORDS: Record<Severity, string> = { stop: 'Stop', caution: 'Caution', note: 'Note' };
export const BOND_WORDS: Record<BondSchool, string> = {
  chemical: 'In the tack window',
  mechanical: 'Cure, abrade, coat',
};
export const ABRADE_FOR_WORDS: Record<AbradeFor, string> = { bond: 'for bond', level: 'to level', nibs: 'nibs only' };
export const PRIMER_FOR_WORDS: Record<PrimerFor, string> = { adhesion: 'to hold on by', filling: 'to fill with' };
export const RECORD_WORDS: Record<RecordKind, string> = {
  testPatch: 'Test patch held',
  adhesionTest: 'Adhesion test',
  flakeBack: 'Backs of flakes looked at',
  moisture: 'Moisture measured',
};
export const BORDER_WORDS: Record<BorderRule, string> = {
  butt: 'butt at the line',
  overlap: 'overlap',
  stripe: 'leave a stripe between',
};
export const PER_WORDS: Record<Per, string> = {
  job: 'a job',
  zone: 'a zone',
  coat: 'a coat',
  tippedCoat: 'a tipped coat',
  batch: 'a batch',
  coatM2: 'm² of a coat',
  abradedM2: 'm² abraded',
  borderM: 'm of edge taped',
  washL: 'L of concentrate',
  day: 'a day',
};

export const AREA_METHOD_WORDS: Record<AreaMethod, string> = {
  dimensions: 'From dimensions',
  denny: 'Denny–Mumford',
  girths: 'Girths with a tape',
  offsets: 'Table of offsets',
  mesh: 'Mesh file',
  shapes: 'Sum of shapes',
  typed: 'Typed in',
  calibrated: 'By the paint it took',
  band: 'Length × width of the band',
};

export const PATCH_WORDS: Record<PatchKind, string> = {
  standPad: 'Under a stand, block or sling',
  bondingStrip: 'Bonding strip, left bare',
  weldSeam: 'Weld seam, left bare',
  strippedBack: 'Found and stripped back',
  uncoated: 'Left without a coat',
  highWear: 'High-wear band',
  touchUp: 'Touch-up',
};

export const SIDE_WORDS: Record<Side, string> = {
  both: 'Both sides',
  port: 'Port',
  starboard: 'Starboard',
  part: 'Part of it',
};

export const SHELTER_WORDS: Record<Shelter, string> = {
  open: 'The open sky',
  cover: 'A cover',
  tent: 'A tent',
  building: 'A building',
};
export const HOLDS_WORDS: Record<TankHolds, string> = {
  water: 'Drinking water',
  fuel: 'Fuel',
  holding: 'Waste',
  ballast: 'Ballast water',
};
export const OPEN_WORK_WORDS: Record<OpenWorkKind, string> = {
  repair: 'Repair',
  hotWork: 'Hot work',
  drilling: 'Drilling, fittings',
  fairing: 'Fairing',
  drying: 'Drying out',
  underStand: 'Stands to be moved',
};

export const MASKED_WORDS: Record<MaskedThing, string> = {
  anode: 'Anode',
  transducer: 'Transducer face',
  propeller: 'Propeller and shaft',
  earthPlate: 'Earth plate',
  seal: 'Seal',
  logWheel: 'Log wheel',
  other: 'Something else',
};

export const WEAR_WORDS: Record<WearPlace, string> = {
  waterline: 'Waterline',
  stem: 'Stem and forefoot',
  keelLeadingEdge: 'Leading edge of the keel',
  keelBottom: 'Bottom of the keel',
  rudderEdges: 'Edges of the rudder',
};

export const SHAPE_WORDS: Record<ShapeKind, string> = {
  rectangle: 'Rectangle',
  triangle: 'Triangle',
  trapezium: 'Trapezium',
  circle: 'Circle',
  ellipse: 'Ellipse',
  cylinder: 'Cylinder',
  cone: 'Cone or part of one',
  foil: 'Foil, both faces',
  box: 'Inside of a box',
  frame: 'Frame or stringer',
};

export const MESH_PART_WORDS: Record<MeshPart, string> = {
  below: 'Below the waterline',
  band: 'The band above it',
  above: 'Above the band',
  aboveWaterline: 'Above the waterline',
  whole: 'All of it',
};

export const MESH_UNIT_WORDS: Record<MeshUnit, string> = {
  mm: 'Millimetres',
  cm: 'Centimetres',
  m: 'Metres',
  in: 'Inches',
  ft: 'Feet',
};

/** What stood against a start, in a word or two. */
export const AGAINST_WORDS: Record<AgainstKind, string> = {
  window: 'outside its window',
  order: 'before the coat beneath',
  openWork: 'open work',
  stand: 'the batch had not stood',
  abrading: 'planned abrading not told',
  air: 'air outside the limits',
  untilDry: 'limits not held until touch dry',
  rule: 'a rule',
};

export const MEASURE_WORDS: Record<Measure, string> = {
  scale: 'Scale',
  cup: 'Cup',
  syringe: 'Syringe',
  pump: 'Pump',
  stick: 'Stick',
};

/** What is found in a wet coat. */
export const REMARK_WORDS: Record<QuickRemark, string> = {
  run: 'run',
  sag: 'sag',
  holiday: 'holiday',
  nib: 'nib',
  insect: 'insect',
  dryEdge: 'dry edge',
  bubbles: 'bubbles',
  fisheyes: 'fisheyes',
  orangePeel: 'orange peel',
};

export const ADDITIVE_WORDS: Record<AdditiveKind, string> = {
  accelerator: 'accelerator',
  retarder: 'retarder',
  flow: 'flow agent',
};
