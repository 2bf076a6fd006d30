import { Plus } from 'lucide-react';
import { useFieldArray, useFormContext, useWatch } from 'react-hook-form';
import { ADDITIVE_KINDS } from '#core/model/sheet';
import { FormNumber, FormQuantity, FormSelect, FormText } from '../../parts/form';
import { ADDITIVE_WORDS } from '../../parts/choiceWords';
import { TakeOut } from './fields';
import { EMPTY_PACK, type SheetValues } from './values';

/** What a sheet says of mixing besides its ratio: tolerance, other ratios for a use, additives, the wet edge. */
export function MixingFields() {
  const { control } = useFormContext<SheetValues>();
  const uses = useFieldArray({ control, name: 'body.useRatios' });
  const additives = useFieldArray({ control, name: 'body.additives' as never });
  return (
    <fieldset className="flex flex-col gap-3 border-t border-base-300 pt-3">
      <legend className="lab">Mixing</legend>
      <div className="grid grid-cols-2 gap-3 sm:grid-cols-4">
        <FormQuantity name="body.ratioTolerance" label="Tolerance of the ratio" quantity="percent" hint="Empty: 5 %" />
        <FormNumber name="body.wetEdgeMin" label="Wet edge, minutes" hint="At 20 °C, 68 °F" />
      </div>
      {uses.fields.map((field, i) => (
        <div key={field.id} className="grid grid-cols-2 items-start gap-3 sm:grid-cols-[1fr_8rem_2fr_auto]">
          <FormText name={`body.useRatios.${i}.use`} label="Ratio for this use" />
          <FormText name={`body.useRatios.${i}.ratio`} label="Ratio" hint="3.5:1" />
          <FormText name={`body.useRatios.${i}.source`} label="Where the maker says so" />
          <TakeOut label={`Remove the ratio for use ${i + 1}`} onClick={() => uses.remove(i)} />
        </div>
      ))}
      <button type="button" className="btn self-start" onClick={() => uses.append({ use: '', ratio: '', source: '' })}>
        <Plus size={16} aria-hidden="true" /> Ratio for a use
      </button>
      {additives.fields.map((field, i) => (
        <div key={field.id} className="grid grid-cols-2 items-start gap-3 sm:grid-cols-[1fr_1fr_7rem_7rem_7rem_auto]">
          <FormText name={`body.additives.${i}.name`} label="Additive" />
          <FormSelect
            name={`body.additives.${i}.kind`}
            label="It is"
            options={ADDITIVE_KINDS.map((k) => [k, ADDITIVE_WORDS[k]] as const)}
          />
          <FormQuantity name={`body.additives.${i}.maxShare`} label="At most" quantity="percent" />
          <FormNumber name={`body.additives.${i}.potFactor`} label="Pot life ×" />
          <FormNumber name={`body.additives.${i}.windowFactor`} label="Drying ×" />
          <TakeOut label={`Remove additive ${i + 1}`} onClick={() => additives.remove(i)} />
        </div>
      ))}
      <button
        type="button"
        className="btn self-start"
        onClick={() =>
          additives.append({ name: '', kind: 'accelerator', maxShare: null, potFactor: 1, windowFactor: 1 })
        }
      >
        <Plus size={16} aria-hidden="true" /> Additive
      </button>
    </fieldset>
  );
}

/** As its thinner is sold. */
export function ThinnerPacks() {
  const { control } = useFormContext<SheetValues>();
  const thinner = useWatch({ control, name: 'body.thinner' });
  // Where there is none, a list of its packs would make one.
  return thinner?.name ? <PacksOf name={thinner.name} /> : null;
}

function PacksOf({ name }: { name: string }) {
  const { control } = useFormContext<SheetValues>();
  const packs = useFieldArray({ control, name: 'body.thinner.packs' });
  return (
    <fieldset className="flex flex-col gap-3">
      <legend className="lab">{name} is sold in</legend>
      {packs.fields.map((field, i) => (
        <div key={field.id} className="grid grid-cols-[1fr_1fr_1fr_auto] items-start gap-3">
          <FormText name={`body.thinner.packs.${i}.name`} label="Name" />
          <FormQuantity name={`body.thinner.packs.${i}.sizeL`} label="Size" quantity="volume" />
          <FormNumber name={`body.thinner.packs.${i}.price`} label="Price" />
          <TakeOut label={`Remove thinner pack ${i + 1}`} onClick={() => packs.remove(i)} />
        </div>
      ))}
      <button type="button" className="btn self-start" onClick={() => packs.append(EMPTY_PACK)}>
        <Plus size={16} aria-hidden="true" /> Thinner pack
      </button>
    </fieldset>
  );
}
