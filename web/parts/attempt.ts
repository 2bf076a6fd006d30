/** What the core makes of figures, or the sentence it refuses them with. */
export function attempt<T>(work: () => T): { value: T; problem: null } | { value: null; problem: string } {
  try {
    return { value: work(), problem: null };
  } catch (error) {
    return { value: null, problem: (error as Error).message };
  }
}
