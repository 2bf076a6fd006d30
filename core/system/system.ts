import type { Layer } from '../model/layer';
import { USUAL_LOSS } from '../film/spreading';
import type { SheetRevision } from '../model/sheet';
import { layerOf } from './mend';
import { counted } from '../units/format';

/** Where a zone's coats stand to the named build-up they came from. */
export interface Departure {
  readonly follows: boolean;
  /** What differs, one short piece each: "coat 2 thicker", "one coat more". */
  readonly differences: readonly string[];
}

/** What of a coat makes it the same coat; colours and ids are each zone's own. */
const SAME: readonly (keyof Layer)[] = [
  'sheetRevisionId',
  'dftMicron',
  'method',
  'thinnerShare',
  'prep',
  'grit',
  'abradeFor',
  'stripe',
];

/**
 * Hold a zone's coats against the named build-up they follow.
 * @param options.sheetOf tells products apart from revisions: a newer revision of one product is no departure
 * @example
 *   departure({ named: layers, layers: layers.slice(0, 1), sheetOf: sheetIdOf }).differences // → ['1 coat fewer']
 */
export function departure({
  named,
  layers,
  sheetOf,
}: {
  named: readonly Layer[];
  layers: readonly Layer[];
  sheetOf: (revisionId: string) => string;
}): Departure {
  const differences: string[] = [];
  const more = layers.length - named.length;
  if (more !== 0) differences.push(`${counted(Math.abs(more), 'coat')} ${more > 0 ? 'more' : 'fewer'}`);
  for (let i = 0; i < Math.min(layers.length, named.length); i += 1) {
    const [own, model] = [layers[i] as Layer, named[i] as Layer];
    if (sheetOf(own.sheetRevisionId) !== sheetOf(model.sheetRevisionId)) {
      differences.push(`coat ${i + 1} is another product`);
      continue;
    }
    if (own.dftMicron !== model.dftMicron)
      differences.push(`coat ${i + 1} is ${own.dftMicron > model.dftMicron ? 'thicker' : 'thinner'}`);
    const others = SAME.slice(2).filter((key) => (own[key] ?? null) !== (model[key] ?? null));
    if (others.length > 0) differences.push(`coat ${i + 1} is put on otherwise`);
  }
  return { follows: differences.length === 0, differences };
}

/**
 * A named build-up's coats for one zone, keeping what is on it already: a coat that is on stays as it was logged,
 * with its id, as long as it is of the same product in the same place.
 * @param options.isOn whether a coat of the zone has been put on
 * @param options.newId left out where the coats are only shown: those to come are then the named build-up's own
 * @returns null where coats that are on do not fit the named build-up
 * @example
 *   applyNamed({ named: layers, current: [], isOn: () => false, sheetOf: sheetIdOf, newId: () => 'new' })
 *     .length // → 2
 */
export function applyNamed(options: {
  named: readonly Layer[];
  current: readonly Layer[];
  isOn: (layerId: string) => boolean;
  sheetOf: (revisionId: string) => string;
  newId?: () => string;
}): readonly Layer[] | null {
  const { named, current, isOn, sheetOf, newId } = options;
  const on = current.filter((l) => isOn(l.id));
  const fits =
    on.length <= named.length &&
    on.every((l, i) => sheetOf(l.sheetRevisionId) === sheetOf((named[i] as Layer).sheetRevisionId));
  if (!fits) return null;
  // The very same coats, so that a ledger works them out once for all zones that are shown them.
  if (on.length === 0 && !newId) return named;
  return named.map((layer, i) => on[i] ?? (newId ? { ...layer, id: newId() } : layer));
}

/**
 * A coat of another product in the same place: that product's own film and colour, by a method its sheet allows; what
 * was thinned for the old one no longer holds.
 * @example onProduct(layer, copper).sheetRevisionId // → 'copper-r1'
 */
export function onProduct(layer: Layer, to: SheetRevision): Layer {
  const fresh = layerOf(to, layer.id, layer);
  const usualLoss = layer.loss === USUAL_LOSS[layer.method];
  return {
    ...layer,
    ...fresh,
    loss: usualLoss ? fresh.loss : layer.loss,
    deadVolumeLPerM2: layer.deadVolumeLPerM2,
    thinnerFamily: undefined,
    ...(to.body.colours.length === 0 ? { colour: layer.colour, colourHex: layer.colourHex } : {}),
  };
}

/**
 * One more of a coat, right on it: what only a first coat gets is not done again.
 * @example repeatCoat(layers, 'first', () => 'again').map((l) => l.id) // → ['first', 'again', 'second']
 */
export function repeatCoat(layers: readonly Layer[], layerId: string, newId: () => string): Layer[] {
  return layers.flatMap((l) =>
    l.id === layerId ? [l, { ...l, id: newId(), stripe: undefined, absorption: undefined }] : [l],
  );
}

/**
 * The coats in another order, the outermost last.
 * @returns a sentence where a coat to come would lie beneath one that is on the boat
 * @example
 *   reorderCoats({ layers, ids: ['second', 'first'], isOn: () => false }).layers.map((l) => l.id) // → ['second', 'first']
 */
export function reorderCoats(options: {
  layers: readonly Layer[];
  ids: readonly string[];
  isOn: (layerId: string) => boolean;
}): { layers: Layer[] } | { problem: string } {
  const { layers, ids, isOn } = options;
  const byId = new Map(layers.map((l) => [l.id, l]));
  const next = ids.flatMap((id) => byId.get(id) ?? []);
  const firstToCome = next.findIndex((l) => !isOn(l.id));
  return firstToCome >= 0 && next.slice(firstToCome).some((l) => isOn(l.id))
    ? { problem: 'That coat is on the boat already: nothing goes beneath it.' }
    : { layers: next };
}

/**
 * Put another product in place of one, in coats that are not on yet; its own film and colour, the rest as it was.
 * @example
 *   swapProduct({
 *     layers,
 *     isOn: () => false,
 *     isFrom: (l) => l.id === 'first',
 *     to: (l) => onProduct(l, copper),
 *   }).map((l) => l.sheetRevisionId) // → ['copper-r1', 'copper-r1']
 */
export function swapProduct(options: {
  layers: readonly Layer[];
  isOn: (layerId: string) => boolean;
  isFrom: (layer: Layer) => boolean;
  to: (layer: Layer) => Layer;
}): Layer[] {
  return options.layers.map((layer) =>
    options.isFrom(layer) && !options.isOn(layer.id) ? { ...options.to(layer), id: layer.id } : layer,
  );
}

/** How many zones a changed build-up reaches, and how. */
export interface Followers<Z> {
  readonly follow: readonly Z[];
  readonly departed: readonly { readonly zone: Z; readonly differences: readonly string[] }[];
}

/**
 * Tell the zones that still are as the named build-up has it from those that went their own way.
 * @example followers({ named: layers, zones: [{ layers, namedId: 'n' }], sheetOf: sheetIdOf }).follow.length // → 1
 */
export function followers<Z extends { readonly layers: readonly Layer[] }>({
  named,
  zones,
  sheetOf,
}: {
  named: readonly Layer[];
  zones: readonly Z[];
  sheetOf: (revisionId: string) => string;
}): Followers<Z> {
  const compared = zones.map((zone) => ({ zone, ...departure({ named, layers: zone.layers, sheetOf }) }));
  return {
    follow: compared.filter((t) => t.follows).map((t) => t.zone),
    departed: compared.filter((t) => !t.follows).map(({ zone, differences }) => ({ zone, differences })),
  };
}
