import type { BatchTimer } from '#core/coat/clocks';
import { useNow } from '../data/now';
import { logEntry, type BoatView } from '../data/store';
import { Fig } from './Fig';
import { ToCalendar } from './ToCalendar';
import { CLOCK_WORDS, timerWords, timeWords } from './words';

/** The pots in use, with what is left of stand and pot life, running. */
export function Timers({ view }: { view: BoatView }) {
  const at = useNow(1000);
  const running = view.batches.filter((b) => view.timers.some((t) => t.batchId === b.id));
  if (running.length === 0) return null;
  const nameOf = (revisionId: string) => view.sheetById.get(revisionId)?.body.name ?? 'Batch';
  return (
    <ul className="sheet-rule" aria-label="Pots in use">
      {running.map((batch) => (
        <li key={batch.id} className="py-2">
          <div className="flex flex-wrap items-baseline justify-between gap-x-4">
            <span className="font-semibold">{nameOf(batch.sheetRevisionId)}</span>
            <span>
              <Fig quantity="volume" value={batch.restL > 0 ? batch.restL : batch.totalL} />{' '}
              {batch.restL > 0 && batch.restL < batch.totalL ? 'left, ' : ''}mixed{' '}
              {timeWords(batch.mixedAt, at, view.boat.timeZone)}
            </span>
          </div>
          <div className="flex flex-wrap items-center gap-x-6 gap-y-1">
            {view.timers
              .filter((t) => t.batchId === batch.id)
              .map((timer) => (
                <TimerFigure key={timer.timer} timer={timer} at={at} />
              ))}
            <ToCalendar
              name={`${nameOf(batch.sheetRevisionId)} pot`}
              label={`The timers of ${nameOf(batch.sheetRevisionId)} to the calendar`}
              moments={view.timers
                .filter((t) => t.batchId === batch.id && t.dueAt > at)
                .map((t) => ({
                  id: `${t.timer}-${t.batchId}`,
                  at: t.dueAt,
                  title: `${nameOf(batch.sheetRevisionId)}: ${CLOCK_WORDS[t.timer]}`,
                  where: view.boat.name,
                }))}
            />
            <button
              type="button"
              className="btn ml-auto"
              onClick={() =>
                void logEntry(
                  {
                    boatId: view.boat.id,
                    stream: 'batch',
                    streamId: batch.id,
                    kind: 'emptied',
                    body: { litresLeft: 0 },
                  },
                  'Pot empty',
                )
              }
            >
              Pot empty
            </button>
          </div>
        </li>
      ))}
    </ul>
  );
}

/** While it runs, and once it is over. */
const TIMER_WORDS = {
  stir: ['stir', 'stirred'],
  stand: ['let it stand', 'stood'],
  pot: ['pot life', 'pot over by'],
} as const;

function TimerFigure({ timer, at }: { timer: BatchTimer; at: number }) {
  const left = timer.dueAt - at;
  const over = left <= 0;
  return (
    <span className="narrow flex items-baseline gap-2">
      <span className="lab">{TIMER_WORDS[timer.timer][over ? 1 : 0]}</span>
      <span className={`fig text-2xl ${over && timer.timer === 'pot' ? 'text-error' : ''}`}>
        {timer.timer !== 'pot' && over ? 'enough' : timerWords(left)}
      </span>
    </span>
  );
}
