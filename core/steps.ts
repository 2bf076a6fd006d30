/** Walk a stepping computation to its end; `told` hears the share done at each step. */
export function runSteps<T>(steps: Generator<number, T>, onShare: (share: number) => void = () => undefined): T {
  for (;;) {
    const step = steps.next();
    if (step.done) return step.value;
    onShare(step.value);
  }
}
