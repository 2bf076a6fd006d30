import { instant, positive } from '../guard';

/** Blasted steel wants primer within this, hours. [CP, and many steel specifications] */
export const BARE_METAL_H = 4;

const HOUR_MS = 3_600_000;

/**
 * Until when bare metal waits for its primer, epoch ms: four hours from when it was blasted or ground, or as the sheet
 * or the passivating wash says. [CP]
 * @param options.blastedAt epoch ms
 * @param options.hours left out: 4
 * @throws RangeError on hours of zero
 * @example bareMetalUntil({ blastedAt: noon }) - noon // → 14400000
 */
export function bareMetalUntil({ blastedAt, hours = BARE_METAL_H }: { blastedAt: number; hours?: number }): number {
  return instant(blastedAt, 'When it was blasted') + positive(hours, 'Hours that bare metal holds') * HOUR_MS;
}
