import { coatClocks } from '#core/coat/coatClocks';
import { testedOn, zoneReadings, type Coat } from '#core/coat/fold';
import { dryLesson } from '#core/coat/lesson';
import { zoneSeries } from '#core/coat/zoneSeries';
import type { SheetBody } from '#core/model/sheet';
import type { BoatView } from '../../data/store';
import { plainNumber } from '#core/units/format';

/** How the hand found it to dry against the table: the clocks of this coat follow the hand already. */
export function DryLearned({ view, coat, sheet }: { view: BoatView; coat: Coat; sheet: SheetBody }) {
  const [target] = coat.on;
  const surface = view.surfaces.find((s) => s.id === target?.surfaceId);
  if (!surface || coat.finishedAt === null || coat.handTests.length === 0) return null;
  const temps = zoneSeries(surface, view.hours, zoneReadings(view.entries, surface.id), view.boat);
  if (temps[0] === undefined || coat.startedAt < temps[0].at) return null;
  const byTable = coatClocks({
    coat: { ...coat, handTests: [] },
    sheet,
    following: view.statuses.find((s) => s.surfaceId === surface.id)?.nextSheet ?? null,
    temps,
    readings: [],
    hours: view.hours,
  });
  const own = testedOn(coat, [surface.id]).handTests;
  const rows = [
    ['Dry enough to go on', byTable.window?.opensAt, own.filter((t) => t.test === 'thumb')],
    ['Dry to sand', byTable.sand.at, own.filter((t) => t.test === 'sanding')],
  ] as const;
  return rows.map(([words, predictedAt, tests]) => {
    const found = predictedAt == null ? null : dryLesson({ finishedAt: coat.finishedAt as number, predictedAt, tests });
    if (!found) return null;
    const times = (v: number) => plainNumber(v, 1);
    return (
      <p key={words}>
        {words}:{' '}
        {found.high === Infinity
          ? `longer than ${times(found.low)} times the table`
          : found.low === 0
            ? `within ${times(found.high)} times the table`
            : `${times(found.low)} to ${times(found.high)} times the table`}{' '}
        by hand. The clocks of this coat follow the hand; count on it for the next.
      </p>
    );
  });
}
