export type PaintMethod = 'brush' | 'roller' | 'spray';

export const PAINT_METHODS = ['brush', 'roller', 'spray'] as const;
