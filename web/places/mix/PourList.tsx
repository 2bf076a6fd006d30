import { useState } from 'react';
import { filledL, fillHeightsMm } from '#core/mix/fillHeights';
import { scalePourL, syringeFills, type PourStep } from '#core/mix/pouring';
import type { YardPot } from '#core/model/kit';
import type { Measure } from '#core/model/log';
import { pouringUnit } from '#core/units/format';
import type { Unit } from '#core/units/quantities';
import { useSettings } from '../../data/settings';
import { attempt } from '../../parts/attempt';
import { QuantityField } from '../../parts/Field';
import { Fig, useFigure } from '../../parts/Fig';
import { TinChoice } from './TinChoice';
import type { Mix } from './useMix';

export interface StepUnits {
  readonly volume: Unit;
  readonly mass: Unit;
}

/** Units of a batch: one for all that is poured, fine enough for its smallest part and no finer than the scale. */
export function useStepUnits(mix: Mix): StepUnits {
  const { units } = useSettings();
  const steps = mix.pouring?.steps ?? [];
  const volumes = steps.map((s) => s.litres);
  const masses = steps.map((s) => s.massKg ?? 0);
  const sum = (list: readonly number[]) => list.reduce((a, b) => a + b, 0);
  const mass = pouringUnit('mass', units, sum(masses), masses);
  const stepDigits = mix.kit.scaleStepG < 1 ? 1 : 0;
  return {
    volume: pouringUnit('volume', units, sum(volumes), volumes),
    mass: mass.id === 'g' ? { ...mass, digits: Math.min(mass.digits, stepDigits) } : mass,
  };
}

/** What goes into the pot, in its order: each ticked as it goes in, with what it is taken from. */
export function PourList({ mix, units }: { mix: Mix; units: StepUnits }) {
  const { pouring, measure, mixedId } = mix;
  if (!pouring) return null;
  const next = pouring.steps.find((s) => s.pouredL === null)?.name;
  return (
    <ol className="border-t border-base-content" aria-label="Pour, in this order">
      {pouring.steps.map((step, i) => (
        <Step
          key={step.name}
          mix={mix}
          step={step}
          before={pouring.steps[i - 1] ?? null}
          index={i}
          units={units}
          measure={measure}
          isNext={step.name === next && mixedId === null}
        />
      ))}
    </ol>
  );
}

interface StepProps {
  mix: Mix;
  step: PourStep;
  before: PourStep | null;
  index: number;
  units: StepUnits;
  measure: Measure;
  isNext: boolean;
}

function Step({ mix, step, before, index, units, measure, isNext }: StepProps) {
  const { typed, setTyped, mixedId } = mix;
  const [open, setOpen] = useState(false);
  const ticked = step.pouredL !== null;
  const say = (litres: number | null) => setTyped({ poured: withPoured(typed.poured ?? {}, step.name, litres) });
  return (
    <li className={`border-b border-base-300 py-1 ${isNext ? 'border-l-4 border-l-base-content pl-2' : ''}`}>
      <div className="flex items-center gap-3">
        <label className="flex min-h-14 min-w-0 flex-1 items-center gap-3">
          <input
            type="checkbox"
            className="checkbox"
            checked={ticked}
            disabled={mixedId !== null}
            onChange={(e) => say(e.target.checked ? step.litres : null)}
          />
          <span className="min-w-0 leading-tight">
            <span className="text-lg">
              {index > 0 && '+ '}
              {step.name}
            </span>
            {ticked && Math.abs(step.pouredL - step.litres) > 1e-6 && (
              <span className="block text-sm">
                in: <Fig quantity="volume" value={step.pouredL} unit={units.volume} />
              </span>
            )}
            {step.kind === 'additive' && <span className="block text-sm quiet">{additiveWords(mix, step.name)}</span>}
          </span>
        </label>
        <span className="text-right leading-tight">
          <Measured mix={mix} step={step} index={index} units={units} measure={measure} />
        </span>
      </div>
      <div className="flex flex-wrap items-center gap-x-4 pl-9">
        <TinChoice mix={mix} step={step} />
        {mixedId === null && (
          <button
            type="button"
            className="narrow min-h-11 underline underline-offset-4"
            aria-expanded={open}
            onClick={() => setOpen(!open)}
          >
            Other amount<span className="sr-only"> of {step.name}</span>
          </button>
        )}
      </div>
      {open && mixedId === null && (
        <Really step={step} before={before} measure={measure} unit={units.volume} onSay={say} />
      )}
    </li>
  );
}

function withPoured(poured: Readonly<Record<string, number>>, name: string, litres: number | null) {
  const { [name]: _was, ...rest } = poured;
  return litres === null ? rest : { ...rest, [name]: litres };
}

const TIMES_DIGITS = 2;

function additiveWords({ sheet }: Mix, name: string): string {
  const found = sheet.additives?.find((a) => a.name === name);
  if (!found) return '';
  const times = (factor: number) => (factor === 1 ? 'as it is' : `× ${Number(factor.toFixed(TIMES_DIGITS))}`);
  return `${found.kind}: pot life ${times(found.potFactor)}, drying ${times(found.windowFactor)}`;
}

/** How much of it, as it is measured. */
function Measured({ mix, step, index, units, measure }: Omit<StepProps, 'before' | 'isNext'>) {
  const volume = <Fig quantity="volume" value={step.litres} unit={units.volume} className="text-3xl" />;
  if (measure === 'scale')
    return step.upToKg === null ? (
      <>
        {volume}
        <span className="block text-sm quiet">no weighing</span>
      </>
    ) : (
      <>
        <span className="quiet">to </span>
        <Fig quantity="mass" value={step.upToKg} unit={units.mass} className="text-3xl" />
        {index > 0 && step.massKg !== null && (
          <span className="block text-sm quiet">
            alone <Fig quantity="mass" value={step.massKg} unit={units.mass} />
          </span>
        )}
      </>
    );
  const pump = measure === 'pump' && step.kind === 'part' ? mix.pouring?.strokes?.strokes[index] : undefined;
  if (pump !== undefined)
    return (
      <>
        <span className="fig text-3xl">{pump}</span> <span className="unit">strokes</span>
        <span className="block text-sm quiet">
          <Fig quantity="volume" value={step.litres} unit={units.volume} />
        </span>
      </>
    );
  if (measure === 'syringe') return <Fills mix={mix} step={step} units={units} />;
  if (measure === 'stick') return <Height mix={mix} index={index} step={step} units={units} />;
  return volume;
}

function Fills({ mix, step, units }: { mix: Mix; step: PourStep; units: StepUnits }) {
  const { kit, typed } = mix;
  const syringe = kit.syringes.find((s) => s.id === typed.syringeId) ?? kit.syringes[0];
  if (!syringe) return <Fig quantity="volume" value={step.litres} unit={units.volume} className="text-3xl" />;
  const { fills, lastMl } = syringeFills({ litres: step.litres, ml: syringe.ml });
  return (
    <>
      <span className="fig text-3xl">
        {fills > 0 && `${fills} × ${syringe.ml}`}
        {fills > 0 && lastMl > 0 && ' + '}
        {(lastMl > 0 || fills === 0) && lastMl}
      </span>{' '}
      <span className="unit">mL</span>
      <span className="block text-sm quiet">
        <Fig quantity="volume" value={step.litres} unit={units.volume} />
      </span>
    </>
  );
}

function Height({ mix, index, step, units }: { mix: Mix; index: number; step: PourStep; units: StepUnits }) {
  const pot = potOf(mix);
  const steps = mix.pouring?.steps ?? [];
  const { value } = attempt(() =>
    pot ? fillHeightsMm({ pot, volumesL: steps.slice(0, index + 1).map((s) => s.pouredL ?? s.litres) }) : null,
  );
  const mm = value?.[index];
  return (
    <>
      {mm === undefined ? (
        <span className="quiet">over the rim</span>
      ) : (
        <>
          <span className="quiet">to </span>
          <Fig quantity="width" value={mm / 1000} className="text-3xl" digits={units.volume.id === 'mL' ? 0 : 1} />
        </>
      )}
      <span className="block text-sm quiet">
        <Fig quantity="volume" value={step.litres} unit={units.volume} />
      </span>
    </>
  );
}

/** The pot that is mixed in: the one chosen, else the smallest that holds it, else the largest. */
export function potOf({ kit, typed, pouring }: Pick<Mix, 'kit' | 'typed' | 'pouring'>): YardPot | null {
  const chosen = kit.pots.find((p) => p.id === typed.potId);
  if (chosen) return chosen;
  const inPotL = pouring?.steps.reduce((sum, s) => sum + s.litres, 0) ?? 0;
  const bySize = [...kit.pots].sort((a, b) => holdsOf(a) - holdsOf(b));
  return bySize.find((p) => holdsOf(p) >= inPotL) ?? bySize[bySize.length - 1] ?? null;
}

const holdsOf = (pot: YardPot) => attempt(() => filledL({ pot, heightMm: pot.depthMm })).value ?? 0;

/** What really went in, told as it is measured: by the scale as it reads then, else by volume. */
function Really({
  step,
  before,
  measure,
  unit,
  onSay,
}: {
  step: PourStep;
  before: PourStep | null;
  measure: Measure;
  unit: Unit;
  onSay: (litres: number | null) => void;
}) {
  const hint = useFigure();
  const beforeKg = before ? before.upToKg : 0;
  const byScale = measure === 'scale' && step.massKg !== null && beforeKg !== null;
  const [kg, setKg] = useState<number | null>(null);
  const { densityKgPerL } = step;
  const read = (value: number | null) =>
    attempt(() =>
      value === null || beforeKg === null
        ? null
        : scalePourL({ beforeG: beforeKg * 1000, nowG: value * 1000, densityKgPerL, first: false, stepG: 0.1 }),
    );
  const weigh = (value: number | null) => {
    setKg(value);
    const { value: litres } = read(value);
    if (litres !== null) onSay(litres);
  };
  return (
    <div className="max-w-72 pb-2 pl-9">
      {byScale ? (
        <QuantityField
          label={`The scale reads, with ${step.name}`}
          quantity="mass"
          value={kg}
          onValue={weigh}
          error={read(kg).problem ?? undefined}
        />
      ) : (
        <QuantityField
          label={`Really poured of ${step.name}`}
          inputMode="text"
          hint={`With its unit: ${hint('volume', step.litres, undefined, unit)}`}
          quantity="volume"
          value={step.pouredL}
          onValue={(v) => (v === null || v >= 0 ? onSay(v) : undefined)}
        />
      )}
    </div>
  );
}
