import { chemistryOf, isAntifouling, type Finding, finding, type StackLayer } from './stack';
import type { Exposure } from '../model/surface';

/** How the coats above the epoxy meet at the line between two zones. */
export const BORDER_RULES = ['butt', 'overlap', 'stripe'] as const;
export type BorderRule = (typeof BORDER_RULES)[number];

export interface Border {
  readonly id: string;
  readonly upperId: string;
  readonly lowerId: string;
  readonly rule: BorderRule;
  /** Width of the overlap or of the stripe left between, m; 0 for a butt. */
  readonly widthM: number;
  /** The protective epoxy runs unbroken across it. */
  readonly epoxyRunsOn: boolean;
  /** Width that is painted by hand along it before the rest, m; 0 for none. */
  readonly handStripM: number;
  readonly note: string;
}

export interface BorderZone {
  readonly id: string;
  readonly name: string;
  readonly exposure: Exposure;
  readonly layers: readonly StackLayer[];
}

/**
 * What a border between two zones gets wrong. [CP]
 * @example
 *   checkBorder({
 *     border: {
 *       id: 'b',
 *       upperId: 'a',
 *       lowerId: 'bottom',
 *       rule: 'overlap',
 *       widthM: 0,
 *       epoxyRunsOn: true,
 *       handStripM: 0,
 *       note: '',
 *     },
 *     upper: { id: 'a', name: 'Topsides', exposure: 'weather', layers: [] },
 *     lower: { id: 'bottom', name: 'Bottom', exposure: 'immersed', layers: stack },
 *   }).map((f) => f.rule) // → ['borderWidth']
 */
export function checkBorder({
  border,
  upper,
  lower,
}: {
  border: Border;
  upper: BorderZone;
  lower: BorderZone;
}): Finding[] {
  const found: Finding[] = [];
  const epoxy = (zone: BorderZone) => zone.layers.some((l) => chemistryOf(l.sheet) === 'epoxy');
  const wet = lower.exposure === 'immersed';
  if (!border.epoxyRunsOn && epoxy(lower) && epoxy(upper)) {
    found.push(
      finding(
        'epoxyBroken',
        'caution',
        null,
        null,
        `The epoxy stops at the line between ${upper.name} and ${lower.name}: let it run on across it, water starts at the edge.`,
      ),
    );
  }
  if (
    wet &&
    border.rule === 'overlap' &&
    upper.layers.some((l) => l.sheet.kind === 'topcoat') &&
    lower.layers.some((l) => isAntifouling(l.sheet))
  ) {
    found.push(
      finding(
        'topcoatOverlaps',
        'note',
        null,
        null,
        `Where ${upper.name} and ${lower.name} overlap, the antifouling goes over the topcoat, never under it, and the line lies above the water.`,
      ),
    );
  }
  if (border.rule !== 'butt' && border.widthM <= 0)
    found.push(
      finding(
        'borderWidth',
        'note',
        null,
        null,
        `Give the width of the ${border.rule} between ${upper.name} and ${lower.name}.`,
      ),
    );
  return found;
}
