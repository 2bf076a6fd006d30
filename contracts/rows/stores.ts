import { USUAL_CONSUMABLES } from '#core/stores/consumables';
import type { ConsumableRule } from '#core/stores/consumables';
import type { Lesson } from '#core/coat/lesson';
import type { Hand } from '#core/model/jobPlan';
import type { PaintMethod } from '#core/model/paintMethod';
import { USUAL_KIT, type Kit } from '#core/model/kit';
import type { LedgerPour } from '#core/stores/productLedger';
import type { Lot, Pour } from '#core/stores/lots';
import type { CoatNeed } from '#core/stores/needs';

export interface LotRow extends Lot {
  version: number;
  deleted: boolean;
}

/** What the yard has decided for all its jobs; one row for good. */
export interface YardRules {
  id: string;
  /** Paint is to be enough in so many cases, share. */
  chance: number;
  consumables: ConsumableRule[];
  /** The working day, minutes after midnight: starts are offered within it. */
  workFromMin: number;
  workToMin: number;
  /** ISO 4217, of all prices. */
  currency: string;
  /** Pots, pumps, syringes and the scale. */
  kit: Kit;
  /** Rates that were learned and taken: m² an hour of one painter, by product and way. */
  rates: TakenRate[];
  /** How products were found to dry against their tables, and taken. */
  drying: TakenDrying[];
  /** Who paints, when and for how much; empty: one painter, in the yard's working day. */
  hands: Hand[];
  /** What a heated tent loses for each degree, and what heat costs; null: the usual ones. */
  heat?: { readonly wattsPerC: number; readonly priceMinorPerKWh: number } | null;
  version: number;
}

export const YARD_RULES_ID = '01900000-0000-7000-8fff-000000000001';

/** One boat's call on the shelf; boats come in the order of their launch. */
export interface StoresBoat {
  boatId: string;
  name: string;
  launchOn: string | null;
  needs: CoatNeed[];
}

/** The shelf and everything that draws on it, in one answer. */
export interface Stores {
  /** Today at the yard, civil date. */
  today: string;
  lots: LotRow[];
  pours: Pour[];
  boats: StoresBoat[];
  rules: YardRules;
}

/** What a yard starts from: usual amounts; what things cost there nobody knows. */
export const USUAL_RULES: YardRules = {
  id: YARD_RULES_ID,
  chance: 0.9,
  consumables: USUAL_CONSUMABLES.map((c) => ({ ...c, priceMinor: null })),
  workFromMin: 8 * 60,
  workToMin: 18 * 60,
  currency: 'EUR',
  kit: USUAL_KIT,
  rates: [],
  drying: [],
  hands: [],
  heat: null,
  version: 0,
};

/** A rate that somebody took instead of the usual one, and on how many coats it rests. */
export interface TakenRate {
  sheetId: string;
  method: PaintMethod;
  rateM2PerH: number;
  coats: number;
}

/** Times of a product's table, as a multiple, that somebody took, and on how many coats it rests. */
export interface TakenDrying {
  sheetId: string;
  factor: number;
  coats: number;
}

/** A batch as the ratio ledger of its product tells it: on which boat, and in which coats it is. */
export interface LedgerBatchRow extends LedgerPour {
  boatId: string;
  boatName: string;
  coats: { coatId: string; zones: string[] }[];
  /** By the ratio it was to have, where that is another than the sheet's own. */
  use: string | null;
}

/** The tins and batches of one product, all boats together. */
export interface LedgerFacts {
  sheetId: string;
  lots: LotRow[];
  batches: LedgerBatchRow[];
  /** What its finished coats teach. */
  lessons: Lesson[];
}
