import type { PrepKind } from '../model/prep';
import type { Substrate } from '../model/surface';

export const isSteel = (substrate: Substrate): boolean => substrate === 'steel';

/** Metal that turns as soon as it is bare. */
export const isMetal = (substrate: Substrate): boolean => substrate === 'steel' || substrate === 'aluminium';

/** What leaves metal bright: its clock starts. */
const BARES: ReadonlySet<PrepKind> = new Set(['blast', 'grind', 'weld'] as const);

/**
 * Whether a step leaves the metal of a zone bright. On bare aluminium abrading does, too.
 * @param bare nothing lies on it yet
 */
export const baresMetal = (kind: PrepKind, substrate: Substrate, bare: boolean): boolean =>
  isMetal(substrate) && (BARES.has(kind) || (bare && kind === 'abrade' && substrate === 'aluminium'));
