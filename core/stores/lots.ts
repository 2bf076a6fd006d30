import { notNegative } from '../guard';
import type { FromTin } from '../model/log';

/** A tin on the shelf: one part of one product, with what was left of it when it was last looked at. */
export interface Lot {
  readonly id: string;
  readonly sheetId: string;
  /** Name of the part in it. */
  readonly part: string;
  readonly sizeL: number;
  readonly batchNumber: string;
  readonly supplier: string;
  /** Civil dates. */
  readonly boughtOn: string | null;
  readonly openedOn: string | null;
  /** As printed on the tin. */
  readonly expiresOn: string | null;
  /** Litres left when it was measured, and when that was, epoch ms. */
  readonly leftL: number;
  readonly measuredAt: number;
  /** How that was found; the weights stand with it where it was weighed. */
  readonly weighed: { readonly grossKg: number; readonly tareKg: number } | null;
  /** When it was looked at before, and what was left then, oldest first. */
  readonly past?: readonly LookedAt[];
  readonly note: string;
}

export interface LookedAt {
  readonly at: number;
  readonly leftL: number;
}

/** What a batch took of one part of a product. */
export interface Pour {
  readonly sheetId: string;
  readonly part: string;
  readonly litres: number;
  readonly at: number;
  /** The tin it was poured from, where the batch said so. */
  readonly lotId?: string;
  /** Thinner: of one name it is the same whichever paint it went into. */
  readonly thinner?: boolean;
}

/** Whether a tin can have given a pour. */
const gave = (lot: Pick<Lot, 'sheetId' | 'part'>, pour: Pick<Pour, 'sheetId' | 'part' | 'thinner'>): boolean =>
  lot.part === pour.part && (pour.thinner === true || lot.sheetId === pour.sheetId);

const DAY_MS = 86_400_000;

/**
 * Pours told together where it makes no difference to what is left in any tin: those of one part on one day (UTC)
 * between two moments at which a tin of it was measured. What no tin can have given, or gave before it was measured
 * last, is left out.
 * @example
 *   mergedPours(
 *     [
 *       { sheetId: 'copper', part: 'Paint', litres: 1, at: noon },
 *       { sheetId: 'copper', part: 'Paint', litres: 2, at: noon },
 *     ],
 *     [{ sheetId: 'copper', part: 'Paint', measuredAt: 0 }],
 *   ).map((p) => p.litres) // → [3]
 */
export function mergedPours(
  pours: readonly Pour[],
  lots: readonly Pick<Lot, 'sheetId' | 'part' | 'measuredAt'>[],
): Pour[] {
  const merged = new Map<string, Pour>();
  for (const pour of pours) {
    const measured = lots.filter((lot) => gave(lot, pour)).map((lot) => lot.measuredAt);
    const since = measured.filter((at) => at <= pour.at).length;
    if (since === 0) continue;
    const of = pour.thinner ? 'thinner' : pour.sheetId;
    const group = `${of}/${pour.part}/${pour.lotId ?? ''}/${since}/${Math.floor(pour.at / DAY_MS)}`;
    const found = merged.get(group);
    merged.set(group, found ? { ...found, litres: found.litres + pour.litres, at: Math.min(found.at, pour.at) } : pour);
  }
  return [...merged.values()].sort((a, b) => a.at - b.at);
}

export interface LotState extends Lot {
  /** Litres left now: what was measured less what batches have taken since. */
  readonly nowL: number;
  /** The day from which it is stale, civil date; null where nothing tells. */
  readonly staleFrom: string | null;
  readonly stale: boolean;
  /** Civil date (UTC) on which a batch first took from a tin that nobody had said was open. */
  readonly tappedOn: string | null;
}

/** Months later, on the same day or the last of the month. */
export function addMonths(date: string, months: number): string {
  const [y, m, d] = date.split('-').map(Number) as [number, number, number];
  const month = m - 1 + Math.round(months);
  const year = y + Math.floor(month / 12);
  const inYear = ((month % 12) + 12) % 12;
  const last = new Date(Date.UTC(year, inYear + 1, 0)).getUTCDate();
  return `${year}-${String(inYear + 1).padStart(2, '0')}-${String(Math.min(d, last)).padStart(2, '0')}`;
}

/** The first day on which a tin is stale: the printed date, or the sheet's shelf life closed from when it was bought and open from when it was opened, whichever comes first. */
export function staleFrom(
  lot: Pick<Lot, 'boughtOn' | 'openedOn' | 'expiresOn'>,
  shelf: { readonly shelfClosedMonths?: number | undefined; readonly shelfOpenMonths?: number | undefined },
): string | null {
  const dates = [
    lot.expiresOn,
    lot.boughtOn && shelf.shelfClosedMonths !== undefined ? addMonths(lot.boughtOn, shelf.shelfClosedMonths) : null,
    lot.openedOn && shelf.shelfOpenMonths !== undefined ? addMonths(lot.openedOn, shelf.shelfOpenMonths) : null,
  ];
  return dates.filter((d) => d !== null).sort()[0] ?? null;
}

/**
 * What is left in each tin now. What a batch took goes off the tins that it named; where it named none, open tins go
 * first, then those that go stale first.
 * @param options.today civil date, tells what is stale
 * @param options.shelfOf shelf life of a product
 * @example
 *   lotStates({
 *     lots: [tin],
 *     pours: [{ sheetId: 'copper', part: 'Paint', litres: 1, at: noon }],
 *     today: '2026-06-01',
 *     shelfOf: () => ({}),
 *   }).map((l) => l.nowL) // → [1.5]
 */
export function lotStates(options: {
  lots: readonly Lot[];
  pours: readonly Pour[];
  today: string;
  shelfOf: (sheetId: string) => Parameters<typeof staleFrom>[1];
}): LotState[] {
  const aged = (lot: Lot, tappedOn: string | null) => {
    const from = staleFrom({ ...lot, openedOn: lot.openedOn ?? tappedOn }, options.shelfOf(lot.sheetId));
    return { staleFrom: from, stale: from !== null && from <= options.today, tappedOn };
  };
  const states = options.lots.map((lot) => ({
    ...lot,
    nowL: notNegative(lot.leftL, 'What is left'),
    ...aged(lot, null),
  }));
  const order = [...states].sort(firstToUse);
  for (const pour of [...options.pours].sort((a, b) => a.at - b.at)) {
    let left = pour.litres;
    const named = order.filter((lot) => lot.id === pour.lotId);
    for (const lot of named.length > 0 ? [...named, ...order] : order) {
      if (left <= 0) break;
      if (!gave(lot, pour) || lot.measuredAt > pour.at) continue;
      const taken = Math.min(left, lot.nowL);
      if (taken > 0 && lot.openedOn === null && lot.tappedOn === null)
        Object.assign(lot, aged(lot, new Date(pour.at).toISOString().slice(0, 10)));
      lot.nowL -= taken;
      left -= taken;
    }
  }
  return states;
}

/** Which tin is used up first: one that is open, then what goes stale first, then what was looked at longest ago. */
const firstToUse = (
  a: Pick<LotState, 'openedOn' | 'staleFrom' | 'measuredAt'>,
  b: Pick<LotState, 'openedOn' | 'staleFrom' | 'measuredAt'>,
): number =>
  Number(b.openedOn !== null) - Number(a.openedOn !== null) ||
  (a.staleFrom ?? '9').localeCompare(b.staleFrom ?? '9') ||
  a.measuredAt - b.measuredAt;

/**
 * The tins that a pour is best taken from: opened first, oldest first, those past their date only where nothing else is
 * left. Less than was wanted where the shelf has no more.
 * @param options.thinner it is thinner: of one name it is the same on every sheet
 * @example
 *   tinsFor({
 *     states: [{ ...tin, nowL: 2.5, staleFrom: null, stale: false, tappedOn: null }],
 *     of: { sheetId: 'copper', part: 'Paint' },
 *     wantL: 1,
 *   }) // → [{ part: 'Paint', lotId: 'tin', litres: 1 }]
 */
export function tinsFor(options: {
  states: readonly LotState[];
  of: Pick<Pour, 'sheetId' | 'part' | 'thinner'>;
  wantL: number;
}): FromTin[] {
  const { states, of, wantL } = options;
  const tins = states
    .filter((lot) => gave(lot, of) && lot.nowL > 0)
    .sort((a, b) => Number(a.stale) - Number(b.stale) || firstToUse(a, b));
  const from: FromTin[] = [];
  let left = wantL;
  for (const lot of tins) {
    if (left <= 1e-9) break;
    const litres = Math.min(left, lot.nowL);
    from.push({ part: of.part, lotId: lot.id, litres });
    left -= litres;
  }
  return from;
}

/**
 * Litres of each part of a product on the shelf, in the order of its parts; stale tins are not counted on.
 * @example
 *   onShelf([{ ...tin, nowL: 2.5, staleFrom: null, stale: false, tappedOn: null }], 'copper', copper.body.parts) // → [2.5]
 */
export function onShelf(
  states: readonly LotState[],
  sheetId: string,
  parts: readonly { readonly name: string }[],
): number[] {
  return parts.map((part) =>
    states.reduce(
      (sum, lot) => sum + (lot.sheetId === sheetId && lot.part === part.name && !lot.stale ? lot.nowL : 0),
      0,
    ),
  );
}

/** What the shelf says before a pot is poured for a coat. */
export interface ShelfSays {
  /** Tins of the product that are past their date, and not empty. */
  readonly stale: readonly LotState[];
  /** Parts of which there is less on the shelf than the coat takes, litres. */
  readonly short: readonly {
    readonly name: string;
    readonly wantL: number;
    /** What may be poured: what is on the shelf less what is held back. */
    readonly haveL: number;
    readonly heldL: number;
  }[];
}

/** Less than this is what sticks to the tin, L. */
const DREGS_L = 0.02;

/**
 * Whether the shelf is fit for a coat; of a product that the yard keeps no tins of, nothing is said.
 * @param options.parts litres that the coat still takes of each part, and what is held back of it for patches
 * @example
 *   shelfSays({ states: [], sheetId: 'copper', parts: [{ name: 'Paint', wantL: 2 }] }).short // → []
 */
export function shelfSays(options: {
  states: readonly LotState[];
  sheetId: string;
  parts: readonly { readonly name: string; readonly wantL: number; readonly heldL?: number }[];
}): ShelfSays {
  const { sheetId, parts } = options;
  const own = options.states.filter((lot) => lot.sheetId === sheetId);
  if (own.length === 0) return { stale: [], short: [] };
  const have = onShelf(own, sheetId, parts);
  return {
    stale: own.filter((lot) => lot.stale && lot.nowL > DREGS_L),
    short: parts
      .map((p, i) => ({ ...p, heldL: p.heldL ?? 0, haveL: Math.max(0, (have[i] ?? 0) - (p.heldL ?? 0)) }))
      .filter((p) => p.haveL + DREGS_L < p.wantL),
  };
}
