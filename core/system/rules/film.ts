import { isMetal } from '../../hull/zones';
import { deadVolumeOfProfile } from '../../film/deadVolume';
import { isSpray, type PaintMethod } from '../../model/paintMethod';
import type { SheetBody } from '../../model/sheet';
import {
  chemistryOf,
  filmOf,
  filmWords,
  finding,
  isBareTimber,
  isBarrier,
  keptFilms,
  largestFilm,
  methodOf,
  type Rule,
} from '../stack';

/** Film over the sheet's largest traps solvent and cracks. [CP] */
export const filmTooThick: Rule = (stack) =>
  stack.layers.flatMap((layer, i) => {
    const most = largestFilm(layer.sheet, methodOf(stack, layer));
    if (most === null || filmOf(layer) <= most + 1e-9) return [];
    return [
      finding(
        'filmTooThick',
        'caution',
        i,
        null,
        `${layer.sheet.name} is thicker than the largest film of its sheet, ${filmWords(most)}: solvent is trapped and it cracks.`,
        { kind: 'split', at: i, words: 'Make two coats of it' },
        { kind: 'set', at: i, change: { dftMicron: most }, words: 'Take the largest film' },
      ),
    ];
  });

/** What a coat usually builds, but never less than its own sheet asks of it. */
function usuallyBuilt(sheet: SheetBody, method: PaintMethod): number | null {
  const most = buildable(sheet, method);
  return most === null ? null : Math.max(most, sheet.dftMicron);
}

/** What one coat can build, µm dry: epoxy 75 by roller, 200 airless; surfacer 500 sprayed; enamel 40; two-pack topside rolled thin 40. [CP] */
function buildable(sheet: SheetBody, method: PaintMethod): number | null {
  const chemistry = chemistryOf(sheet);
  if (sheet.kind === 'filler') return isSpray(method) ? 500 : null;
  if (chemistry === 'epoxy') return method === 'spray' ? 200 : 75;
  if (chemistry === 'alkyd') return 40;
  if (chemistry === 'polyurethane' && sheet.kind === 'topcoat') return isSpray(method) ? 60 : 40;
  return null;
}

/** One coat builds only what its method can, unless the sheet says more of that method. */
export const methodCannotBuild: Rule = (stack) =>
  stack.layers.flatMap((layer, i) => {
    const method = methodOf(stack, layer);
    if (method === null) return [];
    const most =
      layer.sheet.methods?.find((m) => m.method === method)?.dftMaxMicron ?? usuallyBuilt(layer.sheet, method);
    const sheetMost = largestFilm(layer.sheet, method);
    // A tenth either way is within what a hand does; over the sheet's own limit another rule speaks.
    if (most === null || filmOf(layer) <= most * 1.1 || (sheetMost !== null && filmOf(layer) > sheetMost)) return [];
    const by = { brush: 'a brush', roller: 'a roller', spray: 'an airless gun', conventional: 'a spray gun' }[method];
    return [
      finding(
        'methodCannotBuild',
        'note',
        i,
        null,
        `One coat of ${layer.sheet.name} by ${by} seldom builds more than ${filmWords(most)}: plan two, or comb it as you go.`,
        { kind: 'split', at: i, words: 'Make two coats of it' },
      ),
    ];
  });

/** A method the sheet does not allow. [CP] */
export const methodNotAllowed: Rule = (stack) =>
  stack.layers.flatMap((layer, i) => {
    const method = methodOf(stack, layer);
    const rows = layer.sheet.methods ?? [];
    const [first] = rows;
    if (method === null || !first || rows.some((m) => m.method === method)) return [];
    return [
      finding(
        'methodNotAllowed',
        'caution',
        i,
        null,
        `The sheet of ${layer.sheet.name} does not allow it by ${method}.`,
        { kind: 'set', at: i, change: { method: first.method }, words: `Put it on by ${first.method}` },
      ),
    ];
  });

/** The usual total of an epoxy barrier below the water: 250 µm. [CP] */
const BARRIER_TARGET_MICRON = 250;

/** Total film below the target, what abrading takes off counted. */
export const totalBelowTarget: Rule = (stack) => {
  const kept = keptFilms(stack.layers);
  const counts = stack.layers.map((l) =>
    stack.targetMicron !== null ? l.sheet.kind !== 'filler' : isBarrier(l.sheet),
  );
  const barriers = stack.layers.some((l) => l.sheet.kind === 'barrier');
  const target = stack.targetMicron ?? (stack.exposure === 'immersed' && barriers ? BARRIER_TARGET_MICRON : null);
  if (target === null || stack.layers.length === 0) return [];
  const total = kept.reduce((sum, film, i) => sum + (counts[i] ? film : 0), 0);
  if (total >= target - 0.5) return [];
  const barrier = stack.layers.findLastIndex((l) => l.sheet.kind === 'barrier');
  const at = barrier >= 0 ? barrier : stack.layers.length - 1;
  const each = kept[at] as number;
  const times = Math.ceil((target - total) / Math.max(each, 1));
  const what = stack.targetMicron !== null ? 'The film in all' : 'The barrier';
  const mend = { kind: 'repeat', at, times, words: times === 1 ? 'Add a coat' : `Add ${times} coats` } as const;
  return [
    finding(
      'totalBelowTarget',
      'caution',
      null,
      null,
      `${what} comes to ${filmWords(total)}, below its target of ${filmWords(target)}.`,
      mend,
    ),
  ];
};

/** Bare timber soaks up 15–30 % of its first coat; bare non-skid grit more than as much again. [CP] */
export const firstCoatSoaksIn: Rule = (stack) =>
  stack.layers.flatMap((layer, i) => {
    if (layer.absorption !== undefined) return [];
    const onTimber = i === 0 && isBareTimber(stack.substrate) && stack.existing === 'bare';
    const onGrit = i > 0 && stack.layers[i - 1]?.sheet.kind === 'nonSkid' && layer.sheet.kind !== 'nonSkid';
    if (!onTimber && !onGrit) return [];
    return [
      finding(
        'firstCoatSoaksIn',
        'note',
        i,
        onTimber ? 'substrate' : i - 1,
        onTimber
          ? 'Bare timber soaks up 15 to 30 % of its first coat.'
          : 'The first coat over bare grit takes more than twice the plain coat.',
        {
          kind: 'set',
          at: i,
          change: { absorption: onTimber ? 0.25 : 1.2 },
          words: onTimber ? 'Count a quarter more' : 'Count it',
        },
      ),
    ];
  });

/** The timber's grip is in what soaks in first. [CP] */
export const sealBareTimber: Rule = (stack) => {
  const [first] = stack.layers;
  if (
    !first ||
    !isBareTimber(stack.substrate) ||
    stack.existing !== 'bare' ||
    first.sheet.kind === 'sealer' ||
    first.sheet.kind === 'primer'
  )
    return [];
  return [
    finding(
      'sealBareTimber',
      'note',
      0,
      'substrate',
      `${first.sheet.name} goes on bare timber: penetrating sealer first holds better and keeps water out.`,
      { kind: 'insert', at: 0, want: { sheetKind: 'sealer' }, words: 'Put a penetrating sealer first' },
    ),
  ];
};

/** Height of a blast profile that takes so much dry paint a m², µm: the other way round as it is reckoned. */
const profileOf = (deadVolumeLPerM2: number): number => (deadVolumeLPerM2 / (2 / 3)) * 1000;

/** A first coat on blasted metal wants the profile of its sheet: too little to grip, or peaks that stand out of the film. */
export const profileOfSheet: Rule = (stack) => {
  const [first] = stack.layers;
  const { profileMinMicron: least, profileMaxMicron: most } = first?.sheet ?? {};
  if (!first || !isMetal(stack.substrate) || stack.existing !== 'bare') return [];
  const profile = profileOf(first.deadVolumeLPerM2 ?? 0);
  const low = least !== undefined && profile < least * 0.9;
  const high = most !== undefined && profile > most * 1.1;
  if (!low && !high) return [];
  const wanted = `${least === undefined ? 'at most ' : `${Math.round(least)} to `}${Math.round(most ?? least ?? 0)} µm`;
  const words = `Reckon with ${Math.round(low ? least : (most as number))} µm`;
  return [
    finding(
      'profileOfSheet',
      profile > 0 ? 'caution' : 'note',
      0,
      'substrate',
      profile > 0
        ? `The profile reckoned with is ${Math.round(profile)} µm; the sheet of ${first.sheet.name} asks for ${wanted}.`
        : `The sheet of ${first.sheet.name} asks for a profile of ${wanted}, and none is reckoned with: it takes paint too.`,
      {
        kind: 'set',
        at: 0,
        change: {
          deadVolumeLPerM2: deadVolumeOfProfile({ profileMicron: low ? least : (most as number) }),
        },
        words,
      },
    ),
  ];
};

/** Wood and laminate are measured before they are closed in. [CP] */
export const moistureFirst: Rule = (stack) => {
  const [first] = stack.layers;
  const most = first?.sheet.moistureMax;
  const soaks = isBareTimber(stack.substrate) || stack.substrate === 'laminate';
  if (!first || most === undefined || !soaks || stack.existing !== 'bare' || stack.records.includes('moisture'))
    return [];
  return [
    finding(
      'moistureFirst',
      'note',
      0,
      'substrate',
      `The sheet of ${first.sheet.name} asks for ${Math.round(most * 100)} % of moisture at most: measure before it is closed in.`,
      { kind: 'record', record: 'moisture', words: 'Record what was measured' },
    ),
  ];
};
