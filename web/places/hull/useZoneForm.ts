import { blockingWork, UNDER_STAND } from '#core/coat/zoneState';
import { useMemo, useRef } from 'react';
import { useWatch, type UseFormReturn } from 'react-hook-form';
import { useNavigate } from 'react-router';
import { v7 as uuid } from 'uuid';
import type { AreaQuestion } from '#core/hull/areaMethods';
import { isMeasured, methodsFor } from '#core/hull/zoneArea';
import { usualPart, usualRange } from '#core/hull/areaMethods';
import type { AreaMethod } from '#core/model/area';
import type { PatchKind, ZoneKind } from '#core/model/surface';
import { USUAL_EXPOSURE } from '#core/hull/zones';
import { surfaceBody } from '#contracts/schemas/boat';
import type { SurfaceDraft, SurfaceRow } from '#contracts/rows/boat';
import type { BoatView } from '../../data/store';
import { useSubmit } from '../../data/useSubmit';
import { useContractForm } from '../../parts/form';
import { PATCH_WORDS, ZONE_WORDS } from '../../parts/choiceWords';
import { bandOf } from '../../parts/hullLines';
import { newZone, nextSort } from '../../parts/newZone';
import { cleanArea } from './cleanArea';

export interface ZoneFormProps {
  view: BoatView;
  surface: SurfaceRow | null;
  parent: SurfaceRow | null;
  onDone: () => void;
}

export type Values = Omit<SurfaceDraft, 'id'>;

const ALL_NAMES: readonly string[] = [...Object.values(ZONE_WORDS), ...Object.values(PATCH_WORDS), ''];

/** A zone or patch as it is typed, what follows from its kind, and how it is saved. */
export function useZoneForm({ view, surface, parent, onDone }: ZoneFormProps) {
  const { boat, surfaces, hull } = view;
  const navigate = useNavigate();
  const id = useMemo(() => surface?.id ?? uuid(), [surface?.id]);
  const initial = useMemo<Values>(
    () =>
      surface
        ? draftOf(surface)
        : parent
          ? newPatch(parent, surfaces)
          : newZone(
              boat,
              surfaces.some((s) => s.kind === 'underwater') ? 'topsides' : 'underwater',
              nextSort(surfaces),
            ),
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

  const picks = zonePicks({ form, question, values, surfaces });

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
  return {
    form,
    onSubmit,
    heading,
    pickPatch: picks.pickPatch,
    pickKind: picks.pickKind,
    values,
    id,
    question,
    pickMethod: picks.pickMethod,
    goMeasure,
    base,
    failure,
    theirs,
    sending,
  };
}

/** What follows from a kind or a method that is picked: name, exposure, method, its first figures. */
function zonePicks({
  form,
  question,
  values,
  surfaces,
}: {
  form: UseFormReturn<Values>;
  question: AreaQuestion;
  values: Values;
  surfaces: SurfaceRow[];
}) {
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
    // Only a stand's patch waits for the stand; what was typed of the work stays.
    const own = form.getValues('openWork').filter((w) => w.kind !== 'underStand' || w.note !== '' || w.done);
    form.setValue('openWork', picked === 'standPad' ? [...own, { ...UNDER_STAND, id: uuid() }] : own);
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
  return { pickPatch, pickKind, pickMethod };
}

function draftOf(surface: SurfaceRow): Values {
  const { id: _id, areaM2: _area, areaShare: _share, grossM2: _gross, ...rest } = surface;
  // What the stand itself asks for stands in the list too, to be ticked when it was moved.
  const { openWork } = rest;
  const asked = blockingWork(surface).filter((w) => !openWork.some((own) => own.id === w.id));
  return { ...rest, openWork: [...openWork, ...asked.map((w) => ({ ...w, id: uuid() }))] };
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
    // It is free when the stands were moved.
    openWork: [{ ...UNDER_STAND, id: uuid() }],
    parentId: parent.id,
    patchKind: 'standPad',
    sharedCoats: null,
    shelter: null,
    holds: null,
    sort: nextSort(surfaces),
    version: 0,
    deleted: false,
  };
}
