import { useState } from 'react';
import { airStartsToAsk } from '#core/coat/airStarts';
import { save, signed, type BoatView } from '../../data/store';
import { TextField } from '../../parts/Field';
import { timeWords } from '../../parts/words';

/** How a coat turned out that was begun against the air, asked from the next day on. */
export function AirStartAsked({ view }: { view: BoatView }) {
  const asked = airStartsToAsk(view.coats, view.at);
  return asked.map((coat) => <Ask key={coat.id} view={view} coat={coat} />);
}

function Ask({ view, coat }: { view: BoatView; coat: BoatView['coats'][number] }) {
  const [text, setText] = useState('');
  const { boat } = view;
  const zones = [...new Set(coat.on.map((t) => view.zoneName(t.surfaceId)))].join(', ');
  const say = (words: string) =>
    void save(
      {
        kind: 'entry',
        entry: signed({
          boatId: boat.id,
          stream: 'coat',
          streamId: coat.id,
          kind: 'note',
          body: { text: words, about: 'airStart' },
        }),
      },
      'How it turned out',
    );
  return (
    <section aria-label="How it turned out" className="mb-3 border-l-4 border-warning pl-3">
      <p>
        {zones}: begun against the air {timeWords(coat.startedAt, view.at, boat.timeZone)}. How did it turn out?
      </p>
      <div className="flex flex-wrap items-end gap-2">
        <button type="button" className="btn" onClick={() => say('Begun against the air; it turned out well.')}>
          Well
        </button>
        <div className="min-w-40 flex-1">
          <TextField label="Otherwise, in words" value={text} onChange={(e) => setText(e.target.value)} />
        </div>
        <button type="button" className="btn" disabled={text.trim() === ''} onClick={() => say(text.trim())}>
          Put down
        </button>
      </div>
    </section>
  );
}
