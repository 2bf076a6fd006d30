import { Download } from 'lucide-react';
import { Link } from 'react-router';
import { dewPointC } from '#core/air/dewPoint';
import { type Coat } from '#core/coat/fold';
import { measuredFilm } from '#core/coat/measuredFilm';
import type { PaintOn } from '#core/coat/paintOn';
import type { Boat } from '#contracts/rows/boat';
import type { SheetRevision } from '#core/model/sheet';
import { pouringUnit } from '#core/units/format';
import type { MixedBatch } from '#core/coat/fold';
import { BASE } from '../../data/base';
import { useView } from '../../app/BoatShell';
import { useSettings } from '../../data/settings';
import type { BoatView } from '../../data/store';
import { Fig } from '../../parts/Fig';
import { ABRADE_FOR_WORDS, AGAINST_WORDS, RECORD_WORDS } from '../../parts/choiceWords';
import { whereItWent } from '../../parts/painted';
import { dateWords, METHOD_WORDS, momentWords } from '../../parts/words';
import { entryWords } from '../coat/entryWords';
import { PrepRecord } from './PrepRecord';

/** The coat sheets of the boat, newest first, by zone; nothing is erased. */
export function RecordPlace() {
  const view = useView();
  const { boat, coats } = view;
  return (
    <div className="min-w-0">
      <div className="ruled flex flex-wrap items-center gap-3 pb-1">
        <h1 className="mr-auto text-2xl">Coat sheets of {boat.name}</h1>
        <a className="btn" href={`${BASE}/api/boats/${boat.id}/coat-sheets.csv`} download>
          <Download size={18} aria-hidden="true" /> CSV
        </a>
        <Link className="btn" to="/settings#backup">
          Back up
        </Link>
      </div>
      {coats.length === 0 && (
        <p className="max-w-prose py-3">
          No coat is logged yet. What is started, read, combed and finished at the hull is kept here for the surveyor
          and the next owner.
        </p>
      )}
      <Decided view={view} />
      <PrepRecord view={view} />
      {[...coats].reverse().map((coat) => (
        <Sheet key={coat.id} view={view} coat={coat} />
      ))}
    </div>
  );
}

function Sheet({ view, coat }: { view: BoatView; coat: Coat }) {
  const { units } = useSettings();
  const { boat, sheetById, batches } = view;
  const revision = sheetById.get(coat.sheetRevisionId);
  const film = revision ? measuredFilm(coat, revision.body.solids) : null;
  const time = (at: number) => momentWords(at, boat.timeZone);
  const reading = coat.readings.find((r) => r.airC !== null && r.rh !== null);
  const surfaceC = coat.readings.find((r) => r.surfaceC !== null)?.surfaceC ?? null;
  const dew = reading ? dewPointC({ airC: reading.airC as number, rh: reading.rh as number }) : null;
  const poured = coat.batches.flatMap((b) => batches.filter((m) => m.id === b.batchId));
  return (
    <article className="grid min-w-0 gap-x-8 gap-y-1 border-b border-base-300 py-3 md:grid-cols-[minmax(0,5fr)_minmax(0,5fr)_minmax(0,4fr)]">
      <OfWhat coat={coat} boat={boat} zoneName={view.zoneName} revision={revision} />
      <WhenAndAir time={time} coat={coat} reading={reading} surfaceC={surfaceC} dew={dew} />
      <FilmAndLitres coat={coat} film={film} poured={poured} paint={whereItWent(view, coat)} />
      <div className="min-w-0 text-[0.95rem] md:col-span-3">
        {coat.abradedGrit !== null && (
          <p>
            Abraded with {coat.abradedGrit}
            {coat.abradedFor ? ` ${ABRADE_FOR_WORDS[coat.abradedFor]}` : ''} before it
          </p>
        )}
        {poured
          .filter((b) => b.standMin > 0)
          .map((b) => (
            <p key={b.id}>
              To stand {b.standMin} min from {time(b.mixedAt)}
            </p>
          ))}
        {coat.entries
          .filter((e) => e.kind === 'handTest')
          .map((e) => (
            <p key={e.id}>
              {entryWords(e, { units, nameOf: view.zoneName })}, {time(e.occurredAt)}
            </p>
          ))}
        {coat.overrideReason && (
          <p>
            Started against advice
            {coat.against?.length ? ` (${coat.against.map((a) => AGAINST_WORDS[a]).join(', ')})` : ''}:{' '}
            {coat.overrideReason}
          </p>
        )}
        {coat.notes.map((n) => (
          <p key={n.at}>
            {n.text} <span className="quiet">{n.painter}</span>
          </p>
        ))}
        {coat.superseded.map((e) => (
          <p key={e.id} className="quiet">
            Corrected, said before: <s>{`${time(e.occurredAt)} ${entryWords(e, { units, nameOf: view.zoneName })}`}</s>
          </p>
        ))}
      </div>
    </article>
  );
}

function OfWhat({
  coat,
  boat,
  zoneName,
  revision,
}: {
  coat: Coat;
  boat: Boat;
  zoneName: BoatView['zoneName'];
  revision: SheetRevision | undefined;
}) {
  return (
    <div className="min-w-0">
      <h2 className="flex items-center gap-2">
        <span
          className="inline-block h-6 w-4 shrink-0 border border-base-content"
          style={{ background: coat.colourHex }}
          aria-hidden="true"
        />
        <Link
          to={`/boats/${boat.id}/coat/${coat.id}`}
          className="link-row min-w-0 underline decoration-1 underline-offset-4"
        >
          {coat.on.map((t) => zoneName(t.surfaceId)).join(', ')}
        </Link>
      </h2>
      <p>
        {revision ? `${revision.body.name}, revision ${revision.revision}` : 'unknown sheet'}, {coat.colour},{' '}
        {METHOD_WORDS[coat.method].toLowerCase()}
      </p>
      <p className="quiet">{coat.painter || 'no painter named'}</p>
    </div>
  );
}

function WhenAndAir({
  time,
  coat,
  reading,
  surfaceC,
  dew,
}: {
  time: (at: number) => string;
  coat: Coat;
  reading: { at: number; airC: number | null; rh: number | null; surfaceC: number | null } | undefined;
  surfaceC: number | null;
  dew: number | null;
}) {
  return (
    <div className="min-w-0">
      <p>Started {time(coat.startedAt)}</p>
      <p>{coat.finishedAt === null ? <strong>going on</strong> : `Finished ${time(coat.finishedAt)}`}</p>
      <p className="flex flex-wrap gap-x-4">
        {reading && (
          <span>
            air <Fig quantity="temperature" value={reading.airC as number} />{' '}
            <Fig quantity="percent" value={reading.rh as number} digits={0} />
          </span>
        )}
        {surfaceC !== null && (
          <span>
            surface <Fig quantity="temperature" value={surfaceC} />
          </span>
        )}
        {dew !== null && surfaceC !== null && (
          <span>
            spread <Fig quantity="temperatureDifference" value={surfaceC - dew} />
          </span>
        )}
        {!reading && <span className="quiet">air not read</span>}
      </p>
    </div>
  );
}

function FilmAndLitres({
  coat,
  film,
  poured,
  paint,
}: {
  coat: Coat;
  paint: PaintOn | null;
  film: { wetMicron: number; dryMicron: number; readings: number } | null;
  poured: MixedBatch[];
}) {
  const { units } = useSettings();
  // One unit for one coat's paint, fine enough for what is left of it.
  const unit = pouringUnit('volume', units, paint?.mixedL ?? coat.litresOn ?? 0);
  return (
    <div className="min-w-0">
      <p>
        planned <Fig quantity="film" value={coat.dftMicron} /> dry
      </p>
      <p>
        {film ? (
          <>
            {film.readings} combed: <Fig quantity="film" value={film.wetMicron} /> wet ={' '}
            <Fig quantity="film" value={film.dryMicron} /> dry
          </>
        ) : (
          <span className="quiet">not combed</span>
        )}
      </p>
      {paint && paint.mixedL > 0 && (
        <p>
          <Fig quantity="volume" value={paint.mixedL} unit={unit} /> mixed,{' '}
          <Fig quantity="volume" value={paint.leftL} unit={unit} /> left
          {coat.lostL !== null && (
            <>
              , <Fig quantity="volume" value={coat.lostL} unit={unit} /> lost
            </>
          )}
        </p>
      )}
      {coat.thinner > 0 && (
        <p>
          thinner <Fig quantity="percent" value={coat.thinner} /> of the mix
        </p>
      )}
      {paint && paint.onL !== null && (
        <p>
          <Fig quantity="volume" value={paint.onL} unit={unit} approx={coat.litresOn === null} /> on the hull
        </p>
      )}
      {poured.map((b) => (
        <p key={b.id} className="text-sm quiet">
          {b.parts.map((p) => p.name).join(' + ')}:{' '}
          {b.parts.map((p, i) => (
            <span key={p.name}>
              {i > 0 && ' + '}
              <Fig quantity="volume" value={p.volumeL} unit={unit} />
            </span>
          ))}
        </p>
      ))}
    </div>
  );
}

/** What was decided about build-ups against a rule, and what was tried before anything went over an old coating. */
function Decided({ view }: { view: BoatView }) {
  const { boat, buildUps, surfaces } = view;
  const day = (at: number) => dateWords(at, boat.timeZone);
  const rows = buildUps.flatMap((b) => {
    const zone = surfaces.find((s) => s.id === b.surfaceId)?.name;
    if (!zone) return [];
    return [
      ...b.records.map((r) => ({
        id: r.id,
        at: r.at,
        zone,
        what: RECORD_WORDS[r.kind],
        words: r.note,
        painter: r.painter,
      })),
      ...b.overrides.map((o) => ({
        id: o.key,
        at: o.at,
        zone,
        what: 'Let stand against a rule',
        words: o.reason,
        painter: o.painter,
      })),
    ];
  });
  if (rows.length === 0) return null;
  return (
    <section aria-labelledby="decided" className="border-b border-base-300 py-2">
      <h2 id="decided">Tried and decided before painting</h2>
      <ul>
        {rows
          .sort((a, b) => b.at - a.at)
          .map((r) => (
            <li key={r.id} className="py-0.5">
              <span className="narrow">{day(r.at)}</span> <span className="font-semibold">{r.zone}</span>:{' '}
              {r.what.toLowerCase()}. {r.words} <span className="quiet">{r.painter}</span>
            </li>
          ))}
      </ul>
    </section>
  );
}
