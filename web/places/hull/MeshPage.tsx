import { proxy, releaseProxy, wrap, type Remote } from 'comlink';
import { Upload } from 'lucide-react';
import { memo, startTransition, useEffect, useMemo, useRef, useState, type DragEvent } from 'react';
import { Link, useNavigate } from 'react-router';
import { v7 as uuid } from 'uuid';
import type { MeshDefects } from '#core/hull/defects';
import type { Plane } from '#core/hull/mesh';
import {
  AXES,
  MESH_UNITS,
  sizeMisfits,
  type Axis,
  type MeshSize,
  type MeshUnit,
  type Placement,
} from '#core/hull/placement';
import { MESH_MAX_BYTES } from '#core/hull/stl';
import { areaBy } from '#core/hull/zoneArea';
import { usualPart } from '#core/hull/areaMethods';
import type { MeshRecord } from '#core/model/area';
import { systemFor } from '#core/units/format';
import { unitOf } from '#core/units/quantities';
import type { HullRow, SurfaceRow } from '#contracts/rows/boat';
import { useView } from '../../app/BoatShell';
import { sendFile, fetchFile } from '../../data/files';
import { useSettings } from '../../data/settings';
import { save, type BoatView } from '../../data/store';
import { useSubmit } from '../../data/useSubmit';
import { BoatDrawing } from '../../parts/BoatDrawing';
import { FormProblem, QuantityField, SelectField, TextField } from '../../parts/Field';
import { attempt } from '../../parts/attempt';
import { Fig } from '../../parts/Fig';
import { useSteady } from '../../parts/useSteady';
import { MESH_UNIT_WORDS } from '../../parts/choiceWords';
import { drawnZones } from '../../parts/ZoneRegion';
import { tooLarge } from '../../workers/limits';
import type { CutMesh, MeshWorker } from '../../workers/mesh';
import { HullScene } from './HullScene';

interface Opened {
  /** To read it anew after work was called off. */
  blob: Blob;
  file: File | null;
  stored: { fileHash: string; bytes: number } | null;
  name: string;
  triangles: number;
  placement: Placement;
  waterline: Plane;
  bandM: number;
}
interface Found extends CutMesh {
  size: MeshSize;
}

const AXIS_WORDS: Record<Axis, string> = { '+x': 'x', '-x': '−x', '+y': 'y', '-y': '−y', '+z': 'z', '-z': '−z' };

/** A worker of one's own, begun anew when work is called off. */
function useMeshWorker() {
  const held = useRef<{ worker: Worker; remote: Remote<MeshWorker> } | null>(null);
  const get = () => {
    if (!held.current) {
      const worker = new Worker(new URL('../../workers/mesh.ts', import.meta.url), { type: 'module' });
      held.current = { worker, remote: wrap<MeshWorker>(worker) };
    }
    return held.current.remote;
  };
  const stop = () => {
    held.current?.remote[releaseProxy]();
    held.current?.worker.terminate();
    held.current = null;
  };
  useEffect(() => stop, []);
  return { get, stop };
}

/** A mesh of the hull brought in: read, laid along the boat, cut at the waterline, kept with her. */
export function MeshPage() {
  const view = useView();
  const { boat, hull } = view;
  const { get, stop } = useMeshWorker();
  const [opened, setOpened] = useState<Opened | null>(null);
  const [found, setFound] = useState<Found | null>(null);
  const [defects, setDefects] = useState<MeshDefects | null>(null);
  const [preview, setPreview] = useState<Float32Array | null>(null);
  const [work, setWork] = useState<string | null>(null);
  const bar = useRef<HTMLProgressElement>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const job = useRef(0);
  const loaded = useRef(false);
  const own = useMemo(() => ({ loaM: boat.loaM, beamM: boat.beamM, depthM: boat.draftM + boat.freeboardM }), [boat]);

  /** How far a piece of work is goes straight to its bar: nothing else is drawn anew for it. */
  const tellOf = (mine: number) =>
    proxy((share: number) => {
      if (mine === job.current && bar.current) bar.current.value = share;
    });

  /** Lay and cut anew; a newer wish overtakes an older one. */
  const cut = async (next: Opened, replace: boolean) => {
    const mine = (job.current += 1);
    const worker = get();
    try {
      const anew = replace || !loaded.current;
      if (!loaded.current) {
        setWork(`Reading ${next.name}`);
        await worker.open(next.blob, next.name, own);
        loaded.current = true;
      }
      if (anew) setWork('Cutting it at the waterline');
      const size = anew ? await worker.place(next.placement) : (found?.size as MeshSize);
      const result = await worker.cut(next.waterline, next.bandM, tellOf(mine));
      if (mine !== job.current) return;
      // Drawn in slices: the page goes on answering meanwhile.
      startTransition(() => setFound({ ...result, size }));
      setProblem(null);
      if (!anew) return;
      const coarse = await worker.preview();
      startTransition(() => setPreview(coarse));
      // Areas stand already; what is wrong with the mesh may take its time.
      setWork('Looking for holes and doubles');
      const wrong = await worker.defects(tellOf(mine));
      if (mine === job.current) startTransition(() => setDefects(wrong));
    } catch (error) {
      if (mine === job.current) setProblem((error as Error).message);
    } finally {
      if (mine === job.current) setWork(null);
    }
  };

  const open = async (file: Blob, name: string, stored: MeshRecord | null) => {
    setProblem(null);
    // Refused before a byte of it is read.
    if (file.size > MESH_MAX_BYTES) return setProblem(tooLarge(file.size));
    setWork(`Reading ${name}`);
    const mine = (job.current += 1);
    try {
      const { triangles, placement } = await get().open(file, name, own);
      if (mine !== job.current) return;
      loaded.current = true;
      const next: Opened = {
        blob: file,
        file: stored ? null : (file as File),
        stored: stored ? { fileHash: stored.fileHash, bytes: stored.bytes } : null,
        name,
        triangles,
        placement: stored?.placement ?? placement,
        waterline: stored?.waterline ?? { heightM: boat.draftM, heelDeg: 0, trimDeg: 0 },
        bandM: stored?.bandM ?? 0.15,
      };
      setDefects(null);
      setPreview(null);
      setFound(null);
      setOpened(next);
      await cut(next, true);
    } catch (error) {
      if (mine !== job.current) return;
      setProblem((error as Error).message);
      setWork(null);
    }
  };
  const openStored = async (mesh: MeshRecord) => {
    setWork(`Fetching ${mesh.fileName}`);
    try {
      await open(await fetchFile(mesh.fileHash), mesh.fileName, mesh);
    } catch (error) {
      setProblem((error as Error).message);
      setWork(null);
    }
  };
  const cancel = () => {
    job.current += 1;
    stop();
    loaded.current = false;
    setWork(null);
    if (!found) setOpened(null);
  };
  const change = (by: Partial<Opened>, replace: boolean) => {
    if (!opened) return;
    const next = { ...opened, ...by };
    setOpened(next);
    const { heightM, heelDeg, trimDeg } = next.waterline;
    if ([heightM, heelDeg, trimDeg, next.bandM].every(Number.isFinite)) void cut(next, replace);
  };
  // What is found is drawn anew only when it changes, not with every line of progress.
  const onChange = useSteady(change);
  const drop = (e: DragEvent) => {
    e.preventDefault();
    const [file] = e.dataTransfer.files;
    if (file) void open(file, file.name, null);
  };

  return (
    <div className="flex min-w-0 flex-col gap-3" onDragOver={(e) => e.preventDefault()} onDrop={drop}>
      <div className="flex flex-wrap items-baseline gap-x-4">
        <h1 className="text-2xl">Mesh of the hull</h1>
        <Link to={`/boats/${boat.id}/hull`} className="link-row underline underline-offset-4">
          Back to the hull
        </Link>
      </div>
      <div className="flex flex-wrap items-end gap-4">
        <label className="flex flex-col gap-1">
          <span className="lab">STL or OBJ file, up to {MESH_MAX_BYTES / 1024 / 1024} MB; or drop it here</span>
          <input
            type="file"
            accept=".stl,.obj,model/stl,model/obj"
            className="file-input min-h-11"
            onChange={(e) => {
              const [file] = e.target.files ?? [];
              if (file) void open(file, file.name, null);
              e.target.value = '';
            }}
          />
        </label>
        {hull?.mesh && !opened && (
          <button type="button" className="btn" onClick={() => void openStored(hull.mesh as MeshRecord)}>
            <Upload size={18} aria-hidden="true" /> Open {hull.mesh.fileName}
          </button>
        )}
      </div>
      {!opened && !work && !problem && (
        <p className="max-w-prose">
          A file of one side or of both, in any unit and any position: it is laid along the boat by its size and shape,
          and shown for you to check. The areas below and above the waterline follow.
        </p>
      )}
      {work && (
        <div role="status" className="flex flex-wrap items-center gap-4">
          <span>{work}…</span>
          <progress ref={bar} key={work} className="progress w-48" max={1} aria-label={work} />
          <button type="button" className="btn" onClick={cancel}>
            Cancel
          </button>
        </div>
      )}
      <FormProblem message={problem} />
      {opened && found && (
        <Placed
          view={view}
          opened={opened}
          found={found}
          defects={defects}
          preview={preview}
          own={own}
          onChange={onChange}
        />
      )}
    </div>
  );
}

const Placed = memo(function Placed({
  view,
  opened,
  found,
  defects,
  preview,
  own,
  onChange,
}: {
  view: BoatView;
  opened: Opened;
  found: Found;
  defects: MeshDefects | null;
  preview: Float32Array | null;
  own: { loaM: number; beamM: number; depthM: number };
  onChange: (by: Partial<Opened>, replace: boolean) => void;
}) {
  const { boat, surfaces, hull } = view;
  const navigate = useNavigate();
  const { units } = useSettings();
  const { placement, waterline, bandM } = opened;
  const { areas, size, lines } = found;
  const misfits = useMemo(() => sizeMisfits(size, own), [size, own]);
  const [unused, setUnused] = useState<ReadonlySet<string>>(new Set());
  const [problem, setProblem] = useState<string | null>(null);
  const [uploading, setUploading] = useState(false);
  const { failure, theirs, sending, submit } = useSubmit();
  const place = (by: Partial<Placement>) => onChange({ placement: { ...placement, ...by } }, true);
  const [typed, setTyped] = useState(1);
  const level = (by: Partial<Plane>) => onChange({ waterline: { ...waterline, ...by } }, false);
  const takers = surfaces.filter(
    (s) => !s.parentId && (s.kind === 'underwater' || s.kind === 'bootTop' || s.kind === 'topsides'),
  );
  const record = (file: { fileHash: string; bytes: number }): MeshRecord => ({
    ...file,
    fileName: opened.name,
    triangles: opened.triangles,
    placement,
    waterline,
    bandM,
    size,
    areas,
    defects,
    waterlineGirthM: lines.waterlineGirthM,
    lines: lines.lines,
  });
  const partOf = (zone: SurfaceRow) => zone.area.mesh ?? { part: usualPart(zone.kind) };
  const areaFor = (zone: SurfaceRow) =>
    attempt(
      () =>
        areaBy(
          {
            ...zone,
            boat,
            hull: { offsets: null, mesh: record({ fileHash: '', bytes: 0 }) },
            area: { ...zone.area, mesh: partOf(zone) },
          },
          'mesh',
        ).areaM2,
    ).value;

  const onSave = async () => {
    setProblem(null);
    setUploading(true);
    try {
      const file = opened.file ? await sendFile(opened.file) : opened.stored;
      if (!file) return;
      const row: HullRow = {
        ...(hull ?? { id: uuid(), boatId: boat.id, offsets: null, version: 0, deleted: false }),
        mesh: record(file),
      };
      if (
        !(await submit(
          { kind: 'hull', row: theirs ? { ...row, version: theirs.version } : row },
          'Mesh kept with the boat',
        ))
      )
        return;
      for (const zone of takers.filter((s) => !unused.has(s.id) && areaFor(s) !== null)) {
        await save(
          { kind: 'surface', row: { ...zone, area: { ...zone.area, method: 'mesh', mesh: partOf(zone) } } },
          `${zone.name} by the mesh`,
        );
      }
      void navigate(`/boats/${boat.id}/hull`);
    } catch (error) {
      setProblem((error as Error).message);
    } finally {
      setUploading(false);
    }
  };

  return (
    <div className="grid min-w-0 gap-x-10 gap-y-4 lg:grid-cols-[minmax(0,6fr)_minmax(0,5fr)]">
      <section className="flex min-w-0 flex-col gap-3" aria-label="How it lies">
        {preview && (
          <HullScene
            preview={preview}
            mirror={placement.mirror}
            size={size}
            waterline={waterline}
            bandM={bandM}
            typed={typed}
            onHeight={(heightM) => level({ heightM })}
          />
        )}
        <BoatDrawing
          boat={boat}
          zones={drawnZones(view)}
          lines={lines.lines}
          bandM={bandM}
          stands={false}
          label={`${boat.name}, drawn from this mesh`}
        />
        <p className="narrow text-lg">
          {opened.triangles.toLocaleString()} triangles · <Fig quantity="length" value={size.lengthM} /> long (boat{' '}
          <Fig quantity="length" value={own.loaM} />) · <Fig quantity="length" value={size.beamM} /> wide (
          <Fig quantity="length" value={own.beamM} />) · <Fig quantity="length" value={size.depthM} /> deep (
          <Fig quantity="length" value={own.depthM} />)
        </p>
        {misfits.map((m) => (
          <p key={m.figure} className="border-l-4 border-warning pl-3">
            The {m.figure} comes out at <Fig quantity="length" value={m.foundM} />; the boat’s own is{' '}
            <Fig quantity="length" value={m.ownM} />. Check unit and axes, or the boat’s figures.
          </p>
        ))}
        {defects && <Defects defects={defects} />}
      </section>
      <section className="flex min-w-0 flex-col gap-3" aria-label="Figures">
        <div className="grid grid-cols-2 gap-3 sm:grid-cols-3">
          <SelectField
            label="Unit of the file"
            options={(Object.keys(MESH_UNITS) as MeshUnit[]).map((u) => [u, MESH_UNIT_WORDS[u]] as const)}
            value={placement.unit}
            onPick={(unit) => place({ unit })}
          />
          <SelectField
            label="The bow lies towards"
            options={AXES.map((a) => [a, AXIS_WORDS[a]] as const)}
            value={placement.forward}
            onPick={(forward) => place({ forward })}
          />
          <SelectField
            label="Up is"
            options={AXES.filter((a) => a[1] !== placement.forward[1]).map((a) => [a, AXIS_WORDS[a]] as const)}
            value={placement.up}
            onPick={(up) => place({ up })}
          />
        </div>
        <label className="min-h-11 flex items-center gap-2">
          <input
            type="checkbox"
            className="checkbox"
            checked={placement.mirror}
            onChange={(e) => place({ mirror: e.target.checked })}
          />{' '}
          One side only: mirror it
        </label>
        <div className="grid grid-cols-2 gap-3">
          <QuantityField
            label="Waterline above the lowest point"
            quantity="length"
            value={waterline.heightM}
            onValue={(v) => (setTyped(typed + 1), level({ heightM: v ?? Number.NaN }))}
          />
          <QuantityField
            label="Height of the boot-top"
            quantity="length"
            value={bandM}
            onValue={(v) => onChange({ bandM: v ?? Number.NaN }, false)}
          />
          <Degrees label="Heel, to port" value={waterline.heelDeg} onValue={(heelDeg) => level({ heelDeg })} />
          <Degrees label="Trim, down by the bow" value={waterline.trimDeg} onValue={(trimDeg) => level({ trimDeg })} />
        </div>
        <dl className="sheet-rule border-y border-base-300">
          {(
            [
              ['Below the waterline', areas.belowM2],
              ['Boot-top', areas.bandM2],
              ['Above it', areas.aboveM2],
              ['All of it', areas.belowM2 + areas.bandM2 + areas.aboveM2],
            ] as const
          ).map(([label, value]) => (
            <div key={label} className="flex items-baseline justify-between py-1">
              <dt className="lab">{label}</dt>
              <dd>
                <Fig quantity="area" value={value} className="text-xl" />
              </dd>
            </div>
          ))}
          <div className="flex items-baseline justify-between py-1">
            <dt className="lab">Volume below the waterline</dt>
            <dd>
              <Fig
                quantity="volume"
                value={areas.volumeBelowM3 * 1000}
                unit={unitOf('volume', systemFor(units, 'volume') === 'us' ? 'ft3' : 'm3')}
              />
            </dd>
          </div>
          <div className="flex items-baseline justify-between py-1">
            <dt className="lab">Waterline, all round</dt>
            <dd>
              <Fig quantity="length" value={lines.waterlineGirthM} />
            </dd>
          </div>
        </dl>
        {takers.length > 0 && (
          <fieldset>
            <legend className="lab">Use it for</legend>
            {takers.map((zone) => {
              const area = areaFor(zone);
              return (
                <label key={zone.id} className="min-h-11 flex items-center gap-3">
                  <input
                    type="checkbox"
                    className="checkbox"
                    disabled={area === null}
                    checked={!unused.has(zone.id) && area !== null}
                    onChange={(e) =>
                      setUnused(
                        new Set(e.target.checked ? [...unused].filter((id) => id !== zone.id) : [...unused, zone.id]),
                      )
                    }
                  />
                  <span className="grow">{zone.name}</span>
                  {area === null ? (
                    <span className="quiet text-sm">nothing of it in the mesh</span>
                  ) : (
                    <span>
                      <Fig quantity="area" value={area} />{' '}
                      <span className="quiet narrow">
                        now <Fig quantity="area" value={zone.grossM2} />
                      </span>
                    </span>
                  )}
                </label>
              );
            })}
          </fieldset>
        )}
        <FormProblem message={problem ?? failure?.message ?? null} />
        <div>
          <button
            type="button"
            className="btn btn-primary"
            disabled={sending || uploading || !Number.isFinite(waterline.heightM)}
            onClick={() => void onSave()}
          >
            {uploading || sending ? 'Saving the file…' : theirs ? 'Keep this one' : 'Keep it with the boat'}
          </button>
        </div>
      </section>
    </div>
  );
});

function Degrees({ label, value, onValue }: { label: string; value: number; onValue: (value: number) => void }) {
  const [text, setText] = useState(String(value));
  const read = Number(text.trim().replace(',', '.').replace('−', '-'));
  const wrong = text.trim() === '' || !Number.isFinite(read);
  return (
    <TextField
      label={`${label}, °`}
      inputMode="decimal"
      value={text}
      error={wrong ? 'Type degrees, for example 1.5 or −2.' : undefined}
      onChange={(e) => {
        setText(e.target.value);
        const next = Number(e.target.value.trim().replace(',', '.').replace('−', '-'));
        if (e.target.value.trim() !== '' && Number.isFinite(next)) onValue(next);
      }}
    />
  );
}

function Defects({ defects }: { defects: MeshDefects }) {
  const { openEdges, degenerate, inverted } = defects;
  if (openEdges + degenerate + inverted === 0) return <p>The mesh is closed and sound.</p>;
  const lines = [
    openEdges > 0
      ? `${openEdges.toLocaleString()} open edges: the rim of the hull, or holes. Areas are right; the volume is if the mesh is closed below the waterline.`
      : null,
    degenerate > 0
      ? `${degenerate.toLocaleString()} triangles without area or twice over. Doubles count twice in the areas.`
      : null,
    inverted > 0 ? `${inverted.toLocaleString()} triangles face inwards. Areas do not mind; the volume does.` : null,
  ];
  return <ul className="text-sm">{lines.flatMap((l) => (l ? [<li key={l}>{l}</li>] : []))}</ul>;
}
