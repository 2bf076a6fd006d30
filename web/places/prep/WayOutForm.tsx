import { useState } from 'react';
import type { Face } from '#core/model/prep';
import type { PrepLog } from '#core/prep/prepLog';
import { USUAL_FACES, wayOut } from '#core/prep/wayOut';
import type { SurfaceRow } from '#contracts/rows/boat';
import type { BoatView } from '../../data/store';
import { attempt } from '../../parts/attempt';
import { BottomSheet } from '../../parts/BottomSheet';
import { FormProblem, QuantityField, TextField } from '../../parts/Field';
import { logOnZones } from './usePrep';

/** The order of faces in a space that one has to get out of again, and who is outside. */
export function WayOutForm({
  view,
  surface,
  log,
  onClose,
}: {
  view: BoatView;
  surface: SurfaceRow;
  log: PrepLog;
  onClose: () => void;
}) {
  const [faces, setFaces] = useState<readonly Face[]>(log.wayOut?.faces ?? USUAL_FACES[surface.kind] ?? []);
  const [aired, setAired] = useState(log.wayOut?.aired ?? false);
  const [second, setSecond] = useState(log.wayOut?.second ?? '');
  const [problem, setProblem] = useState<string | null>(null);
  const set = (i: number, change: Partial<Face>) => setFaces(faces.map((f, k) => (k === i ? { ...f, ...change } : f)));
  const order = attempt(() => wayOut(faces));
  const save = async () => {
    if (!order.value) return setProblem(order.problem);
    if (faces.some((f) => f.name.trim() === '')) return setProblem('Give each face a name, or take it off.');
    const wrong = await logOnZones(
      view,
      [surface.id],
      { kind: 'wayOut', body: { faces: order.value, aired, second: second.trim() } },
      `${surface.name}: way out`,
    );
    if (wrong) return setProblem(wrong);
    onClose();
    return undefined;
  };
  return (
    <BottomSheet title={`${surface.name}: way out`} onClose={onClose}>
      <div className="flex flex-col gap-3">
        {order.value && <Order faces={order.value} />}
        <details>
          <summary className="link-row cursor-pointer underline underline-offset-4">The faces</summary>
          <ul className="sheet-rule">
            {faces.map((f, i) => (
              <OneFace
                key={i}
                face={f}
                set={(change) => set(i, change)}
                onOff={() => setFaces(faces.filter((_, k) => k !== i))}
              />
            ))}
          </ul>
          <button
            type="button"
            className="btn"
            onClick={() => setFaces([...faces, { name: '', fromExitM: 0.5, awkward: false, leanOn: false }])}
          >
            Add a face
          </button>
        </details>
        <label className="link-row gap-2">
          <input type="checkbox" className="checkbox" checked={aired} onChange={(e) => setAired(e.target.checked)} />
          Forced air on, before and during
        </label>
        <TextField
          label="Who stays outside"
          value={second}
          onChange={(e) => setSecond(e.target.value)}
          hint="Nobody goes in alone; a gas test where your rules say so"
        />
        <FormProblem message={problem} />
        <button type="button" className="btn btn-primary" onClick={() => void save()}>
          Keep the order
        </button>
      </div>
    </BottomSheet>
  );
}

function OneFace({ face, set, onOff }: { face: Face; set: (change: Partial<Face>) => void; onOff: () => void }) {
  const box = (label: string, checked: boolean, change: (on: boolean) => Partial<Face>) => (
    <label className="link-row gap-2">
      <input type="checkbox" className="checkbox" checked={checked} onChange={(e) => set(change(e.target.checked))} />
      {label}
    </label>
  );
  return (
    <li className="grid grid-cols-[1fr_7rem] items-end gap-2 py-2">
      <TextField label="Face" value={face.name} onChange={(e) => set({ name: e.target.value })} />
      <QuantityField
        label="From the exit"
        quantity="length"
        value={face.fromExitM}
        onValue={(m) => set({ fromExitM: m ?? Number.NaN })}
      />
      <p className="col-span-2 flex flex-wrap gap-x-4">
        {box('awkward reach', face.awkward, (awkward) => ({ awkward }))}
        {box('leant or knelt on', face.leanOn, (leanOn) => ({ leanOn }))}
        <button type="button" className="link-row underline underline-offset-4" onClick={onOff}>
          Take off
        </button>
      </p>
    </li>
  );
}

function Order({ faces }: { faces: readonly Face[] }) {
  return (
    <ol className="list-decimal pl-6 text-lg" aria-label="Order of the faces">
      {faces.map((f, i) => (
        <li key={`${f.name}${i}`}>
          {f.name}
          {i === faces.length - 1 && <span className="quiet"> last, by the exit</span>}
        </li>
      ))}
    </ol>
  );
}
