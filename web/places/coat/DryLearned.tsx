import { coatClocks } from '#core/coat/coatClocks';
import { testedOn, zoneReadings, type Coat } from '#core/coat/fold';
import { dryLearned, dryLesson, type DryLesson } from '#core/coat/lesson';
import { zoneSeries } from '#core/coat/zoneSeries';
import type { SheetRevision } from '#core/model/sheet';
import { counted, plainNumber } from '#core/units/format';
import { saveAll, useStores, type BoatView } from '../../data/store';

/** Less than that apart is chance. */
const ALIKE = 0.03;

/** How the hand found a product to dry against its table, over the coats of this boat: taken or left by hand. */
export function DryLearned({ view, revision }: { view: BoatView; revision: SheetRevision }) {
  const { stores } = useStores();
  const learned = dryLearned(
    view.coats
      .filter((c) => view.sheetById.get(c.sheetRevisionId)?.sheetId === revision.sheetId)
      .flatMap((c) => lessonsOf(view, c)),
  );
  if (!learned || !stores) return null;
  const { rules } = stores;
  const { sheetId } = revision;
  const taken = rules.drying.find((d) => d.sheetId === sheetId);
  const others = rules.drying.filter((d) => d !== taken);
  const write = (drying: typeof rules.drying, label: string) =>
    void saveAll([{ kind: 'rules', row: { ...rules, drying } }], label);
  const times = (v: number) => plainNumber(v, 2);
  const factor = Math.min(5, Math.max(0.2, learned.factor));
  return (
    <div className="flex flex-wrap items-center justify-between gap-x-4 py-1">
      <p>
        Dries{' '}
        {learned.high === Infinity
          ? `longer than ${times(learned.low)} times`
          : learned.low === 0
            ? `within ${times(learned.high)} times`
            : `${times(learned.low)} to ${times(learned.high)} times`}{' '}
        its table by the hand, on {counted(learned.coats, 'test')} of this boat,{' '}
        {taken ? `taken: ${times(taken.factor)} times` : 'assumed as its table'}
      </p>
      {Math.abs(factor - (taken?.factor ?? 1)) > ALIKE && (
        <button
          type="button"
          className="btn"
          onClick={() => write([...others, { sheetId, factor, coats: learned.coats }], 'How it dries is taken')}
        >
          Count on {times(factor)} times
        </button>
      )}
      {taken && (
        <button type="button" className="btn" onClick={() => write(others, 'Back to the table')}>
          Back to the table
        </button>
      )}
    </div>
  );
}

/** What the tests of one coat say against the table alone. */
function lessonsOf(view: BoatView, coat: Coat): DryLesson[] {
  const surface = view.surfaces.find((s) => s.id === coat.on[0]?.surfaceId);
  const sheet = view.sheetById.get(coat.sheetRevisionId)?.body;
  if (!surface || !sheet || coat.finishedAt === null || coat.handTests.length === 0) return [];
  const temps = zoneSeries(surface, view.hours, zoneReadings(view.entries, surface.id), view.boat);
  if (temps[0] === undefined || coat.startedAt < temps[0].at) return [];
  const byTable = coatClocks({
    coat: { ...coat, handTests: [] },
    sheet,
    following: view.statuses.find((s) => s.surfaceId === surface.id)?.nextSheet ?? null,
    temps,
    readings: [],
    hours: view.hours,
  });
  const own = testedOn(coat, [surface.id]).handTests;
  return (
    [
      [byTable.window?.opensAt, 'thumb'],
      [byTable.sand.at, 'sanding'],
    ] as const
  ).flatMap(([predictedAt, kind]) => {
    const tests = own.filter((t) => t.test === kind);
    const found = predictedAt == null ? null : dryLesson({ finishedAt: coat.finishedAt as number, predictedAt, tests });
    return found ? [found] : [];
  });
}
