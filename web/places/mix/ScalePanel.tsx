import { useEffect, useRef, useState } from 'react';
import { scalePourL } from '#core/mix/pouring';
import { attempt } from '../../parts/attempt';
import { FormProblem } from '../../parts/Field';
import { Fig } from '../../parts/Fig';
import { useSimulatedScale } from '../../devices/scale';
import type { StepUnits } from './PourList';
import type { Mix } from './useMix';

/** Reads the parts off a scale as they are poured. The scale is simulated: buttons pour onto it. */
export function ScalePanel({ mix, units }: { mix: Mix; units: StepUnits }) {
  const { pouring, typed, setTyped, kit } = mix;
  const scale = useSimulatedScale(kit.scaleStepG);
  const steps = pouring?.steps ?? [];
  const i = steps.findIndex((s) => s.pouredL === null);
  const step = steps[i];
  const [begunG, setBegunG] = useState<number | null>(null);
  const beforeG = begunG ?? 0;
  const { value: litres, problem } = attempt(() =>
    step
      ? scalePourL({
          beforeG: begunG === null ? scale.grams : beforeG,
          nowG: scale.grams,
          densityKgPerL: step.densityKgPerL,
          first: i === 0 && begunG === null,
          stepG: kit.scaleStepG,
        })
      : null,
  );
  const take = () => {
    if (!step || litres === null) return;
    setTyped({ poured: { ...typed.poured, [step.name]: litres } });
    setBegunG(scale.grams);
  };
  return (
    <section className="my-2 border-2 border-base-content px-3 py-2" aria-label="Bench scale, simulated">
      <p className="flex items-baseline justify-between">
        <span className="lab">Bench scale, simulated</span>
        <output aria-live="off">
          <Fig quantity="mass" value={scale.grams / 1000} unit={units.mass} className="text-4xl" />
        </output>
      </p>
      {step?.densityKgPerL != null && step.massKg !== null && litres !== null && (
        <p>
          {step.name}: <Fig quantity="mass" value={litres * step.densityKgPerL} unit={units.mass} /> of{' '}
          <Fig quantity="mass" value={step.massKg} unit={units.mass} />
        </p>
      )}
      <FormProblem message={problem} />
      <div className="mt-1 flex flex-wrap gap-2">
        <button
          type="button"
          className="btn"
          onClick={() => {
            scale.tare();
            setBegunG(0);
          }}
        >
          Tare
        </button>
        <PourButton onPour={(grams) => scale.put(grams)} />
        <button type="button" className="btn" onClick={() => scale.put(-20)}>
          Take 20 g off
        </button>
        <button type="button" className="btn btn-primary" disabled={litres === null || litres <= 0} onClick={take}>
          {step ? `${step.name} is in` : 'All in'}
        </button>
      </div>
    </section>
  );
}

const DRIP_G = 1;
const RUN_G = 6;
const EVERY_MS = 60;

/** Held, it runs; tapped, it drips. */
function PourButton({ onPour }: { onPour: (grams: number) => void }) {
  const running = useRef<ReturnType<typeof setInterval> | null>(null);
  const stop = () => {
    if (running.current) clearInterval(running.current);
    running.current = null;
  };
  useEffect(() => stop, []);
  return (
    <button
      type="button"
      className="btn touch-none"
      onPointerDown={() => {
        stop();
        running.current = setInterval(() => onPour(RUN_G), EVERY_MS);
      }}
      onPointerUp={stop}
      onPointerLeave={stop}
      onPointerCancel={stop}
      onClick={() => onPour(DRIP_G)}
    >
      Pour (hold)
    </button>
  );
}
