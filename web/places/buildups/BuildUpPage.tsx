import { computed, type ReadonlySignal } from '@preact/signals-core';
import { useMemo, useState } from 'react';
import { Link, useNavigate, useParams } from 'react-router';
import { v7 as uuid } from 'uuid';
import { coatOf } from '#core/coat/fold';
import type { Layer } from '#core/film/layer';
import { packsMinor } from '#core/stores/money';
import type { JobProduct } from '#core/stores/share';
import { EXPOSURES, SUBSTRATES, type Substrate } from '#core/hull/zones';
import { checkBuildUp } from '#core/system/checkBuildUp';
import { withSheets, type ZoneLedger } from '#core/system/ledger';
import { applyMend } from '#core/system/mend';
import { putIn, USUAL_CHOICES, type BondSchool } from '#core/system/schools';
import { buildUpQuantities } from '#core/system/quantities';
import { applyNamed, followers, repeatCoat } from '#core/system/system';
import type { BuildUpRow } from '#contracts/boat';
import type { NamedBuildUpRow } from '#contracts/system';
import { NotFound } from '../../app/PlaceError';
import { figure, shownUnit } from '#core/units/format';
import type { Unit } from '#core/units/quantities';
import { useSettings } from '../../data/settings';
import { save, useBoats, useNamed, useSheets, type BoatView } from '../../data/store';
import { toast } from '../../data/toasts';
import { useSubmit } from '../../data/useSubmit';
import { attempt } from '../../parts/attempt';
import { Choice, FormProblem, QuantityField, SelectField, TextField } from '../../parts/Field';
import { LiveLines, LiveFig, LiveText, computedAlike, useFollowing, useLive } from '../../parts/live';
import { BOND_WORDS, EXPOSURE_WORDS, SUBSTRATE_WORDS } from '../../parts/choiceWords';
import { moneyWords, packWords } from '../../parts/words';
import { AddLayer } from '../film/AddLayer';
import { CoatsAndFilm } from '../film/CoatsAndFilm';
import { EditLayer } from '../film/EditLayer';
import { FindingMark } from '../film/FindingMark';
import { FindingsPanel } from '../film/FindingsPanel';
import { OfLayer } from '../film/OfLayer';
import { plannedCoats } from '../film/planned';
import { SectionEditor } from '../film/section/SectionEditor';
import { useHeldLayers } from '../film/useHeldLayers';
import { useJob } from '../film/useLedger';
import { sheetIdsOf } from './sheetIds';

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

interface Zone {
  readonly view: BoatView;
  readonly row: BuildUpRow;
  readonly name: string;
  readonly areaM2: number;
  readonly layers: readonly Layer[];
}

type Panel = { kind: 'who' } | { kind: 'add'; at: number } | { kind: 'coat'; id: string };

function Editor({ row, boatIds }: { row: NamedBuildUpRow; boatIds: string[] }) {
  const navigate = useNavigate();
  const { data: sheets } = useSheets();
  const views = useBoats(boatIds);
  const [draft, setDraft] = useState<NamedBuildUpRow | null>(null);
  const [panel, setPanel] = useState<Panel>({ kind: 'who' });
  const { failure, theirs, sending, submit } = useSubmit();
  const now = draft ?? row;
  const { layers: live, hold, letGo } = useHeldLayers(now.layers);
  const layers = [...live.peek()];
  const set = (change: Partial<NamedBuildUpRow>) => setDraft((before) => ({ ...(before ?? row), ...change }));
  const setLayers = (next: Layer[]) => set({ layers: next });
  const revisionById = useMemo(
    () =>
      new Map([
        ...views.flatMap((v) => [...v.sheetById]),
        ...(sheets ?? []).map((s) => [s.current.id, s.current] as const),
      ]),
    [views, sheets],
  );
  const sheetOf = useMemo(() => sheetIdsOf(sheets ?? [], [...revisionById.values()]), [sheets, revisionById]);
  const zones = useMemo(
    () =>
      views.flatMap((view) =>
        view.buildUps
          .filter((b) => b.namedId === row.id)
          .flatMap((b): Zone[] => {
            const surface = view.surfaces.find((s) => s.id === b.surfaceId);
            return surface ? [{ view, row: b, name: surface.name, areaM2: surface.areaM2, layers: b.layers }] : [];
          }),
      ),
    [views, row.id],
  );
  const { follow, departed } = useMemo(
    () => followers({ named: row.layers, zones, sheetOf }),
    [row.layers, zones, sheetOf],
  );
  const stack = useMemo(() => computed(() => withSheets(live.value, revisionById)), [live, revisionById]);
  const findings = useLive(
    useMemo(
      () =>
        computedAlike(() =>
          stack.value.length === 0
            ? []
            : checkBuildUp({
                substrate: now.substrates[0] as Substrate,
                exposure: now.exposure,
                layers: stack.value,
                targetMicron: now.targetMicron,
              }),
        ),
      [stack, now.substrates, now.exposure, now.targetMicron],
    ),
  );
  // No zone, so no litres that mean anything: what each coat takes of a square metre.
  const perM2 = useMemo(
    () =>
      computed(() =>
        stack.value.length === live.value.length
          ? attempt(() => buildUpQuantities({ areaM2: 1, areaShare: 0, layers: stack.value })).value
          : null,
      ),
    [stack, live],
  );
  const coats = useMemo(
    () => computed(() => plannedCoats(live.value, revisionById, perM2.value)),
    [live, revisionById, perM2],
  );
  const keptMicron = useMemo(() => computed(() => coats.value.reduce((sum, c) => sum + c.keptMicron, 0)), [coats]);
  const current = panel.kind === 'coat' ? layers.find((l) => l.id === panel.id) : undefined;
  const changed = draft !== null;
  const bad =
    now.name.trim() === ''
      ? 'A build-up needs a name. Type it.'
      : now.substrates.length === 0
        ? 'Choose at least one substrate.'
        : now.targetMicron !== null && !(now.targetMicron > 0)
          ? 'The target cannot be read. Type it again, or leave it empty.'
          : null;

  const put = (targets: readonly Zone[], label: string) => {
    for (const view of views) {
      const rows = targets
        .filter((z) => z.view.boat.id === view.boat.id)
        .flatMap((z) => {
          const next = applyNamed({ ...inLine(z, live.peek(), sheetOf), newId: uuid });
          return next ? [{ ...z.row, layers: [...next], targetMicron: now.targetMicron }] : [];
        });
      if (rows.length > 0) void save({ kind: 'buildUps', boatId: view.boat.id, rows }, label);
    }
  };
  const write = async () => {
    if (bad) return;
    if (
      !(await submit(
        { kind: 'named', row: { ...now, name: now.name.trim(), version: theirs?.version ?? row.version } },
        `${now.name.trim()} saved`,
      ))
    )
      return;
    if (JSON.stringify(layers) !== JSON.stringify(row.layers) || now.targetMicron !== row.targetMicron)
      put(follow, `Put on the zones of ${now.name.trim()}`);
    setDraft(null);
  };

  return (
    <div className="mx-auto w-full max-w-[88rem] px-3 pb-24 pt-4 sm:px-5">
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
      <div className="grid gap-x-10 gap-y-4 pt-3 lg:grid-cols-2">
        <section className="min-w-0" aria-label="Section">
          {layers.length === 0 ? (
            <p className="py-3">No coat yet. Put the first one on the substrate.</p>
          ) : (
            <>
              <SectionEditor
                coats={coats}
                substrate={now.substrates[0] ?? 'gelcoat'}
                targetMicron={now.targetMicron}
                ground={SUBSTRATE_WORDS[now.substrates[0] ?? 'gelcoat'].toLowerCase()}
                findings={findings}
                selected={current?.id ?? null}
                onPick={(id) =>
                  setPanel(panel.kind === 'coat' && panel.id === id ? { kind: 'who' } : { kind: 'coat', id })
                }
                onFinding={() => setPanel({ kind: 'who' })}
                onInsert={(at) => setPanel({ kind: 'add', at })}
                onOrder={(ids) => setLayers(ids.map((id) => layers.find((l) => l.id === id) as Layer))}
                onFilm={hold}
                onFilmDone={() => {
                  const kept = letGo();
                  if (kept) setLayers([...kept]);
                }}
              />
              <CoatsAndFilm coats={coats} sheetById={revisionById} />
            </>
          )}
          <button type="button" className="btn mt-2" onClick={() => setPanel({ kind: 'add', at: layers.length })}>
            Add a coat
          </button>
        </section>
        <div className="flex min-w-0 flex-col gap-4">
          {changed && (
            <div className="sticky top-0 z-10 flex flex-wrap items-center gap-3 border-b-2 border-base-content bg-base-100 py-2">
              <span className="mr-auto">
                Changed, not saved
                {follow.length > 0
                  ? `: saving puts it on ${follow.length} ${follow.length === 1 ? 'zone' : 'zones'} too`
                  : ''}
                .
              </span>
              <button
                type="button"
                className="btn btn-primary"
                disabled={bad !== null || sending}
                onClick={() => void write()}
              >
                {theirs ? 'Keep what stands here' : 'Save'}
              </button>
              <button type="button" className="btn" onClick={() => (setDraft(null), setPanel({ kind: 'who' }))}>
                Back to what it was
              </button>
            </div>
          )}
          <FormProblem message={failure?.message ?? bad} />
          {panel.kind === 'add' ? (
            <AddLayer
              where={`to ${now.name}`}
              choices={{ ...USUAL_CHOICES, bond: now.bond }}
              beneath={revisionById.get(layers[panel.at - 1]?.sheetRevisionId ?? '')?.body.kind ?? null}
              back={`/build-ups/${row.id}`}
              onAdd={(added) => {
                setLayers(putIn({ layers, at: panel.at, added, bond: now.bond, revisionById }));
                setPanel({ kind: 'who' });
              }}
              onBack={() => setPanel({ kind: 'who' })}
            />
          ) : current ? (
            <OfLayer key={current.id} layers={live} layerId={current.id}>
              {(layer) => (
                <EditLayer
                  revision={revisionById.get(current.sheetRevisionId)}
                  layer={layer}
                  first={layers[0]?.id === current.id}
                  locked={false}
                  area={null}
                  onSave={(next) => (
                    setLayers(live.peek().map((l) => (l.id === next.id ? next : l))),
                    setPanel({ kind: 'who' })
                  )}
                  onRepeat={() => setLayers(repeatCoat(layers, current.id, uuid))}
                  onRemove={() => (setLayers(layers.filter((l) => l.id !== current.id)), setPanel({ kind: 'who' }))}
                  onBack={() => setPanel({ kind: 'who' })}
                />
              )}
            </OfLayer>
          ) : (
            <>
              <FindingsPanel
                findings={findings}
                layers={layers}
                overrides={[]}
                records={[]}
                shown={null}
                onMend={(m) => {
                  const mended = applyMend({
                    layers,
                    mend: m,
                    sheets: (sheets ?? []).filter((s) => !s.withdrawn).map((s) => s.current),
                    newId: uuid,
                  });
                  if ('problem' in mended) toast(mended.problem);
                  else setLayers(mended.layers);
                }}
              />
              <Who
                views={views}
                follow={follow}
                departed={departed}
                named={live}
                saved={row.layers}
                sheetOf={sheetOf}
                keptMicron={keptMicron}
                onInLine={(z) => put([z], `${z.name} brought in line`)}
              />
              <About
                name={now.name}
                substrates={now.substrates}
                exposure={now.exposure}
                bond={now.bond}
                targetMicron={now.targetMicron}
                note={now.note}
                set={set}
              />
            </>
          )}
        </div>
      </div>
    </div>
  );
}

const isOn = (zone: Zone, layerId: string) => coatOf(zone.view.coats, zone.row.surfaceId, layerId) !== undefined;

const inLine = (zone: Zone, named: readonly Layer[], sheetOf: (revisionId: string) => string) => ({
  named,
  current: zone.layers,
  isOn: (id: string) => isOn(zone, id),
  sheetOf,
});

interface Departed {
  readonly zone: Zone;
  readonly differences: readonly string[];
}

interface FollowProps {
  /** The build-up's layers as they stand here, and as they were saved. */
  readonly named: ReadonlySignal<readonly Layer[]>;
  readonly saved: readonly Layer[];
  readonly sheetOf: (revisionId: string) => string;
  /** Film of the build-up itself. */
  readonly keptMicron: ReadonlySignal<number>;
  readonly onInLine: (zone: Zone) => void;
}

/** The zones that have it: those that follow change with it, those that departed are told how. */
function Who({
  views,
  follow,
  departed,
  ...rest
}: { views: readonly BoatView[]; follow: readonly Zone[]; departed: readonly Departed[] } & FollowProps) {
  return (
    <section aria-labelledby="who">
      <h2 id="who" className="ruled pb-1">
        {follow.length + departed.length === 0
          ? 'On no zone yet'
          : `${follow.length} ${follow.length === 1 ? 'zone follows' : 'zones follow'}${departed.length > 0 ? `, ${departed.length} departed` : ''}`}
      </h2>
      {views.map((view) => (
        <BoatFollows
          key={view.boat.id}
          view={view}
          follow={follow.filter((z) => z.view === view)}
          departed={departed.filter((d) => d.zone.view === view)}
          {...rest}
        />
      ))}
      {follow.length + departed.length === 0 && (
        <p className="py-1.5 quiet">Take it for a zone under Film, Named build-ups.</p>
      )}
    </section>
  );
}

function BoatFollows({
  view,
  follow,
  departed,
  named,
  saved,
  sheetOf,
  keptMicron,
  onInLine,
}: { view: BoatView; follow: readonly Zone[]; departed: readonly Departed[] } & FollowProps) {
  const job = useJob(view);
  const { units } = useSettings();
  const ledger = useMemo(
    () =>
      computed(() => {
        if (named.value === saved) return job.ledgerOf();
        return job.ledgerOf(
          new Map(
            follow.flatMap((z) => {
              const next = applyNamed(inLine(z, named.value, sheetOf));
              return next ? [[z.row.surfaceId, next] as const] : [];
            }),
          ),
        );
      }),
    [job, named, saved, follow, sheetOf],
  );
  const bought = useLive(
    useMemo(
      () =>
        computed(() =>
          ledger.value.products
            .filter((p) => p.purchase && p.purchase.packs.length > 0)
            .map((p) => p.sheetId)
            .join(),
        ),
      [ledger],
    ),
  );
  const ofProduct = (sheetId: string) => ledger.value.products.find((p) => p.sheetId === sheetId);
  const ofZone = (z: Zone) => ledger.value.zones.find((x) => x.surfaceId === z.row.surfaceId);
  const unit = shownUnit('volume', units);
  // Without the unit; nothing where they cannot be worked out.
  const litresOf = (z: Zone) => {
    const total = ofZone(z)?.perM2?.total;
    return total ? figure('volume', total.litres * z.areaM2, units, undefined, unit).number : '';
  };
  const litres = computed(() => follow.map(litresOf));
  const line = (z: Zone, told: () => string) => (
    <ZoneLine
      path={`/boats/${view.boat.id}/film/${z.row.surfaceId}`}
      zone={z}
      of={() => ofZone(z)}
      litres={told}
      unit={unit}
      named={keptMicron}
    />
  );
  return (
    <div className="border-b border-base-300 py-2">
      <div className="box-of-its-own" style={{ height: `${BOAT_REM + LABEL_REM + follow.length * ZONE_LINE_REM}rem` }}>
        <p className="flex items-baseline gap-3" style={{ height: `${BOAT_REM}rem` }}>
          <span className="narrow flex-1 cut text-lg font-semibold">{view.boat.name}</span>
          <span>
            job’s packs{' '}
            <LiveText
              of={() => moneyWords(packsMinor(ledger.value.products), job.currency)}
              className="fig inline-block min-w-24 text-right text-lg"
            />
          </span>
        </p>
        <p className="lab text-right" style={{ height: `${LABEL_REM}rem` }}>
          all coats, about {unit.symbol}
        </p>
        <ul className="apart">
          {follow.map((z, i) => (
            <li key={z.row.id}>{line(z, () => litres.value[i] as string)}</li>
          ))}
        </ul>
        {/* All of them change in a drag: one text of as many lines is laid out and painted for a fraction of what a box for each takes, and leaves a fraction of its garbage. */}
        <Litres of={() => litres.value.join('\n')} />
      </div>
      {departed.length > 0 && (
        <ul>
          {departed.map(({ zone, differences }) => (
            <li key={zone.row.id}>
              <div className="relative">
                {line(zone, () => litresOf(zone))}
                <Litres of={() => litresOf(zone)} />
              </div>
              <p className="text-sm quiet">
                departed: {differences.join(', ')}.{' '}
                <button type="button" className="link-row underline underline-offset-4" onClick={() => onInLine(zone)}>
                  Bring in line
                </button>
              </p>
            </li>
          ))}
        </ul>
      )}
      <ul aria-label={`Packs for ${view.boat.name}`} className="border-t border-base-300 pt-1">
        {bought !== '' && bought.split(',').map((id) => <PacksLine key={id} of={() => ofProduct(id)} />)}
      </ul>
    </div>
  );
}

const BOAT_REM = 2;
const LABEL_REM = 1.375;
const ZONE_LINE_REM = 2.25;

/** The litres of zones, a line for each, at the right of their names; assistive technology is told them with the names. */
function Litres({ of }: { of: () => string }) {
  return (
    <LiveText
      of={of}
      className="fig absolute right-0 bottom-0 w-20 bg-base-100 px-0.5 text-right whitespace-pre"
      style={{ lineHeight: `${ZONE_LINE_REM}rem` }}
      hidden
    />
  );
}

/** A zone, described by what all its coats take, with its film where that is another than the build-up's. */
function ZoneLine({
  path,
  zone,
  of,
  litres,
  unit,
  named,
}: {
  path: string;
  zone: Zone;
  of: () => ZoneLedger | undefined;
  litres: () => string;
  unit: Unit;
  named: ReadonlySignal<number>;
}) {
  const own = useMemo(() => computed(of), [of]);
  const worst = useLive(
    useMemo(() => computed(() => own.value?.findings.find((f) => f.severity !== 'note')?.severity), [own]),
  );
  const kept = useMemo(() => computed(() => own.value?.perM2?.total.keptMicron), [own]);
  const differs = useLive(
    useMemo(() => computed(() => kept.value !== undefined && Math.abs(kept.value - named.value) > 0.5), [kept, named]),
  );
  const link = useFollowing<HTMLAnchorElement, string>(litres, (element, told) =>
    element.setAttribute('aria-description', told && `all coats about ${told} ${unit.symbol}`),
  );
  return (
    <div className="flex items-center gap-4 pr-24" style={{ height: `${ZONE_LINE_REM}rem` }}>
      <Link ref={link} to={path} className="flex-1 cut underline decoration-1 underline-offset-4">
        {zone.name}
      </Link>
      {worst && <FindingMark severity={worst} />}
      {differs && <LiveFig quantity="film" of={() => kept.value ?? 0} />}
    </div>
  );
}

/** A row of its own where there is room for it; on a phone many packs take the lines they need. */
function PacksLine({ of }: { of: () => JobProduct | undefined }) {
  const product = useMemo(() => computed(of), [of]);
  return (
    <li className="flex flex-wrap items-center justify-between gap-x-3 leading-tight max-sm:py-1 sm:box-of-its-own sm:h-12 sm:flex-nowrap sm:items-start sm:pt-1">
      <span className="cut sm:w-2/5 sm:shrink-0">{product.peek()?.sheet.name}</span>
      <LiveLines
        of={() => packWords(product.value?.purchase?.packs ?? [])}
        className="narrow max-w-full sm:flex-1 sm:text-right"
      />
    </li>
  );
}

/** What it is for. */
function About({
  set,
  ...now
}: Pick<NamedBuildUpRow, 'name' | 'substrates' | 'exposure' | 'bond' | 'targetMicron' | 'note'> & {
  set: (change: Partial<NamedBuildUpRow>) => void;
}) {
  return (
    <section className="apart flex flex-col gap-3" aria-labelledby="about">
      <h2 id="about" className="ruled pb-1">
        What it is for
      </h2>
      <TextField label="Name" value={now.name} onChange={(e) => set({ name: e.target.value })} />
      <fieldset>
        <legend className="lab">Substrates</legend>
        <div className="flex flex-wrap gap-x-5">
          {SUBSTRATES.map((s) => (
            <label key={s} className="link-row gap-2">
              <input
                type="checkbox"
                className="checkbox"
                checked={now.substrates.includes(s)}
                onChange={(e) =>
                  set({ substrates: e.target.checked ? [...now.substrates, s] : now.substrates.filter((x) => x !== s) })
                }
              />{' '}
              {SUBSTRATE_WORDS[s]}
            </label>
          ))}
        </div>
      </fieldset>
      <div className="flex flex-wrap items-end gap-4">
        <SelectField
          label="Exposure"
          options={EXPOSURES.map((e) => [e, EXPOSURE_WORDS[e]] as const)}
          value={now.exposure}
          onPick={(exposure) => set({ exposure })}
        />
        <Choice
          label="School"
          options={Object.entries(BOND_WORDS) as [BondSchool, string][]}
          value={now.bond}
          onPick={(bond) => set({ bond })}
        />
        <div className="w-44">
          <QuantityField
            label="Film wanted in all"
            quantity="film"
            value={now.targetMicron}
            onValue={(targetMicron) => set({ targetMicron })}
            hint="Empty: the usual one"
          />
        </div>
      </div>
      <TextField label="Note" value={now.note} onChange={(e) => set({ note: e.target.value })} />
    </section>
  );
}
