import { useState } from 'react';
import { combReading } from '#core/coat/combReading';
import { type Coat } from '#core/coat/fold';
import type { WetFilmBody } from '#core/model/log';
import { parseQuantity } from '#core/units/parse';
import { shownUnit, systemFor, type UnitChoice } from '#core/units/format';
import { useSettings } from '../../data/settings';
import { logEntry } from '../../data/store';
import { attempt } from '../../parts/attempt';
import { FormProblem, QuantityField, TextField } from '../../parts/Field';

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
export function CombField({ boatId, coat, onLogged }: { boatId: string; coat: Coat; onLogged?: () => void }) {
  const { units } = useSettings();
  const [text, setText] = useState('');
  const [problem, setProblem] = useState<string | null>(null);
  const logFilm = (body: WetFilmBody, label: string) =>
    void logEntry(
      {
        boatId,
        stream: 'coat',
        streamId: coat.id,
        kind: 'wetFilm',
        body,
        ...(coat.finishedAt === null ? {} : { occurredAt: coat.finishedAt }),
      },
      label,
    );
  const log = () => {
    const micron = combReadings(text, units);
    if (typeof micron === 'string') return setProblem(micron);
    setProblem(null);
    logFilm({ micron }, micron.length > 1 ? `${micron.length} comb readings logged` : 'Comb reading logged');
    setText('');
    onLogged?.();
    return undefined;
  };
  const [wet, setWet] = useState<number | null>(null);
  const [dry, setDry] = useState<number | null>(null);
  const between = attempt(() =>
    wet === null || dry === null ? null : combReading({ lastWetMicron: wet, firstDryMicron: dry }),
  );
  const logTeeth = () => {
    if (!between.value) return;
    const { lowMicron, highMicron } = between.value;
    logFilm({ micron: [(lowMicron + highMicron) / 2], teeth: [[lowMicron, highMicron]] }, 'Comb reading logged');
    setWet(null);
    setDry(null);
    onLogged?.();
  };
  return (
    <>
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
      <fieldset className="mt-2 grid grid-cols-[1fr_1fr_auto] items-end gap-3">
        <legend className="lab">Or by its teeth</legend>
        <QuantityField label="Last wet" quantity="film" value={wet} onValue={setWet} />
        <QuantityField label="First dry" quantity="film" value={dry} onValue={setDry} />
        <button type="button" className="btn" disabled={!between.value} onClick={logTeeth}>
          Log<span className="sr-only"> the teeth</span>
        </button>
      </fieldset>
      <FormProblem message={between.problem} />
    </>
  );
}
