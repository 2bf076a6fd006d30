import { useState } from 'react';
import { v7 as uuid } from 'uuid';
import type { Coat } from '#core/coat/fold';
import type { SurfaceRow } from '#contracts/rows/boat';
import type { Change } from '../../data/changes';
import { saveAll, signed, type BoatView } from '../../data/store';
import { nextSort } from '../../parts/newZone';
import { FormProblem, QuantityField } from '../../parts/Field';
import { emptyBuildUp } from '../../data/usual';

/** What of a zone did not get this coat, stopped half way or missed, becomes a patch with clocks and coats of its own. */
export function Uncoated({ view, coat }: { view: BoatView; coat: Coat }) {
  const zones = coat.on.flatMap((t) => view.surfaces.filter((s) => s.id === t.surfaceId));
  return zones.map((zone) => <UncoatedOf key={zone.id} view={view} coat={coat} zone={zone} />);
}

function UncoatedOf({ view, coat, zone }: { view: BoatView; coat: Coat; zone: SurfaceRow }) {
  const share = coat.covered.find((c) => c.surfaceId === zone.id)?.share ?? 1;
  const leftM2 = Math.round((1 - share) * zone.areaM2 * 100) / 100;
  const missed = coat.notes.some((n) => n.quick === 'holiday' && (n.drawnAt?.surfaceId ?? zone.id) === zone.id);
  const [areaM2, setArea] = useState<number | null>(leftM2 > 0 ? leftM2 : null);
  const [problem, setProblem] = useState<string | null>(null);
  const [done, setDone] = useState(false);
  const layers = layersFrom(view, coat, zone.id);
  if ((share >= 1 && !missed) || done || layers.length === 0 || zone.parentId) return null;
  const make = () => {
    if (areaM2 === null || !(areaM2 > 0)) return setProblem('Type how much of it has no paint, for example 1.5.');
    if (areaM2 >= zone.areaM2) return setProblem('That is as much as the whole zone. Withdraw the coat there instead.');
    setDone(true);
    void saveAll(patchOf({ view, coat, zone, areaM2, layers }), `The rest of ${zone.name} is a patch of its own`);
    return undefined;
  };
  return (
    <section className="border-2 border-warning px-3 py-2" aria-label={`Without paint on ${zone.name}`}>
      <p className="font-semibold">
        {share < 1 ? `Part of ${zone.name} has no paint of this coat.` : `Spots of ${zone.name} were missed.`}
      </p>
      <p>As a patch it has its own windows and its own count of coats, and its paint is held back.</p>
      <div className="mt-1 grid grid-cols-[1fr_auto] items-end gap-3">
        <QuantityField label="Without this coat" quantity="area" value={areaM2} onValue={setArea} />
        <button type="button" className="btn btn-primary" onClick={make}>
          Make it a patch
        </button>
      </div>
      <FormProblem message={problem} />
    </section>
  );
}

/** The coats that are to come on it: this one and all after it. */
function layersFrom(view: BoatView, coat: Coat, surfaceId: string) {
  const layers = view.buildUps.find((b) => b.surfaceId === surfaceId)?.layers ?? [];
  const target = coat.on.find((t) => t.surfaceId === surfaceId);
  const from = layers.findIndex((l) => l.id === target?.layerId);
  return from < 0 ? [] : layers.slice(from);
}

function patchOf({
  view,
  coat,
  zone,
  areaM2,
  layers,
}: {
  view: BoatView;
  coat: Coat;
  zone: SurfaceRow;
  areaM2: number;
  layers: ReturnType<typeof layersFrom>;
}): Change[] {
  const id = uuid();
  const before = view.coats.filter(
    (c) => c.startedAt < coat.startedAt && c.on.some((t) => t.surfaceId === zone.id),
  ).length;
  const patch: SurfaceRow = {
    ...zone,
    id,
    name: `${zone.name}, left without coat ${before + 1}`,
    area: { method: 'typed', dimensions: {}, typed: { areaM2, share: 0.1 } },
    side: 'both',
    partShare: null,
    notes: '',
    maskList: [],
    openWork: [],
    parentId: zone.id,
    patchKind: 'uncoated',
    sharedCoats: before,
    sort: nextSort(view.surfaces),
    version: 0,
    deleted: false,
  };
  return [
    { kind: 'surface', row: patch },
    {
      kind: 'buildUp',
      row: { ...emptyBuildUp(patch), layers: layers.map((l) => ({ ...l, id: uuid() })) },
    },
    // What is left of the zone has all of it.
    {
      kind: 'entry',
      entry: signed({
        boatId: view.boat.id,
        stream: 'coat',
        streamId: coat.id,
        kind: 'covered',
        body: { surfaceId: zone.id, share: 1 },
        ...(coat.finishedAt === null ? {} : { occurredAt: coat.finishedAt }),
      }),
    },
  ];
}
