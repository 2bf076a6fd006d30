import type { WeatherHour } from '#core/air/weather';
import type { TypedDayRow } from '#contracts/rows/boat';
import type { ChangeKind } from './changeKind';

export interface TypedWeatherChange {
  readonly kind: 'typedWeather';
  readonly boatId: string;
  readonly issueId: string;
  readonly days: TypedDayRow[];
  /** Of a file, in place of days. */
  readonly hours?: readonly WeatherHour[] | null;
}

/** A forecast as someone typed it or brought it in as a file, in place of what they had before. */
export const typedWeather: ChangeKind<TypedWeatherChange> = {
  kind: 'typedWeather',
  words: 'typed forecast',
  path: ({ boatId, issueId }) => `/boats/${boatId}/typed-weather/${issueId}`,
  body: ({ days, hours }) => ({ days, ...(hours ? { hours } : {}) }),
  boat: ({ boatId }) => boatId,
  touches: ({ issueId }) => [issueId],
  needs: ({ boatId }) => [boatId],
  show: { bundle: (bundle, { days, hours }) => ({ ...bundle, typedDays: days, typedHours: hours ?? null }) },
  undo: ({ kind, boatId }, { bundle }, { id }) => ({
    kind,
    boatId,
    issueId: id,
    days: bundle?.typedDays ?? [],
    hours: bundle?.typedHours ?? null,
  }),
};
