import Joi from 'joi';
import { Suspense, useDeferredValue, useMemo, useState } from 'react';
import { FormProvider, useWatch } from 'react-hook-form';
import { useNavigate, useParams, useSearchParams } from 'react-router';
import { v7 as uuid } from 'uuid';
import { sheetProblems } from '#core/sheet/problems';
import { SHEET_KINDS, type SheetBody } from '#core/model/sheet';
import { sheetContent } from '#contracts/schemas/sheet';
import { NotFound } from '../../app/PlaceError';
import type { Failure } from '../../data/waiting';
import { save, useSheet } from '../../data/store';
import { attempt } from '../../parts/attempt';
import { FormProblem } from '../../parts/Field';
import { FormErrors, FormNumber, FormQuantity, FormSelect, FormText, useContractForm } from '../../parts/form';
import { Term } from '../../parts/Term';
import { SHEET_KIND_WORDS } from '../../parts/words';
import {
  ColourFields,
  KeepingFields,
  LimitFields,
  MethodFields,
  PartsFields,
  SurfaceFields,
  ThinnerFields,
  UseFields,
} from './fields';
import { MixingFields, ThinnerPacks } from './MixingFields';
import { PackFields } from './PackFields';
import { TimesFields } from './TimesFields';
import { Meter } from './Meter';
import { timeRows } from './timeRows';
import {
  blankSheet,
  complaintOf,
  fieldOf,
  fromSheet,
  toSheet,
  usualColour,
  usualParts,
  type SheetValues,
} from './values';
import { part } from '../../parts/part';

const TimeCurve = part(() => import('./TimeCurve'), 'TimeCurve');

/** What is checked while typing is the body that will be sent; the grid is turned into its tables on the way. */
const schema = Joi.object({ body: Joi.object().unknown(true), grid: Joi.object().unknown(true) });

export function NewSheet() {
  const { how } = useParams();
  const [search] = useSearchParams();
  const id = useMemo(() => uuid(), []);
  if (how !== 'quick' && how !== 'full') return <NotFound what="form" />;
  return <SheetForm key={how} id={id} version={0} initial={blankSheet(how === 'quick')} backTo={search.get('back')} />;
}

export function EditSheet() {
  const { sheetId } = useParams();
  const { data: sheet } = useSheet(sheetId);
  if (!sheet) return <div className="skeleton m-5 h-64 rounded-sm" role="status" aria-label="Loading the sheet" />;
  return (
    <SheetForm
      key={sheet.id}
      id={sheet.id}
      version={sheet.version}
      initial={fromSheet(sheet.current.body)}
      backTo={null}
    />
  );
}

function SheetForm({
  id,
  version,
  initial,
  backTo,
}: {
  id: string;
  version: number;
  initial: SheetValues;
  backTo: string | null;
}) {
  const f = useSheetForm({ initial, id, version, backTo });

  return (
    <FormProvider {...f.form}>
      <form
        onSubmit={(e) => void f.submit(e)}
        noValidate
        className={`mx-auto grid w-full gap-x-10 gap-y-5 px-3 py-4 sm:px-5 ${f.quick ? 'max-w-4xl' : 'max-w-[88rem] xl:grid-cols-[minmax(0,1fr)_26rem]'}`}
      >
        <div className="flex min-w-0 flex-col gap-5">
          <div>
            <h1 className="break-words">
              {version > 0 ? `Revise ${initial.body.name}` : f.quick ? 'Quick sheet, from the tin' : 'Data sheet'}
            </h1>
            <p className="quiet">
              {f.quick
                ? 'A minute’s typing. What is left out is estimated or not worked out, and says so.'
                : 'Copy the figures from the maker’s own sheet, in the order it gives them.'}
            </p>
          </div>
          <NameAndKind version={version} f={f} />
          {!f.quick && <MakersWords />}
          {!f.quick && <UseFields />}
          {!f.quick && <SurfaceFields />}
          <PartsFields />
          <FilmAndSolids f={f} />
          <ThinnerFields />
          {!f.quick && <ThinnerPacks />}
          {!f.quick && <MixingFields />}
          {!f.quick && <MethodFields />}
          {f.quick ? (
            <FormQuantity
              name="body.limits.airMinC"
              label="Not below"
              quantity="temperature"
              hint="The lowest temperature on the tin; left empty, what is usual holds"
            />
          ) : (
            <LimitFields />
          )}
          <TimesFields quick={f.quick} />
          <PackFields quick={f.quick} />
          <ColourFields />
          {!f.quick && <KeepingFields />}
          <FormErrors />
          <FormProblem message={f.failure?.message ?? null} />
          {f.theirs && <Theirs body={f.theirs.body} onTake={f.takeTheirs} />}
          <div className="flex flex-wrap gap-3">
            <button type="submit" className="btn btn-primary" disabled={f.sending}>
              {f.sending ? 'Saving…' : f.theirs ? 'Keep what stands here' : 'Save sheet'}
            </button>
            <button type="button" className="btn" onClick={() => void f.navigate(-1)}>
              Back
            </button>
          </div>
        </div>
        {!f.quick && <Aside />}
      </form>
    </FormProvider>
  );
}

function NameAndKind({ version, f }: { version: number; f: ReturnType<typeof useSheetForm> }) {
  return (
    <div className="grid gap-3 sm:grid-cols-2">
      <FormText name="body.name" label="Product" />
      <FormSelect
        name="body.kind"
        label="Kind"
        options={SHEET_KINDS.map((k) => [k, SHEET_KIND_WORDS[k]] as const)}
        onPicked={(picked) => {
          const kind = picked as SheetBody['kind'];
          if (version > 0) return;
          if (f.form.getValues('body.colours').length === 1) f.form.setValue('body.colours', [usualColour(kind)]);
          // What was not typed yet starts as the kind usually is.
          if (!f.form.formState.dirtyFields.body?.parts) f.form.setValue('body.parts', usualParts(kind));
        }}
      />
      {!f.quick && <FormText name="body.maker" label="Maker" />}
      {!f.quick && <FormText name="body.code" label="Code" />}
    </div>
  );
}

function MakersWords() {
  return (
    <div className="grid grid-cols-2 items-start gap-3 sm:grid-cols-4">
      <FormText name="body.makerRevision" label="Maker’s revision" />
      <FormText name="body.issuedOn" label="Date of the sheet" type="date" />
      <FormSelect
        name="body.soldIn"
        label="Sold in"
        options={[
          ['', 'not said'],
          ['tin', 'tins'],
          ['aerosol', 'aerosol cans'],
        ]}
      />
      <AerosolField />
    </div>
  );
}

function FilmAndSolids({ f }: { f: ReturnType<typeof useSheetForm> }) {
  return (
    <div className="grid grid-cols-2 gap-3 border-t border-base-300 pt-3 sm:grid-cols-4">
      <FormQuantity name="body.solids" label="Volume solids" quantity="percent" />
      <FormQuantity name="body.dftMicron" label="Dry film per coat" quantity="film" />
      {!f.quick && <FormQuantity name="body.dftMaxMicron" label="Largest dry film" quantity="film" />}
      <FormNumber
        name="body.inductionMin"
        label="Let it stand, minutes"
        hint={<Term of="letItStand">What for?</Term>}
      />
    </div>
  );
}

/** A sheet as it is typed, what stands against it, and how it is saved. `backTo` may name the new sheet as `:id`. */
function useSheetForm({ initial, id, version, backTo }: Parameters<typeof SheetForm>[0]) {
  const navigate = useNavigate();
  const form = useContractForm<SheetValues>(schema, initial);
  const [failure, setFailure] = useState<Pick<Failure, 'message'> | null>(null);
  const [theirs, setTheirs] = useState<{ version: number; body: SheetBody } | null>(null);
  const [sending, setSending] = useState(false);
  const { quick } = initial.body;

  const submit = form.handleSubmit(async (submitted) => {
    setFailure(null);
    const body = toSheet(submitted);
    const { error, value } = sheetContent.validate(body, {
      abortEarly: false,
      convert: true,
      messages: {},
      errors: { wrap: { label: false } },
    });
    if (error) {
      for (const detail of error.details)
        form.setError(fieldOf(detail.path) as never, { message: complaintOf(detail) });
      setFailure({
        message: `Something is missing or cannot be: ${complaintOf(error.details[0] as Joi.ValidationErrorItem)}`,
      });
      return;
    }
    const problem = sheetProblems(value as SheetBody).find((p) => p.severity === 'stop');
    if (problem) {
      setFailure({ message: problem.message });
      return;
    }
    setSending(true);
    const outcome = await save(
      {
        kind: 'sheet',
        id,
        revisionId: uuid(),
        body: value as SheetBody,
        withdrawn: false,
        deleted: false,
        version: theirs?.version ?? version,
      },
      `${body.name} saved`,
      { inline: true },
    );
    setSending(false);
    if (outcome.ok) void navigate(backTo?.replace(':id', id) ?? `/sheets/${id}`, { replace: true });
    else {
      setFailure(outcome.failure);
      // What is typed stays; saving once more makes it the next revision after theirs.
      if (outcome.failure.code === 'stale') {
        const current = outcome.failure.current as { version: number; current?: { body: SheetBody } };
        setTheirs(current.current ? { version: current.version, body: current.current.body } : null);
      }
    }
  });
  const takeTheirs = () => {
    if (theirs) form.reset(fromSheet(theirs.body));
    setFailure(null);
  };
  return { form, submit, quick, failure, theirs, takeTheirs, sending, navigate };
}

function AerosolField() {
  const soldIn = useWatch({ name: 'body.soldIn' }) as SheetBody['soldIn'];
  return soldIn === 'aerosol' ? <FormQuantity name="body.canCoversM2" label="One can covers" quantity="area" /> : null;
}

/** Beside the form: the curve through what is typed, what looks like a slip, and what stays unanswered. */
function Aside() {
  const values = useDeferredValue(useWatch() as SheetValues);
  const sheet = attempt(() => toSheet(values)).value;
  const rows = sheet ? timeRows(sheet) : [];
  const warnings = sheet ? (attempt(() => sheetProblems(sheet)).value ?? []) : [];
  return (
    <aside className="flex min-w-0 flex-col gap-5 xl:sticky xl:top-4 xl:self-start" aria-label="What the sheet tells">
      <Suspense fallback={<div className="h-64" />}>
        <TimeCurve rows={rows} minCureC={sheet?.minCureC ?? null} />
      </Suspense>
      {warnings.length > 0 && (
        <ul aria-label="Looks like a slip" className="flex flex-col gap-1.5">
          {warnings.map((w) => (
            <li
              key={w.message}
              className={`border-l-4 bg-base-200 px-3 py-1.5 ${w.severity === 'stop' ? 'border-error' : 'border-warning'}`}
            >
              {w.message}
            </li>
          ))}
        </ul>
      )}
      {sheet && <SafeMeter sheet={sheet} />}
    </aside>
  );
}

/** The meter, where what is typed so far can be looked at at all. */
function SafeMeter({ sheet }: { sheet: SheetBody }) {
  const usable = sheet.parts.every((p) => typeof p.ratio === 'number' && p.ratio > 0);
  return usable ? (
    <Meter sheet={sheet} />
  ) : (
    <p className="quiet">Type the ratio of every part to see what the sheet can answer.</p>
  );
}

/** What someone else saved meanwhile, beside what stands in the form. */
function Theirs({ body, onTake }: { body: SheetBody; onTake: () => void }) {
  return (
    <div className="border-l-4 border-base-content pl-3">
      <p>
        Saved meanwhile: {body.name}, {body.parts.map((p) => p.ratio).join(' : ')}, solids{' '}
        {Math.round(body.solids * 100)} %, {body.dftMicron} µm. What you typed still stands above; keeping it makes it
        the next revision after theirs.
      </p>
      <button type="button" className="btn mt-2" onClick={onTake}>
        Take theirs
      </button>
    </div>
  );
}
