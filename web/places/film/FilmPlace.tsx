import { useEffect, useRef, useState } from 'react';
import { Link, useParams } from 'react-router';
import type { RecordKind } from '#core/system/stack';
import { useView } from '../../app/BoatShell';
import { NotFound } from '../../app/PlaceError';
import type { BoatView } from '../../data/store';
import { Fig } from '../../parts/Fig';
import { useSpoken } from '../../parts/spoken';
import { Term } from '../../parts/Term';
import { ZoneNav } from '../../parts/ZoneNav';
import { EXISTING_WORDS, SUBSTRATE_WORDS } from '../../parts/choiceWords';
import { CoatsAndFilm } from './CoatsAndFilm';
import { RecordDialog } from './RecordDialog';
import { SectionEditor } from './section/SectionEditor';
import { FilmTarget } from './FilmTarget';
import { useZoneFilm } from './useZoneFilm';
import { usePanel } from './usePanel';
import { LEDGER, ZoneSide, type RestPanel } from './ZoneSide';

/** A zone's build-up as a cross-section to scale: its editor, what the rules say of it, and what it takes. */
export function FilmPlace() {
  const view = useView();
  const { surfaceId } = useParams();
  const { surfaces, boat } = view;
  const surface = surfaceId ? surfaces.find((s) => s.id === surfaceId) : surfaces[0];
  if (surfaceId && !surface) return <NotFound what="zone" />;
  if (!surface) {
    return (
      <section className="max-w-prose py-6">
        <h1>No zone to build up</h1>
        <p className="my-3">A build-up is the coats on one zone, in order. Add the zone first.</p>
        <Link to={`/boats/${boat.id}/hull/new`} className="btn btn-primary">
          Add a zone
        </Link>
      </section>
    );
  }
  return <ZoneFilm key={surface.id} view={view} surface={surface} />;
}

/** From this width on the panel stands beside the section. */
const BESIDE_PX = 1024;

function ZoneFilm({ view, surface }: { view: BoatView; surface: BoatView['surfaces'][number] }) {
  const [panel, setPanel] = usePanel<RestPanel>(LEDGER);
  const [recording, setRecording] = useState<RecordKind | null>(null);
  const film = useZoneFilm(view, surface);
  const side = useRef<HTMLDivElement>(null);
  const opened = panel.kind === 'ledger' ? panel.rule : panel.kind === 'coat' ? panel.id : panel.kind;
  // On a phone what was opened lies below the section.
  useEffect(() => {
    if (opened !== null && innerWidth < BESIDE_PX) side.current?.scrollIntoView({ block: 'start' });
  }, [opened]);
  const bare = surface.existing === 'bare';
  const say = useSpoken();
  return (
    <div className="grid min-w-0 gap-x-10 gap-y-2 lg:grid-cols-[minmax(0,13fr)_minmax(0,12fr)]">
      <ZoneNav view={view} surfaceId={surface.id} place="film" />
      <section className="min-w-0" aria-label="Section">
        <h1 className="text-2xl">{surface.name}</h1>
        <p className="quiet">
          {say(SUBSTRATE_WORDS[surface.substrate])}
          {bare ? '' : `, ${EXISTING_WORDS[surface.existing].toLowerCase()}`},{' '}
          <Fig quantity="area" value={surface.areaM2} approx={surface.area.method === 'dimensions'} /> ±{' '}
          {Math.round(surface.areaShare * 100)} %
        </p>
        {film.layers.length === 0 ? (
          <EmptyBuildUp onAdd={() => setPanel({ kind: 'add', at: 0 })} onNamed={() => setPanel({ kind: 'named' })} />
        ) : (
          <>
            <SectionEditor
              coats={film.coats}
              substrate={surface.substrate}
              targetMicron={film.row?.targetMicron ?? null}
              ground={say(bare ? SUBSTRATE_WORDS[surface.substrate] : EXISTING_WORDS[surface.existing]).toLowerCase()}
              findings={film.findings}
              selected={panel.kind === 'coat' && film.layers.some((l) => l.id === panel.id) ? panel.id : null}
              onPick={(id) => setPanel(panel.kind === 'coat' && panel.id === id ? LEDGER : { kind: 'coat', id })}
              onFinding={(f) => setPanel({ kind: 'ledger', rule: `${f.rule}${f.upper}` })}
              onInsert={(at) => setPanel({ kind: 'add', at })}
              onOrder={film.reorder}
              onFilm={film.hold}
              onFilmDone={film.letGo}
            />
            <CoatsAndFilm coats={film.coats} sheetById={view.sheetById} />
            <FilmTarget
              key={film.row?.targetMicron}
              row={film.row}
              coats={film.coats}
              onWrite={(change, label) => (film.write(change, label), setPanel(LEDGER))}
            />
            <p className="text-sm quiet">
              <Term of="film">Film</Term>, whole: on the boat. Broken edge: planned, its upper face can be dragged.
              Hatched: taken off by abrading, or not combed.
            </p>
          </>
        )}
      </section>
      <div ref={side} className="flex min-w-0 scroll-mt-2 flex-col gap-4">
        <ZoneSide
          view={view}
          surface={surface}
          film={film}
          panel={panel}
          onPanel={setPanel}
          onRecord={(kind) => setRecording(kind)}
        />
      </div>
      {recording && (
        <RecordDialog
          kind={recording}
          onClose={() => setRecording(null)}
          onSave={(record) => {
            film.write({ records: [...(film.row?.records ?? []), record] }, 'Put on record');
            setRecording(null);
          }}
        />
      )}
    </div>
  );
}

function EmptyBuildUp({ onAdd, onNamed }: { onAdd: () => void; onNamed: () => void }) {
  return (
    <div className="max-w-prose py-4">
      <p>
        Nothing is planned here yet. Start from a build-up that is usual on this substrate, or put the coats in one by
        one: film, litres and packs follow.
      </p>
      <div className="mt-3 flex flex-wrap gap-3">
        <button type="button" className="btn btn-primary" onClick={onNamed}>
          Take a build-up
        </button>
        <button type="button" className="btn" onClick={onAdd}>
          Add a coat
        </button>
      </div>
    </div>
  );
}
