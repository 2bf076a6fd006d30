import { DateTime } from 'luxon';
import { useEffect, useMemo, useState } from 'react';
import { FormProvider } from 'react-hook-form';
import { useNavigate, useSearchParams } from 'react-router';
import { v7 as uuid } from 'uuid';
import type { Boat } from '#contracts/rows/boat';
import { useView } from '../../app/BoatShell';
import { fetchAreaMethods } from '../../data/changes/areas';
import type { Change } from '../../data/changes';
import { deviceZone, type ZonePlace } from '../../data/device';
import { useZonePlace } from '../../data/useZonePlace';
import { now } from '../../data/now';
import { save, useStores, useYard } from '../../data/store';
import { useUsual } from '../../data/usual';
import { BoatDrawing } from '../../parts/BoatDrawing';
import { Differences } from '../../parts/Differences';
import { FormProblem } from '../../parts/Field';
import { FormChoice, FormErrors, FormNumber, FormQuantity, FormSelect, FormText, optionsOf } from '../../parts/form';
import { MATERIAL_WORDS, SHELTER_WORDS, WATERS_WORDS } from '../../parts/choiceWords';
import { useFigure } from '../../parts/Fig';
import { useSpoken } from '../../parts/spoken';
import { FirstZones, NO_OFFER, zoneChanges } from './FirstZones';
import { typedOf, useBoatForm, type BoatIds, type Values } from './useBoatForm';

const civilDay = (timeZone: string) => DateTime.fromMillis(now(), { zone: timeZone }).toISODate() as string;

export function NewBoat() {
  // The yard's answer sets the clock that "today" is read from.
  const { data, error } = useYard();
  const place = useZonePlace(deviceZone());
  if ((!data && !error) || place.isPending)
    return <div className="skeleton m-5 h-64 rounded-sm" role="status" aria-label="Loading" />;
  return <BlankBoat place={place.data ?? null} />;
}

/** What comes after it is there before it is wanted: a boat is typed at the hull, where the signal goes. */
function fetchWhatFollows(): void {
  const asked = [import('../hull/HullPlace'), import('../buy/BuyPlace'), fetchAreaMethods()];
  // What does not come now comes when it is opened.
  for (const coming of asked) coming.catch(() => undefined);
}

function BlankBoat({ place }: { place: ZonePlace | null }) {
  const navigate = useNavigate();
  const [search] = useSearchParams();
  const buying = search.get('for') === 'buy';
  const ids = useMemo(() => ({ boat: uuid(), job: uuid() }), []);
  const [offer, setOffer] = useState(NO_OFFER);
  const currency = place?.currency ?? 'EUR';
  const usual = useUsual(currency);
  const zones = Object.values(offer).some((o) => o.on);
  useEffect(fetchWhatFollows, []);
  const rules = useStores().stores?.rules;
  // A yard that has said nothing of its currency yet pays in that of where it is.
  const paysIn: Change[] =
    rules?.version === 0 && rules.currency !== currency ? [{ kind: 'rules', row: { ...rules, currency } }] : [];
  return (
    <BoatForm
      title={buying ? 'What to buy, for which boat' : 'New boat'}
      saveWords={buying ? 'Show what to buy' : 'Save'}
      ids={ids}
      initial={blank(ids, currency)}
      more={(boat) => [...paysIn, ...zoneChanges({ usual, boat, offer, buying })]}
      aside={(boat, drawable) => <FirstZones {...{ boat, drawable, usual, offer, buying }} onOffer={setOffer} />}
      onSaved={() =>
        void navigate(`/boats/${ids.boat}/${buying && zones ? 'film/buy' : zones ? 'hull' : 'hull/new'}`, {
          replace: true,
        })
      }
    />
  );
}

function blank(ids: BoatIds, currency: string): Values {
  const timeZone = deviceZone();
  return {
    boat: {
      name: '',
      hullMaterial: 'grp',
      keels: 'single',
      form: 'finKeel',
      loaM: null as never,
      lwlM: null,
      beamM: null as never,
      draftM: null as never,
      freeboardM: null,
      place: '',
      latitudeDeg: null,
      timeZone,
      waters: null,
      shelter: 'open',
      estimated: [],
      deleted: false,
      version: 0,
    },
    job: {
      boatId: ids.boat,
      outOn: civilDay(timeZone),
      inOn: null,
      yardCostPerDay: null,
      currency,
      choices: null,
      planning: null,
      deleted: false,
      version: 0,
    },
  };
}

export function EditBoat() {
  const { boat, jobs } = useView();
  const navigate = useNavigate();
  const job = jobs[jobs.length - 1];
  const ids = useMemo(() => ({ boat: boat.id, job: job?.id ?? uuid() }), [boat.id, job?.id]);
  return (
    <BoatForm
      title={boat.name}
      saveWords="Save"
      ids={ids}
      initial={{
        boat: typedOf(boat),
        job: {
          boatId: boat.id,
          outOn: job?.outOn ?? civilDay(boat.timeZone),
          inOn: job?.inOn ?? null,
          yardCostPerDay: job?.yardCostPerDayMinor == null ? null : job.yardCostPerDayMinor / 100,
          currency: job?.currency ?? 'EUR',
          choices: job?.choices ?? null,
          planning: job?.planning ?? null,
          deleted: false,
          version: job?.version ?? 0,
        },
      }}
      more={() => []}
      onSaved={() => void navigate(`/boats/${boat.id}/today`, { replace: true })}
      onRemove={async () => {
        await save({ kind: 'boat', row: { ...boat, deleted: true } }, `${boat.name} removed`);
        void navigate('/');
      }}
    />
  );
}

interface BoatFormProps {
  title: string;
  saveWords: string;
  ids: BoatIds;
  initial: Values;
  /** What is saved with her. */
  more: (boat: Boat) => Change[];
  /** Under the drawing, once there is one. */
  aside?: (boat: Boat, drawable: boolean) => React.ReactNode;
  onSaved: () => void;
  onRemove?: () => Promise<void>;
}

type BoatFormState = ReturnType<typeof useBoatForm>;

function BoatForm({ title, saveWords, ids, initial, more, aside, onSaved, onRemove }: BoatFormProps) {
  const [timeZone, setTimeZone] = useState(initial.boat.timeZone);
  const zoneLatitudeDeg = useZonePlace(timeZone).data?.latitudeDeg ?? null;
  const f = useBoatForm({ initial, ids, zoneLatitudeDeg, more, onSaved });

  return (
    <FormProvider {...f.form}>
      <form onSubmit={(e) => void f.submit(e)} noValidate className="mx-auto w-full max-w-5xl px-3 py-4 sm:px-5">
        <h1 className="mb-4">{title}</h1>
        <div className="grid gap-x-10 gap-y-5 md:grid-cols-2">
          <WhatSheIs f={f} />
          <div className="flex min-w-0 flex-col gap-3">
            <div className="min-h-36 border-b border-base-300">
              {f.drawable ? (
                <BoatDrawing boat={f.draft} zones={[]} />
              ) : (
                <p className="quiet py-10 text-center">
                  She is drawn here, to scale, once her length, beam and draught are in.
                </p>
              )}
            </div>
            {aside?.(f.draft, f.drawable)}
          </div>
        </div>
        <WhereSheLies f={f} onTimeZone={setTimeZone} />
        <BoatFormButtons f={f} saveWords={saveWords} onRemove={onRemove} />
      </form>
    </FormProvider>
  );
}

/** What she is, and her dimensions; those that are left empty are estimated. */
function WhatSheIs({ f: { draft } }: { f: BoatFormState }) {
  const figure = useFigure();
  const say = useSpoken();
  const guess = (quantity: 'length', value: number, why: string) =>
    Number.isFinite(value) && (value as number | null) !== null
      ? `Left empty: ≈ ${figure(quantity, value)}, ${why}`
      : `Left empty, it is estimated ${why}`;
  return (
    <div className="flex flex-col gap-3">
      <FormText name="boat.name" label="Name" />
      <FormSelect name="boat.hullMaterial" label="What is she made of" options={optionsOf(MATERIAL_WORDS)} />
      <div className="grid grid-cols-3 items-start gap-3">
        <FormQuantity name="boat.loaM" label="Length" quantity="length" />
        <FormQuantity name="boat.beamM" label="Beam" quantity="length" />
        <FormQuantity name="boat.draftM" label="Draught" quantity="length" />
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
      <div className="grid grid-cols-2 items-start gap-3">
        <FormQuantity
          name="boat.lwlM"
          label="Waterline length"
          quantity="length"
          hint={draft.estimated.includes('lwlM') ? guess('length', draft.lwlM, 'from her length and form') : undefined}
        />
        <FormQuantity
          name="boat.freeboardM"
          label="Freeboard, mean"
          quantity="length"
          hint={
            draft.estimated.includes('freeboardM') ? guess('length', draft.freeboardM, 'from her length') : undefined
          }
        />
      </div>
      <p className="text-sm quiet">
        {say('Length overall, draught with the keel.')} Figures may carry a unit: 31'6", 960 cm. Twin bilge keels count
        as a long keel for the area.
      </p>
    </div>
  );
}

/** Where she lies, and the job's dates: all of it may wait. */
function WhereSheLies({ f, onTimeZone }: { f: BoatFormState; onTimeZone: (zone: string) => void }) {
  const { latitudeDeg, estimated } = f.draft;
  return (
    <div className="mt-5 grid grid-cols-2 items-start gap-3 border-t border-base-300 pt-3 md:grid-cols-4">
      <FormText name="job.outOn" label="Out on" type="date" />
      <FormText name="job.inOn" label="Launch on" type="date" hint="May stay open" />
      <FormNumber name="job.yardCostPerDay" label="Yard cost a day" />
      <FormSelect
        name="job.currency"
        label="Currency"
        options={Intl.supportedValuesOf('currency').map((c) => [c, c] as const)}
      />
      <FormText name="boat.place" label="Place" />
      <FormNumber
        name="boat.latitudeDeg"
        label="Latitude"
        signed
        hint={
          estimated.includes('latitudeDeg')
            ? `Left empty: ≈ ${latitudeDeg}°, by the time zone`
            : 'Degrees, north positive'
        }
      />
      <FormSelect name="boat.timeZone" label="Time zone" options={f.zones} onPicked={onTimeZone} />
      <FormSelect
        name="boat.waters"
        label="Lies afloat in"
        options={[['', 'not said'], ...optionsOf(WATERS_WORDS)]}
        emptyAs={null}
      />
      <FormSelect name="boat.shelter" label="Painted under" options={optionsOf(SHELTER_WORDS)} />
    </div>
  );
}

function BoatFormButtons({
  f,
  saveWords,
  onRemove,
}: {
  f: BoatFormState;
  saveWords: string;
  onRemove: (() => Promise<void>) | undefined;
}) {
  return (
    <div className="mt-5 flex flex-col gap-3">
      <FormErrors />
      <FormProblem message={f.failure ? f.failure.message : null} />
      {f.theirs && <Differences mine={{ ...f.form.getValues('boat') }} theirs={f.theirs} />}
      <div className="flex flex-wrap gap-3">
        <button type="submit" className="btn btn-primary" disabled={f.sending}>
          {f.sending ? 'Saving…' : f.theirs ? 'Keep what stands here' : saveWords}
        </button>
        {f.theirs && (
          <button
            type="button"
            className="btn"
            onClick={() => {
              f.form.reset({ ...f.form.getValues(), boat: typedOf({ ...f.draft, ...f.theirs }) });
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
