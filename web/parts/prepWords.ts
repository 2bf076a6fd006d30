import type { BoatEntry, ZoneEntry } from '#core/model/log';
import type { Dirt, FairingFound, PrepKind, PreparedBody, PrepWay, RustNext } from '#core/model/prep';
import type { Evidence, MarkFrom, MarkedBy, MarkSide } from '#core/model/waterline';
import type { SurfaceClockKind } from '#core/prep/surfaceClocks';
import { formatQuantity, type UnitChoice } from '#core/units/format';
import { ABRADE_FOR_WORDS, OPEN_WORK_WORDS } from './choiceWords';

export const PREP_WORDS: Record<PrepKind, string> = {
  lookOver: 'Look it over',
  strip: 'Strip',
  needleGun: 'Needle gun',
  scrape: 'Scrape',
  wireBrush: 'Wire brush',
  weld: 'Weld',
  grind: 'Grind',
  blast: 'Blast',
  saltRinse: 'Rinse salts off',
  passivate: 'Passivate',
  convert: 'Rust converter',
  degrease: 'Degrease',
  wash: 'Wash',
  rinse: 'Rinse',
  dry: 'Dry',
  fill: 'Fill',
  guideCoat: 'Guide coat',
  block: 'Block',
  inspect: 'Look along it',
  spotPrime: 'Spot-prime',
  abrade: 'Abrade',
  vacuum: 'Vacuum',
  wipe: 'Wipe',
  tack: 'Tack cloth',
  mask: 'Mask',
  other: 'Other',
};

export const WAY_WORDS: Record<PrepWay, string> = {
  blastedSteel: 'Steel, blasted',
  steelByHand: 'Steel by hand, with converter',
  steelEpoxy: 'Steel by hand, with thin epoxy',
  grpBarrier: 'Laminate to be coated',
  onePackKept: 'Old one-pack kept',
  twoPackKept: 'Old two-pack kept',
  antifoulingKept: 'Old antifouling kept',
  timber: 'Timber or plywood',
  bilge: 'Bilge, seven steps',
  nonSkid: 'Non-skid deck',
  aluminium: 'Aluminium',
  mineral: 'Ferrocement',
};

export const DIRT_WORDS: Record<Dirt, string> = {
  rain: 'Rained on',
  washingDown: 'Washed down on by a neighbour',
  dust: 'Dust',
  overspray: 'Overspray',
  hands: 'Handled or trodden on',
  turned: 'Metal has turned',
};

export const FOUND_WORDS: Record<FairingFound, string> = {
  fair: 'Fair',
  lows: 'Low places',
  highs: 'High places',
  pinholes: 'Pinholes',
  edges: 'Edges of the filler show',
};

export const RUST_NEXT_WORDS: Record<RustNext, string> = {
  wait: 'Look again next day',
  scrape: 'Scrape and brush more',
  again: 'Another coat of converter',
  scuff: 'Scuff, wipe, prime',
  leave: 'Left knowingly',
};

export const CLOCK_NAMES: Record<SurfaceClockKind, string> = {
  bareMetal: 'Bare metal',
  clean: 'Clean',
  drying: 'Drying',
  holding: 'Holding primer',
  sealer: 'Penetrating epoxy',
  guideCoat: 'Guide coat',
  tape: 'Tape',
};

export const EVIDENCE_WORDS: Record<Evidence, string> = {
  photo: 'Photograph',
  stain: 'Stain',
  fitting: 'Fitting',
  oldPaint: 'Edge of the old paint',
  afloat: 'Seen afloat',
  keel: 'Measured from the keel',
  referenceTape: 'Reference tape',
};

export const MARKED_BY_WORDS: Record<MarkedBy, string> = {
  level: 'Level',
  string: 'String',
  laser: 'Laser',
  tape: 'Tape measure',
  copied: 'Copied from the other side',
};

export const MARK_FROM_WORDS: Record<MarkFrom, string> = {
  ground: 'Above the ground',
  rail: 'Below the rail',
  line: 'Above the drawn waterline',
};

export const SIDE_WORDS: Record<MarkSide, string> = { port: 'Port', starboard: 'Starboard' };

/** What was done, in a line. */
export function preparedWords(body: PreparedBody, units: UnitChoice): string {
  const { step, grit, abradeFor, waterL, concentrateL, profileMicron, holdsH, areaM2, bothFaces, found, text } = body;
  const what = step === 'other' && text ? text : PREP_WORDS[step];
  return [
    what,
    grit ? `${grit} grit${abradeFor ? ` ${ABRADE_FOR_WORDS[abradeFor]}` : ''}` : null,
    concentrateL
      ? `${formatQuantity('volume', concentrateL, units)} in ${formatQuantity('volume', waterL ?? 0, units)} of water`
      : null,
    profileMicron ? `profile ${formatQuantity('film', profileMicron, units)}` : null,
    areaM2 ? formatQuantity('area', areaM2, units) : null,
    holdsH ? `holds ${holdsH} h` : null,
    bothFaces ? 'both faces' : null,
    found?.length ? found.map((f) => FOUND_WORDS[f].toLowerCase()).join(', ') : null,
    step !== 'other' && text ? text : null,
  ]
    .filter(Boolean)
    .join(', ');
}

export type PrepEntry = Exclude<ZoneEntry, { kind: 'cautioned' }> | BoatEntry;

/** An entry of getting ready, of masking, of stands or of the waterline, in a line. */
export function prepEntryWords(
  entry: PrepEntry,
  { units, nameOf }: { readonly units: UnitChoice; readonly nameOf: (surfaceId: string) => string },
): string {
  const length = (m: number) => formatQuantity('width', m, units);
  switch (entry.kind) {
    case 'prepared':
      return preparedWords(entry.body, units);
    case 'prepPlanned': {
      const { way, added, leftOut } = entry.body;
      return [
        'List changed',
        way ? WAY_WORDS[way].toLowerCase() : null,
        added.length > 0 ? `added ${added.map((a) => a.text).join('; ')}` : null,
        ...leftOut.map((l) => `left out: ${l.reason}`),
      ]
        .filter(Boolean)
        .join(', ');
    }
    case 'dirtied':
      return `${DIRT_WORDS[entry.body.by]}${entry.body.text ? `: ${entry.body.text}` : ''}`;
    case 'rustLooked': {
      const { convertedShare, next, reason, dueOn, pitMm, thicknessMm, originalMm, text } = entry.body;
      return [
        convertedShare === null
          ? 'Rust looked at'
          : `Converter: ${formatQuantity('percent', convertedShare, units, 0)} black`,
        pitMm ? `pits ${pitMm} mm` : null,
        thicknessMm ? `plate ${thicknessMm} mm${originalMm ? ` of ${originalMm}` : ''}` : null,
        RUST_NEXT_WORDS[next].toLowerCase(),
        reason || null,
        dueOn ? `by ${dueOn}` : null,
        text || null,
      ]
        .filter(Boolean)
        .join(', ');
    }
    case 'masked':
      return `Masked${entry.body.text ? `: ${entry.body.text}` : ''}`;
    case 'unmasked':
      return `Unmasked, looked at${entry.body.text ? `: ${entry.body.text}` : ''}`;
    case 'foundWork':
      return `Found: ${OPEN_WORK_WORDS[entry.body.work].toLowerCase()}, ${entry.body.text}`;
    case 'structureAsked':
      return entry.body.structureDone ? 'Structure done, asked before the first coat' : 'More structure to come';
    case 'wayOut':
      return `Way out: ${entry.body.faces.map((f) => f.name).join(', ')}${entry.body.second ? `; outside: ${entry.body.second}` : ''}`;
    case 'standsMoved':
      return `Stands moved; free now: ${entry.body.freed.map(nameOf).join(', ') || 'none'}${entry.body.text ? `. ${entry.body.text}` : ''}`;
    case 'stood':
      return `How she stands: ${entry.body.points.length} points`;
    case 'marked':
      return `Mark at ${formatQuantity('length', entry.body.xM, units)}, ${SIDE_WORDS[entry.body.side].toLowerCase()}: ${length(entry.body.valueM)} ${MARK_FROM_WORDS[entry.body.from].toLowerCase()}`;
    case 'lineSet':
      return `Line ${entry.body.name}${entry.body.removed ? ' removed' : entry.body.chosen ? ', chosen' : ''}`;
    case 'evidence':
      return `${EVIDENCE_WORDS[entry.body.what]} of the line${entry.body.text ? `: ${entry.body.text}` : ''}`;
    case 'weights':
      return `Weights to come: ${Math.round(entry.body.items.reduce((sum, i) => sum + i.kg, 0))} kg`;
    case 'planAccepted': {
      const { tasks, note } = entry.body;
      const coats = tasks.filter((t) => t.kind === 'coat').length;
      return `Plan accepted: ${tasks.length} tasks, ${coats} of them coats${note ? `. ${note}` : ''}`;
    }
    case 'setOff':
      return `Station ${entry.body.no} set off, ${SIDE_WORDS[entry.body.side].toLowerCase()}`;
  }
}
