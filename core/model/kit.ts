import type { RoundPot } from '../mix/fillHeights';

/** A pot or tub of the yard's, inside measures. */
export interface YardPot extends RoundPot {
  readonly id: string;
  readonly name: string;
}

/** A pump on a tin, calibrated. */
export interface YardPump {
  readonly id: string;
  readonly name: string;
  readonly mlPerStroke: number;
}

export interface YardSyringe {
  readonly id: string;
  readonly name: string;
  readonly ml: number;
}

/** What a yard measures paint with. */
export interface Kit {
  readonly pots: readonly YardPot[];
  readonly pumps: readonly YardPump[];
  readonly syringes: readonly YardSyringe[];
  /** What the scale shows in, g. */
  readonly scaleStepG: number;
}

/** What stands in most sheds. [M] */
export const USUAL_KIT: Kit = {
  pots: [
    { id: 'tub', name: 'Tub, 2.5 L', bottomMm: 150, topMm: 175, depthMm: 130 },
    { id: 'cup', name: 'Cup, 1 L', bottomMm: 85, topMm: 118, depthMm: 130 },
    { id: 'kettle', name: 'Straight kettle', bottomMm: 180, topMm: 180, depthMm: 180 },
  ],
  pumps: [],
  syringes: [
    { id: 's60', name: '60 mL', ml: 60 },
    { id: 's10', name: '10 mL', ml: 10 },
  ],
  scaleStepG: 1,
};
