/** The value that a share `q` of the others lie below, or the largest; of at least one. */
export const quantile = (values: readonly number[], q: number): number =>
  [...values].sort((a, b) => a - b)[Math.min(values.length - 1, Math.floor(values.length * q))] as number;
