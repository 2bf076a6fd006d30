import { useState } from 'react';
import type { Coat } from '#core/coat/fold';
import { logEntry, type BoatView } from '../../../data/store';
import { TextField } from '../../../parts/Field';
import { Conditions, NO_READINGS } from '../Conditions';
import { logReadings } from '../logReadings';

const REASONS = ['Rain', 'Dew', 'Night', 'Out of paint', 'Lunch'];

/** Why work on a coat rests, and the air then. */
export function PauseForm({ view, coat, onDone }: { view: BoatView; coat: Coat; onDone: () => void }) {
  const [reason, setReason] = useState('');
  const [readings, setReadings] = useState(NO_READINGS);
  const surfaceId = coat.on[0]?.surfaceId ?? '';
  const pause = (why: string) => {
    logReadings({ view, coat, readings });
    void logEntry(
      { boatId: view.boat.id, stream: 'coat', streamId: coat.id, kind: 'paused', body: { reason: why.trim() } },
      'Paused',
    );
    onDone();
  };
  return (
    <div className="flex flex-col gap-3">
      <p>Stop at an edge: a masked line, the keel, the chine. The coat resumes where it stopped.</p>
      <div className="flex flex-wrap gap-2">
        {REASONS.map((r) => (
          <button key={r} type="button" className="btn" onClick={() => pause(r)}>
            {r}
          </button>
        ))}
      </div>
      <TextField label="Another reason" value={reason} onChange={(e) => setReason(e.target.value)} />
      <Conditions
        view={view}
        surfaceId={surfaceId}
        readings={readings}
        onRead={(change) => setReadings({ ...readings, ...change })}
      />
      <button type="button" className="btn btn-primary" onClick={() => pause(reason)}>
        Pause
      </button>
    </div>
  );
}
