import type { PrepList } from './prepSteps';

/** What getting zones ready takes besides hands. */
export interface PrepWork {
  /** Abraded besides what the build-ups plan, m². */
  readonly abradedM2: number;
  /** Concentrate that goes into washes, L. */
  readonly concentrateL: number;
}

/**
 * What the steps that are still to do take, over several zones. Abrading that a build-up plans before a coat is counted
 * with the coat.
 * @param lists each with the area of its zone, m², and whether its next coat plans abrading
 * @example prepWork([]).concentrateL // → 0
 */
export function prepWork(
  lists: readonly { readonly list: Pick<PrepList, 'steps'>; readonly areaM2: number; readonly planned: boolean }[],
): PrepWork {
  let abradedM2 = 0;
  let concentrateL = 0;
  for (const { list, areaM2, planned } of lists)
    for (const { state, kind, needs } of list.steps) {
      if (state !== 'toDo' && state !== 'again') continue;
      if (kind === 'block' || (kind === 'abrade' && !planned)) abradedM2 += areaM2;
      concentrateL += needs.concentrateL ?? 0;
    }
  return { abradedM2, concentrateL };
}
