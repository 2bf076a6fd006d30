import { Plus, Trash2 } from 'lucide-react';
import { useMemo, useRef } from 'react';
import { FormProvider, useFieldArray, useFormContext, useWatch } from 'react-hook-form';
import { useNavigate } from 'react-router';
import { v7 as uuid } from 'uuid';
import { isMeasured, methodsFor } from '#core/hull/zoneArea';
import { usualPart, usualRange } from '#core/hull/areaMethods';
import type { AreaMethod } from '#core/model/area';
import { PATCHES, type PatchKind, type Substrate, type ZoneKind } from '#core/model/surface';
import { USUAL_EXPOSURE } from '#core/hull/zones';
import { surfaceBody } from '#contracts/schemas/boat';
import type { Boat, SurfaceDraft, SurfaceRow } from '#contracts/rows/boat';
import { Differences } from '../../parts/Differences';
import { save, type BoatView } from '../../data/store';
import { useSubmit } from '../../data/useSubmit';
import { FormProblem, TextField } from '../../parts/Field';
import { FormNumber, FormQuantity, FormSelect, FormText, optionsOf, useContractForm } from '../../parts/form';
import {
  EXISTING_WORDS,
  EXPOSURE_WORDS,
  MASKED_WORDS,
  OPEN_WORK_WORDS,
  PATCH_WORDS,
  SIDE_WORDS,
  SUBSTRATE_WORDS,
  ZONE_WORDS,
} from '../../parts/choiceWords';
import { AreaMethods } from './AreaMethods';
import { bandOf } from '../../parts/hullLines';
import { cleanArea } from './cleanArea';

type Values = Omit<SurfaceDraft, 'id'>;

const USUAL_SUBSTRATE: Record<Boat['hullMaterial'], Substrate> = {
  grp: 'gelcoat',
  steel: 'steel',
  aluminium: 'aluminium',
  timber: 'timber',
  plywood: 'plywood',
  ferrocement: 'ferrocement',
};
const ALL_NAMES: readonly string[] = [...Object.values(ZONE_WORDS), ...Object.values(PATCH_WORDS), ''];

/** A zone, or with `parent` a patch of one. */
export function ZoneForm({
  view,
  surface,
  parent,
  onDone,
}: {
  view: BoatView;
  surface: SurfaceRow | null;
  parent: SurfaceRow | null;
  onDone: () => void;
}) {
  const { boat, surfaces, hull } = view;
  const navigate = useNavigate();
  const id = useMemo(() => surface?.id ?? uuid(), [surface?.id]);
  const initial = useMemo<Values>(
    () => (surface ? draftOf(surface) : parent ? newPatch(parent, surfaces) : newZone(boat, surfaces)),
    [surface, parent, boat, surfaces],
  );
  const form = useContractForm<Values>(surfaceBody, initial);
  const { failure, theirs, sending, submit } = useSubmit();
  const saved = useRef(surface !== null);
  const values = useWatch({ control: form.control }) as Values;
  const question = useMemo(
    () => ({ ...values, area: cleanArea(values.area), boat, ...(hull ? { hull } : {}) }),
    [values, boat, hull],
  );

  const settleMethod = (kind: ZoneKind, patchKind: PatchKind | null) => {
    const methods = methodsFor(kind, patchKind);
    const method = form.getValues('area.method');
    if (methods.includes(method) && isMeasured({ ...question, kind, patchKind }, method)) return;
    const measured = methods.find((m) => isMeasured({ ...question, kind, patchKind }, m));
    pickMethod(
      measured ?? (methods.includes('dimensions') ? 'dimensions' : patchKind === 'highWear' ? 'band' : 'typed'),
    );
  };
  const rename = (words: string) => {
    if (ALL_NAMES.includes(form.getValues('name'))) form.setValue('name', words);
  };
  const pickKind = (picked: string) => {
    const kind = picked as ZoneKind;
    rename(ZONE_WORDS[kind]);
    form.setValue('exposure', USUAL_EXPOSURE[kind]);
    settleMethod(kind, null);
  };
  const pickPatch = (picked: string) => {
    rename(PATCH_WORDS[picked as PatchKind]);
    settleMethod(form.getValues('kind'), picked as PatchKind);
  };
  const pickMethod = (method: AreaMethod) => {
    form.setValue('area.method', method);
    // Empty figures to fill in, where a method is used for the first time.
    if (method === 'typed' && form.getValues('area.typed') === null)
      form.setValue('area.typed', { areaM2: null as never, share: 0.1 });
    if (method === 'offsets' && !form.getValues('area.offsets'))
      form.setValue('area.offsets', usualRange(values.kind, bandOf(surfaces)));
    if (method === 'mesh' && !form.getValues('area.mesh')) form.setValue('area.mesh', { part: usualPart(values.kind) });
    if (method === 'denny' && !form.getValues('area.denny'))
      form.setValue('area.denny', { displacedM3: null as never, draftM: null });
    if (method === 'band' && !form.getValues('area.band'))
      form.setValue('area.band', { place: 'waterline', widthM: 0.3, lengthM: null });
    if (method === 'calibrated' && !form.getValues('area.calibrated'))
      form.setValue('area.calibrated', {
        coatId: null,
        litres: null as never,
        wetFilmMicron: null as never,
        thinner: 0,
        readings: 5,
      });
    // Figures begun and never finished must not hold up another method.
    form.setValue('area', { ...cleanArea(form.getValues('area'), method), method });
  };

  const send = async (submitted: Values): Promise<boolean> => {
    const row: SurfaceRow = {
      ...submitted,
      area: cleanArea(submitted.area),
      id,
      areaM2: surface?.areaM2 ?? 0,
      areaShare: surface?.areaShare ?? 0,
      grossM2: surface?.grossM2 ?? 0,
    };
    const ok = await submit({ kind: 'surface', row }, `${row.name} saved`);
    saved.current ||= ok;
    return ok;
  };
  const onSubmit = form.handleSubmit(async (submitted) => {
    if (theirs) submitted.version = theirs.version;
    if (await send(submitted)) onDone();
  });
  /** To a page where the zone is measured: what stands here is saved first. */
  const goMeasure = (path: string) => {
    const clean = saved.current && !form.formState.isDirty;
    if (clean) return void navigate(path);
    return void form.handleSubmit(async (submitted) => {
      if (await send(submitted)) void navigate(path);
    })();
  };

  const heading = surface?.name ?? (parent ? 'New patch' : 'New zone');
  const base = `/boats/${boat.id}/hull`;
  return (
    <FormProvider {...form}>
      <form onSubmit={(e) => void onSubmit(e)} noValidate className="flex flex-col gap-3" aria-label={heading}>
        <h1 className="ruled pb-1 text-2xl">{heading}</h1>
        <div className="grid grid-cols-1 gap-3 sm:grid-cols-2">
          {parent ? (
            <FormSelect
              name="patchKind"
              label={`Kind of patch on ${parent.name}`}
              options={optionsOf(PATCH_WORDS)}
              onPicked={pickPatch}
            />
          ) : (
            <FormSelect name="kind" label="Kind of zone" options={optionsOf(ZONE_WORDS)} onPicked={pickKind} />
          )}
          <FormText name="name" label="Name" />
          <FormSelect name="substrate" label="Substrate" options={optionsOf(SUBSTRATE_WORDS)} />
          <FormSelect name="existing" label="What is on it already" options={optionsOf(EXISTING_WORDS)} />
          <FormSelect name="exposure" label="Exposure" options={optionsOf(EXPOSURE_WORDS)} />
          {!parent && (
            <FormSelect
              name="side"
              label="Side"
              options={optionsOf(SIDE_WORDS)}
              onPicked={(side) => form.setValue('partShare', side === 'part' ? 0.5 : null)}
            />
          )}
          {values.side === 'part' && (
            <FormQuantity
              name="partShare"
              label="Part of the whole"
              quantity="percent"
              hint="Half of the hull is 50 %"
            />
          )}
          {parent && values.patchKind && (
            <FormNumber
              name="sharedCoats"
              label="Coats of its zone beneath it"
              hint={
                PATCHES[values.patchKind] === 'carved'
                  ? 'Left empty, none: it gets its own from coat 1, and its area is taken off the zone’s.'
                  : 'Left empty, all: it lies on the zone, whose area stays whole.'
              }
            />
          )}
        </div>
        <AreaMethods
          view={view}
          surfaceId={id}
          question={question}
          onPick={pickMethod}
          onMeasure={(what) =>
            goMeasure(what === 'girths' || what === 'shapes' ? `${base}/${id}/${what}` : `${base}/${what}`)
          }
        />
        <OpenWorkList />
        <MaskList />
        <FormText name="notes" label="Condition, notes" />
        <FormProblem message={failure?.message ?? null} />
        {theirs && <Differences mine={values} theirs={theirs} />}
        <div className="flex flex-wrap gap-3">
          <button type="submit" className="btn btn-primary" disabled={sending}>
            {sending ? 'Saving…' : theirs ? 'Keep what stands here' : parent ? 'Save patch' : 'Save zone'}
          </button>
          <button type="button" className="btn" onClick={onDone}>
            Back
          </button>
          {surface && (
            <button
              type="button"
              className="btn btn-ghost text-error"
              onClick={() => {
                void save({ kind: 'surface', row: { ...surface, deleted: true } }, `${surface.name} removed`);
                onDone();
              }}
            >
              {parent ? 'Remove patch' : 'Remove zone'}
            </button>
          )}
        </div>
        {!form.formState.isValid && form.formState.submitCount > 0 && Object.keys(form.formState.errors).length > 0 && (
          <p className="text-sm text-error">Something above cannot be saved yet: look for the red sentence.</p>
        )}
      </form>
    </FormProvider>
  );
}

function draftOf(surface: SurfaceRow): Values {
  const { id: _id, areaM2: _area, areaShare: _share, grossM2: _gross, ...rest } = surface;
  return rest;
}

const nextSort = (surfaces: readonly SurfaceRow[]) => Math.max(0, ...surfaces.map((s) => s.sort)) + 1;

function newZone(boat: Boat, surfaces: readonly SurfaceRow[]): Values {
  const kind: ZoneKind = surfaces.some((s) => s.kind === 'underwater') ? 'topsides' : 'underwater';
  return {
    boatId: boat.id,
    name: ZONE_WORDS[kind],
    kind,
    substrate: USUAL_SUBSTRATE[boat.hullMaterial],
    exposure: USUAL_EXPOSURE[kind],
    existing: 'bare',
    area: { method: 'dimensions', dimensions: {}, typed: null },
    side: 'both',
    partShare: null,
    notes: '',
    maskList: [],
    openWork: [],
    parentId: null,
    patchKind: null,
    sharedCoats: null,
    sort: nextSort(surfaces),
    version: 0,
    deleted: false,
  };
}

function newPatch(parent: SurfaceRow, surfaces: readonly SurfaceRow[]): Values {
  const { boatId, kind, substrate, exposure, existing } = parent;
  return {
    boatId,
    name: PATCH_WORDS.standPad,
    kind,
    substrate,
    exposure,
    existing,
    area: { method: 'typed', dimensions: {}, typed: { areaM2: null as never, share: 0.1 } },
    side: 'both',
    partShare: null,
    notes: '',
    maskList: [],
    openWork: [],
    parentId: parent.id,
    patchKind: 'standPad',
    sharedCoats: null,
    sort: nextSort(surfaces),
    version: 0,
    deleted: false,
  };
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
