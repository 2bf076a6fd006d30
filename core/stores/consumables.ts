import { notNegative } from '../guard';
import type { Layer } from '../model/layer';
import { Impossible } from '../impossible';

/** What one of a consumable is counted by. */
export const PER = [
  'job',
  'zone',
  'coat',
  'tippedCoat',
  'batch',
  'coatM2',
  'abradedM2',
  'borderM',
  'washL',
  'day',
] as const;
export type Per = (typeof PER)[number];

/** One rule: so many for so much. The yard edits these. */
export interface ConsumableRule {
  readonly id: string;
  readonly name: string;
  /** How many for each of `per`: 0.1 for each m² is one in ten. */
  readonly amount: number;
  readonly per: Per;
  /** Only for coats put on this way; null for all. */
  readonly method: Layer['method'] | null;
  /** How many come in one pack. */
  readonly inPack: number;
  /** Minor units, one pack; null where it is not known. */
  readonly priceMinor: number | null;
  readonly supplier: string;
}

/** What a job's coats come to, by what rules count. */
export interface WorkDone {
  readonly zones: number;
  readonly coats: readonly {
    readonly method: Layer['method'];
    readonly tipped: boolean;
    readonly areaM2: number;
    readonly abradedM2: number;
    readonly batches: number;
  }[];
  /** Edges to tape, m, each as often as it is taped. */
  readonly borderM: number;
  /** Abraded before a first coat, or because a window has closed, m². */
  readonly prepM2: number;
  /** Concentrate that goes into washes, L. */
  readonly washL: number;
  readonly days: number;
}

/** Usual use. [M] The yard changes it to its own. */
export const USUAL_CONSUMABLES: readonly ConsumableRule[] = [
  {
    id: 'roller',
    name: 'Roller sleeves',
    amount: 1,
    per: 'coat',
    method: 'roller',
    inPack: 1,
    priceMinor: 240,
    supplier: '',
  },
  { id: 'brush', name: 'Brushes', amount: 1, per: 'zone', method: null, inPack: 1, priceMinor: 450, supplier: '' },
  {
    id: 'tip',
    name: 'Tipping brushes',
    amount: 0.5,
    per: 'tippedCoat',
    method: 'roller',
    inPack: 1,
    priceMinor: 780,
    supplier: '',
  },
  {
    id: 'tray',
    name: 'Tray liners',
    amount: 1,
    per: 'batch',
    method: 'roller',
    inPack: 5,
    priceMinor: 390,
    supplier: '',
  },
  {
    id: 'pot',
    name: 'Mixing pots with sticks',
    amount: 1,
    per: 'batch',
    method: null,
    inPack: 10,
    priceMinor: 650,
    supplier: '',
  },
  {
    id: 'gloves',
    name: 'Gloves, pairs',
    amount: 2,
    per: 'coat',
    method: null,
    inPack: 50,
    priceMinor: 1250,
    supplier: '',
  },
  {
    id: 'disc',
    name: 'Abrasive discs',
    amount: 0.5,
    per: 'abradedM2',
    method: null,
    inPack: 10,
    priceMinor: 990,
    supplier: '',
  },
  {
    id: 'fineLine',
    name: 'Fine-line tape, rolls of 33 m',
    amount: 0.033,
    per: 'borderM',
    method: null,
    inPack: 1,
    priceMinor: 620,
    supplier: '',
  },
  {
    id: 'tape',
    name: 'Masking tape, rolls of 50 m',
    amount: 0.022,
    per: 'borderM',
    method: null,
    inPack: 1,
    priceMinor: 480,
    supplier: '',
  },
  {
    id: 'wash',
    name: 'Wash concentrate, L',
    amount: 1,
    per: 'washL',
    method: null,
    inPack: 1,
    priceMinor: 890,
    supplier: '',
  },
  {
    id: 'filter',
    name: 'Paint filters',
    amount: 1,
    per: 'batch',
    method: 'spray',
    inPack: 25,
    priceMinor: 600,
    supplier: '',
  },
  {
    id: 'wipes',
    name: 'Wiping cloths',
    amount: 0.2,
    per: 'coatM2',
    method: null,
    inPack: 50,
    priceMinor: 1100,
    supplier: '',
  },
];

export interface ConsumableNeed {
  readonly rule: ConsumableRule;
  readonly count: number;
  readonly packs: number;
  readonly costMinor: number | null;
}

/**
 * Consumables by the yard's rules, those that come to nothing left out.
 * @throws RangeError on impossible rules
 * @example
 *   consumablesFor({
 *     rules: [
 *       {
 *         id: 'r',
 *         name: 'Roller',
 *         amount: 1,
 *         per: 'coat',
 *         method: 'roller',
 *         inPack: 10,
 *         priceMinor: 900,
 *         supplier: '',
 *       },
 *     ],
 *     work: {
 *       zones: 1,
 *       coats: [{ method: 'roller', tipped: false, areaM2: 10, abradedM2: 0, batches: 1 }],
 *       borderM: 0,
 *       prepM2: 0,
 *       washL: 0,
 *       days: 1,
 *     },
 *   }).map((c) => c.packs) // → [1]
 */
export function consumablesFor({
  rules,
  work,
}: {
  rules: readonly ConsumableRule[];
  work: WorkDone;
}): ConsumableNeed[] {
  return rules.flatMap((rule) => {
    const coats = work.coats.filter((c) => rule.method === null || c.method === rule.method);
    const total = (of: (c: WorkDone['coats'][number]) => number) => coats.reduce((sum, c) => sum + of(c), 0);
    const units: Record<Per, number> = {
      job: coats.length > 0 ? 1 : 0,
      zone: coats.length > 0 ? work.zones : 0,
      coat: coats.length,
      tippedCoat: total((c) => (c.tipped ? 1 : 0)),
      batch: total((c) => c.batches),
      coatM2: total((c) => c.areaM2),
      abradedM2: total((c) => c.abradedM2) + (coats.length > 0 ? work.prepM2 : 0),
      borderM: coats.length > 0 ? work.borderM : 0,
      washL: work.washL,
      day: coats.length > 0 ? work.days : 0,
    };
    const count = Math.ceil(notNegative(rule.amount, `The amount of ${rule.name}`) * units[rule.per] - 1e-9);
    if (count <= 0) return [];
    if (!(rule.inPack >= 1)) throw new Impossible(`${rule.name}: a pack holds at least one.`);
    const packs = Math.ceil(count / rule.inPack);
    return [{ rule, count, packs, costMinor: rule.priceMinor === null ? null : packs * rule.priceMinor }];
  });
}
