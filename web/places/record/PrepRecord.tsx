import type { LogEntry } from '#core/model/log';
import { foldPrep } from '#core/prep/prepLog';
import { standing } from '#core/coat/fold';
import { foldWaterline } from '#core/waterline/waterlineLog';
import { counted } from '#core/units/format';
import { useSettings } from '../../data/settings';
import type { BoatView } from '../../data/store';
import { momentWords } from '../../parts/words';
import { entryWords } from '../coat/entryWords';

/** What is told by the coats, by cautions read, or by the line as a whole. */
const UNTOLD: ReadonlySet<LogEntry['kind']> = new Set(['cautioned', 'reading', 'marked', 'setOff'] as const);

/** How surfaces were got ready, stands moved and the line found; corrected entries stay to be read. */
export function PrepRecord({ view }: { view: BoatView }) {
  const { units } = useSettings();
  const { boat, entries, surfaces } = view;
  const logs = foldPrep(entries);
  const ofBoat = entries.filter((e) => e.stream === 'boat');
  const live = new Set(standing(ofBoat).map((e) => e.id));
  const { marks } = foldWaterline(entries);
  const saying = { units, nameOf: view.zoneName };
  const line = (e: LogEntry, struck: boolean) => (
    <li key={e.id} className={`py-0.5 ${struck ? 'quiet' : ''}`}>
      <span className="narrow">{momentWords(e.occurredAt, boat.timeZone)}</span>{' '}
      {struck ? <s>{entryWords(e, saying)}</s> : entryWords(e, saying)} <span className="quiet">{e.painter}</span>
    </li>
  );
  const told = (list: readonly LogEntry[]) => list.filter((e) => !UNTOLD.has(e.kind));
  const zones = surfaces.flatMap((s) => {
    const log = logs.get(s.id);
    const [stands, gone] = [told(log?.entries ?? []), told(log?.superseded ?? [])];
    return stands.length + gone.length > 0 ? [{ surface: s, stands, gone }] : [];
  });
  const boats = told(ofBoat.filter((e) => e.kind !== 'withdrawn'));
  if (zones.length === 0 && boats.length === 0 && marks.length === 0) return null;
  return (
    <section aria-labelledby="got-ready" className="border-b border-base-300 py-2">
      <h2 id="got-ready">Got ready</h2>
      <div className="grid gap-x-8 gap-y-2 md:grid-cols-2">
        {zones.map(({ surface, stands, gone }) => (
          <div key={surface.id} className="min-w-0">
            <h3 className="font-semibold">{surface.name}</h3>
            <ul>
              {stands.map((e) => line(e, false))}
              {gone.map((e) => line(e, true))}
            </ul>
          </div>
        ))}
        {(boats.length > 0 || marks.length > 0) && (
          <div className="min-w-0">
            <h3 className="font-semibold">Stands and waterline</h3>
            <ul>
              {boats.map((e) => line(e, !live.has(e.id)))}
              {marks.length > 0 && <li className="py-0.5">{counted(marks.length, 'mark')} of the line read in</li>}
            </ul>
          </div>
        )}
      </div>
    </section>
  );
}
