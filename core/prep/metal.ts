import type { PrepKind } from '../model/prep';
import type { Substrate } from '../model/surface';
import { isMetal } from '../hull/zones';

/** What leaves metal bright: its clock starts. */
const BARES: ReadonlySet<PrepKind> = new Set(['blast', 'grind', 'weld'] as const);

/**
 * Whether a step leaves the metal of a zone bright. On bare aluminium abrading does, too.
 * @param bare nothing lies on it yet
 */
export const baresMetal = (kind: PrepKind, substrate: Substrate, bare: boolean): boolean =>
  isMetal(substrate) && (BARES.has(kind) || (bare && kind === 'abrade' && substrate === 'aluminium'));
