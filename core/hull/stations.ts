import { checkStations, strayGirths, type StrayGirth } from './girths';
import type { GirthStation } from '../model/area';

/** As many stations as a zone may be taped at. */
export const MOST_STATIONS = 60;

/**
 * Stations evenly along a length, from aft; figures taped before stay with their number.
 * @param count stations, two or more
 * @param lengthM from the first to the last, m
 * @example evenStations(3, 8).map((s) => s.xM) // → [0, 4, 8]
 */
export function evenStations(count: number, lengthM: number, taped: readonly GirthStation[] = []): GirthStation[] {
  return Array.from({ length: count }, (_, i) => ({
    xM: Number(((lengthM * i) / (count - 1)).toFixed(4)),
    halfGirthM: taped[i]?.halfGirthM ?? null,
    halfBreadthM: taped[i]?.halfBreadthM ?? null,
  }));
}

/**
 * Why a record of girths cannot be kept as it stands; null where it can. A station that is not taped yet is no
 * reason: it may be left out and come back to. NaN is a figure that was typed and cannot be read.
 * @example stationsProblem(evenStations(2, 0)) // → 'Stations 1 and 2 are at the same place. Take one out.'
 */
export function stationsProblem(stations: readonly GirthStation[]): string | null {
  if (stations.some((s) => Number.isNaN(s.halfGirthM) || Number.isNaN(s.halfBreadthM)))
    return 'A figure cannot be read. Type it again, or leave it empty.';
  if (stations.some((s) => (s.halfGirthM ?? 0) < 0 || (s.halfBreadthM ?? 0) < 0))
    return 'A length cannot be less than zero.';
  try {
    checkStations(stations.map((s) => s.xM));
    return null;
  } catch (error) {
    return (error as Error).message;
  }
}

/**
 * Girths of a record that stray from the curve of their neighbours; none while it cannot be kept.
 * @example straysOf(evenStations(5, 8)) // → []
 */
export function straysOf(stations: readonly GirthStation[]): StrayGirth[] {
  if (stationsProblem(stations) !== null) return [];
  return strayGirths({ stationsM: stations.map((s) => s.xM), halfGirthsM: stations.map((s) => s.halfGirthM) });
}
