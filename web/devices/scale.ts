import { create } from 'zustand';

/** A bench scale as the page reads it: grams since it was tared, rounded to its step. */
export interface BenchScale {
  readonly grams: number;
  readonly tare: () => void;
}

interface Simulated {
  /** What stands on the plate and what it was tared with, g. */
  readonly loadG: number;
  readonly tareG: number;
  readonly put: (grams: number) => void;
  readonly tare: () => void;
}

/** An empty pot. */
const POT_G = 86;

/** Stands in for a scale with a cable: it is loaded by buttons on the page, which says so. */
const useSimulated = create<Simulated>((set) => ({
  loadG: POT_G,
  tareG: 0,
  put: (grams) => set((s) => ({ loadG: Math.max(0, s.loadG + grams) })),
  tare: () => set((s) => ({ tareG: s.loadG })),
}));

/** The simulated scale, with what loads it. */
export function useSimulatedScale(stepG: number): BenchScale & { readonly put: (grams: number) => void } {
  const { loadG, tareG, put, tare } = useSimulated();
  return { grams: Math.round((loadG - tareG) / stepG) * stepG, tare, put };
}
