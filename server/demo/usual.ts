import type { Layer } from '#core/model/layer';

/** How the yard usually puts a coat on. */
export const TACK: Partial<Layer> = { prep: 'tackWindow' };
export const FIRST_ON: Partial<Layer> = { prep: 'abrade', abradeFor: 'bond', grit: 120, wipe: true };
export const GLOSS: Partial<Layer> = { prep: 'abrade', abradeFor: 'bond', grit: 320 };
