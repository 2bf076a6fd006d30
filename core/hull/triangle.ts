/**
 * Share of a triangle that lies below a plane, exact, from the three corners' signed distances to it (any
 * common scale). The same share holds for the volume of the tetrahedron between the triangle and any point
 * of that plane.
 */
export function shareBelow(f0: number, f1: number, f2: number): number {
  const below = (f0 < 0 ? 1 : 0) + (f1 < 0 ? 1 : 0) + (f2 < 0 ? 1 : 0);
  if (below === 0) return 0;
  if (below === 3) return 1;
  // The corner that is alone on its side cuts off a triangle similar along two edges.
  const alone = below === 1;
  const cut = f0 < 0 === alone ? corner(f0, f1, f2) : f1 < 0 === alone ? corner(f1, f2, f0) : corner(f2, f0, f1);
  return alone ? cut : 1 - cut;
}

/** Share that a plane cuts off at the corner of distance a. */
function corner(a: number, b: number, c: number): number {
  return (a / (a - b)) * (a / (a - c));
}
