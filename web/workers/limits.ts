import { MESH_MAX_BYTES } from '#core/hull/stl';

/** Why a mesh file is not read, and what to do. */
export function tooLarge(bytes: number): string {
  return `The file has ${Math.round(bytes / 1024 / 1024)} MB; up to ${MESH_MAX_BYTES / 1024 / 1024} MB are read. Export the hull with fewer triangles, or as binary STL.`;
}
