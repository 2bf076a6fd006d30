import {
  ratioLedger,
  type LedgerBatch,
  type LedgerCheck,
  type LedgerKit,
  type LedgerWeighing,
} from '../mix/ratioLedger';
import { lotStates, type LookedAt, type Lot, type Pour } from './lots';

/** What the log and the tins tell of one product, as its ledger wants it. */
export interface ProductFacts {
  readonly kits: readonly LedgerKit[];
  readonly batches: readonly LedgerBatch[];
  readonly weighings: readonly LedgerWeighing[];
}

/** Tins looked at within half a day of each other are one look at the shelf. */
const ONE_LOOK_MS = 12 * 3_600_000;

/** A batch of the product, and what it took. */
export interface LedgerPour extends LedgerBatch {
  /** The tins that it named. */
  readonly from?: readonly { readonly part: string; readonly lotId: string; readonly litres: number }[];
}

const looksOf = (lot: Lot): LookedAt[] =>
  [...(lot.past ?? []), { at: lot.measuredAt, leftL: lot.leftL }].sort((a, b) => a.at - b.at);

/**
 * Kits, batches and weighings of a product, out of its tins and its batches. A tin comes in as it was first looked at;
 * whenever one is looked at again, that is a weighing of the whole product, the other tins as the log has them.
 * @param options.parts names of its parts, the base first
 * @param options.lots its tins, those off the shelf too
 * @example
 *   productFacts({
 *     parts: ['Paint'],
 *     lots: [{ ...tin, measuredAt: noon, leftL: 1.4, past: [{ at: noon - 2 * hour, leftL: 2.5 }] }],
 *     batches: [{ id: 'a', at: noon - hour, partsL: [1] }],
 *   }).weighings // → [{ at: 1780315200000, leftL: [1.4] }]
 */
export function productFacts(options: {
  parts: readonly string[];
  lots: readonly Lot[];
  batches: readonly LedgerPour[];
}): ProductFacts {
  const { parts } = options;
  const lots = options.lots.filter((lot) => parts.includes(lot.part));
  const arrivals = lots.map((lot) => ({ lot, look: looksOf(lot)[0] as LookedAt }));
  const since = Math.min(Infinity, ...arrivals.map((a) => a.look.at));
  const batches = options.batches.filter((b) => b.at >= since && b.partsL.length === parts.length);
  const kits = arrivals.map(({ lot, look }) => ({
    at: look.at,
    partsL: parts.map((p) => (p === lot.part ? look.leftL : 0)),
  }));
  const weighings = lookAgains(lots).map((looks) => {
    const at = Math.max(...looks.map((l) => l.at));
    const pours = batches.filter((b) => b.at <= at).flatMap((b) => poursOf(b, parts, lots[0]?.sheetId ?? ''));
    const seen = new Map(looks.map((l) => [l.lotId, l.leftL]));
    const states = lotStates({ lots: asOf(lots, at, seen), pours, today: '', shelfOf: () => ({}) });
    return {
      at,
      leftL: parts.map((p) => states.reduce((sum, s) => sum + (s.part === p ? (seen.get(s.id) ?? s.nowL) : 0), 0)),
    };
  });
  return { kits, batches: batches.map(({ id, at, partsL }) => ({ id, at, partsL })), weighings };
}

/** Tins that were looked at again, together where that was within half a day. */
function lookAgains(lots: readonly Lot[]): (LookedAt & { lotId: string })[][] {
  const all = lots
    .flatMap((lot) =>
      looksOf(lot)
        .slice(1)
        .map((look) => ({ ...look, lotId: lot.id })),
    )
    .sort((a, b) => a.at - b.at);
  const groups: (LookedAt & { lotId: string })[][] = [];
  for (const look of all) {
    const group = groups[groups.length - 1];
    if (group && look.at - (group[0] as LookedAt).at <= ONE_LOOK_MS) group.push(look);
    else groups.push([look]);
  }
  return groups;
}

/** The tins as they were last looked at by a moment, those looked at just then as they were before. */
function asOf(lots: readonly Lot[], at: number, seen: ReadonlyMap<string, number>): Lot[] {
  return lots.flatMap((lot) => {
    const looks = looksOf(lot).filter((l) => l.at <= at);
    const last = (seen.has(lot.id) ? looks[looks.length - 2] : undefined) ?? looks[looks.length - 1];
    return last ? [{ ...lot, leftL: last.leftL, measuredAt: last.at, past: [] }] : [];
  });
}

/**
 * What a batch took of each part, by the tins that it named.
 * @example
 *   poursOf(
 *     { id: 'a', at: noon, partsL: [2], from: [{ part: 'Paint', lotId: 'tin', litres: 1.5 }] },
 *     ['Paint'],
 *     'copper',
 *   ).map((p) => p.litres) // → [1.5, 0.5]
 */
export function poursOf(batch: LedgerPour, parts: readonly string[], sheetId: string): Pour[] {
  return parts.flatMap((part, i) => {
    const litres = batch.partsL[i] as number;
    const named = (batch.from ?? []).filter((f) => f.part === part);
    const rest = litres - named.reduce((sum, f) => sum + f.litres, 0);
    const pour = { sheetId, part, at: batch.at };
    return [
      ...named.map((f) => ({ ...pour, litres: f.litres, lotId: f.lotId })),
      ...(rest > 1e-9 ? [{ ...pour, litres: rest }] : []),
    ];
  });
}

/** The ledger of a product: its checks, the newest last. */
export interface ProductLedger extends ProductFacts {
  readonly checks: readonly LedgerCheck[];
}

/**
 * The ratio ledger of a product, out of its tins and its batches.
 * @param options.ratio by volume, a figure a part
 * @throws RangeError on impossible input
 * @example
 *   productLedger({
 *     parts: ['Paint'],
 *     ratio: [1],
 *     lots: [{ ...tin, measuredAt: noon, leftL: 1.4, past: [{ at: noon - 2 * hour, leftL: 2.5 }] }],
 *     batches: [{ id: 'a', at: noon - hour, partsL: [1] }],
 *     toleranceShare: 0.05,
 *   }).checks.map((c) => c.suspects) // → [['a']]
 */
export function productLedger(options: {
  parts: readonly string[];
  ratio: readonly number[];
  lots: readonly Lot[];
  batches: readonly LedgerPour[];
  toleranceShare: number;
}): ProductLedger {
  const facts = productFacts(options);
  const { ratio, toleranceShare } = options;
  return { ...facts, ...ratioLedger({ ...facts, ratio, toleranceShare }) };
}
