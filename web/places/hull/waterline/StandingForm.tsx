import { useState } from 'react';
import { Impossible } from '#core/impossible';
import type { NamedPoint } from '#core/model/waterline';
import { standingPlane } from '#core/waterline/standing';
import type { BoatView } from '../../../data/store';
import { attempt } from '../../../parts/attempt';
import { Fig } from '../../../parts/Fig';
import { FormProblem, QuantityCell, TextField } from '../../../parts/Field';
import { logOnBoat } from '../../prep/usePrep';
import type { Waterline } from './useWaterline';

const degrees = (deg: number | null, up: string, down: string) =>
  deg === null ? null : Math.abs(deg) < 0.005 ? '0°' : `${Math.abs(deg).toFixed(2)}° ${deg > 0 ? up : down}`;

/** Trim and heel in a line. */
export function StandingLine({ waterline }: { waterline: Waterline }) {
  const { standing } = waterline;
  if (!standing) return <>not measured</>;
  const said = [degrees(standing.trimDeg, 'bow up', 'bow down'), degrees(standing.heelDeg, 'port up', 'starboard up')];
  return <>{said.filter(Boolean).join(', ') || 'height only'}</>;
}

type Draft = { readonly [K in keyof NamedPoint]: K extends 'name' ? string : number | null };

const EMPTY: Draft = { name: '', xM: null, yM: null, onBoatM: null, aboveGroundM: null };

/** Points whose height on the boat is known, measured above the ground: two fore and aft give trim, two across heel. */
export function StandingForm({ view, waterline }: { view: BoatView; waterline: Waterline }) {
  const { log } = waterline;
  const [points, setPoints] = useState<readonly Draft[]>(log.stood?.points ?? [EMPTY, EMPTY, EMPTY]);
  const [problem, setProblem] = useState<string | null>(null);
  const full = points.filter((p) => [p.xM, p.yM, p.onBoatM, p.aboveGroundM].every((v) => v !== null)) as NamedPoint[];
  const plane = full.length > 0 ? attempt(() => standingPlane({ points: full })) : null;
  const set = (i: number, change: Partial<Draft>) => (
    setPoints(points.map((p, k) => (k === i ? { ...p, ...change } : p))),
    setProblem(null)
  );
  const save = async () => {
    const half = points.find(
      (p) => !full.includes(p as NamedPoint) && (p.xM ?? p.yM ?? p.onBoatM ?? p.aboveGroundM) !== null,
    );
    if (half) return setProblem(`${half.name || 'A point'} is not complete: type all four figures, or empty it.`);
    try {
      if (full.some((p) => [p.xM, p.yM, p.onBoatM, p.aboveGroundM].some(Number.isNaN)))
        throw new Impossible('A figure cannot be read. Type it again.');
      standingPlane({ points: full });
    } catch (error) {
      return setProblem((error as Error).message);
    }
    const wrong = await logOnBoat(view, { kind: 'stood', body: { points: full } }, 'How she stands');
    return setProblem(wrong);
  };
  return (
    <>
      <p className="quiet">
        Points of which the height on her is known, over the drawn waterline, and their height above the ground. Three
        or more, not in a line, give trim and heel.
      </p>
      <ol className="flex flex-col gap-2" aria-label="Points">
        {points.map((p, i) => (
          <li key={i} className="border-l-2 border-base-300 pl-3">
            <div className="grid grid-cols-2 gap-2 sm:grid-cols-4">
              <PointCell label="Forward" no={i + 1} value={p.xM} onValue={(xM) => set(i, { xM })} />
              <PointCell label="To port, starboard −" no={i + 1} value={p.yM} onValue={(yM) => set(i, { yM })} />
              <PointCell label="On the boat" no={i + 1} value={p.onBoatM} onValue={(onBoatM) => set(i, { onBoatM })} />
              <PointCell
                label="Above ground"
                no={i + 1}
                value={p.aboveGroundM}
                onValue={(aboveGroundM) => set(i, { aboveGroundM })}
              />
            </div>
            <div className="flex items-end gap-3">
              <span className="min-w-0 flex-1">
                <TextField label="Which point" value={p.name} onChange={(e) => set(i, { name: e.target.value })} />
              </span>
              <Miss plane={plane?.value ?? null} index={full.indexOf(p as NamedPoint)} />
              <button
                type="button"
                className="link-row underline underline-offset-4"
                onClick={() => setPoints(points.filter((_, k) => k !== i))}
              >
                Take off
              </button>
            </div>
          </li>
        ))}
      </ol>
      <button type="button" className="btn" onClick={() => setPoints([...points, EMPTY])}>
        Another point
      </button>
      {plane?.value && <Told plane={plane.value} count={full.length} />}
      <FormProblem message={problem} />
      <button type="button" className="btn btn-primary" onClick={() => void save()}>
        Keep how she stands
      </button>
    </>
  );
}

/** What the points tell, and what they leave out. */
function Told({ plane, count }: { plane: ReturnType<typeof standingPlane>; count: number }) {
  const { trimDeg, heelDeg } = plane;
  const missing =
    trimDeg === null && heelDeg === null
      ? count === 1
        ? 'One point tells her height only.'
        : 'The points lie in one line that runs neither fore and aft nor across, or at one place: trim cannot be told from heel. Add one off that line.'
      : trimDeg === null
        ? 'All points are at one station: trim is not told. Add one further fore or aft.'
        : heelDeg === null
          ? 'All points are on one fore-and-aft line: heel is not told. Add one on the other side.'
          : null;
  return (
    <p role="status">
      <span className="fig text-xl">
        {[degrees(trimDeg, 'bow up', 'bow down'), degrees(heelDeg, 'port up', 'starboard up')]
          .filter(Boolean)
          .join(', ')}
      </span>
      {missing && <span className="block">{missing}</span>}
    </p>
  );
}

function Miss({ plane, index }: { plane: ReturnType<typeof standingPlane> | null; index: number }) {
  const miss = plane?.residualsM[index];
  if (miss === undefined) return null;
  return (
    <span className="narrow whitespace-nowrap quiet">
      misses by <Fig quantity="width" value={miss} />
    </span>
  );
}

function PointCell({
  label,
  no,
  value,
  onValue,
}: {
  label: string;
  no: number;
  value: number | null;
  onValue: (value: number | null) => void;
}) {
  return (
    <label className="flex min-w-0 flex-col">
      <span className="lab">{label}</span>
      <QuantityCell label={`Point ${no}, ${label.toLowerCase()}`} quantity="length" value={value} onValue={onValue} />
    </label>
  );
}
