import { Plus, X } from 'lucide-react';
import { Controller, useFieldArray, useFormContext, useWatch } from 'react-hook-form';
import { wrongWay } from '#core/sheet/problems';
import { ANTIFOULING_TYPES, CHEMISTRIES, GLOSSES, THINNER_FAMILIES, WATERS, type SheetBody } from '#core/model/sheet';
import { PAINT_METHODS } from '#core/model/paintMethod';
import { shownUnit } from '#core/units/format';
import { useSettings } from '../../data/settings';
import { QuantityCell } from '../../parts/Field';
import {
  FormChoice,
  FormNumber,
  FormQuantity,
  FormSelect,
  FormText,
  FormTick,
  FormYesNo,
  optionsOf,
} from '../../parts/form';
import { ANTIFOULING_WORDS, CHEMISTRY_WORDS, GLOSS_WORDS, THINNER_WORDS, WATERS_WORDS } from '../../parts/choiceWords';
import { METHOD_WORDS, SHEET_KIND_WORDS } from '../../parts/words';
import { BEFORE_OVERCOAT, GRID_ROWS, tableOf } from './grid';
import { EMPTY_PACK, type SheetValues } from './values';

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

/** Temperatures across, milestones down; a cell that runs the wrong way is marked where it stands. */
export function TimesFields({ quick }: { quick: boolean }) {
  const { register, setValue, control } = useFormContext<SheetValues>();
  const { units } = useSettings();
  const temps = useWatch({ control, name: 'grid.temps' });
  const grid = useWatch({ control, name: 'grid' });
  const overcoat = useFieldArray({ control, name: 'grid.overcoat' });
  const row = (label: string, name: string, texts: readonly string[] | undefined) => {
    const table = tableOf(temps, texts);
    const slips = new Set(
      (table ? wrongWay(table.filter((c) => Number.isFinite(c.hours))) : []).flatMap((w) => [
        w.colder.tempC,
        w.warmer.tempC,
      ]),
    );
    return (
      <tr key={name}>
        <th scope="row" className="py-1 pr-3 text-left font-normal">
          {label}
        </th>
        {temps.map((t, c) => (
          <td key={c} className="p-1">
            <input
              aria-label={`${label}, column ${c + 1}`}
              aria-invalid={slips.has(t) || undefined}
              title={slips.has(t) ? 'Warmer takes longer here: check this figure and its neighbour.' : undefined}
              className={`input narrow min-w-20 text-center text-lg ${slips.has(t) ? 'border-2 border-warning' : ''}`}
              inputMode="decimal"
              autoComplete="off"
              placeholder="·"
              {...register(`${name}.${c}` as never)}
            />
          </td>
        ))}
      </tr>
    );
  };
  const single = (from: number, to?: number) =>
    GRID_ROWS.slice(from, to).map(([key, label]) => row(label, `grid.rows.${key}`, grid.rows[key]));
  return (
    <fieldset className="min-w-0 border-t border-base-300 pt-3">
      <legend className="lab">{quick ? 'Overcoat times' : 'Times by temperature'}</legend>
      <p className="mb-2 text-sm quiet">
        Hours, or with a unit: 90 min, 2 d, 1 month.{' '}
        {quick
          ? 'Other temperatures are estimated: twice as quick for every 10 °C.'
          : 'An empty cell is not on the sheet.'}
      </p>
      <div className="overflow-x-auto" tabIndex={0} role="group" aria-label="Time grid">
        <table>
          <thead>
            <tr>
              <th className="lab pr-3 text-left">at</th>
              {temps.map((_t, c) => (
                <th key={c} className="p-1">
                  <Controller
                    name={`grid.temps.${c}`}
                    control={control}
                    render={({ field }) => (
                      <QuantityCell
                        label={`Temperature of column ${c + 1}`}
                        quantity="temperature"
                        value={field.value}
                        onValue={field.onChange}
                      />
                    )}
                  />
                </th>
              ))}
              <th className="lab px-1">{shownUnit('temperature', units).symbol}</th>
              {!quick && temps.length < 8 && (
                <th>
                  <button
                    type="button"
                    className="btn btn-ghost min-w-11"
                    aria-label="One more temperature"
                    onClick={() => setValue('grid.temps', [...temps, (temps[temps.length - 1] ?? 20) + 5])}
                  >
                    <Plus size={16} aria-hidden="true" />
                  </button>
                </th>
              )}
            </tr>
          </thead>
          <tbody>
            {!quick && single(0, BEFORE_OVERCOAT)}
            {overcoat.fields.map((field, i) => {
              const name = `grid.overcoat.${i}`;
              const texts = grid.overcoat[i];
              return [
                !quick && (
                  <tr key={`${field.id}-head`}>
                    <th colSpan={temps.length + 1} className="pt-2 text-left font-normal">
                      <div className="grid items-end gap-3 sm:grid-cols-[16rem_auto_auto]">
                        <FormSelect
                          name={`${name}.after`}
                          label="Overcoat times when followed by"
                          options={[['any', 'Any coat'], ...optionsOf(SHEET_KIND_WORDS)]}
                        />
                        <FormTick name={`${name}.alwaysAbrade`} label="always abrade" />
                        {overcoat.fields.length > 1 && (
                          <button type="button" className="btn btn-ghost" onClick={() => overcoat.remove(i)}>
                            Remove
                          </button>
                        )}
                      </div>
                    </th>
                  </tr>
                ),
                row('Shortest', `${name}.minimum`, texts?.minimum),
                row('Longest without abrading', `${name}.tackLimit`, texts?.tackLimit),
                !quick && row('Longest, even when abraded', `${name}.maximum`, texts?.maximum),
              ];
            })}
            {!quick && single(BEFORE_OVERCOAT)}
          </tbody>
        </table>
      </div>
      {!quick && (
        <button
          type="button"
          className="btn mt-2"
          onClick={() =>
            overcoat.append({ after: 'antifouling', alwaysAbrade: false, minimum: [], tackLimit: [], maximum: [] })
          }
        >
          <Plus size={16} aria-hidden="true" /> Times for another following coat
        </button>
      )}
    </fieldset>
  );
}

export function PackFields({ quick }: { quick: boolean }) {
  const { control } = useFormContext<SheetValues>();
  const packs = useFieldArray({ control, name: 'body.packs' });
  const parts = useWatch({ control, name: 'body.parts' });
  return (
    <fieldset className="flex flex-col gap-3 border-t border-base-300 pt-3">
      <legend className="lab">Packs</legend>
      {packs.fields.map((field, i) => (
        <div key={field.id} className="border-b border-base-300 pb-3">
          <div
            className={`grid grid-cols-[1fr_1fr_auto] items-start gap-3 ${quick ? 'sm:grid-cols-[1fr_8rem_8rem_auto]' : 'sm:grid-cols-[1fr_7rem_7rem_9rem_1fr_auto]'}`}
          >
            <FormText name={`body.packs.${i}.name`} label="Name" />
            <FormQuantity name={`body.packs.${i}.sizeL`} label="Size" quantity="volume" />
            <FormNumber name={`body.packs.${i}.price`} label="Price" />
            {!quick && parts.length > 1 && (
              <FormSelect
                name={`body.packs.${i}.part`}
                label="Holds"
                options={[
                  ['', 'a whole kit'],
                  ...parts.filter((p) => p.name).map((p) => [p.name, `only ${p.name}`] as const),
                ]}
                emptyText
              />
            )}
            {!quick && <FormText name={`body.packs.${i}.supplier`} label="Supplier" />}
            <TakeOut label={`Remove pack ${i + 1}`} onClick={() => packs.remove(i)} />
          </div>
          {!quick && (
            <details className="mt-1">
              <summary className="link-row narrow cursor-pointer text-base underline decoration-dotted underline-offset-4">
                Price from so many, parts not in ratio
              </summary>
              <div className="flex flex-wrap items-end gap-3">
                {parts.length > 1 && (
                  <div className="w-60">
                    <FormText
                      name={`body.packs.${i}.partsL`}
                      label="Litres of each part, if not in ratio"
                      hint="Base first: 2; 1"
                    />
                  </div>
                )}
                <Breaks pack={i} />
              </div>
            </details>
          )}
        </div>
      ))}
      <button type="button" className="btn self-start" onClick={() => packs.append(EMPTY_PACK)}>
        <Plus size={16} aria-hidden="true" /> Pack
      </button>
    </fieldset>
  );
}

function Breaks({ pack }: { pack: number }) {
  const { control } = useFormContext<SheetValues>();
  const breaks = useFieldArray({ control, name: `body.packs.${pack}.breaks` });
  return (
    <>
      {breaks.fields.map((field, k) => (
        <div key={field.id} className="flex items-end gap-2">
          <div className="w-20">
            <FormNumber name={`body.packs.${pack}.breaks.${k}.from`} label="From" />
          </div>
          <div className="w-24">
            <FormNumber name={`body.packs.${pack}.breaks.${k}.price`} label="Price each" />
          </div>
          <TakeOut label={`Remove price break ${k + 1}`} onClick={() => breaks.remove(k)} />
        </div>
      ))}
      <button type="button" className="btn btn-ghost" onClick={() => breaks.append({ from: 6, price: null })}>
        <Plus size={16} aria-hidden="true" /> Price from so many
      </button>
    </>
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

function TakeOut({ label, onClick, className = '' }: { label: string; onClick: () => void; className?: string }) {
  return (
    <button type="button" className={`btn btn-ghost mt-7 min-w-11 ${className}`} aria-label={label} onClick={onClick}>
      <X size={18} aria-hidden="true" />
    </button>
  );
}
