import { USUAL_LOSS } from '../film/spreading';
import type { Layer } from '../model/layer';
import type { SheetBody, SheetRevision } from '../model/sheet';
import { chemistryOf, type Mend, type Wanted } from './stack';

export type Mended = { readonly layers: Layer[] } | { readonly problem: string };

const KIND_NAMES: Record<SheetBody['kind'], string> = {
  sealer: 'penetrating sealer',
  primer: 'primer',
  barrier: 'barrier',
  filler: 'filler',
  undercoat: 'undercoat',
  tieCoat: 'tie coat',
  topcoat: 'topcoat',
  nonSkid: 'non-skid',
  bilge: 'bilge coating',
  antifouling: 'antifouling',
  converter: 'rust converter',
};

/**
 * Do what a finding offers. Records are not coats: those are the caller's to write.
 * @param options.isOn whether a coat is on the boat: it stays in the record as it is
 * @param options.sheets what may be taken, the newest revision of each product
 * @param options.newId makes the id of an added coat
 * @returns the coats mended, or a sentence that says what is missing
 * @example
 *   applyMend({ layers, mend: { kind: 'remove', at: 0, words: '' }, sheets: [], newId: () => 'new' }).layers
 *     .length // → 1
 */
export function applyMend(options: {
  layers: readonly Layer[];
  mend: Mend;
  sheets: readonly SheetRevision[];
  newId: () => string;
  isOn?: (layerId: string) => boolean;
}): Mended {
  const { mend, sheets, newId, isOn } = options;
  const layers = [...options.layers];
  const touched = mend.kind === 'replace' || mend.kind === 'remove' || mend.kind === 'split' ? layers[mend.at] : null;
  if (touched && isOn?.(touched.id))
    return { problem: 'That coat is on the boat already and stays in the record as it is.' };
  switch (mend.kind) {
    case 'record':
      return { layers };
    case 'set':
      return { layers: layers.map((l, i) => (i === mend.at ? { ...l, ...mend.change } : l)) };
    case 'remove':
      return { layers: layers.filter((_l, i) => i !== mend.at) };
    case 'repeat': {
      const model = layers[mend.at];
      if (!model) return { layers };
      layers.splice(
        mend.at + 1,
        0,
        ...Array.from({ length: mend.times }, () => ({ ...model, id: newId(), stripe: undefined })),
      );
      return { layers };
    }
    case 'split': {
      const model = layers[mend.at];
      if (!model) return { layers };
      const half = { ...model, dftMicron: model.dftMicron / 2 };
      layers.splice(mend.at, 1, half, {
        ...half,
        id: newId(),
        prep: undefined,
        grit: undefined,
        abradeFor: undefined,
        stripe: undefined,
        absorption: undefined,
      });
      return { layers };
    }
    case 'insert':
    case 'replace': {
      const beside = layers[mend.at] ?? layers[mend.at - 1];
      const maker = sheets.find((s) => s.id === beside?.sheetRevisionId)?.body.maker;
      const found = suitable(sheets, mend.want, maker);
      if (!found)
        return {
          problem: `No sheet of a ${KIND_NAMES[mend.want.sheetKind]} like that is on the shelf. Add its sheet first.`,
        };
      const coat = layerOf(found, newId(), beside);
      if (mend.kind === 'insert') layers.splice(mend.at, 0, coat);
      else layers.splice(mend.at, 1, { ...coat, id: (layers[mend.at] as Layer).id });
      return { layers };
    }
  }
}

/**
 * A coat as its sheet recommends it, put on as its neighbour is.
 * @example layerOf(copper, 'new').dftMicron // → 100
 */
export function layerOf(revision: SheetRevision, id: string, beside?: Pick<Layer, 'method'>): Layer {
  const { body } = revision;
  const allowed = body.methods?.map((m) => m.method) ?? [];
  const wanted = beside?.method ?? 'roller';
  const method = allowed.length === 0 || allowed.includes(wanted) ? wanted : (allowed[0] as Layer['method']);
  const [colour] = body.colours;
  return {
    id,
    sheetRevisionId: revision.id,
    dftMicron: body.methods?.find((m) => m.method === method)?.dftMicron ?? body.dftMicron,
    method,
    thinnerShare: 0,
    loss: USUAL_LOSS[method],
    deadVolumeLPerM2: 0,
    colour: colour?.name ?? '',
    colourHex: colour?.hex ?? '#8f979b',
  };
}

/** The first product that fits, of the same maker if there is one: makers test their own coats on each other. */
function suitable(
  sheets: readonly SheetRevision[],
  want: Wanted,
  maker: string | undefined,
): SheetRevision | undefined {
  const fits = sheets.filter(({ body }) => {
    if (body.kind !== want.sheetKind) return false;
    if (want.copper === false && body.copper !== false) return false;
    if (want.potable && !body.potable) return false;
    if (want.chemistry && chemistryOf(body) !== want.chemistry) return false;
    if (want.hard === false && (body.antifouling?.type ?? 'hard') === 'hard') return false;
    return !want.waters || body.antifouling?.waters?.includes(want.waters) === true;
  });
  return fits.find((s) => s.body.maker === maker) ?? fits[0];
}

/** A stop that a person let stand, with why. It falls when either coat of it changes product. */
export interface Override {
  readonly rule: string;
  /** What `overrideKey` gave when it was written. */
  readonly key: string;
  readonly reason: string;
  readonly at: number;
  readonly painter: string;
}

/**
 * Names a finding by the coats it is about, so that a reason written for it holds for that pair only.
 * @example
 *   overrideKey({ rule: 'copperOnMetal', upper: 0, lower: 'substrate' }, layers) // → 'copperOnMetal:first/barrier-r1:substrate'
 */
export function overrideKey(
  finding: { rule: string; upper: number | null; lower: number | 'substrate' | 'existing' | null },
  layers: readonly Pick<Layer, 'id' | 'sheetRevisionId'>[],
): string {
  const name = (place: number | string | null) => {
    const layer = typeof place === 'number' ? layers[place] : null;
    return layer ? `${layer.id}/${layer.sheetRevisionId}` : String(place);
  };
  return `${finding.rule}:${name(finding.upper)}:${name(finding.lower)}`;
}

/**
 * The overrides with one more, or with a new reason for one that was there.
 * @param options.said why it may stand, who says so and when
 * @example
 *   letStand({
 *     overrides: [],
 *     finding: { rule: 'copperOnMetal', upper: 0, lower: 'substrate' },
 *     layers,
 *     said: { reason: 'Isolated.', at: noon, painter: '' },
 *   }).map((o) => o.rule) // → ['copperOnMetal']
 */
export function letStand(options: {
  overrides: readonly Override[];
  finding: Parameters<typeof overrideKey>[0];
  layers: Parameters<typeof overrideKey>[1];
  said: Pick<Override, 'reason' | 'at' | 'painter'>;
}): Override[] {
  const { overrides, finding, layers, said } = options;
  const key = overrideKey(finding, layers);
  return [...overrides.filter((o) => o.key !== key), { rule: finding.rule, key, ...said }];
}
