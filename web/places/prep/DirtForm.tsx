import { useState } from 'react';
import { DIRT, type Dirt } from '#core/model/prep';
import { isMetal } from '#core/hull/zones';
import type { SurfaceRow } from '#contracts/rows/boat';
import { now } from '../../data/now';
import type { BoatView } from '../../data/store';
import { BottomSheet } from '../../parts/BottomSheet';
import { FormProblem, TextField } from '../../parts/Field';
import { DIRT_WORDS } from '../../parts/prepWords';
import { TimeField } from '../../parts/TimeField';
import { OtherZones } from './OtherZones';
import { logOnZones } from './usePrep';

/** Something that makes a clean surface dirty, or metal turn. */
export function DirtForm({ view, surface, onClose }: { view: BoatView; surface: SurfaceRow; onClose: () => void }) {
  const [by, setBy] = useState<Dirt | null>(null);
  const [text, setText] = useState('');
  const [at, setAt] = useState(now);
  const [also, setAlso] = useState<string[]>([]);
  const [problem, setProblem] = useState<string | null>(null);
  const metal = isMetal(surface.substrate);
  const save = async () => {
    if (!by) return setProblem('Tap what it was.');
    const wrong = await logOnZones(
      view,
      [surface.id, ...also],
      { kind: 'dirtied', body: { by, text: text.trim() }, occurredAt: at },
      `${DIRT_WORDS[by]}, logged`,
    );
    if (wrong) return setProblem(wrong);
    onClose();
    return undefined;
  };
  return (
    <BottomSheet title={`${surface.name}: something fell on it`} onClose={onClose}>
      <div className="flex flex-col gap-3">
        <div className="flex flex-wrap gap-2" role="group" aria-label="What it was">
          {DIRT.filter((d) => metal || d !== 'turned').map((d) => (
            <button
              key={d}
              type="button"
              className={`btn ${by === d ? 'btn-primary' : ''}`}
              aria-pressed={by === d}
              onClick={() => (setBy(d), setProblem(null))}
            >
              {DIRT_WORDS[d]}
            </button>
          ))}
        </div>
        <TimeField label="When" at={at} onAt={setAt} zone={view.boat.timeZone} />
        <TextField label="Note" value={text} onChange={(e) => setText(e.target.value)} hint="Optional" />
        <OtherZones zones={view.surfaces.filter((s) => s.id !== surface.id)} picked={also} onPick={setAlso} />
        <FormProblem message={problem} />
        <button type="button" className="btn btn-primary" onClick={() => void save()}>
          Log it
        </button>
      </div>
    </BottomSheet>
  );
}
