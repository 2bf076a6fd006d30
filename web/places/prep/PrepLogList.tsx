import type { PrepLog } from '#core/prep/prepLog';
import { useSettings } from '../../data/settings';
import type { BoatView } from '../../data/store';
import { momentWords, timeWords } from '../../parts/words';
import { entryWords } from '../coat/entryWords';
import { withdraw } from './usePrep';

/** What was logged of getting a zone ready; each entry can be taken back and stays readable. */
export function PrepLogList({ view, log }: { view: BoatView; log: PrepLog }) {
  const { units } = useSettings();
  const entries = log.entries.filter((e) => e.kind !== 'cautioned' && e.kind !== 'reading');
  if (entries.length === 0 && log.superseded.length === 0) return null;
  const saying = { units, nameOf: view.zoneName };
  return (
    <details>
      <summary className="link-row cursor-pointer underline underline-offset-4">
        Logged here: {entries.length}
        {log.superseded.length > 0 && `, ${log.superseded.length} taken back or changed`}
      </summary>
      <ol className="sheet-rule">
        {[...entries].reverse().map((e) => (
          <li key={e.id} className="flex items-baseline gap-3 py-1">
            <span className="fig w-24 shrink-0 whitespace-normal">
              {timeWords(e.occurredAt, view.at, view.boat.timeZone)}
            </span>
            <span className="min-w-0 flex-1 break-words">
              {entryWords(e, saying)}
              <span className="block text-sm quiet">{e.painter || 'no name'}</span>
            </span>
            <button
              type="button"
              className="link-row shrink-0 underline underline-offset-4"
              aria-label={`Take back: ${entryWords(e, saying)}`}
              onClick={() => void withdraw(e, 'Taken back')}
            >
              Take back
            </button>
          </li>
        ))}
        {log.superseded.map((e) => (
          <li key={e.id} className="py-1 quiet">
            <s>
              {momentWords(e.occurredAt, view.boat.timeZone)} {entryWords(e, saying)}
            </s>
          </li>
        ))}
      </ol>
    </details>
  );
}
