import { memo, useMemo, useState } from 'react';
import { useNavigate } from 'react-router';
import { v7 as uuid } from 'uuid';
import type { MeshDefects } from '#core/hull/defects';
import type { Plane } from '#core/hull/mesh';
import { AXES, MESH_UNITS, sizeMisfits, type Axis, type MeshUnit, type Placement } from '#core/hull/placement';
import { areaBy } from '#core/hull/zoneArea';
import { usualPart } from '#core/hull/areaMethods';
import type { MeshRecord } from '#core/model/area';
import { systemFor } from '#core/units/format';
import { unitOf } from '#core/units/quantities';
import type { HullRow, SurfaceRow } from '#contracts/rows/boat';
import type { Opened, Found, OwnSize } from './useMeshFile';
import { sendFile } from '../../data/files';
import { useSettings } from '../../data/settings';
import { save, type BoatView } from '../../data/store';
import { useSubmit } from '../../data/useSubmit';
import { BoatDrawing } from '../../parts/BoatDrawing';
import { FormProblem, QuantityField, SelectField, TextField } from '../../parts/Field';
import { attempt } from '../../parts/attempt';
import { Fig } from '../../parts/Fig';
import { MESH_UNIT_WORDS } from '../../parts/choiceWords';
import { drawnZones } from '../../parts/ZoneRegion';
import { HullScene } from './HullScene';

const AXIS_WORDS: Record<Axis, string> = { '+x': 'x', '-x': '−x', '+y': 'y', '-y': '−y', '+z': 'z', '-z': '−z' };

interface PlacedProps {
  view: BoatView;
  opened: Opened;
  found: Found;
  defects: MeshDefects | null;
  preview: Float32Array | null;
  own: OwnSize;
  onChange: (by: Partial<Opened>, replace: boolean) => void;
}

export const Placed = memo(function Placed({ view, opened, found, defects, preview, own, onChange }: PlacedProps) {
  const placed = usePlacedMesh({ view, opened, found, own, onChange, defects });

  return (
    <div className="grid min-w-0 gap-x-10 gap-y-4 lg:grid-cols-[minmax(0,6fr)_minmax(0,5fr)]">
      <section className="flex min-w-0 flex-col gap-3" aria-label="How it lies">
        {preview && (
          <HullScene
            preview={preview}
            mirror={placed.placement.mirror}
            size={placed.size}
            waterline={placed.waterline}
            bandM={placed.bandM}
            typed={placed.typed}
            onHeight={(heightM) => placed.level({ heightM })}
          />
        )}
        <BoatDrawing
          boat={placed.boat}
          zones={drawnZones(view)}
          lines={placed.lines.lines}
          bandM={placed.bandM}
          stands={false}
          label={`${placed.boat.name}, drawn from this mesh`}
        />
        <p className="narrow text-lg">
          {opened.triangles.toLocaleString()} triangles · <Fig quantity="length" value={placed.size.lengthM} /> long
          (boat <Fig quantity="length" value={own.loaM} />) · <Fig quantity="length" value={placed.size.beamM} /> wide (
          <Fig quantity="length" value={own.beamM} />) · <Fig quantity="length" value={placed.size.depthM} /> deep (
          <Fig quantity="length" value={own.depthM} />)
        </p>
        {placed.misfits.map((m) => (
          <p key={m.figure} className="border-l-4 border-warning pl-3">
            The {m.figure} comes out at <Fig quantity="length" value={m.foundM} />; the boat’s own is{' '}
            <Fig quantity="length" value={m.ownM} />. Check unit and axes, or the boat’s figures.
          </p>
        ))}
        {defects && <Defects defects={defects} />}
      </section>
      <section className="flex min-w-0 flex-col gap-3" aria-label="Figures">
        <Axes placed={placed} />
        <label className="min-h-11 flex items-center gap-2">
          <input
            type="checkbox"
            className="checkbox"
            checked={placed.placement.mirror}
            onChange={(e) => placed.place({ mirror: e.target.checked })}
          />{' '}
          One side only: mirror it
        </label>
        <WaterlineFields placed={placed} onChange={onChange} />
        <MeshFigures placed={placed} />
        {placed.takers.length > 0 && <ZonesByMesh placed={placed} />}
        <FormProblem message={placed.problem ?? placed.failure?.message ?? null} />
        <div>
          <button
            type="button"
            className="btn btn-primary"
            disabled={placed.sending || placed.uploading || !Number.isFinite(placed.waterline.heightM)}
            onClick={() => void placed.onSave()}
          >
            {placed.uploading || placed.sending
              ? 'Saving the file…'
              : placed.theirs
                ? 'Keep this one'
                : 'Keep it with the boat'}
          </button>
        </div>
      </section>
    </div>
  );
});

function Axes({ placed }: { placed: ReturnType<typeof usePlacedMesh> }) {
  return (
    <div className="grid grid-cols-2 gap-3 sm:grid-cols-3">
      <SelectField
        label="Unit of the file"
        options={(Object.keys(MESH_UNITS) as MeshUnit[]).map((u) => [u, MESH_UNIT_WORDS[u]] as const)}
        value={placed.placement.unit}
        onPick={(unit) => placed.place({ unit })}
      />
      <SelectField
        label="The bow lies towards"
        options={AXES.map((a) => [a, AXIS_WORDS[a]] as const)}
        value={placed.placement.forward}
        onPick={(forward) => placed.place({ forward })}
      />
      <SelectField
        label="Up is"
        options={AXES.filter((a) => a[1] !== placed.placement.forward[1]).map((a) => [a, AXIS_WORDS[a]] as const)}
        value={placed.placement.up}
        onPick={(up) => placed.place({ up })}
      />
    </div>
  );
}

function WaterlineFields({
  placed,
  onChange,
}: {
  placed: ReturnType<typeof usePlacedMesh>;
  onChange: (by: Partial<Opened>, replace: boolean) => void;
}) {
  return (
    <div className="grid grid-cols-2 gap-3">
      <QuantityField
        label="Waterline above the lowest point"
        quantity="length"
        value={placed.waterline.heightM}
        onValue={(v) => (placed.setTyped(placed.typed + 1), placed.level({ heightM: v ?? Number.NaN }))}
      />
      <QuantityField
        label="Height of the boot-top"
        quantity="length"
        value={placed.bandM}
        onValue={(v) => onChange({ bandM: v ?? Number.NaN }, false)}
      />
      <Degrees
        label="Heel, to port"
        value={placed.waterline.heelDeg}
        onValue={(heelDeg) => placed.level({ heelDeg })}
      />
      <Degrees
        label="Trim, down by the bow"
        value={placed.waterline.trimDeg}
        onValue={(trimDeg) => placed.level({ trimDeg })}
      />
    </div>
  );
}

function MeshFigures({ placed }: { placed: ReturnType<typeof usePlacedMesh> }) {
  return (
    <dl className="sheet-rule border-y border-base-300">
      {(
        [
          ['Below the waterline', placed.areas.belowM2],
          ['Boot-top', placed.areas.bandM2],
          ['Above it', placed.areas.aboveM2],
          ['All of it', placed.areas.belowM2 + placed.areas.bandM2 + placed.areas.aboveM2],
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
            value={placed.areas.volumeBelowM3 * 1000}
            unit={unitOf('volume', systemFor(placed.units, 'volume') === 'us' ? 'ft3' : 'm3')}
          />
        </dd>
      </div>
      <div className="flex items-baseline justify-between py-1">
        <dt className="lab">Waterline, all round</dt>
        <dd>
          <Fig quantity="length" value={placed.lines.waterlineGirthM} />
        </dd>
      </div>
    </dl>
  );
}

function ZonesByMesh({ placed }: { placed: ReturnType<typeof usePlacedMesh> }) {
  return (
    <fieldset>
      <legend className="lab">Use it for</legend>
      {placed.takers.map((zone) => {
        const area = placed.areaFor(zone);
        return (
          <label key={zone.id} className="min-h-11 flex items-center gap-3">
            <input
              type="checkbox"
              className="checkbox"
              disabled={area === null}
              checked={!placed.unused.has(zone.id) && area !== null}
              onChange={(e) =>
                placed.setUnused(
                  new Set(
                    e.target.checked ? [...placed.unused].filter((id) => id !== zone.id) : [...placed.unused, zone.id],
                  ),
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
  );
}

/** What the mesh as it lies makes of the zones, and how it is kept. */
function usePlacedMesh({ view, opened, found, own, onChange, defects }: Omit<PlacedProps, 'preview'>) {
  const { boat, hull } = view;
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
  const zones = zonesOfMesh({ view, opened, found, defects });

  const onSave = async () => {
    setProblem(null);
    setUploading(true);
    try {
      const file = opened.file ? await sendFile(opened.file) : opened.stored;
      if (!file) return;
      const row: HullRow = {
        ...(hull ?? { id: uuid(), boatId: boat.id, offsets: null, version: 0, deleted: false }),
        mesh: zones.record(file),
      };
      if (
        !(await submit(
          { kind: 'hull', row: theirs ? { ...row, version: theirs.version } : row },
          'Mesh kept with the boat',
        ))
      )
        return;
      for (const zone of zones.takers.filter((s) => !unused.has(s.id) && zones.areaFor(s) !== null)) {
        await save(
          { kind: 'surface', row: { ...zone, area: { ...zone.area, method: 'mesh', mesh: zones.partOf(zone) } } },
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
  return {
    placement,
    size,
    waterline,
    bandM,
    typed,
    level,
    boat,
    lines,
    misfits,
    place,
    setTyped,
    areas,
    units,
    takers: zones.takers,
    areaFor: zones.areaFor,
    unused,
    setUnused,
    problem,
    failure,
    sending,
    uploading,
    onSave,
    theirs,
  };
}

/** Which zones the mesh has areas for, how large, and the record to keep. */
function zonesOfMesh({ view, opened, found, defects }: Pick<PlacedProps, 'view' | 'opened' | 'found' | 'defects'>) {
  const { boat, surfaces } = view;
  const { placement, waterline, bandM } = opened;
  const { areas, size, lines } = found;
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
  return { record, takers, areaFor, partOf };
}

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
