import { Plus } from 'lucide-react';
import {
  Controller,
  useFieldArray,
  useFormContext,
  useWatch,
  type UseFormSetValue,
  type UseFieldArrayReturn,
  type Control,
} from 'react-hook-form';
import { wrongWay } from '#core/sheet/problems';
import { shownUnit } from '#core/units/format';
import type { UnitChoice } from '#core/units/format';
import { useSettings } from '../../data/settings';
import { QuantityCell } from '../../parts/Field';
import { FormSelect, FormTick, optionsOf } from '../../parts/form';
import { SHEET_KIND_WORDS } from '../../parts/words';
import { BEFORE_OVERCOAT, GRID_ROWS, tableOf } from './grid';
import { type SheetValues } from './values';

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
      <legend className="lab">{quick ? 'Times' : 'Times by temperature'}</legend>
      <p className="mb-2 text-sm quiet">
        Hours, or with a unit: 90 min, 2 d, 1 month.{' '}
        {quick
          ? 'Other temperatures are estimated: twice as quick for every 10 °C, 18 °F.'
          : 'An empty cell is not on the sheet.'}
      </p>
      <div className="overflow-x-auto" tabIndex={0} role="group" aria-label="Time grid">
        <table>
          <TimeHeads temps={temps} control={control} units={units} quick={quick} setValue={setValue} />
          <tbody>
            {quick ? row('Pot life', 'grid.rows.potLife', grid.rows.potLife) : single(0, BEFORE_OVERCOAT)}
            {overcoat.fields.map((field, i) => {
              const name = `grid.overcoat.${i}`;
              const texts = grid.overcoat[i];
              return [
                !quick && <OvercoatHead temps={temps} name={name} overcoat={overcoat} i={i} key={`${field.id}-head`} />,
                row('Shortest', `${name}.minimum`, texts?.minimum),
                row('Longest without abrading', `${name}.tackLimit`, texts?.tackLimit),
                !quick && row('Longest, even when abraded', `${name}.maximum`, texts?.maximum),
              ];
            })}
            {!quick && single(BEFORE_OVERCOAT)}
          </tbody>
        </table>
      </div>
      {!quick && <OneMoreOvercoat overcoat={overcoat} />}
    </fieldset>
  );
}

function TimeHeads({
  temps,
  control,
  units,
  quick,
  setValue,
}: {
  temps: number[];
  control: Control<SheetValues>;
  units: UnitChoice;
  quick: boolean;
  setValue: UseFormSetValue<SheetValues>;
}) {
  return (
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
  );
}

function OvercoatHead({
  temps,
  name,
  overcoat,
  i,
}: {
  temps: number[];
  name: string;
  overcoat: UseFieldArrayReturn<SheetValues, 'grid.overcoat', 'id'>;
  i: number;
}) {
  return (
    <tr>
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
  );
}

function OneMoreOvercoat({ overcoat }: { overcoat: UseFieldArrayReturn<SheetValues, 'grid.overcoat', 'id'> }) {
  return (
    <button
      type="button"
      className="btn mt-2"
      onClick={() =>
        overcoat.append({ after: 'antifouling', alwaysAbrade: false, minimum: [], tackLimit: [], maximum: [] })
      }
    >
      <Plus size={16} aria-hidden="true" /> Times for another following coat
    </button>
  );
}
