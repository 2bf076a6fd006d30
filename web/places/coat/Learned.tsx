import type { Coat } from '#core/coat/fold';
import { learnedFrom } from '#core/coat/lesson';
import { USUAL_RATE_M2_PER_H } from '#core/film/spreading';
import type { SheetRevision } from '#core/model/sheet';
import { counted } from '#core/units/format';
import { saveAll, useStores, type BoatView } from '../../data/store';
import { rateOf } from '../../data/rates';
import { useLedgerOf } from '../../data/useLedgerOf';
import { Fig } from '../../parts/Fig';
import { METHOD_WORDS } from '../../parts/words';
import { DryLearned } from './DryLearned';

/** Less than that apart is chance. */
const ALIKE = 0.01;

/** What the finished coats of this product teach, beside what is assumed: taken or left by hand. */
export function Learned({ view, coat, revision }: { view: BoatView; coat: Coat; revision: SheetRevision }) {
  const ledger = useLedgerOf(revision.sheetId, revision.body);
  const learned = learnedFrom(ledger?.lessons ?? []).find((l) => l.method === coat.method);
  if (!learned) return <DryLearned view={view} revision={revision} />;
  return (
    <section aria-labelledby="learned" className="border-t border-base-300 pt-2">
      <h2 id="learned">
        Learned of {revision.body.name}, {METHOD_WORDS[coat.method].toLowerCase()}
      </h2>
      <p className="quiet">From {counted(learned.coats, 'finished coat')}, all boats together.</p>
      <TakesRow view={view} learned={learned} sheetId={revision.sheetId} />
      <RateRow learned={learned} sheetId={revision.sheetId} />
      <DryLearned view={view} revision={revision} />
    </section>
  );
}

interface RowProps {
  learned: ReturnType<typeof learnedFrom>[number];
  sheetId: string;
}

/** Litres a m², by the loss that follows from them. */
function TakesRow({ view, learned, sheetId }: RowProps & { view: BoatView }) {
  const toCome = view.buildUps.flatMap((row) => {
    const coming = row.layers.filter(
      (l) =>
        view.sheetById.get(l.sheetRevisionId)?.sheetId === sheetId &&
        l.method === learned.method &&
        !view.coats.some((c) => c.on.some((t) => t.layerId === l.id)),
    );
    return coming.some((l) => Math.abs(l.loss - learned.loss) > ALIKE) ? [{ row, ids: coming.map((l) => l.id) }] : [];
  });
  const layers = toCome.flatMap(({ row, ids }) => row.layers.filter((l) => ids.includes(l.id)));
  const take = () =>
    void saveAll(
      toCome.map(({ row, ids }) => ({
        kind: 'buildUp' as const,
        row: { ...row, layers: row.layers.map((l) => (ids.includes(l.id) ? { ...l, loss: learned.loss } : l)) },
      })),
      `${counted(layers.length, 'coat')} to come take what was learned`,
    );
  return (
    <div className="flex flex-wrap items-center justify-between gap-x-4 py-1">
      <p>
        Goes <Fig quantity="spreadingRate" value={1 / learned.litresPerM2} /> far, planned{' '}
        <Fig quantity="spreadingRate" value={1 / learned.plannedLPerM2} />: loss{' '}
        <Fig quantity="percent" value={learned.loss} digits={0} />
        {layers[0] && (
          <>
            {' '}
            instead of <Fig quantity="percent" value={layers[0].loss} digits={0} />
          </>
        )}
      </p>
      {layers.length > 0 && (
        <button type="button" className="btn" onClick={take}>
          Take it for {counted(layers.length, 'coat')} to come
        </button>
      )}
    </div>
  );
}

/** m² an hour. */
function RateRow({ learned, sheetId }: RowProps) {
  const { stores } = useStores();
  const rate = learned.rateM2PerH;
  if (rate === null || !stores) return null;
  const { rules } = stores;
  const now = rateOf(rules, sheetId, learned.method);
  const taken = rules.rates.find((r) => r.sheetId === sheetId && r.method === learned.method);
  const others = rules.rates.filter((r) => r !== taken);
  const write = (rates: typeof rules.rates, label: string) =>
    void saveAll([{ kind: 'rules', row: { ...rules, rates } }], label);
  return (
    <div className="flex flex-wrap items-center justify-between gap-x-4 py-1">
      <p>
        Each painter does <Fig quantity="area" value={rate} digits={1} /> an hour,{' '}
        {taken ? (
          <>
            taken: <Fig quantity="area" value={taken.rateM2PerH} digits={1} /> from {counted(taken.coats, 'coat')}
          </>
        ) : (
          <>
            assumed <Fig quantity="area" value={now} digits={0} />
          </>
        )}
      </p>
      {Math.abs(rate / now - 1) > ALIKE * 2 && (
        <button
          type="button"
          className="btn"
          onClick={() =>
            write(
              [...others, { sheetId, method: learned.method, rateM2PerH: rate, coats: learned.coats }],
              'The rate that was learned is taken',
            )
          }
        >
          Take it for batches and time
        </button>
      )}
      {taken && (
        <button type="button" className="btn" onClick={() => write(others, 'Back to the usual rate')}>
          Back to {USUAL_RATE_M2_PER_H[learned.method]}
        </button>
      )}
    </div>
  );
}
