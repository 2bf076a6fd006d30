import { useState } from 'react';
import { Link } from 'react-router';
import { v7 as uuid } from 'uuid';
import { standPlaces } from '#core/prep/stands';
import type { SurfaceRow } from '#contracts/rows/boat';
import { counted } from '#core/units/format';
import { useView } from '../../app/BoatShell';
import { saveAll, signed, type BoatView } from '../../data/store';
import type { Change } from '../../data/changes';
import { newSurface, nextSort } from '../../parts/newZone';
import { FormProblem, QuantityField, TextField } from '../../parts/Field';
import { Fig } from '../../parts/Fig';
import { timeWords } from '../../parts/words';

/** Stands and blocks moved by the yard: the pads come free at coat 1, and where they stand now is hidden. */
export function StandsPage() {
  const view = useView();
  const form = useStands(view);
  const { boat } = view;
  return (
    <div className="min-w-0 max-w-3xl">
      <div className="ruled flex flex-wrap items-center gap-3 pb-1">
        <h1 className="mr-auto text-2xl">Stands and blocks</h1>
        <Link to={`/boats/${boat.id}/prep`} className="btn">
          Back to Prep
        </Link>
      </div>
      <p className="max-w-prose py-2">
        Stands are moved by the yard, and by nobody else. Logged once: every pad comes free and starts at coat 1; where
        the stands are now is hidden until they move again.
      </p>
      <section aria-labelledby="pads">
        <h2 id="pads">Pads that come free</h2>
        {form.pads.length === 0 && (
          <p className="py-1.5 quiet">No stand patch waits for its stand. Add pads as patches of a zone under Hull.</p>
        )}
        {form.pads.map((p) => (
          <label key={p.id} className="link-row gap-2">
            <input
              type="checkbox"
              className="checkbox"
              checked={form.freed.includes(p.id)}
              onChange={(e) =>
                form.setFreed(e.target.checked ? [...form.freed, p.id] : form.freed.filter((f) => f !== p.id))
              }
            />
            {p.name} <Fig quantity="area" value={p.areaM2} />
          </label>
        ))}
      </section>
      <section aria-labelledby="places" className="mt-3">
        <h2 id="places">Where they stand now</h2>
        <ul className="sheet-rule">
          {form.zones.map((z) => (
            <Place
              key={z.id}
              view={view}
              zone={z}
              areaM2={form.areas[z.id] ?? null}
              onArea={(m2) => form.setAreas({ ...form.areas, [z.id]: m2 })}
            />
          ))}
        </ul>
      </section>
      {form.soft && (
        <TextField
          label="Why they are moved before the paint bears"
          value={form.reason}
          onChange={(e) => form.setReason(e.target.value)}
        />
      )}
      <TextField
        label="Note"
        value={form.text}
        onChange={(e) => form.setText(e.target.value)}
        hint="Who moved them, on what"
      />
      <FormProblem message={form.problem} />
      <button
        type="button"
        className="btn btn-primary mt-3 h-14 w-full text-lg sm:w-auto"
        onClick={() => void form.save()}
      >
        The yard has moved them
      </button>
    </div>
  );
}

/** One zone that a stand may stand on now, and whether it bears. */
function Place({
  view,
  zone,
  areaM2,
  onArea,
}: {
  view: BoatView;
  zone: SurfaceRow;
  areaM2: number | null;
  onArea: (m2: number | null) => void;
}) {
  const place = standPlaces(view.statuses.filter((s) => s.surfaceId === zone.id))[0];
  const until = place?.bearsAt != null && place.bearsAt > view.at ? place.bearsAt : null;
  return (
    <li className="flex flex-wrap items-end gap-x-4 py-2">
      <span className="min-w-0 flex-1 basis-48">
        <span className="font-semibold">{zone.name}</span>
        <span className={`block text-sm ${until !== null ? 'font-semibold text-error' : 'quiet'}`}>
          {until !== null
            ? `does not bear before ${timeWords(until, view.at, view.boat.timeZone)}`
            : place?.known
              ? 'bears'
              : 'its sheet gives no handle time: press it with a thumbnail, ask the maker'}
        </span>
      </span>
      <QuantityField
        label={`New pads on ${zone.name}`}
        quantity="area"
        value={areaM2}
        onValue={onArea}
        placeholder="0"
      />
    </li>
  );
}

function useStands(view: BoatView) {
  const { surfaces, boat } = view;
  const pads = surfaces.filter(
    (s) => s.patchKind === 'standPad' && !s.openWork.some((w) => w.kind === 'underStand' && w.done),
  );
  const zones = surfaces.filter(
    (s) => !s.parentId && s.exposure !== 'interior' && s.exposure !== 'bilge' && s.exposure !== 'tank',
  );
  const [freed, setFreed] = useState<string[]>(pads.map((p) => p.id));
  const [areas, setAreas] = useState<Record<string, number | null>>({});
  const [text, setText] = useState('');
  const [reason, setReason] = useState('');
  const [problem, setProblem] = useState<string | null>(null);
  const taken = zones.filter((z) => (areas[z.id] ?? 0) !== 0);
  const soft = standPlaces(view.statuses.filter((s) => taken.some((z) => z.id === s.surfaceId))).some(
    (p) => p.bearsAt !== null && p.bearsAt > view.at,
  );
  const save = async () => {
    if (freed.length === 0 && taken.length === 0)
      return setProblem('Tick the pads that came free, or type where the stands are now.');
    const wrongArea = taken.find((z) => !((areas[z.id] as number) > 0) || (areas[z.id] as number) >= z.areaM2);
    if (wrongArea)
      return setProblem(
        `The pads on ${wrongArea.name} are larger than nothing and smaller than the zone. Type their area again.`,
      );
    if (soft && reason.trim().length < 3)
      return setProblem('The paint there does not bear yet. Wait, choose another place, or write why.');
    const patches = taken.map((z, i) => newPad(view, z, areas[z.id] as number, i));
    const changes: Change[] = [
      ...pads.filter((p) => freed.includes(p.id)).map((p): Change => ({ kind: 'surface', row: reachable(p) })),
      ...patches.map((row): Change => ({ kind: 'surface', row })),
      {
        kind: 'entry',
        entry: signed({
          boatId: boat.id,
          stream: 'boat',
          streamId: boat.id,
          kind: 'standsMoved',
          body: {
            freed,
            now: patches.map((p) => p.id),
            text: text.trim(),
            ...(soft ? { reason: reason.trim() } : {}),
          },
        }),
      },
    ];
    const outcome = await saveAll(changes, `Stands moved: ${counted(freed.length, 'pad')} free`, { inline: true });
    if (!outcome.ok) return setProblem(outcome.failure.message);
    setFreed([]);
    setAreas({});
    setText('');
    setReason('');
    return setProblem(null);
  };
  return { pads, zones, freed, setFreed, areas, setAreas, text, setText, reason, setReason, problem, soft, save };
}

/** A pad whose stand has gone. */
const reachable = (pad: SurfaceRow): SurfaceRow => ({
  ...pad,
  openWork: pad.openWork.some((w) => w.kind === 'underStand')
    ? pad.openWork.map((w) => (w.kind === 'underStand' ? { ...w, done: true } : w))
    : [...pad.openWork, { id: uuid(), kind: 'underStand', note: '', done: true }],
});

/** Where a stand stands now: it shares the coats that are on, and gets the rest when it can be reached. */
function newPad(view: BoatView, zone: SurfaceRow, areaM2: number, i: number): SurfaceRow {
  const status = view.statuses.find((s) => s.surfaceId === zone.id);
  const row = newSurface(view.boat, zone.kind, nextSort(view.surfaces) + i);
  return {
    ...row,
    name: `${zone.name}, new pads`,
    substrate: zone.substrate,
    exposure: zone.exposure,
    existing: zone.existing,
    shelter: zone.shelter,
    parentId: zone.id,
    patchKind: 'standPad',
    sharedCoats: status?.coats.length ?? 0,
    area: { method: 'typed', dimensions: {}, typed: { areaM2, share: 0.3 } },
    openWork: [{ id: uuid(), kind: 'underStand', note: '', done: false }],
  };
}
