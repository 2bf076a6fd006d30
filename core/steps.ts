/**
 * Walk a stepping computation to its end; `told` hears the share done at each step.
 * @example runSteps(meshAreaSteps({ positions: corner, planes: [] })).totalM2 // → 2.366
 */
export function runSteps<T>(steps: Generator<number, T>, onShare: (share: number) => void = () => undefined): T {
  for (;;) {
    const step = steps.next();
    if (step.done) return step.value;
    onShare(step.value);
  }
}
