import { Plus, X } from 'lucide-react';
import { Controller, useFieldArray, useFormContext, useWatch } from 'react-hook-form';
import { ANTIFOULING_TYPES, CHEMISTRIES, GLOSSES, THINNER_FAMILIES, WATERS, type SheetBody } from '#core/model/sheet';
import { PAINT_METHODS } from '#core/model/paintMethod';
import { FormChoice, FormNumber, FormQuantity, FormSelect, FormText, FormYesNo } from '../../parts/form';
import { ANTIFOULING_WORDS, CHEMISTRY_WORDS, GLOSS_WORDS, THINNER_WORDS, WATERS_WORDS } from '../../parts/choiceWords';
import { METHOD_WORDS } from '../../parts/words';
import { type SheetValues } from './values';

const some = <T extends string>(list: readonly T[], words: Record<T, string>) => [
  ['', 'not said'] as const,
  ...list.map((k) => [k, words[k]] as const),
];

/** The fields of a sheet in the order in which a maker's sheet is read. */

export function SurfaceFields() {
  return (
    <fieldset className="grid grid-cols-2 items-start gap-3 border-t border-base-300 pt-3 sm:grid-cols-4">
      <legend className="lab">Surface it asks for</legend>
      <div className="col-span-2">
        <FormText name="body.cleanliness" label="Cleanliness" />
      </div>
      <FormNumber name="body.surfaceGrit" label="Abraded with grit" />
      <FormQuantity name="body.moistureMax" label="Moisture, highest" quantity="percent" />
      <FormQuantity name="body.profileMinMicron" label="Profile, smallest" quantity="film" />
      <FormQuantity name="body.profileMaxMicron" label="Profile, largest" quantity="film" />
      <FormYesNo name="body.neverAbrade" label="Never to be abraded" />
      <FormYesNo name="body.strongSolvent" label="Strong solvent" />
    </fieldset>
  );
}

export function UseFields() {
  const kind = useWatch({ name: 'body.kind' }) as SheetBody['kind'];
  return (
    <fieldset className="grid grid-cols-2 items-start gap-3 border-t border-base-300 pt-3 sm:grid-cols-4">
      <legend className="lab">What it is and where it may go</legend>
      <FormSelect name="body.chemistry" label="Chemistry" options={some(CHEMISTRIES, CHEMISTRY_WORDS)} />
      <FormSelect name="body.gloss" label="Gloss" options={some(GLOSSES, GLOSS_WORDS)} />
      <FormNumber name="body.hidingCoats" label="Hides in, coats" />
      <FormNumber name="body.holdingMonths" label="Holds uncoated, months" />
      <FormYesNo name="body.immersible" label="May be immersed" />
      <FormYesNo name="body.uvResistant" label="Stands sunlight" />
      <FormYesNo name="body.potable" label="Certified for drinking water" />
      <FormYesNo name="body.copper" label="Holds copper" />
      {kind === 'antifouling' && (
        <>
          <FormSelect
            name="body.antifouling.type"
            label="Antifouling is"
            options={some(ANTIFOULING_TYPES, ANTIFOULING_WORDS)}
          />
          <FormNumber name="body.antifouling.years" label="Lasts, years" />
          <FormNumber name="body.antifouling.dryOutDays" label="May dry out, days" />
          <WatersField />
        </>
      )}
    </fieldset>
  );
}

function WatersField() {
  return (
    <Controller
      name="body.antifouling.waters"
      render={({ field }) => {
        const value = (field.value as string[] | undefined) ?? [];
        return (
          <fieldset className="col-span-2">
            <legend className="lab">Suits</legend>
            <div className="flex flex-wrap gap-x-4">
              {WATERS.map((w) => (
                <label key={w} className="link-row gap-2">
                  <input
                    type="checkbox"
                    className="checkbox"
                    checked={value.includes(w)}
                    onChange={(e) => field.onChange(e.target.checked ? [...value, w] : value.filter((x) => x !== w))}
                  />{' '}
                  {WATERS_WORDS[w].toLowerCase()}
                </label>
              ))}
            </div>
          </fieldset>
        );
      }}
    />
  );
}

export function PartsFields() {
  const { control } = useFormContext<SheetValues>();
  const parts = useFieldArray({ control, name: 'body.parts' });
  const { formState, getFieldState } = useFormContext();
  const error = getFieldState('body.ratioBasis', formState).error;
  return (
    <fieldset className="flex flex-col gap-3 border-t border-base-300 pt-3">
      <legend className="lab">Parts and ratio</legend>
      {parts.fields.map((field, i) => (
        <div
          key={field.id}
          className="grid grid-cols-[1fr_5rem_auto] items-start gap-3 sm:grid-cols-[1fr_6rem_10rem_auto]"
        >
          <FormText name={`body.parts.${i}.name`} label={i === 0 ? 'Base' : `Part ${i + 1}`} />
          <FormNumber name={`body.parts.${i}.ratio`} label="Ratio" />
          <div className="max-sm:col-span-2 max-sm:row-start-2">
            <FormQuantity
              name={`body.parts.${i}.densityKgPerL`}
              label="Density"
              quantity="density"
              hint="Needed for the scale"
            />
          </div>
          {parts.fields.length > 1 && (
            <TakeOut
              label={`Remove part ${i + 1}`}
              onClick={() => parts.remove(i)}
              className="max-sm:col-start-3 max-sm:row-start-1"
            />
          )}
        </div>
      ))}
      <div className="flex flex-wrap items-end gap-4">
        <button
          type="button"
          className="btn"
          onClick={() =>
            parts.append({
              name: parts.fields.length === 1 ? 'Hardener' : 'Reducer',
              role: parts.fields.length === 1 ? 'hardener' : 'reducer',
              ratio: 1,
              densityKgPerL: null,
            })
          }
        >
          <Plus size={16} aria-hidden="true" /> Part
        </button>
        {parts.fields.length > 1 && (
          <div>
            <FormChoice
              name="body.ratioBasis"
              label="The ratio is"
              options={[
                ['volume', 'By volume'],
                ['mass', 'By mass'],
              ]}
            />
            {error && (
              <p role="alert" className="text-sm text-error">
                {error.message}
              </p>
            )}
          </div>
        )}
      </div>
      <p className="text-sm quiet">
        A ratio by volume is not one by mass. The tin or the sheet says which; if it does not, ask the maker.
      </p>
    </fieldset>
  );
}

export function ThinnerFields() {
  const { setValue } = useFormContext();
  const thinner = useWatch({ name: 'body.thinner' }) as SheetBody['thinner'];
  if (!thinner) {
    return (
      <button
        type="button"
        className="btn self-start"
        onClick={() => setValue('body.thinner', { name: '', maxShare: 0.05, of: 'mixed' })}
      >
        <Plus size={16} aria-hidden="true" /> Thinner
      </button>
    );
  }
  return (
    <fieldset className="grid grid-cols-2 items-start gap-3 border-t border-base-300 pt-3 sm:grid-cols-5">
      <legend className="lab">Thinner</legend>
      <FormText name="body.thinner.name" label="Which" />
      <FormSelect name="body.thinner.family" label="Family" options={some(THINNER_FAMILIES, THINNER_WORDS)} />
      <FormQuantity name="body.thinner.maxShare" label="At most" quantity="percent" />
      <FormSelect
        name="body.thinner.of"
        label="Share of"
        options={[
          ['mixed', 'the mix'],
          ['base', 'the base'],
        ]}
      />
      <button type="button" className="btn btn-ghost mt-7" onClick={() => setValue('body.thinner', null)}>
        No thinner
      </button>
    </fieldset>
  );
}

/** Film, and what the sheet allows of each way of putting it on. */
export function MethodFields() {
  const { control } = useFormContext<SheetValues>();
  const rows = useFieldArray({ control, name: 'body.methods' as never });
  return (
    <fieldset className="flex flex-col gap-3 border-t border-base-300 pt-3">
      <legend className="lab">Ways of putting it on</legend>
      {rows.fields.map((field, i) => (
        <div key={field.id} className="grid grid-cols-2 items-start gap-3 sm:grid-cols-[1fr_1fr_1fr_1fr_auto]">
          <FormSelect
            name={`body.methods.${i}.method`}
            label="By"
            options={PAINT_METHODS.map((m) => [m, METHOD_WORDS[m]] as const)}
          />
          <FormQuantity name={`body.methods.${i}.dftMicron`} label="Dry film" quantity="film" />
          <FormQuantity name={`body.methods.${i}.dftMaxMicron`} label="Largest" quantity="film" />
          <FormQuantity name={`body.methods.${i}.thinnerMax`} label="Thinner, at most" quantity="percent" />
          <TakeOut label={`Remove way ${i + 1}`} onClick={() => rows.remove(i)} />
        </div>
      ))}
      {rows.fields.length < 3 && (
        <button
          type="button"
          className="btn self-start"
          onClick={() => rows.append({ method: PAINT_METHODS[(rows.fields.length + 1) % 3] })}
        >
          <Plus size={16} aria-hidden="true" /> Way of putting it on
        </button>
      )}
    </fieldset>
  );
}

export function LimitFields() {
  return (
    <fieldset className="grid grid-cols-2 items-start gap-3 border-t border-base-300 pt-3 sm:grid-cols-4">
      <legend className="lab">Limits</legend>
      <FormQuantity name="body.limits.airMinC" label="Air, lowest" quantity="temperature" />
      <FormQuantity name="body.limits.airMaxC" label="Air, highest" quantity="temperature" />
      <FormQuantity name="body.limits.surfaceMinC" label="Surface, lowest" quantity="temperature" />
      <FormQuantity name="body.limits.surfaceMaxC" label="Surface, highest" quantity="temperature" />
      <FormQuantity name="body.limits.rhMax" label="Humidity, highest" quantity="percent" />
      <FormQuantity name="body.limits.spreadMinC" label="Spread, smallest" quantity="temperatureDifference" />
      <FormQuantity name="body.minCureC" label="No cure below" quantity="temperature" />
    </fieldset>
  );
}

export function ColourFields() {
  const { control, register } = useFormContext<SheetValues>();
  const colours = useFieldArray({ control, name: 'body.colours' });
  return (
    <fieldset className="flex flex-col gap-2 border-t border-base-300 pt-3">
      <legend className="lab">Colours</legend>
      <div className="flex flex-wrap items-end gap-x-5 gap-y-2">
        {colours.fields.map((field, i) => (
          <div key={field.id} className="flex items-end gap-2">
            <div className="w-36">
              <FormText name={`body.colours.${i}.name`} label={`Colour ${i + 1}`} />
            </div>
            <input
              type="color"
              aria-label={`Colour ${i + 1} is shown as`}
              className="h-11 w-12"
              {...register(`body.colours.${i}.hex`)}
            />
            <TakeOut label={`Remove colour ${i + 1}`} onClick={() => colours.remove(i)} />
          </div>
        ))}
        <button type="button" className="btn" onClick={() => colours.append({ name: '', hex: '#8f979b' })}>
          <Plus size={16} aria-hidden="true" /> Colour
        </button>
      </div>
    </fieldset>
  );
}

export function KeepingFields() {
  return (
    <fieldset className="grid grid-cols-2 items-start gap-3 border-t border-base-300 pt-3 sm:grid-cols-4">
      <legend className="lab">Keeping and safety</legend>
      <FormNumber name="body.shelfClosedMonths" label="Keeps closed, months" />
      <FormNumber name="body.shelfOpenMonths" label="Keeps opened, months" />
      <FormText name="body.flashPointClass" label="Flash point class" />
      <FormNumber name="body.vocGPerL" label="VOC, g/L" />
      <FormYesNo name="body.isocyanate" label="Isocyanates" />
      <FormYesNo name="body.biocide" label="Biocide" />
      <div className="col-span-2">
        <FormText name="body.caution" label="Caution to show where it is used" />
      </div>
    </fieldset>
  );
}

export function TakeOut({
  label,
  onClick,
  className = '',
}: {
  label: string;
  onClick: () => void;
  className?: string;
}) {
  return (
    <button type="button" className={`btn btn-ghost mt-7 min-w-11 ${className}`} aria-label={label} onClick={onClick}>
      <X size={18} aria-hidden="true" />
    </button>
  );
}
