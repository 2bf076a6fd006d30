import { useState } from 'react';
import { v7 as uuid } from 'uuid';
import type { DrawnAt } from '#core/model/log';
import { OPEN_WORK_KINDS, type OpenWorkKind } from '#core/model/surface';
import type { SurfaceRow } from '#contracts/rows/boat';
import { saveAll, signed, type BoatView } from '../../data/store';
import { BottomSheet } from '../../parts/BottomSheet';
import { OPEN_WORK_WORDS } from '../../parts/choiceWords';
import { SelectField, TextField } from '../../parts/Field';
import { Where } from './Where';

/** Opening up found more: it becomes open work of the zone, with steps of its own, and paint waits for it. */
export function FoundForm({ view, surface, onClose }: { view: BoatView; surface: SurfaceRow; onClose: () => void }) {
  const [work, setWork] = useState<OpenWorkKind>('repair');
  const [text, setText] = useState('');
  const [place, setPlace] = useState<DrawnAt | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const save = async () => {
    const words = text.trim();
    if (words === '') return setProblem('Write what was found.');
    const workId = uuid();
    const outcome = await saveAll(
      [
        {
          kind: 'surface',
          row: { ...surface, openWork: [...surface.openWork, { id: workId, kind: work, note: words, done: false }] },
        },
        {
          kind: 'entry',
          entry: signed({
            boatId: view.boat.id,
            stream: 'zone',
            streamId: surface.id,
            kind: 'foundWork',
            body: { workId, work, text: words, ...(place ? { drawnAt: place } : {}) },
          }),
        },
      ],
      `${surface.name}: ${words}`,
      { inline: true },
    );
    if (!outcome.ok) return setProblem(outcome.failure.message);
    onClose();
    return undefined;
  };
  return (
    <BottomSheet title={`${surface.name}: found something`} onClose={onClose}>
      <div className="flex flex-col gap-3">
        <SelectField
          label="What it takes"
          value={work}
          options={OPEN_WORK_KINDS.filter((k) => k !== 'underStand').map((k) => [k, OPEN_WORK_WORDS[k]] as const)}
          onPick={setWork}
        />
        <TextField
          label="What was found"
          value={text}
          onChange={(e) => setText(e.target.value)}
          maxLength={300}
          error={problem ?? undefined}
        />
        <div>
          <p className="lab">Where: tap the drawing</p>
          <Where view={view} surface={surface} marks={place ? [place] : []} onPlace={setPlace} />
        </div>
        <button type="button" className="btn btn-primary" onClick={() => void save()}>
          Log it: paint waits for it
        </button>
      </div>
    </BottomSheet>
  );
}
