import { plainNumber } from '#core/units/format';
import type { Unit } from '#core/units/quantities';
import { TextField } from '../../parts/Field';
import { Fig } from '../../parts/Fig';
import type { StepUnits } from './PourList';
import type { Mix } from './useMix';

/** A mix outside its tolerance: what mends it, or that it is to be thrown away, or why it is used all the same. */
export function OffRatio({ mix, units: { volume: unit, mass: massUnit } }: { mix: Mix; units: StepUnits }) {
  const { pouring, typed, setTyped, mixedId } = mix;
  if (!pouring || pouring.ratio.withinTolerance || mixedId !== null) return null;
  const { ratio, mend } = pouring;
  const said = (list: readonly number[]) => list.map((r) => plainNumber(r, 2)).join(' : ');
  return (
    <section role="alert" className="mt-2 border-l-4 border-error bg-base-200 px-3 py-2">
      <p className="font-semibold">
        Off its ratio: {said(ratio.poured)} instead of {said(ratio.wanted)}
      </p>
      {mend && mend.add.length > 0 && (
        <p>
          {mend.outrunsPot ? 'Mending it would take ' : 'Add '}
          {mend.add.map((a, i) => (
            <span key={a.name}>
              {i > 0 && ' and '}
              <Fig quantity="volume" value={a.litres} unit={unit} className="text-xl" />
              <Weight mix={mix} name={a.name} litres={a.litres} unit={massUnit} /> of {a.name}
            </span>
          ))}
          : <Fig quantity="volume" value={mend.totalL} unit={unit} /> in all.{' '}
          {mend.outrunsPot
            ? 'That is more than goes on within the pot life: throw it away, outdoors, and mix anew.'
            : 'Then tick it with the new amount.'}
        </p>
      )}
      {mend && mend.add.length > 0 && (
        <button
          type="button"
          className="btn mt-1"
          onClick={() =>
            setTyped({
              poured: {
                ...typed.poured,
                ...Object.fromEntries(
                  mend.add.map((a) => [
                    a.name,
                    a.litres + (pouring.steps.find((s) => s.name === a.name)?.pouredL ?? 0),
                  ]),
                ),
              },
            })
          }
        >
          It is added
        </button>
      )}
      <TextField
        label="Or: why it is used all the same"
        value={typed.reason ?? ''}
        onChange={(e) => setTyped({ reason: e.target.value })}
        hint="It stays marked on the batch and on the coat."
      />
    </section>
  );
}

/** The same on the scale, where it is weighed and its density is known. */
function Weight({ mix, name, litres, unit }: { mix: Mix; name: string; litres: number; unit: Unit }) {
  const step = mix.pouring?.steps.find((s) => s.name === name);
  if (mix.measure !== 'scale' || step?.densityKgPerL == null) return null;
  return (
    <>
      , <Fig quantity="mass" value={litres * step.densityKgPerL} unit={unit} />
    </>
  );
}
