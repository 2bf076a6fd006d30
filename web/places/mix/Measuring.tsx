import { MEASURES } from '#core/model/log';
import { changeSettings } from '../../data/settings';
import { Choice, SelectField } from '../../parts/Field';
import { MEASURE_WORDS } from '../../parts/choiceWords';
import { FormProblem } from '../../parts/Field';
import { plainNumber } from '#core/units/format';
import { ScalePanel } from './ScalePanel';
import type { StepUnits } from './PourList';
import type { Mix } from './useMix';
import { useState } from 'react';
import { Link } from 'react-router';

/** What it is measured with. */
export function Measuring({ mix, units }: { mix: Mix; units: StepUnits }) {
  const { measure, withoutDensity, mixedId } = mix;
  const [live, setLive] = useState(false);
  return (
    <fieldset disabled={mixedId !== null} className="my-2">
      <Choice
        label="Measure by"
        options={MEASURES.map((m) => [m, MEASURE_WORDS[m]] as const)}
        value={measure}
        onPick={(picked) => changeSettings({ measure: picked })}
      />
      {measure === 'scale' && withoutDensity.length === 0 && mixedId === null && (
        <label className="link-row gap-2">
          <input type="checkbox" className="checkbox" checked={live} onChange={(e) => setLive(e.target.checked)} />
          Read a scale (simulated)
        </label>
      )}
      {measure === 'scale' && live && mixedId === null && <ScalePanel mix={mix} units={units} />}
      {measure === 'pump' && <Pumps mix={mix} />}
      {measure === 'syringe' && mix.kit.syringes.length > 1 && <Syringe mix={mix} />}
    </fieldset>
  );
}

function Syringe({ mix }: { mix: Mix }) {
  const { kit, typed, setTyped } = mix;
  return (
    <div className="mt-2 max-w-60">
      <SelectField
        label="Syringe"
        value={typed.syringeId ?? kit.syringes[0]?.id ?? ''}
        options={kit.syringes.map((s) => [s.id, s.name] as const)}
        onPick={(syringeId) => setTyped({ syringeId })}
      />
    </div>
  );
}

/** Which pump is on which part, and the ratio that whole strokes really give. */
function Pumps({ mix }: { mix: Mix }) {
  const { kit, typed, setTyped, sheet, pouring } = mix;
  if (kit.pumps.length === 0)
    return (
      <p className="mt-2">
        No pump is kept yet.{' '}
        <Link to="/stores/kit" className="underline underline-offset-4">
          Calibrate one
        </Link>
        : pump ten strokes into a cup, type a tenth of it.
      </p>
    );
  const result = pouring?.strokes;
  return (
    <>
      <div className="mt-2 grid grid-cols-2 gap-3">
        {sheet.parts.map((p) => (
          <SelectField
            key={p.name}
            label={`Pump of ${p.name}`}
            value={typed.pumps?.[p.name] ?? ''}
            options={[['', 'choose'], ...kit.pumps.map((k) => [k.id, `${k.name}, ${k.mlPerStroke} mL`] as const)]}
            onPick={(id) => setTyped({ pumps: { ...typed.pumps, [p.name]: id } })}
          />
        ))}
      </div>
      <FormProblem message={pouring?.strokesProblem ?? null} />
      {result && (
        <p className={result.withinTolerance ? 'mt-1 quiet' : 'mt-1 font-semibold text-error'}>
          Whole strokes give {result.ratio.map((r) => plainNumber(r, 2)).join(' : ')}
          {result.withinTolerance
            ? ', within the tolerance.'
            : ': outside the tolerance. Mix more at a time, or measure it.'}
        </p>
      )}
    </>
  );
}
