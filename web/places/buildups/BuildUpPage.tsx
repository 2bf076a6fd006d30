import { Link, useNavigate, useParams } from 'react-router';
import { v7 as uuid } from 'uuid';
import { USUAL_CHOICES } from '#core/system/schools';
import { repeatCoat } from '#core/system/system';
import { counted } from '#core/units/format';
import type { NamedBuildUpRow } from '#contracts/rows/system';
import { NotFound } from '../../app/PlaceError';
import { save, useNamed, useSheets } from '../../data/store';
import { FormProblem } from '../../parts/Field';
import { SUBSTRATE_WORDS } from '../../parts/choiceWords';
import { AddLayer } from '../film/AddLayer';
import { backToAdding, usePanel, type AddPanel } from '../film/usePanel';
import { CoatsAndFilm } from '../film/CoatsAndFilm';
import { EditLayer } from '../film/lazyEditLayer';
import { FindingsPanel } from '../film/FindingsPanel';
import { SectionEditor } from '../film/section/SectionEditor';
import { About } from './About';
import { Followers } from './Followers';
import { useNamedEditor, type NamedEditor } from './useNamedEditor';

/** One named build-up: its section, who follows it, who has departed, and what a change would do to them. */
export function BuildUpPage() {
  const { namedId } = useParams();
  const { named, uses } = useNamed();
  const { data: sheets } = useSheets();
  if (!named || !sheets)
    return <div className="skeleton m-5 h-64 rounded-sm" role="status" aria-label="Loading the build-up" />;
  const row = named.find((n) => n.id === namedId);
  if (!row) return <NotFound what="build-up" />;
  return <Editor key={row.id} row={row} boatIds={[...new Set((uses[row.id] ?? []).map((u) => u.boatId))]} />;
}

type RestPanel = { kind: 'who' } | { kind: 'coat'; id: string };
type Panel = RestPanel | AddPanel;

const WHO: RestPanel = { kind: 'who' };

interface PartProps {
  row: NamedBuildUpRow;
  editor: NamedEditor;
  panel: Panel;
  onPanel: (panel: Panel) => void;
}

function Editor({ row, boatIds }: { row: NamedBuildUpRow; boatIds: readonly string[] }) {
  const editor = useNamedEditor(row, boatIds);
  const [panel, setPanel] = usePanel<RestPanel>(WHO);
  const parts = { row, editor, panel, onPanel: setPanel };
  return (
    <div className="mx-auto w-full max-w-[88rem] px-3 pb-24 pt-4 sm:px-5">
      <Head row={row} />
      <div className="grid gap-x-10 gap-y-4 pt-3 lg:grid-cols-2">
        <Section {...parts} />
        <div className="flex min-w-0 flex-col gap-4">
          {editor.changed && <Unsaved editor={editor} onBack={() => setPanel(WHO)} />}
          <FormProblem message={editor.failure?.message ?? editor.bad} />
          <Side {...parts} />
        </div>
      </div>
    </div>
  );
}

function Head({ row }: { row: NamedBuildUpRow }) {
  const navigate = useNavigate();
  return (
    <div className="ruled flex flex-wrap items-center gap-3 pb-1">
      <h1 className="mr-auto min-w-0 break-words text-2xl">{row.name}</h1>
      <Link to="/build-ups" className="btn">
        All build-ups
      </Link>
      <button
        type="button"
        className="btn btn-ghost text-error"
        onClick={() => {
          void save({ kind: 'named', row: { ...row, deleted: true } }, `${row.name} removed`);
          void navigate('/build-ups');
        }}
      >
        Remove
      </button>
    </div>
  );
}

function Section({ editor, panel, onPanel }: PartProps) {
  const { now, layers, coats } = editor;
  const substrate = now.substrates[0] ?? 'gelcoat';
  return (
    <section className="min-w-0" aria-label="Section">
      {layers.length === 0 ? (
        <p className="py-3">No coat yet. Put the first one on the substrate.</p>
      ) : (
        <>
          <SectionEditor
            coats={coats}
            substrate={substrate}
            targetMicron={now.targetMicron}
            ground={SUBSTRATE_WORDS[substrate].toLowerCase()}
            findings={editor.findings}
            selected={panel.kind === 'coat' && layers.some((l) => l.id === panel.id) ? panel.id : null}
            onPick={(id) => onPanel(panel.kind === 'coat' && panel.id === id ? WHO : { kind: 'coat', id })}
            onFinding={() => onPanel(WHO)}
            onInsert={(at) => onPanel({ kind: 'add', at })}
            onOrder={(ids) => editor.setLayers(ids.flatMap((id) => layers.find((l) => l.id === id) ?? []))}
            onFilm={editor.hold}
            onFilmDone={editor.letGo}
          />
          <CoatsAndFilm coats={coats} sheetById={editor.revisionById} />
        </>
      )}
      <button type="button" className="btn mt-2" onClick={() => onPanel({ kind: 'add', at: layers.length })}>
        Add a coat
      </button>
    </section>
  );
}

function Unsaved({ editor, onBack }: { editor: NamedEditor; onBack: () => void }) {
  const { follow, bad, sending, theirs } = editor;
  return (
    <div className="sticky top-0 z-10 flex flex-wrap items-center gap-3 border-b-2 border-base-content bg-base-100 py-2">
      <span className="mr-auto">
        Changed, not saved{follow.length > 0 ? `: saving puts it on ${counted(follow.length, 'zone')} too` : ''}.
      </span>
      <button
        type="button"
        className="btn btn-primary"
        disabled={bad !== null || sending}
        onClick={() => void editor.write()}
      >
        {theirs ? 'Keep what stands here' : 'Save'}
      </button>
      <button
        type="button"
        className="btn"
        onClick={() => {
          editor.back();
          onBack();
        }}
      >
        Back to what it was
      </button>
    </div>
  );
}

/** Beside the section: what is being added or changed, or else the rules, the zones that follow, and what it is for. */
function Side({ row, editor, panel, onPanel }: PartProps) {
  const { now, layers, revisionById } = editor;
  const current = panel.kind === 'coat' ? layers.find((l) => l.id === panel.id) : undefined;
  const close = () => onPanel(WHO);
  if (panel.kind === 'add')
    return (
      <AddLayer
        where={`to ${now.name}`}
        choices={{ ...USUAL_CHOICES, bond: now.bond }}
        exposure={now.exposure}
        beneath={revisionById.get(layers[panel.at - 1]?.sheetRevisionId ?? '')?.body.kind ?? null}
        back={backToAdding(`/build-ups/${row.id}`, panel.at)}
        onAdd={(added) => {
          editor.add(added, panel.at);
          close();
        }}
        onBack={close}
      />
    );
  if (current)
    return (
      <EditLayer
        key={current.id}
        revision={revisionById.get(current.sheetRevisionId)}
        layer={current}
        first={layers[0]?.id === current.id}
        locked={false}
        area={null}
        onSave={(next) => {
          editor.setLayers(layers.map((l) => (l.id === next.id ? next : l)));
          close();
        }}
        onRepeat={() => editor.setLayers(repeatCoat(layers, current.id, uuid))}
        onRemove={() => {
          editor.setLayers(layers.filter((l) => l.id !== current.id));
          close();
        }}
        onBack={close}
      />
    );
  return (
    <>
      <FindingsPanel
        findings={editor.findings}
        layers={layers}
        overrides={[]}
        records={[]}
        shown={null}
        onMend={(m) => void editor.mend(m)}
      />
      <Followers
        views={editor.views}
        follow={editor.follow}
        departed={editor.departed}
        changed={editor.changedLayers}
        sheetOf={editor.sheetOf}
        keptMicron={editor.coats.reduce((sum, c) => sum + c.keptMicron, 0)}
        onInLine={(z) => editor.put([z], `${z.name} brought in line`)}
      />
      <About now={now} set={editor.set} />
    </>
  );
}
