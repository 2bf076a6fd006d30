/**
 * Index of the segment of an ascending series that holds an instant: the last sample at or before it, but never the very last one.
 * @example segmentAt([{ at: 0 }, { at: hour }, { at: 2 * hour }], 1.5 * hour) // → 1
 */
export function segmentAt(series: readonly { readonly at: number }[], at: number): number {
  let lo = 0;
  let hi = series.length - 1;
  while (hi - lo > 1) {
    const mid = (lo + hi) >> 1;
    if ((series[mid] as { at: number }).at <= at) lo = mid;
    else hi = mid;
  }
  return lo;
}
