import type { TypedDayRow } from '#contracts/rows/boat';
import type { ChangeKind } from './changeKind';

export interface TypedWeatherChange {
  readonly kind: 'typedWeather';
  readonly boatId: string;
  readonly issueId: string;
  readonly days: TypedDayRow[];
}

/** A forecast as someone typed it, in place of what they typed before. */
export const typedWeather: ChangeKind<TypedWeatherChange> = {
  kind: 'typedWeather',
  words: 'typed forecast',
  path: ({ boatId, issueId }) => `/boats/${boatId}/typed-weather/${issueId}`,
  body: ({ days }) => ({ days }),
  boat: ({ boatId }) => boatId,
  touches: ({ issueId }) => [issueId],
  needs: ({ boatId }) => [boatId],
  show: { bundle: (bundle, { days }) => ({ ...bundle, typedDays: days }) },
  undo: ({ kind, boatId }, { bundle }, { id }) => ({ kind, boatId, issueId: id, days: bundle?.typedDays ?? [] }),
};
