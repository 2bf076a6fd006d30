import { useState } from 'react';
import { type Coat } from '#core/coat/fold';
import { parseQuantity } from '#core/units/parse';
import { shownUnit, systemFor, type UnitChoice } from '#core/units/format';
import { useSettings } from '../../data/settings';
import { logEntry } from '../../data/store';
import { TextField } from '../../parts/Field';

/** Comb readings typed in one go, apart by spaces, µm; or what is wrong with one. A unit after the last counts for all. */
function combReadings(text: string, units: UnitChoice): number[] | string {
  const system = systemFor(units, 'film');
  const tidy = text.trim();
  const named = /\s*([a-zµμ]+)\.?$/i.exec(tidy);
  const bare = named ? tidy.slice(0, named.index) : tidy;
  const readings: number[] = [];
  for (const one of bare.split(/[\s;]+/).filter(Boolean)) {
    const parsed = parseQuantity({ quantity: 'film', text: named ? `${one} ${named[1]}` : one, system });
    if (!parsed.ok) return parsed.message;
    if (parsed.value <= 0) return `"${one}" is no film. Type what the comb shows, for example 150.`;
    readings.push(parsed.value);
  }
  return readings.length > 0 ? readings : 'Type the comb reading, for example 150 or 6 mil.';
}

/** Wet-film readings, one or several in one go; on a coat that is finished already they count as read at the finish. */
export function CombField({ boatId, coat }: { boatId: string; coat: Coat }) {
  const { units } = useSettings();
  const [text, setText] = useState('');
  const [problem, setProblem] = useState<string | null>(null);
  const log = () => {
    const micron = combReadings(text, units);
    if (typeof micron === 'string') return setProblem(micron);
    setProblem(null);
    void logEntry(
      {
        boatId,
        stream: 'coat',
        streamId: coat.id,
        kind: 'wetFilm',
        body: { micron },
        ...(coat.finishedAt === null ? {} : { occurredAt: coat.finishedAt }),
      },
      micron.length > 1 ? `${micron.length} comb readings logged` : 'Comb reading logged',
    );
    setText('');
    return undefined;
  };
  return (
    <form
      className="grid grid-cols-[1fr_auto] items-end gap-3"
      noValidate
      onSubmit={(e) => {
        e.preventDefault();
        log();
      }}
    >
      <TextField
        label={`Comb reading, ${shownUnit('film', units).symbol}`}
        inputMode="decimal"
        value={text}
        onChange={(e) => setText(e.target.value)}
        error={problem ?? undefined}
        hint={
          coat.finishedAt === null ? 'Several in one go: 150 142 138' : 'Combed while it was wet, written down now.'
        }
      />
      <button type="submit" className="btn">
        Log
      </button>
    </form>
  );
}
