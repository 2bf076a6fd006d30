import { computed } from '@preact/signals-core';
import { useEffect, useMemo, useRef, useState } from 'react';
import { Link, useNavigate, useParams } from 'react-router';
import { v7 as uuid } from 'uuid';
import { coatOf } from '#core/coat/fold';
import type { Layer } from '#core/film/layer';
import { applyMend, overrideKey, type Override } from '#core/system/mend';
import { buildUpOnArea } from '#core/system/quantities';
import { putIn, type JobChoices } from '#core/system/schools';
import { repeatCoat } from '#core/system/system';
import type { Finding, Mend, RecordKind } from '#core/system/stack';
import type { BuildUpRow } from '#contracts/boat';
import { useView } from '../../app/BoatShell';
import { NotFound } from '../../app/PlaceError';
import { now } from '../../data/now';
import { settings } from '../../data/settings';
import { save, useSheets, type BoatView } from '../../data/store';
import { toast } from '../../data/toasts';
import { Fig } from '../../parts/Fig';
import { computedAlike, useLive } from '../../parts/live';
import { StateSwatch } from '../../parts/patterns';
import { BOND_WORDS, EXISTING_WORDS, SUBSTRATE_WORDS } from '../../parts/choiceWords';
import { METHOD_WORDS } from '../../parts/words';
import { AddLayer } from './AddLayer';
import { CoatsAndFilm } from './CoatsAndFilm';
import { EditLayer } from './EditLayer';
import { FindingsPanel } from './FindingsPanel';
import { FromNamed } from './FromNamed';
import { LedgerPanel } from './LedgerPanel';
import { RecordDialog } from './RecordDialog';
import { SectionEditor } from './section/SectionEditor';
import { sectionCoats } from './planned';
import { OfLayer } from './OfLayer';
import { useHeldLayers } from './useHeldLayers';
import { useJob } from './useLedger';

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

/** What the right-hand side shows. */
type Panel =
  | { kind: 'ledger'; rule: string | null }
  | { kind: 'add'; at: number }
  | { kind: 'coat'; id: string }
  | { kind: 'named' };

const LEDGER: Panel = { kind: 'ledger', rule: null };
/** From this width on the panel stands beside the section. */
const BESIDE_PX = 1024;

function ZoneFilm({ view, surface }: { view: BoatView; surface: BoatView['surfaces'][number] }) {
  const navigate = useNavigate();
  const { data: sheets } = useSheets();
  const { boat, buildUps, sheetById, coats } = view;
  const [panel, setPanel] = useState<Panel>(LEDGER);
  const side = useRef<HTMLDivElement>(null);
  const opened = panel.kind === 'ledger' ? panel.rule : panel.kind === 'coat' ? panel.id : panel.kind;
  // On a phone what was opened lies below the section.
  useEffect(() => {
    if (opened !== null && innerWidth < BESIDE_PX) side.current?.scrollIntoView({ block: 'start' });
  }, [opened]);
  const [recording, setRecording] = useState<RecordKind | null>(null);
  const row = buildUps.find((b) => b.surfaceId === surface.id);
  const stored = useMemo(() => row?.layers ?? [], [row]);
  const { layers: live, hold, letGo } = useHeldLayers(stored);
  const job = useJob(view);
  const ledger = useMemo(
    () => computed(() => job.ledgerOf(live.value === stored ? undefined : new Map([[surface.id, live.value]]))),
    [job, live, stored, surface.id],
  );
  const own = useMemo(
    () => computed(() => ledger.value.zones.find((z) => z.surfaceId === surface.id)),
    [ledger, surface.id],
  );
  const quantities = useMemo(
    () => computed(() => (own.value?.perM2 ? buildUpOnArea(own.value.perM2, surface) : null)),
    [own, surface],
  );
  const shown = useMemo(
    () => computed(() => sectionCoats(view, surface.id, live.value, quantities.value)),
    [view, surface.id, live, quantities],
  );
  const findings = useLive(useMemo(() => computedAlike(() => own.value?.findings ?? []), [own]));
  const layers = live.peek();
  const isOn = (layerId: string) => coatOf(coats, surface.id, layerId) !== undefined;
  const current = panel.kind === 'coat' ? (layers.find((l) => l.id === panel.id) ?? null) : null;

  const write = (change: Partial<BuildUpRow>, label: string) => {
    const blank = {
      id: uuid(),
      boatId: boat.id,
      surfaceId: surface.id,
      layers: [],
      namedId: null,
      targetMicron: null,
      overrides: [],
      records: [],
      version: 0,
      deleted: false,
    };
    void save({ kind: 'buildUp', row: { ...(row ?? blank), ...change } }, label);
  };
  const filmDone = () => {
    const kept = letGo();
    if (kept) write({ layers: [...kept] }, 'Film changed');
  };
  const reorder = (ids: string[]) => {
    const byId = new Map(layers.map((l) => [l.id, l]));
    const next = ids.map((id) => byId.get(id) as Layer);
    // What is on the boat lies where it lies.
    const onFirst = next.findLastIndex((l) => isOn(l.id)) === next.filter((l) => isOn(l.id)).length - 1;
    if (onFirst) write({ layers: next }, 'Order changed');
    else toast('That coat is on the boat already: nothing goes beneath it.');
  };
  const add = (added: Layer[]) => {
    const at = panel.kind === 'add' ? panel.at : layers.length;
    write(
      {
        layers: putIn({
          layers,
          at,
          added,
          bond: job.choices.bond,
          abradeFor: job.choices.abradeFor,
          revisionById: revisionsOf(view, sheets),
        }),
      },
      `${added.length} ${added.length === 1 ? 'coat' : 'coats'} added`,
    );
    setPanel(LEDGER);
  };
  const mend = (m: Mend) => {
    if (m.kind === 'record') return setRecording(m.record);
    const touched = m.kind === 'replace' || m.kind === 'remove' || m.kind === 'split' ? layers[m.at] : undefined;
    if (touched && isOn(touched.id)) return toast('That coat is on the boat already and stays in the record as it is.');
    const usable = (sheets ?? []).filter((s) => !s.withdrawn).map((s) => s.current);
    const mended = applyMend({ layers, mend: m, sheets: usable, newId: uuid });
    if ('problem' in mended) return toast(mended.problem);
    return write({ layers: mended.layers }, m.words);
  };
  const letStand = (f: Finding, reason: string) => {
    const override: Override = {
      rule: f.rule,
      key: overrideKey(f, layers),
      reason,
      at: now(),
      painter: settings().painter,
    };
    write({ overrides: [...(row?.overrides ?? []).filter((o) => o.key !== override.key), override] }, 'Let stand');
  };

  return (
    <div className="grid min-w-0 gap-x-10 gap-y-2 lg:grid-cols-[minmax(0,1fr)_minmax(0,1fr)]">
      <ZoneNav view={view} surfaceId={surface.id} />
      <section className="min-w-0" aria-label="Section">
        <h1 className="text-2xl">{surface.name}</h1>
        <p className="quiet">
          {SUBSTRATE_WORDS[surface.substrate]}
          {surface.existing === 'bare' ? '' : `, ${EXISTING_WORDS[surface.existing].toLowerCase()}`},{' '}
          <Fig quantity="area" value={surface.areaM2} approx={surface.area.method === 'dimensions'} /> ±{' '}
          {Math.round(surface.areaShare * 100)} %
        </p>
        {layers.length === 0 ? (
          <EmptyBuildUp onAdd={() => setPanel({ kind: 'add', at: 0 })} onNamed={() => setPanel({ kind: 'named' })} />
        ) : (
          <>
            <SectionEditor
              coats={shown}
              substrate={surface.substrate}
              targetMicron={row?.targetMicron ?? null}
              ground={
                surface.existing === 'bare'
                  ? SUBSTRATE_WORDS[surface.substrate].toLowerCase()
                  : EXISTING_WORDS[surface.existing].toLowerCase()
              }
              findings={findings}
              selected={current?.id ?? null}
              onPick={(id) => setPanel(panel.kind === 'coat' && panel.id === id ? LEDGER : { kind: 'coat', id })}
              onFinding={(f) => setPanel({ kind: 'ledger', rule: `${f.rule}${f.upper}` })}
              onInsert={(at) => setPanel({ kind: 'add', at })}
              onOrder={reorder}
              onFilm={hold}
              onFilmDone={filmDone}
            />
            <CoatsAndFilm coats={shown} sheetById={sheetById} />
            <p className="text-sm quiet">
              Whole: on the boat. Broken edge: planned, its upper face can be dragged. Hatched: taken off by abrading,
              or not combed.
            </p>
          </>
        )}
      </section>
      <div ref={side} className="flex min-w-0 scroll-mt-2 flex-col gap-4">
        <JobLinks boatId={boat.id} surfaceId={surface.id} choices={job.choices} onPanel={setPanel} />
        {panel.kind === 'add' ? (
          <AddLayer
            where={
              panel.at >= layers.length ? `on ${surface.name}` : `beneath ${shown.peek()[panel.at]?.name ?? 'the next'}`
            }
            choices={job.choices}
            beneath={sheetById.get(layers[panel.at - 1]?.sheetRevisionId ?? '')?.body.kind ?? null}
            back={`/boats/${boat.id}/film/${surface.id}`}
            onAdd={add}
            onBack={() => setPanel(LEDGER)}
          />
        ) : panel.kind === 'named' ? (
          <FromNamed
            view={view}
            surface={surface}
            row={row}
            onWrite={(change, label) => (write(change, label), setPanel(LEDGER))}
            onBack={() => setPanel(LEDGER)}
          />
        ) : current ? (
          <OfLayer key={current.id} layers={live} layerId={current.id}>
            {(layer) => (
              <EditLayer
                revision={sheetById.get(current.sheetRevisionId)}
                layer={layer}
                first={layers[0]?.id === current.id}
                locked={isOn(current.id)}
                area={surface}
                onSave={(next) => {
                  write({ layers: live.peek().map((l) => (l.id === next.id ? next : l)) }, 'Coat changed');
                  setPanel(LEDGER);
                }}
                onRepeat={() => {
                  write({ layers: repeatCoat(layers, current.id, uuid) }, '1 coat added');
                }}
                onRemove={() => {
                  write({ layers: layers.filter((l) => l.id !== current.id) }, 'Coat taken out');
                  setPanel(LEDGER);
                }}
                onBack={() => setPanel(LEDGER)}
              />
            )}
          </OfLayer>
        ) : (
          layers.length > 0 && (
            <>
              <FindingsPanel
                findings={findings}
                layers={layers}
                overrides={row?.overrides ?? []}
                records={row?.records ?? []}
                shown={panel.kind === 'ledger' ? panel.rule : null}
                onMend={mend}
                onLetStand={letStand}
                onTakeBack={(o) =>
                  write({ overrides: (row?.overrides ?? []).filter((x) => x.key !== o.key) }, 'No longer let stand')
                }
              />
              <LedgerPanel
                quantities={quantities}
                ledger={ledger}
                job={job}
                boatId={boat.id}
                sheetIdOf={(id) => sheetById.get(id)?.sheetId}
              />
              <div className="flex flex-wrap gap-3">
                <button
                  type="button"
                  className="btn btn-primary"
                  onClick={() => setPanel({ kind: 'add', at: layers.length })}
                >
                  Add a coat
                </button>
                <button
                  type="button"
                  className="btn"
                  onClick={() => void navigate(`/boats/${boat.id}/mix?on=${surface.id}`)}
                >
                  Mix the next coat
                </button>
              </div>
            </>
          )
        )}
      </div>
      {recording && (
        <RecordDialog
          kind={recording}
          onClose={() => setRecording(null)}
          onSave={(record) => {
            write({ records: [...(row?.records ?? []), record] }, 'Put on record');
            setRecording(null);
          }}
        />
      )}
    </div>
  );
}

/** Sheets of the view and the newest of every other product, so that what was just added counts at once. */
function revisionsOf(view: BoatView, sheets: ReturnType<typeof useSheets>['data']) {
  return new Map([...view.sheetById, ...(sheets ?? []).map((s) => [s.current.id, s.current] as const)]);
}

function JobLinks({
  boatId,
  surfaceId,
  choices,
  onPanel,
}: {
  boatId: string;
  surfaceId: string;
  choices: JobChoices;
  onPanel: (panel: Panel) => void;
}) {
  return (
    <p className="narrow flex flex-wrap items-center gap-x-5 text-lg lg:-mb-2">
      <Link
        to={`/boats/${boatId}/film/${surfaceId}/schools`}
        className="link-row underline decoration-1 underline-offset-4"
      >
        {BOND_WORDS[choices.bond]}, {choices.packs === 'twoPack' ? 'two-pack' : 'one-pack'},{' '}
        {METHOD_WORDS[choices.method].toLowerCase()}
      </Link>
      <Link to={`/boats/${boatId}/film/borders`} className="link-row underline decoration-1 underline-offset-4">
        Borders
      </Link>
      <Link to={`/boats/${boatId}/film/swap`} className="link-row underline decoration-1 underline-offset-4">
        Change a product
      </Link>
      <button
        type="button"
        className="link-row underline decoration-1 underline-offset-4"
        onClick={() => onPanel({ kind: 'named' })}
      >
        Named build-ups
      </button>
    </p>
  );
}

function ZoneNav({ view, surfaceId }: { view: BoatView; surfaceId: string }) {
  const { surfaces, statuses, boat } = view;
  return (
    <nav
      aria-label="Zones"
      className="-mx-3 apart flex gap-x-4 overflow-x-auto px-3 whitespace-nowrap lg:col-span-2 lg:mx-0 lg:flex-wrap lg:px-0"
    >
      {surfaces.map((s, i) => (
        <Link
          key={s.id}
          to={`/boats/${boat.id}/film/${s.id}`}
          aria-current={s.id === surfaceId ? 'page' : undefined}
          className={`narrow link-row gap-1.5 text-lg lg:min-h-9 ${s.id === surfaceId ? 'font-semibold underline decoration-2 underline-offset-8' : ''}`}
        >
          <StateSwatch state={statuses[i]?.state ?? 'ready'} colour={statuses[i]?.colourHex ?? null} size={16} />{' '}
          {s.name}
        </Link>
      ))}
    </nav>
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
