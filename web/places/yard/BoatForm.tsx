import Joi from 'joi';
import { useMemo, useState } from 'react';
import { FormProvider, useWatch } from 'react-hook-form';
import { useNavigate } from 'react-router';
import { v7 as uuid } from 'uuid';
import { dimensionProblems } from '#core/hull/area';
import { boatBody, jobBody } from '#contracts/schemas/boat';
import type { Boat, Job } from '#contracts/rows/boat';
import { useView } from '../../app/BoatShell';
import { Differences } from '../../parts/Differences';
import { now } from '../../data/now';
import type { Failure } from '../../data/outbox';
import { save, useYard } from '../../data/store';
import { BoatDrawing } from '../../parts/BoatDrawing';
import { FormProblem } from '../../parts/Field';
import {
  FormChoice,
  FormNumber,
  FormQuantity,
  FormSelect,
  FormText,
  optionsOf,
  useContractForm,
} from '../../parts/form';
import { MATERIAL_WORDS, SHELTER_WORDS, WATERS_WORDS } from '../../parts/choiceWords';

interface Values {
  boat: Omit<Boat, 'id'>;
  job: Omit<Job, 'id' | 'yardCostPerDayMinor'> & { yardCostPerDay: number | null };
}

const schema = Joi.object({
  boat: boatBody,
  job: jobBody.keys({
    yardCostPerDayMinor: Joi.forbidden(),
    yardCostPerDay: Joi.number().min(0).max(1e7).allow(null).label('Yard cost a day'),
  }),
});

export function NewBoat() {
  // The yard's answer sets the clock that "today" is read from.
  const { data, error } = useYard();
  if (!data && !error) return <div className="skeleton m-5 h-64 rounded-sm" role="status" aria-label="Loading" />;
  return <BlankBoat />;
}

function BlankBoat() {
  const navigate = useNavigate();
  const today = new Date(now()).toISOString().slice(0, 10);
  const ids = useMemo(() => ({ boat: uuid(), job: uuid() }), []);
  return (
    <BoatForm
      title="New boat"
      ids={ids}
      initial={{
        boat: {
          name: '',
          hullMaterial: 'grp',
          keels: 'single',
          form: 'finKeel',
          loaM: null as never,
          lwlM: null as never,
          beamM: null as never,
          draftM: null as never,
          freeboardM: null as never,
          place: '',
          latitudeDeg: 50,
          timeZone: Intl.DateTimeFormat().resolvedOptions().timeZone,
          waters: null,
          shelter: 'open',
          deleted: false,
          version: 0,
        },
        job: {
          boatId: ids.boat,
          outOn: today,
          inOn: null,
          yardCostPerDay: null,
          currency: 'EUR',
          choices: null,
          deleted: false,
          version: 0,
        },
      }}
      onSaved={() => void navigate(`/boats/${ids.boat}/hull/new`)}
    />
  );
}

export function EditBoat() {
  const { boat, jobs } = useView();
  const navigate = useNavigate();
  const job = jobs[jobs.length - 1];
  const ids = useMemo(() => ({ boat: boat.id, job: job?.id ?? uuid() }), [boat.id, job?.id]);
  const { id: _boatId, ...boatValues } = boat;
  return (
    <BoatForm
      title={boat.name}
      ids={ids}
      initial={{
        boat: boatValues,
        job: {
          boatId: boat.id,
          outOn: job?.outOn ?? new Date(now()).toISOString().slice(0, 10),
          inOn: job?.inOn ?? null,
          yardCostPerDay: job?.yardCostPerDayMinor == null ? null : job.yardCostPerDayMinor / 100,
          currency: job?.currency ?? 'EUR',
          choices: job?.choices ?? null,
          deleted: false,
          version: job?.version ?? 0,
        },
      }}
      onSaved={() => void navigate(`/boats/${boat.id}/today`)}
      onRemove={async () => {
        await save({ kind: 'boat', row: { ...boat, deleted: true } }, `${boat.name} removed`);
        void navigate('/');
      }}
    />
  );
}

function BoatForm({
  title,
  ids,
  initial,
  onSaved,
  onRemove,
}: {
  title: string;
  ids: { boat: string; job: string };
  initial: Values;
  onSaved: () => void;
  onRemove?: () => Promise<void>;
}) {
  const f = useBoatForm({ initial, ids, onSaved });

  return (
    <FormProvider {...f.form}>
      <form onSubmit={(e) => void f.submit(e)} noValidate className="mx-auto w-full max-w-5xl px-3 py-4 sm:px-5">
        <h1 className="mb-4">{title}</h1>
        <div className="grid gap-x-10 gap-y-5 md:grid-cols-2">
          <WhatSheIs />
          <WhereSheLies f={f} />
        </div>
        <BoatFormButtons f={f} onRemove={onRemove} />
      </form>
    </FormProvider>
  );
}

/** What she is, and her dimensions. */
function WhatSheIs() {
  return (
    <div className="flex flex-col gap-3">
      <FormText name="boat.name" label="Name" />
      <div className="grid grid-cols-2 gap-3">
        <FormQuantity name="boat.loaM" label="Length overall" quantity="length" />
        <FormQuantity name="boat.lwlM" label="Waterline length" quantity="length" />
        <FormQuantity name="boat.beamM" label="Beam" quantity="length" />
        <FormQuantity name="boat.draftM" label="Draught, overall" quantity="length" />
        <FormQuantity name="boat.freeboardM" label="Freeboard, mean" quantity="length" />
        <FormSelect name="boat.hullMaterial" label="Hull material" options={optionsOf(MATERIAL_WORDS)} />
      </div>
      <FormChoice
        name="boat.form"
        label="Hull form below the water"
        options={[
          ['full', 'Full'],
          ['longKeel', 'Long keel'],
          ['finKeel', 'Fin keel'],
        ]}
      />
      <FormChoice
        name="boat.keels"
        label="Keels"
        options={[
          ['none', 'None'],
          ['single', 'One'],
          ['twin', 'Twin bilge keels'],
        ]}
      />
      <p className="text-sm quiet">
        Figures may carry a unit: 31'6", 960 cm. Twin bilge keels count as a long keel for the area.
      </p>
    </div>
  );
}

/** How she looks, where she lies, and the job's dates. */
function WhereSheLies({ f }: { f: ReturnType<typeof useBoatForm> }) {
  return (
    <div className="flex flex-col gap-3">
      <div className="min-h-36 border-b border-base-300">
        {f.drawable ? (
          <BoatDrawing boat={f.draft} zones={[]} />
        ) : (
          <p className="quiet py-10 text-center">The boat is drawn here, to scale, once her five dimensions are in.</p>
        )}
      </div>
      <div className="grid grid-cols-2 gap-3">
        <FormText name="job.outOn" label="Out on" type="date" />
        <FormText name="job.inOn" label="Launch on" type="date" hint="May stay open" />
        <FormNumber name="job.yardCostPerDay" label="Yard cost a day" />
      </div>
      <div className="grid grid-cols-2 gap-3">
        <FormText name="boat.place" label="Place" />
        <FormNumber name="boat.latitudeDeg" label="Latitude" hint="Degrees, north positive" />
      </div>
      <div className="grid grid-cols-2 gap-3">
        <FormSelect name="boat.timeZone" label="Time zone" options={f.zones} />
        <FormSelect
          name="boat.waters"
          label="Lies afloat in"
          options={[['', 'not said'], ...optionsOf(WATERS_WORDS)]}
          emptyAs={null}
        />
        <FormSelect name="boat.shelter" label="Painted under" options={optionsOf(SHELTER_WORDS)} />
      </div>
    </div>
  );
}

function BoatFormButtons({
  f,
  onRemove,
}: {
  f: ReturnType<typeof useBoatForm>;
  onRemove: (() => Promise<void>) | undefined;
}) {
  return (
    <div className="mt-5 flex flex-col gap-3">
      <FormProblem message={f.failure ? f.failure.message : null} />
      {f.theirs && <Differences mine={{ ...f.form.getValues('boat') }} theirs={f.theirs} />}
      <div className="flex flex-wrap gap-3">
        <button type="submit" className="btn btn-primary" disabled={f.sending}>
          {f.sending ? 'Saving…' : f.theirs ? 'Keep what stands here' : 'Save'}
        </button>
        {f.theirs && (
          <button
            type="button"
            className="btn"
            onClick={() => {
              f.form.reset({ ...f.form.getValues(), boat: { ...f.form.getValues('boat'), ...f.theirs } });
              f.setFailure(null);
            }}
          >
            Take theirs
          </button>
        )}
        {onRemove && (
          <button type="button" className="btn btn-ghost text-error" onClick={() => void onRemove()}>
            Remove boat
          </button>
        )}
      </div>
    </div>
  );
}

/** The boat and job as they are typed, and how they are sent. */
function useBoatForm({ initial, ids, onSaved }: Pick<Parameters<typeof BoatForm>[0], 'initial' | 'ids' | 'onSaved'>) {
  const form = useContractForm<Values>(schema, initial);
  const [failure, setFailure] = useState<Failure | null>(null);
  const [sending, setSending] = useState(false);
  const zones = useMemo(
    () =>
      [
        ...new Set([
          Intl.DateTimeFormat().resolvedOptions().timeZone,
          initial.boat.timeZone,
          ...Intl.supportedValuesOf('timeZone'),
        ]),
      ].map((z) => [z, z.replaceAll('_', ' ')] as const),
    [initial.boat.timeZone],
  );
  const boat = useWatch<Values, 'boat'>({ control: form.control, name: 'boat' });
  const draft = { ...boat, id: ids.boat };
  const drawable =
    [boat.loaM, boat.lwlM, boat.beamM, boat.draftM, boat.freeboardM].every(
      (v) => typeof v === 'number' && Number.isFinite(v),
    ) && dimensionProblems(draft).length === 0;

  const submit = form.handleSubmit(async (values) => {
    const problems = dimensionProblems(values.boat);
    for (const p of problems) form.setError(`boat.${p.field}`, { message: p.message });
    if (problems.length > 0) return;
    setSending(true);
    setFailure(null);
    const { yardCostPerDay, ...job } = values.job;
    const boatOutcome = await save(
      { kind: 'boat', row: { ...values.boat, id: ids.boat } },
      `${values.boat.name} saved`,
      { inline: true },
    );
    const outcome = boatOutcome.ok
      ? await save(
          {
            kind: 'job',
            row: {
              ...job,
              id: ids.job,
              yardCostPerDayMinor: yardCostPerDay === null ? null : Math.round(yardCostPerDay * 100),
            },
          },
          'Haul-out saved',
          { inline: true, quiet: true },
        )
      : boatOutcome;
    setSending(false);
    if (outcome.ok) {
      onSaved();
      return;
    }
    // The boat may have been taken and the haul-out not: the next try must start from the newer boat.
    if (boatOutcome.ok) form.setValue('boat.version', values.boat.version + 1);
    setFailure(outcome.failure);
    // Both are shown; saving once more means "mine", on top of theirs.
    if (outcome.failure.code === 'stale')
      form.setValue(
        boatOutcome.ok ? 'job.version' : 'boat.version',
        (outcome.failure.current as { version: number }).version,
      );
    if (outcome.failure.field && outcome.failure.code !== 'stale')
      form.setError(`${boatOutcome.ok ? 'job' : 'boat'}.${outcome.failure.field}` as never, {
        message: outcome.failure.message,
      });
  });
  const theirs = failure?.code === 'stale' ? (failure.current as Record<string, unknown>) : null;
  return { form, submit, drawable, draft, zones, failure, theirs, sending, setFailure };
}
