import { BOOT_TOP_BAND_M } from '#core/hull/area';
import { linesFromOffsets, type HullLines } from '#core/hull/lines';
import type { HullRow, SurfaceRow } from '#contracts/rows/boat';

/** The best that is known of a hull's shape: her mesh, else her offsets, else nothing but dimensions. */
export function linesOf(hull: HullRow | null): HullLines | null {
  if (hull?.mesh) return hull.mesh.lines;
  return hull?.offsets ? linesFromOffsets(hull.offsets) : null;
}

/** Height of the boot-top where the boat has one. */
export function bandOf(surfaces: readonly SurfaceRow[]): number | null {
  const zone = surfaces.find((s) => s.kind === 'bootTop' && !s.parentId);
  return zone ? (zone.area.dimensions.bandM ?? BOOT_TOP_BAND_M) : null;
}
