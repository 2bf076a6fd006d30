import { useState } from 'react';
import type { Coat } from '#core/coat/fold';
import { QUICK_REMARKS, type DrawnAt, type QuickRemark } from '#core/model/log';
import { logEntry, type BoatView } from '../../../data/store';
import { TextField } from '../../../parts/Field';
import { REMARK_WORDS } from '../../../parts/choiceWords';
import { PanelDrawing } from './PanelDrawing';
import type { ZoneInHand } from './zonesOf';

/** A remark in a word or more, and where on the zone it is. */
export function RemarkForm({
  view,
  coat,
  zones,
  onDone,
}: {
  view: BoatView;
  coat: Coat;
  zones: readonly ZoneInHand[];
  onDone: () => void;
}) {
  const [quick, setQuick] = useState<QuickRemark | null>(null);
  const [text, setText] = useState('');
  const [at, setAt] = useState<DrawnAt | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const log = () => {
    const words = [quick ? REMARK_WORDS[quick] : '', text.trim()].filter(Boolean).join(': ');
    if (words === '') return setProblem('Tap a word, or type what you saw.');
    void logEntry(
      {
        boatId: view.boat.id,
        stream: 'coat',
        streamId: coat.id,
        kind: 'note',
        body: { text: words, ...(quick ? { quick } : {}), ...(at ? { drawnAt: at } : {}) },
      },
      'Remark logged',
    );
    onDone();
    return undefined;
  };
  return (
    <div className="flex flex-col gap-3">
      <div className="flex flex-wrap gap-2" role="group" aria-label="What it is">
        {QUICK_REMARKS.map((r) => (
          <button
            key={r}
            type="button"
            className={`btn ${quick === r ? 'btn-primary' : ''}`}
            aria-pressed={quick === r}
            onClick={() => (setQuick(quick === r ? null : r), setProblem(null))}
          >
            {REMARK_WORDS[r]}
          </button>
        ))}
      </div>
      <div>
        <p className="lab">Where: tap the drawing</p>
        {zones.map((zone) => (
          <PanelDrawing
            key={zone.surface.id}
            view={view}
            zone={zone}
            colourHex={coat.colourHex}
            marks={at ? [at] : []}
            onPlace={setAt}
          />
        ))}
      </div>
      <TextField
        label="In words"
        value={text}
        onChange={(e) => setText(e.target.value)}
        error={problem ?? undefined}
        hint="Optional, where a word above says it"
      />
      <button type="button" className="btn btn-primary" onClick={log}>
        Log the remark
      </button>
    </div>
  );
}
