import { Plus } from 'lucide-react';
import { useFieldArray, useFormContext, useWatch } from 'react-hook-form';
import { TakeOut } from './fields';
import { FormNumber, FormQuantity, FormSelect, FormText } from '../../parts/form';
import { EMPTY_PACK, type SheetValues } from './values';

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
