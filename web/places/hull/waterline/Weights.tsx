import { useState } from 'react';
import type { WeightsBody } from '#core/model/waterline';
import type { WeightToCome } from '#core/waterline/waterplane';
import type { BoatView } from '../../../data/store';
import { Choice, FormProblem, QuantityField, TextField } from '../../../parts/Field';
import { Fig } from '../../../parts/Fig';
import { logOnBoat } from '../../prep/usePrep';
import type { Waterline } from './useWaterline';

type Draft = {
  readonly name: string;
  readonly kg: number | null;
  readonly xM: number | null;
  readonly yM: number | null;
};

/** Stores, water, an engine: what will be in her when she floats, and what that does to her line. */
export function Weights({ view, waterline }: { view: BoatView; waterline: Waterline }) {
  const { weights, shape } = waterline;
  const [items, setItems] = useState<readonly Draft[]>(weights.items);
  const [rest, setRest] = useState<Omit<WeightsBody, 'items'>>(weights);
  const [problem, setProblem] = useState<string | null>(null);
  const set = (i: number, change: Partial<Draft>) => setItems(items.map((w, k) => (k === i ? { ...w, ...change } : w)));
  const save = async () => {
    const bad = items.find((w) => w.kg === null || w.xM === null || Number.isNaN(w.kg + w.xM + (w.yM ?? 0)));
    if (bad) return setProblem(`${bad.name || 'A weight'} wants its weight and how far forward it is.`);
    const off = items.find((w) => (w.xM as number) < 0 || (w.xM as number) > shape.lengthM);
    if (off)
      return setProblem(`${off.name || 'A weight'} is beyond the ends of the boat. Check how far forward it is.`);
    const body: WeightsBody = {
      water: rest.water,
      displacementKg: rest.displacementKg,
      coefficient: rest.coefficient,
      items: items.map((w): WeightToCome => ({ name: w.name, kg: w.kg as number, xM: w.xM as number, yM: w.yM ?? 0 })),
    };
    return setProblem(await logOnBoat(view, { kind: 'weights', body }, 'Weights to come kept'));
  };
  return (
    <>
      <Told waterline={waterline} />
      <ul className="sheet-rule" aria-label="Weights">
        {items.map((w, i) => (
          <OneWeight
            key={i}
            no={i + 1}
            weight={w}
            set={(change) => set(i, change)}
            onOff={() => setItems(items.filter((_, k) => k !== i))}
          />
        ))}
      </ul>
      <button
        type="button"
        className="btn"
        onClick={() => setItems([...items, { name: '', kg: null, xM: shape.lengthM / 2, yM: 0 }])}
      >
        Add a weight
      </button>
      <Choice
        label="Water"
        value={rest.water}
        options={[
          ['sea', 'sea'],
          ['fresh', 'fresh'],
        ]}
        onPick={(water) => setRest({ ...rest, water })}
      />
      <div className="grid grid-cols-2 gap-3">
        <QuantityField
          label="What she weighs"
          quantity="mass"
          value={rest.displacementKg}
          onValue={(displacementKg) => setRest({ ...rest, displacementKg })}
          hint="Empty: guessed from her form"
        />
        <TextField
          label="Waterplane coefficient"
          inputMode="decimal"
          defaultValue={rest.coefficient ?? ''}
          onBlur={(e) => {
            const v = Number(e.target.value.replace(',', '.'));
            setRest({ ...rest, coefficient: e.target.value.trim() === '' ? null : v });
          }}
          hint={shape.known === 'dimensions' ? '0.65–0.75 yachts, 0.8–0.95 box-like' : 'Empty: from her shape'}
        />
      </div>
      <FormProblem message={problem} />
      <button type="button" className="btn btn-primary" onClick={() => void save()}>
        Keep the weights
      </button>
    </>
  );
}

/** Sinkage, trim, heel, and how dry the topcoat stays. */
function Told({ waterline }: { waterline: Waterline }) {
  const { water, high } = waterline;
  if (water.problem !== null) return <p className="border-l-4 border-error pl-3">{water.problem}</p>;
  const { sinkM, bowDownDeg, portDownDeg, addedKg, waterplane, byShape } = water.value;
  const lean = (deg: number, down: string, up: string) =>
    Math.abs(deg) < 0.005 ? null : `${Math.abs(deg).toFixed(2)}° ${deg > 0 ? down : up}`;
  return (
    <div role="status">
      <p>
        Waterplane <Fig quantity="area" value={waterplane.areaM2} approx={!byShape} />{' '}
        <span className="quiet">{byShape ? 'from her shape' : 'by a coefficient'}</span>
      </p>
      {addedKg !== 0 && (
        <p className="text-lg">
          <Fig quantity="width" value={sinkM} className="text-2xl" /> deeper
          {[lean(bowDownDeg, 'bow down', 'stern down'), lean(portDownDeg, 'port down', 'starboard down')]
            .filter(Boolean)
            .map((t) => `, ${t}`)
            .join('')}
        </p>
      )}
      {portDownDeg !== 0 && addedKg !== 0 && (
        <p className="text-sm quiet">Heel is the least it can be: a high centre of gravity makes it more.</p>
      )}
      {high?.least && (
        <p>
          The line stands <Fig quantity="width" value={high.least.overWaterM} /> over the water where it is least, at{' '}
          <Fig quantity="length" value={high.least.xM} />.{' '}
          {high.raiseM > 0 ? (
            <span className="font-semibold">
              Raise it by <Fig quantity="width" value={high.raiseM} /> to keep the topcoat dry.
            </span>
          ) : (
            'The topcoat stays dry.'
          )}
          {high.wear && (
            <span className="block text-sm quiet">
              The wear strip follows the water: <Fig quantity="width" value={high.wear.fromM} /> to{' '}
              <Fig quantity="width" value={high.wear.toM} /> below the painted edge.
            </span>
          )}
        </p>
      )}
    </div>
  );
}

function OneWeight({
  no,
  weight,
  set,
  onOff,
}: {
  no: number;
  weight: Draft;
  set: (change: Partial<Draft>) => void;
  onOff: () => void;
}) {
  return (
    <li className="flex flex-col gap-2 py-2">
      <TextField label={`Weight ${no}`} value={weight.name} onChange={(e) => set({ name: e.target.value })} />
      <div className="grid grid-cols-3 gap-2">
        <QuantityField label="Weighs" quantity="mass" value={weight.kg} onValue={(kg) => set({ kg })} />
        <QuantityField label="Forward" quantity="length" value={weight.xM} onValue={(xM) => set({ xM })} />
        <QuantityField label="To port, starboard −" quantity="length" value={weight.yM} onValue={(yM) => set({ yM })} />
      </div>
      <button type="button" className="link-row self-start underline underline-offset-4" onClick={onOff}>
        Take off
      </button>
    </li>
  );
}
