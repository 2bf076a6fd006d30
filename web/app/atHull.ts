/** The places used at the hull, where the signal comes and goes: fetched ahead, so that they open without it. */
export const atHull = {
  BoatShell: () => import('./BoatShell'),
  Alarm: () => import('./Alarm'),
  Toasts: () => import('./Toasts'),
  OutboxStrip: () => import('./OutboxStrip'),
  TodayPlace: () => import('../places/today/TodayPlace'),
  MixPlace: () => import('../places/mix/MixPlace'),
  CoatPlace: () => import('../places/coat/CoatPlace'),
  StartCoat: () => import('../places/coat/StartCoat'),
  CoatSheet: () => import('../places/coat/CoatSheet'),
  FilmPlace: () => import('../places/film/FilmPlace'),
  EditLayer: () => import('../places/film/EditLayer'),
  HullPlace: () => import('../places/hull/HullPlace'),
  ZoneForm: () => import('../places/hull/ZoneForm'),
  PrepPlace: () => import('../places/prep/PrepPlace'),
  RecordPlace: () => import('../places/record/RecordPlace'),
  ParkedChanges: () => import('./ParkedChanges'),
};

/** The first screen has the line to itself for so long. */
const FIRST_MS = 2000;

/** Once the first screen stands and nothing is asked of the page, fetch them one after the other. */
export function fetchAhead(): void {
  const idle =
    typeof requestIdleCallback === 'undefined' ? (work: () => void) => setTimeout(work, 1500) : requestIdleCallback;
  const waiting = Object.values(atHull);
  const next = () => {
    const fetchPlace = waiting.shift();
    // What does not come now comes when it is opened.
    if (fetchPlace)
      void fetchPlace()
        .catch(() => undefined)
        .then(() => idle(next));
  };
  setTimeout(() => idle(next), FIRST_MS);
}
