/** `spray` is airless; `conventional` is with air, and loses more of the paint. */
export const PAINT_METHODS = ['brush', 'roller', 'spray', 'conventional'] as const;

export type PaintMethod = (typeof PAINT_METHODS)[number];

/**
 * Whether a method is one of spraying.
 * @example isSpray('conventional') // → true
 */
export const isSpray = (method: PaintMethod): boolean => method === 'spray' || method === 'conventional';
