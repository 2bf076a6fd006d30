import { useState } from 'react';
import { type Coat } from '#core/coat/fold';
import { logEntry } from '../../data/store';
import { QuantityField } from '../../parts/Field';

/** A wet-film reading; on a coat that is finished already it counts as read at the finish. */
export function CombField({ boatId, coat }: { boatId: string; coat: Coat }) {
  const [wet, setWet] = useState<number | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const log = () => {
    if (wet === null || Number.isNaN(wet) || wet <= 0)
      return setProblem('Type the comb reading, for example 150 or 6 mil.');
    setProblem(null);
    void logEntry(
      {
        boatId,
        stream: 'coat',
        streamId: coat.id,
        kind: 'wetFilm',
        body: { micron: [wet] },
        ...(coat.finishedAt === null ? {} : { occurredAt: coat.finishedAt }),
      },
      'Comb reading logged',
    );
    setWet(null);
    return undefined;
  };
  return (
    <div className="grid grid-cols-[1fr_auto] items-end gap-3">
      <QuantityField
        label="Comb reading"
        quantity="film"
        value={wet}
        onValue={setWet}
        error={problem ?? undefined}
        hint={coat.finishedAt === null ? undefined : 'Combed while it was wet, written down now.'}
      />
      <button type="button" className="btn" onClick={log}>
        Log
      </button>
    </div>
  );
}
