/** Tests only: all of a long comparison with `npm run test:long`, a fifth of it each time. */
export const many = (all: number): number => (process.env.LONG === '1' ? all : Math.round(all / 5));
