import { DateTime } from 'luxon';
import type { LimitBreak } from '#core/air/conditions';
import type { ClockKind } from '#core/coat/clocks';
import type { ZoneState } from '#core/coat/zoneStatus';
import type { AbradeFor, PrimerFor } from '#core/film/layer';
import type { AntifoulingType, Chemistry, SheetKind, ThinnerFamily, Waters } from '#core/sheet/sheet';
import type { Per } from '#core/stores/consumables';
import type { BorderRule } from '#core/system/borders';
import type { BondSchool } from '#core/system/schools';
import type { RecordKind, Severity } from '#core/system/stack';
import type { MeshUnit } from '#core/hull/placement';
import type { ShapeKind } from '#core/hull/shapes';
import type { WearPlace } from '#core/hull/wear';
import type { AreaMethod, MeshPart } from '#core/hull/zoneArea';
import type { Exposure, ExistingCoating, HullMaterial, MaskedThing, OpenWorkKind, PatchKind, Side, Substrate, ZoneKind } from '#core/hull/zones';
import type { Source } from '#core/why';
import { formatQuantity, plainNumber, type UnitChoice } from '#core/units/format';
import type { QuantityName } from '#core/units/quantities';

/** The trade's words for what the core says. One home for each, so that a thing has one name everywhere. */

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
};

export const WATERS_WORDS: Record<Waters, string> = { salt: 'Salt water', fresh: 'Fresh water', slimeProne: 'Water that slimes', tropical: 'Warm sea' };
export const CHEMISTRY_WORDS: Record<Chemistry, string> = { epoxy: 'Epoxy', polyurethane: 'Polyurethane', alkyd: 'Alkyd', acrylic: 'Acrylic', vinyl: 'Vinyl', chlorinatedRubber: 'Chlorinated rubber', silicone: 'Silicone', acid: 'Acid', polyester: 'Polyester' };
export const THINNER_WORDS: Record<ThinnerFamily, string> = { epoxy: 'for epoxy', polyurethane: 'for polyurethane', whiteSpirit: 'white spirit', aromatic: 'aromatic', alcohol: 'alcohol', water: 'water' };
export const GLOSS_WORDS = { matt: 'Matt', eggshell: 'Eggshell', semiGloss: 'Semi-gloss', gloss: 'Gloss' } as const;
export const ANTIFOULING_WORDS: Record<AntifoulingType, string> = { hard: 'Hard', ablative: 'Wearing (ablative)', hybrid: 'Slow-wearing (hybrid)' };
export const SEVERITY_WORDS: Record<Severity, string> = { stop: 'Stop', caution: 'Caution', note: 'Note' };
export const BOND_WORDS: Record<BondSchool, string> = { chemical: 'In the tack window', mechanical: 'Cure, abrade, coat' };
export const ABRADE_FOR_WORDS: Record<AbradeFor, string> = { bond: 'for bond', level: 'to level', nibs: 'nibs only' };
export const PRIMER_FOR_WORDS: Record<PrimerFor, string> = { adhesion: 'to hold on by', filling: 'to fill with' };
export const RECORD_WORDS: Record<RecordKind, string> = { testPatch: 'Test patch held', adhesionTest: 'Adhesion test', flakeBack: 'Backs of flakes looked at' };
export const BORDER_WORDS: Record<BorderRule, string> = { butt: 'butt at the line', overlap: 'overlap', stripe: 'leave a stripe between' };
export const PER_WORDS: Record<Per, string> = { job: 'a job', zone: 'a zone', coat: 'a coat', tippedCoat: 'a tipped coat', batch: 'a batch', coatM2: 'm² of a coat', abradedM2: 'm² abraded', borderM: 'm of border', day: 'a day' };

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
  highWear: 'High-wear band',
  touchUp: 'Touch-up',
};

export const SIDE_WORDS: Record<Side, string> = { both: 'Both sides', port: 'Port', starboard: 'Starboard', part: 'Part of it' };

export const OPEN_WORK_WORDS: Record<OpenWorkKind, string> = {
  repair: 'Repair',
  hotWork: 'Hot work',
  drilling: 'Drilling, fittings',
  fairing: 'Fairing',
  drying: 'Drying out',
  underStand: 'Stands to be moved',
};

export const MASKED_WORDS: Record<MaskedThing, string> = { anode: 'Anode', transducer: 'Transducer face', propeller: 'Propeller and shaft', earthPlate: 'Earth plate', seal: 'Seal', logWheel: 'Log wheel', other: 'Something else' };

export const WEAR_WORDS: Record<WearPlace, string> = { waterline: 'Waterline', stem: 'Stem and forefoot', keelLeadingEdge: 'Leading edge of the keel', keelBottom: 'Bottom of the keel', rudderEdges: 'Edges of the rudder' };

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

export const MESH_PART_WORDS: Record<MeshPart, string> = { below: 'Below the waterline', band: 'The band above it', above: 'Above the band', aboveWaterline: 'Above the waterline', whole: 'All of it' };

export const MESH_UNIT_WORDS: Record<MeshUnit, string> = { mm: 'Millimetres', cm: 'Centimetres', m: 'Metres', in: 'Inches', ft: 'Feet' };

export const SHEET_KIND_WORDS: Record<SheetKind, string> = {
  sealer: 'Penetrating sealer',
  primer: 'Primer',
  barrier: 'Barrier',
  filler: 'Filler or surfacer',
  undercoat: 'Undercoat',
  tieCoat: 'Tie coat',
  topcoat: 'Topcoat',
  nonSkid: 'Non-skid',
  bilge: 'Bilge coating',
  antifouling: 'Antifouling',
  converter: 'Rust converter',
};

export const METHOD_WORDS = { brush: 'Brush', roller: 'Roller', spray: 'Spray' } as const;

export const STATE_WORDS: Record<ZoneState, string> = {
  noBuildUp: 'no build-up',
  ready: 'ready for its first coat',
  inHand: 'going on',
  shut: 'shut',
  bonds: 'bonds as is',
  abrade: 'abrade first',
  closed: 'closed: treat as old coating',
  complete: 'complete',
  noTimes: 'no overcoat time on the sheet',
  noWeather: 'no weather for that day',
  openWork: 'open work first',
  waits: 'waits for its zone',
};

export const CLOCK_WORDS: Record<ClockKind, string> = {
  opens: 'opens',
  tackEnds: 'stops bonding as is',
  closes: 'closes even when abraded',
  touchDry: 'touch dry',
  sandable: 'dry to sand',
  immersion: 'may be immersed',
  stand: 'stand over, may be used',
  pot: 'pot life ends',
  lastStart: 'last start',
};

/** "14:20" today, "tomorrow 09:00", "Thu 09:00" within the week, else "3 Dec 09:00". In the boat's own zone. */
export function timeWords(at: number, now: number, zone: string): string {
  const time = DateTime.fromMillis(at, { zone });
  const today = DateTime.fromMillis(now, { zone }).startOf('day');
  const days = Math.round(time.startOf('day').diff(today, 'days').days);
  const clock = time.toFormat('HH:mm');
  if (days === 0) return clock;
  if (days === 1) return `tomorrow ${clock}`;
  if (days === -1) return `yesterday ${clock}`;
  if (days > 1 && days < 7) return `${time.toFormat('ccc')} ${clock}`;
  return `${time.toFormat('d LLL')} ${clock}`;
}

/** "2 h 10 min", "35 min", "3 d 4 h"; never negative, never broken over two lines. */
export function spanWords(ms: number): string {
  return span(ms).replaceAll(' ', '\u00a0');
}

function span(ms: number): string {
  const minutes = Math.max(0, Math.round(ms / 60_000));
  if (minutes < 60) return `${minutes} min`;
  const hours = Math.floor(minutes / 60);
  if (hours < 48) return minutes % 60 === 0 ? `${hours} h` : `${hours} h ${minutes % 60} min`;
  const days = Math.floor(hours / 24);
  return hours % 24 === 0 ? `${days} d` : `${days} d ${hours % 24} h`;
}

/** "02:13:09" for a timer. */
export function timerWords(ms: number): string {
  const seconds = Math.floor(Math.abs(ms) / 1000);
  const two = (n: number) => String(n).padStart(2, '0');
  const text = `${two(Math.floor(seconds / 3600))}:${two(Math.floor(seconds / 60) % 60)}:${two(seconds % 60)}`;
  return ms < 0 ? `−${text}` : text;
}

/** "too damp: spread 1.8, needs 3 °C" */
export function breakWords(broken: LimitBreak, units: UnitChoice): string {
  // "3.0, needs 3.0" would read as a mistake: a figure just past its limit gets another digit.
  const shown = (quantity: QuantityName, value: number, digits: number) => {
    const text = (v: number, d: number) => formatQuantity(quantity, v, units, d);
    const tight = text(broken.found, digits) === text(broken.needs, digits);
    return text(value, tight ? digits + 1 : digits);
  };
  const difference = (v: number) => shown('temperatureDifference', v, 1);
  const degrees = (v: number) => shown('temperature', v, 1);
  const percent = (v: number) => shown('percent', v, 0);
  const wind = (v: number) => shown('windSpeed', v, 0);
  switch (broken.limit) {
    case 'spread':
      return `too damp: spread ${difference(broken.found)}, needs ${difference(broken.needs)}`;
    case 'humidity':
      return `too humid: ${percent(broken.found)}, at most ${percent(broken.needs)}`;
    case 'airCold':
      return `air too cold: ${degrees(broken.found)}, at least ${degrees(broken.needs)}`;
    case 'airHot':
      return `air too hot: ${degrees(broken.found)}, at most ${degrees(broken.needs)}`;
    case 'surfaceCold':
      return `surface too cold: ${degrees(broken.found)}, at least ${degrees(broken.needs)}`;
    case 'surfaceHot':
      return `surface too hot: ${degrees(broken.found)}, at most ${degrees(broken.needs)}`;
    case 'wind':
      return `too windy: ${wind(broken.found)}, at most ${wind(broken.needs)}`;
    case 'rain':
      return 'rain';
  }
}

export function sourceWords(source: Source): string {
  switch (source.label) {
    case 'P':
      return `published: ${source.name}`;
    case 'CP':
      return 'common practice';
    case 'M':
      return 'from memory: check it';
    case 'sheet':
      return `data sheet: ${source.name}`;
    case 'user':
      return 'typed in by you';
  }
}

export const SIMULATED_WORDS = 'simulated, not for painting by';

export function shareWords(share: number): string {
  return `${plainNumber(share * 100, share < 0.1 && share > 0 ? 1 : 0)} %`;
}

/** Days from today to a civil date, in the boat's zone; negative when it is past. */
export function daysTo(date: string, now: number, zone: string): number {
  const today = DateTime.fromMillis(now, { zone }).startOf('day');
  return Math.round(DateTime.fromISO(date, { zone }).diff(today, 'days').days);
}

export function dayWords(date: string, zone: string): string {
  return DateTime.fromISO(date, { zone }).toFormat('ccc d LLL');
}

/** "barrier 3" — the trade's way of naming a coat. */
export function coatName(kind: SheetKind | undefined, number: number): string {
  return kind ? `${SHEET_KIND_WORDS[kind].toLowerCase()} ${number}` : `coat ${number}`;
}

/** Made once for each currency: making one takes longer than all that it formats in a frame. */
const moneyFormats = new Map<string, Intl.NumberFormat>();

export function moneyWords(minor: number, currency: string): string {
  let format = moneyFormats.get(currency);
  if (!format) moneyFormats.set(currency, (format = new Intl.NumberFormat(undefined, { style: 'currency', currency })));
  return format.format(minor / 100);
}

/** Packs as they are asked for over the counter: "2 × 2.5 L kit + 1 × 0.75 L kit". */
export function packWords(packs: readonly { readonly pack: { readonly name: string; readonly sizeL: number }; readonly count: number }[]): string {
  return packs.map(({ pack, count }) => `${count} × ${pack.name || `${plainNumber(pack.sizeL, 2)} L`}`).join(' + ');
}

/** A chance the way people say it. */
export function casesWords(chance: number): string {
  const tenths = chance * 10;
  return Math.abs(tenths - Math.round(tenths)) < 1e-9 ? `${Math.round(tenths)} cases of 10` : `${Number((chance * 100).toFixed(1))} cases of 100`;
}
