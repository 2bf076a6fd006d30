import type { QuantityName } from './units/quantities';

/** Where a figure comes from. `P` published, `CP` common practice, `M` from memory, `user` typed in. */
export type Source =
  | { label: 'P'; name: string }
  | { label: 'CP' }
  | { label: 'M' }
  | { label: 'sheet'; name: string }
  | { label: 'user' };

/** The working behind one figure, shown when a person asks why. */
export interface Working {
  /** What was worked out, in the trade's words. */
  readonly what: string;
  /** The formula in words. */
  readonly formula: string;
  /** The figures that went in, SI, with the quantity they are shown in. */
  readonly inputs: readonly { name: string; value: number; quantity: QuantityName | 'plain' | 'share' }[];
  readonly source: Source;
  /** What would change the answer most, in one sentence. */
  readonly mattersMost?: string;
}
