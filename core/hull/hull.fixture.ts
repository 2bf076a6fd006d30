import fc from 'fast-check';
import { type AreaRecord } from '../index';

export const boat = {
  loaM: 9.6,
  lwlM: 8.1,
  beamM: 3.1,
  draftM: 1.15,
  freeboardM: 1.05,
  form: 'longKeel' as const,
  keels: 'twin' as const,
};

export const blank: AreaRecord = { method: 'dimensions', dimensions: {}, typed: null };

export const num = (min: number, max: number) => fc.double({ min, max, noNaN: true });
