import { useState } from 'react';
import type { Coat } from '#core/coat/fold';
import { paintersOf } from '#core/coat/start';
import { logEntry, type BoatView } from '../../../data/store';
import { TextField } from '../../../parts/Field';

/** Who is at the coat from now on: the time that is left and the largest batch follow. */
export function HandsForm({ view, coat, onDone }: { view: BoatView; coat: Coat; onDone: () => void }) {
  const [text, setText] = useState(() => (coat.stints[coat.stints.length - 1]?.painters ?? []).join(', '));
  const [problem, setProblem] = useState<string | null>(null);
  const change = () => {
    const painters = paintersOf(text);
    if (painters.length === 0) return setProblem('Type at least one name.');
    void logEntry(
      { boatId: view.boat.id, stream: 'coat', streamId: coat.id, kind: 'resumed', body: { painters } },
      coat.pausedAt === null ? 'Other hands' : 'Went on',
    );
    onDone();
    return undefined;
  };
  return (
    <form
      className="flex flex-col gap-3"
      noValidate
      onSubmit={(e) => {
        e.preventDefault();
        change();
      }}
    >
      <TextField
        label="Who is at it"
        value={text}
        onChange={(e) => setText(e.target.value)}
        error={problem ?? undefined}
        hint="Several by commas"
      />
      <button type="submit" className="btn btn-primary">
        {coat.pausedAt === null ? 'From now on' : 'Go on with them'}
      </button>
    </form>
  );
}
