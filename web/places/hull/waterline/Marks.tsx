import { useState } from 'react';
import { MARK_FROM, MARK_SIDES, MARKED_BY, type MarkFrom, type MarkSide, type MarkedBy } from '#core/model/waterline';
import { systemFor } from '#core/units/format';
import { readList } from '#core/waterline/readList';
import { markHeight, missingStations, type MarkProblem } from '#core/waterline/waterlineLog';
import { useSettings } from '../../../data/settings';
import { saveAll, signed, type BoatView } from '../../../data/store';
import { Choice, FormProblem, QuantityField, SelectField, TextField } from '../../../parts/Field';
import { Fig } from '../../../parts/Fig';
import { MARK_FROM_WORDS, MARKED_BY_WORDS, SIDE_WORDS } from '../../../parts/prepWords';
import { logOnBoat, withdraw } from '../../prep/usePrep';
import { newLine, type Waterline } from './useWaterline';

export const PROBLEM_WORDS: Record<MarkProblem, string> = {
  notStood: 'measured from the ground: tell first how she stands',
  aboveRail: 'above the rail: a metre for a centimetre?',
  belowHull: 'below the hull: check the figure',
  offHull: 'beyond the ends of the boat: check the place',
};

/** The line that marks go to; the first one is begun with the first mark. */
async function lineFor(waterline: Waterline): Promise<string | null> {
  if (waterline.line) return waterline.line.line.lineId;
  const line = newLine('Line 1');
  return (await waterline.setLine(line, 'Line begun')) === null ? line.lineId : null;
}

/** Marks as they are read: one at a time, the place going on by itself; or a list that somebody reads out. */
export function MarkForm({ view, waterline }: { view: BoatView; waterline: Waterline }) {
  const [by, setBy] = useState<MarkedBy>('level');
  const [from, setFrom] = useState<MarkFrom>(waterline.standing ? 'ground' : 'rail');
  const [side, setSide] = useState<MarkSide>('port');
  const [list, setList] = useState(false);
  return (
    <>
      <div className="grid grid-cols-2 gap-3">
        <SelectField
          label="Read by"
          value={by}
          options={MARKED_BY.map((b) => [b, MARKED_BY_WORDS[b]] as const)}
          onPick={setBy}
        />
        <SelectField
          label="The figure is"
          value={from}
          options={MARK_FROM.map((f) => [f, MARK_FROM_WORDS[f]] as const)}
          onPick={setFrom}
        />
      </div>
      <Choice label="Side" value={side} options={MARK_SIDES.map((s) => [s, SIDE_WORDS[s]] as const)} onPick={setSide} />
      {list ? (
        <ListRead view={view} waterline={waterline} how={{ by, from, side }} />
      ) : (
        <OneMark view={view} waterline={waterline} how={{ by, from, side }} />
      )}
      <p>
        <button type="button" className="link-row underline underline-offset-4" onClick={() => setList(!list)}>
          {list ? 'One mark at a time' : 'Read a whole list in'}
        </button>
      </p>
    </>
  );
}

interface How {
  readonly by: MarkedBy;
  readonly from: MarkFrom;
  readonly side: MarkSide;
}

function OneMark({ view, waterline, how }: { view: BoatView; waterline: Waterline; how: How }) {
  const { stepM, shape, standing } = waterline;
  const [xM, setX] = useState<number | null>(() => nextPlace(waterline, how.side));
  const [valueM, setValue] = useState<number | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const save = async () => {
    if (xM === null || valueM === null || Number.isNaN(xM + valueM))
      return setProblem('Type where the mark is and its figure.');
    const mark = { xM, side: how.side, from: how.from, valueM };
    const found = markHeight(mark, { shape, standing });
    if (found.problem) return setProblem(`This mark is ${PROBLEM_WORDS[found.problem]}`);
    const lineId = await lineFor(waterline);
    if (!lineId) return setProblem('The line could not be begun. Try again.');
    const wrong = await logOnBoat(
      view,
      { kind: 'marked', body: { ...mark, lineId, by: how.by, no: Math.round(xM / stepM) + 1 } },
      'Mark kept',
    );
    if (wrong) return setProblem(wrong);
    setProblem(null);
    setValue(null);
    setX(Math.min(shape.lengthM, Math.round((xM + stepM) * 1000) / 1000));
    return undefined;
  };
  return (
    <form
      className="flex flex-col gap-3"
      onSubmit={(e) => {
        e.preventDefault();
        void save();
      }}
    >
      <div className="grid grid-cols-2 gap-3">
        <QuantityField label="Forward of the stern" quantity="length" value={xM} onValue={setX} />
        <QuantityField label={MARK_FROM_WORDS[how.from]} quantity="width" value={valueM} onValue={setValue} />
      </div>
      <FormProblem message={problem} />
      <button type="submit" className="btn btn-primary h-14 text-lg">
        Mark it, on to the next
      </button>
    </form>
  );
}

/** The station after the last one that was marked on this side. */
function nextPlace({ line, log, stepM, shape }: Waterline, side: MarkSide): number {
  const own = log.marks.filter((m) => m.lineId === line?.line.lineId && m.side === side);
  const last = own.at(-1);
  return last ? Math.min(shape.lengthM, Math.round((last.xM + stepM) * 1000) / 1000) : 0;
}

function ListRead({ view, waterline, how }: { view: BoatView; waterline: Waterline; how: How }) {
  const { units } = useSettings();
  const { stepM, setStepM, shape, standing } = waterline;
  const [text, setText] = useState('');
  const [first, setFirst] = useState('1');
  const [problem, setProblem] = useState<string | null>(null);
  const read = readList({ text, first: Number(first) || 1, system: systemFor(units, 'width') });
  const stations = read.stations.filter((s) => s.valueM !== null);
  const save = async () => {
    if (read.problem) return setProblem(read.problem);
    if (stations.length === 0) return setProblem('Read in at least one figure.');
    const marks = stations.map((s) => ({
      no: s.no,
      xM: (s.no - 1) * stepM,
      side: how.side,
      from: how.from,
      valueM: s.valueM as number,
    }));
    const off = marks.find((m) => ['offHull', 'notStood'].includes(markHeight(m, { shape, standing }).problem ?? ''));
    if (off) {
      const why = markHeight(off, { shape, standing }).problem;
      return setProblem(`Station ${off.no} is ${PROBLEM_WORDS[why as MarkProblem]}`);
    }
    const lineId = await lineFor(waterline);
    if (!lineId) return setProblem('The line could not be begun. Try again.');
    void saveAll(
      marks.map((m) => ({
        kind: 'entry' as const,
        entry: signed({
          boatId: view.boat.id,
          stream: 'boat',
          streamId: view.boat.id,
          kind: 'marked',
          body: { ...m, lineId, by: how.by },
        }),
      })),
      `${marks.length} marks read in`,
    );
    setText('');
    return setProblem(null);
  };
  return (
    <>
      <div className="grid grid-cols-2 gap-3">
        <TextField label="First station" inputMode="numeric" value={first} onChange={(e) => setFirst(e.target.value)} />
        <QuantityField
          label="From station to station"
          quantity="length"
          value={stepM}
          onValue={(m) => m !== null && m > 0 && setStepM(m)}
        />
      </div>
      <label className="flex flex-col gap-1">
        <span className="lab">Figures, a station each</span>
        <textarea
          className="textarea narrow min-h-32 w-full text-lg"
          value={text}
          onChange={(e) => (setText(e.target.value), setProblem(null))}
          placeholder={'52.5\n53\ngap\n6: 54'}
        />
      </label>
      <p className="text-sm quiet">
        One reads out, the other types, or speaks into the keyboard’s dictation. “gap” for a station that cannot be
        reached.
      </p>
      {read.stations.length > 0 && !read.problem && (
        <p role="status">
          {stations.length} read
          {read.gaps.length > 0 && <span className="font-semibold">, missing: {read.gaps.join(', ')}</span>}
        </p>
      )}
      <FormProblem message={problem ?? read.problem} />
      <button type="button" className="btn btn-primary" onClick={() => void save()}>
        Read them in
      </button>
    </>
  );
}

/** The marks of a line, each with how far it is off; a stray is named, and any can be taken back. */
export function MarkList({ view, waterline }: { view: BoatView; waterline: Waterline }) {
  const { line, log } = waterline;
  if (!line || line.marks.length === 0) return <p className="quiet">No mark yet.</p>;
  const { faired } = line;
  const own = log.marks.filter((m) => m.lineId === line.line.lineId);
  const gaps = MARK_SIDES.flatMap((side) => {
    const missing = missingStations(own.flatMap((m) => (m.side === side && m.no ? [m.no] : [])));
    return missing.length > 0 ? [`${SIDE_WORDS[side].toLowerCase()} ${missing.join(', ')}`] : [];
  });
  const remove = (ids: readonly string[]) => {
    for (const id of ids) {
      const entry = view.entries.find((e) => e.id === id);
      if (entry) void withdraw(entry, 'Mark taken back');
    }
  };
  return (
    <>
      {gaps.length > 0 && <p>Stations without a mark: {gaps.join('; ')}</p>}
      <ol className="sheet-rule max-h-96 overflow-y-auto" aria-label="Marks">
        {line.marks.map((m, i) => {
          const stray = faired?.strays.includes(i) ?? false;
          const problem = line.problems.find((p) => m.ids.includes(p.id))?.problem;
          return (
            <li key={m.ids[0]} className="flex flex-wrap items-center gap-x-4">
              <Fig quantity="length" value={m.xM} className="w-16" />
              <Fig quantity="width" value={m.heightM} className="w-20" />
              <span className={`min-w-0 flex-1 ${stray ? 'font-semibold text-error' : 'quiet'}`}>
                {stray ? 'strays by ' : 'off by '}
                {faired && <Fig quantity="width" value={m.heightM - (faired.heightsM[i] as number)} />}
                {problem && `, ${PROBLEM_WORDS[problem]}`}
              </span>
              <button
                type="button"
                className="link-row underline underline-offset-4"
                aria-label={`Take back the mark ${i + 1}`}
                onClick={() => remove(m.ids)}
              >
                Take back
              </button>
            </li>
          );
        })}
      </ol>
      {faired && (
        <p className="quiet">
          A mark is off by some <Fig quantity="width" value={faired.sigmaM} /> (σ). Strays do not pull the line.
        </p>
      )}
    </>
  );
}
