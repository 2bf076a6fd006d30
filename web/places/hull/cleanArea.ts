import type { AreaMethod, AreaRecord } from '#core/model/area';

const known = (value: unknown) => value !== null && value !== undefined && !Number.isNaN(value);

/**
 * What a form holds of an area, fit to be kept: empty optional figures are left out, and a method whose figures
 * were begun and never finished has none. `keep` is left as it is, so that it can be filled in.
 */
export function cleanArea(area: AreaRecord, keep?: AreaMethod): AreaRecord {
  const whole = <K extends 'typed' | 'denny' | 'calibrated' | 'band'>(method: K, needed: readonly string[]) => {
    const record = area[method] as Record<string, unknown> | null | undefined;
    if (!record) return null;
    return method === keep || needed.every((key) => known(record[key])) ? (record as unknown as AreaRecord[K]) : null;
  };
  const typed = whole('typed', ['areaM2']);
  return {
    ...area,
    dimensions: Object.fromEntries(Object.entries(area.dimensions).filter(([, v]) => known(v))),
    typed: typed ? { areaM2: typed.areaM2, share: Number(typed.share) } : null,
    denny: whole('denny', ['displacedM3']) ?? null,
    calibrated: whole('calibrated', ['litres', 'wetFilmMicron']) ?? null,
    band: whole('band', ['widthM']) ?? null,
  };
}
