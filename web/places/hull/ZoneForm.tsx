import { Plus, Trash2 } from 'lucide-react';
import { useState } from 'react';
import { FormProvider, useFieldArray, useFormContext } from 'react-hook-form';
import { v7 as uuid } from 'uuid';
import { PATCHES } from '#core/model/surface';
import type { SurfaceRow } from '#contracts/rows/boat';
import { useZoneForm, type Values, type ZoneFormProps } from './useZoneForm';
import { Differences } from '../../parts/Differences';
import { save } from '../../data/store';
import { FormProblem, TextField } from '../../parts/Field';
import { FormErrors, FormNumber, FormQuantity, FormSelect, FormText, optionsOf } from '../../parts/form';
import {
  EXISTING_WORDS,
  EXPOSURE_WORDS,
  HOLDS_WORDS,
  MASKED_WORDS,
  OPEN_WORK_WORDS,
  PATCH_WORDS,
  SHELTER_WORDS,
  SIDE_WORDS,
  SUBSTRATE_WORDS,
  ZONE_WORDS,
} from '../../parts/choiceWords';
import { AreaMethods } from './AreaMethods';

/** A zone, or with `parent` a patch of one. */
export function ZoneForm({ view, surface, parent, onDone }: ZoneFormProps) {
  const z = useZoneForm({ view, surface, parent, onDone });

  return (
    <FormProvider {...z.form}>
      <form onSubmit={(e) => void z.onSubmit(e)} noValidate className="flex flex-col gap-3" aria-label={z.heading}>
        <h1 className="ruled pb-1 text-2xl">{z.heading}</h1>
        <ZoneKindFields parent={parent} z={z} />
        <AreaMethods
          view={view}
          surfaceId={z.id}
          question={z.question}
          onPick={z.pickMethod}
          onMeasure={(what) =>
            z.goMeasure(what === 'girths' || what === 'shapes' ? `${z.base}/${z.id}/${what}` : `${z.base}/${what}`)
          }
        />
        <OpenWorkList />
        <MaskList />
        <FormText name="notes" label="Condition, notes" />
        <FormErrors />
        <FormProblem message={z.failure?.message ?? null} />
        {z.theirs && <Differences mine={z.values} theirs={z.theirs} />}
        <ZoneButtons view={view} z={z} parent={parent} onDone={onDone} surface={surface} />
      </form>
    </FormProvider>
  );
}

function ZoneKindFields({ parent, z }: { parent: SurfaceRow | null; z: ReturnType<typeof useZoneForm> }) {
  return (
    <div className="grid grid-cols-1 gap-3 sm:grid-cols-2">
      {parent ? (
        <FormSelect
          name="patchKind"
          label={`Kind of patch on ${parent.name}`}
          options={optionsOf(PATCH_WORDS)}
          onPicked={z.pickPatch}
        />
      ) : (
        <FormSelect name="kind" label="Kind of zone" options={optionsOf(ZONE_WORDS)} onPicked={z.pickKind} />
      )}
      <FormText name="name" label="Name" />
      <FormSelect name="substrate" label="Substrate" options={optionsOf(SUBSTRATE_WORDS)} />
      <FormSelect name="existing" label="What is on it already" options={optionsOf(EXISTING_WORDS)} />
      <FormSelect name="exposure" label="Exposure" options={optionsOf(EXPOSURE_WORDS)} />
      <FormSelect
        name="shelter"
        label="What stands over it"
        emptyAs={null}
        options={[['', 'as over the boat'], ...optionsOf(SHELTER_WORDS)]}
      />
      {z.values.kind === 'tank' && (
        <FormSelect
          name="holds"
          label="What the tank holds"
          emptyAs={null}
          options={[['', 'not said'], ...optionsOf(HOLDS_WORDS)]}
        />
      )}
      {!parent && (
        <FormSelect
          name="side"
          label="Side"
          options={optionsOf(SIDE_WORDS)}
          onPicked={(side) => z.form.setValue('partShare', side === 'part' ? 0.5 : null)}
        />
      )}
      {z.values.side === 'part' && (
        <FormQuantity name="partShare" label="Part of the whole" quantity="percent" hint="Half of the hull is 50 %" />
      )}
      {parent && z.values.patchKind && (
        <FormNumber
          name="sharedCoats"
          label="Coats of its zone beneath it"
          hint={
            PATCHES[z.values.patchKind] === 'carved'
              ? 'Left empty, none: it gets its own from coat 1, and its area is taken off the zone’s.'
              : 'Left empty, all: it lies on the zone, whose area stays whole.'
          }
        />
      )}
    </div>
  );
}

function ZoneButtons({
  view,
  z,
  parent,
  onDone,
  surface,
}: {
  view: ZoneFormProps['view'];
  z: ReturnType<typeof useZoneForm>;
  parent: SurfaceRow | null;
  onDone: () => void;
  surface: SurfaceRow | null;
}) {
  const [asked, setAsked] = useState(false);
  const coats = surface ? view.coats.filter((c) => c.on.some((t) => t.surfaceId === surface.id)).length : 0;
  return (
    <div className="flex flex-wrap gap-3">
      <button type="submit" className="btn btn-primary" disabled={z.sending}>
        {z.sending ? 'Saving…' : z.theirs ? 'Keep what stands here' : parent ? 'Save patch' : 'Save zone'}
      </button>
      <button type="button" className="btn" onClick={onDone}>
        Back
      </button>
      {surface && (
        <button
          type="button"
          className="btn btn-ghost text-error"
          onClick={() => {
            // What was painted stays told: it is said before it is only seen in the record.
            if (coats > 0 && !asked) return setAsked(true);
            void save({ kind: 'surface', row: { ...surface, deleted: true } }, `${surface.name} removed`);
            return onDone();
          }}
        >
          {asked ? 'Remove it all the same' : parent ? 'Remove patch' : 'Remove zone'}
        </button>
      )}
      {asked && surface && (
        <p role="alert" className="w-full border-l-4 border-warning pl-3">
          {coats === 1 ? '1 coat is' : `${coats} coats are`} logged on {surface.name}. The record keeps{' '}
          {coats === 1 ? 'it' : 'them'} under this name; the zone, its build-up and its clocks go.
        </p>
      )}
    </div>
  );
}

/** What has to be done before the zone is painted. */
function OpenWorkList() {
  const { control, register } = useFormContext<Values>();
  const { fields, append, remove } = useFieldArray({ control, name: 'openWork', keyName: 'key' });
  return (
    <fieldset className="border-t border-base-300 pt-2">
      <legend className="sr-only">Open work</legend>
      <div className="flex items-center justify-between">
        <span className="lab">Open work: paint waits for it</span>
        <button
          type="button"
          className="btn btn-ghost"
          onClick={() => append({ id: uuid(), kind: 'repair', note: '', done: false })}
        >
          <Plus size={18} aria-hidden="true" /> Open work
        </button>
      </div>
      {fields.map((field, i) => (
        <div key={field.key} className="flex flex-wrap items-end gap-2 py-1">
          <label className="min-h-11 flex items-center gap-2">
            <input type="checkbox" className="checkbox" {...register(`openWork.${i}.done`)} /> done
          </label>
          <div className="w-44 grow">
            <FormSelect name={`openWork.${i}.kind`} label="Work" options={optionsOf(OPEN_WORK_WORDS)} />
          </div>
          <div className="w-44 grow-[2]">
            <TextField label="What and where" {...register(`openWork.${i}.note`)} />
          </div>
          <button
            type="button"
            className="btn btn-ghost btn-square"
            aria-label={`Remove work ${i + 1}`}
            onClick={() => remove(i)}
          >
            <Trash2 size={18} aria-hidden="true" />
          </button>
        </div>
      ))}
    </fieldset>
  );
}

/** What must not be painted. */
function MaskList() {
  const { control, register } = useFormContext<Values>();
  const { fields, append, remove } = useFieldArray({ control, name: 'maskList', keyName: 'key' });
  return (
    <fieldset className="border-t border-base-300 pt-2">
      <legend className="sr-only">Not to be painted</legend>
      <div className="flex items-center justify-between">
        <span className="lab">Not to be painted: mask before, check unmasked before launch</span>
        <button
          type="button"
          className="btn btn-ghost"
          onClick={() => append({ id: uuid(), thing: 'anode', count: 1, note: '' })}
        >
          <Plus size={18} aria-hidden="true" /> Mask
        </button>
      </div>
      {fields.map((field, i) => (
        <div key={field.key} className="flex flex-wrap items-end gap-2 py-1">
          <div className="w-16">
            <FormNumber name={`maskList.${i}.count`} label="How many" />
          </div>
          <div className="w-44 grow">
            <FormSelect name={`maskList.${i}.thing`} label="What" options={optionsOf(MASKED_WORDS)} />
          </div>
          <div className="w-44 grow-[2]">
            <TextField label="Where" {...register(`maskList.${i}.note`)} />
          </div>
          <button
            type="button"
            className="btn btn-ghost btn-square"
            aria-label={`Remove mask ${i + 1}`}
            onClick={() => remove(i)}
          >
            <Trash2 size={18} aria-hidden="true" />
          </button>
        </div>
      ))}
    </fieldset>
  );
}
