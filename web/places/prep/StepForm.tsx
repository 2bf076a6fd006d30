import { useState } from 'react';
import { Link } from 'react-router';
import type { PreparedBody, PrepKind } from '#core/model/prep';
import type { PrepStep } from '#core/prep/prepSteps';
import type { SurfaceRow } from '#contracts/rows/boat';
import { now } from '../../data/now';
import { useSettings } from '../../data/settings';
import type { BoatView } from '../../data/store';
import { BottomSheet } from '../../parts/BottomSheet';
import { FormProblem, TextField } from '../../parts/Field';
import { PictureForm } from '../../parts/PictureForm';
import { TimeField } from '../../parts/TimeField';
import { momentWords } from '../../parts/words';
import { OtherZones } from './OtherZones';
import { nameOfStep, usualBody } from './Steps';
import { listOf, logOnZones, planOf, withdraw } from './usePrep';
import { StepFields } from './StepFields';

/** Primers, and what else may go onto bare metal. */
const ON_METAL = new Set(['primer', 'sealer', 'barrier', 'converter', 'tieCoat']);

/** One step: done how, when and by whom, on which zones; left out with a reason; a picture of it. */
export function StepForm({
  view,
  surface,
  step,
  onClose,
}: {
  view: BoatView;
  surface: SurfaceRow;
  step: PrepStep;
  onClose: () => void;
}) {
  const form = useStep(view, surface, step, onClose);
  const { body, set, problem, others } = form;
  const [leaving, setLeaving] = useState(false);
  const [picturing, setPicturing] = useState(false);
  return (
    <BottomSheet title={`${surface.name}: ${nameOfStep(step)}`} onClose={onClose}>
      <div className="flex flex-col gap-3">
        {step.source !== 'added' && <p>{step.why}</p>}
        {step.kind === 'mask' && (
          <Link to={`/boats/${view.boat.id}/prep/masking`} className="link-row underline underline-offset-4">
            Edges, tapes and what is never painted
          </Link>
        )}
        <LoggedAs view={view} step={step} onTakeBack={form.takeBack} />
        {leaving ? (
          <LeaveOut onLeave={form.leaveOut} />
        ) : picturing ? (
          <PictureForm
            boatId={view.boat.id}
            of={{ stream: 'zone', streamId: surface.id }}
            step={step.key}
            onDone={onClose}
          />
        ) : (
          <>
            <StepFields view={view} surface={surface} body={body} set={set} onBack={form.setBack} back={form.back} />
            <TimeField label="When" at={form.at} onAt={form.setAt} zone={view.boat.timeZone} />
            <TextField label="Who" value={form.painter} onChange={(e) => form.setPainter(e.target.value)} />
            <TextField
              label="Note"
              value={body.text ?? ''}
              onChange={(e) => set({ text: e.target.value || undefined })}
              hint="Optional"
            />
            <OtherZones zones={others} picked={form.also} onPick={form.setAlso} />
            <FormProblem message={problem} />
            {form.noPrimer && (
              <Link to={`/boats/${view.boat.id}/film/${surface.id}`} className="link-row underline underline-offset-4">
                Plan its primer under Film
              </Link>
            )}
            <button type="button" className="btn btn-primary h-14 text-lg" onClick={() => void form.save()}>
              {step.done && step.state === 'done' ? 'Done again' : 'Done'}
            </button>
          </>
        )}
        <p className="flex flex-wrap gap-x-5">
          <button type="button" className="link-row underline underline-offset-4" onClick={() => setLeaving(!leaving)}>
            {step.state === 'leftOut' ? 'Left out: change that' : 'Leave it out'}
          </button>
          <button
            type="button"
            className="link-row underline underline-offset-4"
            onClick={() => setPicturing(!picturing)}
          >
            {picturing ? 'No picture' : 'Take a picture'}
          </button>
          {step.state === 'leftOut' && (
            <button type="button" className="link-row underline underline-offset-4" onClick={() => form.leaveOut(null)}>
              Put it back onto the list
            </button>
          )}
        </p>
      </div>
    </BottomSheet>
  );
}

/** As it was last logged, to be taken back. */
function LoggedAs({ view, step, onTakeBack }: { view: BoatView; step: PrepStep; onTakeBack: () => void }) {
  // Masking that follows from the tapes is taken back where they are.
  if (!step.done || step.done.id === '') return null;
  return (
    <p className="border-l-4 border-base-content pl-3">
      Logged {momentWords(step.done.at, view.boat.timeZone)}
      {step.done.painter ? `, ${step.done.painter}` : ''}.{' '}
      <button type="button" className="link-row underline underline-offset-4" onClick={onTakeBack}>
        It was not done: take it back
      </button>
    </p>
  );
}

function LeaveOut({ onLeave }: { onLeave: (reason: string) => void }) {
  const [reason, setReason] = useState('');
  const [problem, setProblem] = useState<string | null>(null);
  return (
    <>
      <TextField
        label="Why it is left out"
        value={reason}
        onChange={(e) => setReason(e.target.value)}
        error={problem ?? undefined}
      />
      <button
        type="button"
        className="btn btn-primary"
        onClick={() =>
          reason.trim().length < 3
            ? setProblem('Write why: whoever looks at it next year will ask.')
            : onLeave(reason.trim())
        }
      >
        Leave it out
      </button>
    </>
  );
}

/** Whether a zone's own list asks for the same. */
const asksFor = (view: BoatView, surface: SurfaceRow, kind: PrepKind): boolean =>
  listOf(view, surface)?.steps.some((s) => s.kind === kind && (s.state === 'toDo' || s.state === 'again')) ?? false;

function useStep(view: BoatView, surface: SurfaceRow, step: PrepStep, onClose: () => void) {
  const { painter: own } = useSettings();
  const [body, setBody] = useState<PreparedBody>(() => usualBody(step));
  const [at, setAt] = useState(now);
  const [painter, setPainter] = useState(own);
  const [also, setAlso] = useState<string[]>([]);
  const [back, setBack] = useState('');
  const [problem, setProblem] = useState<string | null>(null);
  const set = (change: Partial<PreparedBody>) => (setBody({ ...body, ...change }), setProblem(null));
  const status = view.statuses.find((s) => s.surfaceId === surface.id);
  const noPrimer = step.kind === 'blast' && !ON_METAL.has(status?.nextSheet?.kind ?? '');
  // The lists of the other zones are worked out once: they do not change while the form is open.
  const [others] = useState(() =>
    step.workId || step.source === 'added'
      ? []
      : view.surfaces.filter((s) => s.id !== surface.id && asksFor(view, s, step.kind)),
  );
  const save = async () => {
    if (Object.values(body).some((v) => typeof v === 'number' && Number.isNaN(v)))
      return setProblem('A figure cannot be read. Type it again, or leave it empty.');
    if (noPrimer && (body.text ?? '').trim().length < 3)
      return setProblem(
        'No primer is planned here, and bare steel waits for nobody. Plan it first, or write in the note why.',
      );
    if (body.step === 'inspect' && !body.workId && !body.found?.length)
      return setProblem('Say what the look found: fair, or what is left.');
    const zones = [...new Set([surface.id, ...also, ...(body.bothFaces && back ? [back] : [])])];
    const wrong = await logOnZones(
      view,
      zones,
      (zone) => ({
        kind: 'prepared',
        body: zone === surface.id ? body : onOther(view, zone, step, body),
        occurredAt: at,
        painter: painter.trim(),
      }),
      `${nameOfStep(step)} logged`,
    );
    if (wrong) return setProblem(wrong);
    onClose();
    return undefined;
  };
  const takeBack = () => {
    const entry = view.entries.find((e) => e.id === step.done?.id);
    if (entry) void withdraw(entry, `${nameOfStep(step)} taken back`);
    onClose();
  };
  const leaveOut = (reason: string | null) => {
    const plan = planOf(view, surface.id);
    const rest = plan.leftOut.filter((l) => l.key !== step.key);
    void logOnZones(
      view,
      [surface.id],
      {
        kind: 'prepPlanned',
        body: { ...plan, leftOut: reason === null ? rest : [...rest, { key: step.key, reason }] },
      },
      reason === null ? `${nameOfStep(step)}: back on the list` : `${nameOfStep(step)} left out`,
    );
    onClose();
  };
  return {
    body,
    set,
    at,
    setAt,
    painter,
    setPainter,
    also,
    setAlso,
    back,
    setBack,
    problem,
    save,
    others,
    noPrimer,
    takeBack,
    leaveOut,
  };
}

/** The same step on another zone: with the litres that are for that one. */
function onOther(view: BoatView, zone: string, step: PrepStep, body: PreparedBody): PreparedBody {
  const surface = view.surfaces.find((s) => s.id === zone);
  const theirs = surface && listOf(view, surface)?.steps.find((s) => s.kind === step.kind);
  const { drawnAt: _drawnAt, workId: _workId, areaM2: _areaM2, ...rest } = body;
  const { waterL, concentrateL: dose } = theirs?.needs ?? {};
  return { ...rest, ...(waterL ? { waterL } : {}), ...(dose ? { concentrateL: dose } : {}) };
}
