/** Where x lies in an ascending list: the interval it is in and how far along. Null outside the list. */
export function curveBetween(list: readonly number[], x: number): { from: number; share: number } | null {
  const last = list.length - 1;
  if (last < 1 || x < (list[0] as number) - 1e-9 || x > (list[last] as number) + 1e-9) return null;
  let from = 0;
  while (from < last - 1 && x > (list[from + 1] as number)) from += 1;
  const [a, b] = [list[from] as number, list[from + 1] as number];
  return { from, share: Math.min(1, Math.max(0, (x - a) / (b - a))) };
}
