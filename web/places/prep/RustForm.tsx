import { useState } from 'react';
import type { DrawnAt } from '#core/model/log';
import { RUST_NEXT, type RustNext } from '#core/model/prep';
import type { PrepLog } from '#core/prep/prepLog';
import { converterVerdict, plateLeft, type RustVerdict } from '#core/prep/rust';
import { parseQuantity } from '#core/units/parse';
import type { SurfaceRow } from '#contracts/rows/boat';
import { now } from '../../data/now';
import { useSheets, useStores, type BoatView } from '../../data/store';
import { tinsNow } from '../../data/tins';
import { attempt } from '../../parts/attempt';
import { BottomSheet } from '../../parts/BottomSheet';
import { FormProblem, SelectField, TextField } from '../../parts/Field';
import { RUST_NEXT_WORDS } from '../../parts/prepWords';
import { logOnZones } from './usePrep';
import { Where } from './Where';

const HOUR_MS = 3_600_000;

/** Rust looked at next day: how much is black, how deep it is, and what comes next. */
export function RustForm({
  view,
  surface,
  log,
  onClose,
}: {
  view: BoatView;
  surface: SurfaceRow;
  log: PrepLog;
  onClose: () => void;
}) {
  const form = useRust(view, surface, log, onClose);
  const { coats, verdict, plate, next, values, set } = form;
  return (
    <BottomSheet title={`${surface.name}: rust`} onClose={onClose}>
      <div className="flex flex-col gap-3">
        <Converted coats={coats} share={values.share} onShare={(share) => set({ share })} />
        {verdict && (
          <p className="border-l-4 border-base-content pl-3" role="status">
            <span className="font-semibold">{RUST_NEXT_WORDS[verdict.next]}.</span> {verdict.why}
            {verdict.staleTin && ' Its tin was past its date: try a fresh one on a small place first.'}
          </p>
        )}
        <Plate values={values} set={set} plate={plate} />
        <SelectField
          label="Next"
          value={next}
          options={RUST_NEXT.map((n) => [n, RUST_NEXT_WORDS[n]] as const)}
          onPick={(picked: RustNext) => set({ next: picked })}
        />
        {next === 'leave' && (
          <div className="grid grid-cols-2 gap-3">
            <TextField label="Why it is left" value={values.reason} onChange={(e) => set({ reason: e.target.value })} />
            <TextField
              label="To be done by"
              type="date"
              value={values.dueOn}
              onChange={(e) => set({ dueOn: e.target.value })}
            />
          </div>
        )}
        <div>
          <p className="lab">Where: tap the drawing</p>
          <Where
            view={view}
            surface={surface}
            marks={values.place ? [values.place] : []}
            onPlace={(place) => set({ place })}
          />
        </div>
        <FormProblem message={form.problem} />
        <button type="button" className="btn btn-primary" onClick={() => void form.save()}>
          Log the look
        </button>
      </div>
    </BottomSheet>
  );
}

function Converted({
  coats,
  share,
  onShare,
}: {
  coats: number;
  share: number | null;
  onShare: (share: number) => void;
}) {
  if (coats === 0)
    return <p className="quiet">No converter is logged on this zone: log it as a step, and look at it next day.</p>;
  return (
    <div>
      <label className="lab" htmlFor="converted">
        Converted: black of the rusted area
      </label>
      <div className="flex items-center gap-3">
        <input
          id="converted"
          type="range"
          className="range"
          min="0"
          max="100"
          step="5"
          value={Math.round((share ?? 0) * 100)}
          onChange={(e) => onShare(Number(e.target.value) / 100)}
        />
        <span className="fig w-16 text-right text-xl">{share === null ? '–' : `${Math.round(share * 100)} %`}</span>
      </div>
    </div>
  );
}

/** Pits and what is left of the plate. */
function Plate({
  values,
  set,
  plate,
}: {
  values: RustValues;
  set: (change: Partial<RustValues>) => void;
  plate: { share: number; askSurveyor: boolean } | null;
}) {
  return (
    <>
      <div className="grid grid-cols-3 gap-3">
        <Mm label="Pits, mm" value={values.pitMm} onValue={(pitMm) => set({ pitMm })} />
        <Mm label="Plate now, mm" value={values.thicknessMm} onValue={(thicknessMm) => set({ thicknessMm })} />
        <Mm label="As built, mm" value={values.originalMm} onValue={(originalMm) => set({ originalMm })} />
      </div>
      {plate && (
        <p>
          {Math.round(plate.share * 100)} % of the plate is left.
          {plate.askSurveyor && ' Show it to a surveyor before it is painted over.'}
        </p>
      )}
    </>
  );
}

interface RustValues {
  readonly share: number | null;
  readonly pitMm: number | null;
  readonly thicknessMm: number | null;
  readonly originalMm: number | null;
  readonly next: RustNext | null;
  readonly reason: string;
  readonly dueOn: string;
  readonly place: DrawnAt | null;
}

function useRust(view: BoatView, surface: SurfaceRow, log: PrepLog, onClose: () => void) {
  const [values, setValues] = useState<RustValues>({
    share: null,
    pitMm: null,
    thicknessMm: null,
    originalMm: log.rust.at(-1)?.originalMm ?? null,
    next: null,
    reason: '',
    dueOn: '',
    place: null,
  });
  const [problem, setProblem] = useState<string | null>(null);
  const set = (change: Partial<RustValues>) => (setValues({ ...values, ...change }), setProblem(null));
  const staleOnShelf = useStaleConverter();
  const converted = [
    ...log.done.filter((d) => d.step === 'convert').map((d) => d.at),
    ...coatsOfConverter(view, surface),
  ].sort((a, b) => a - b);
  const last = converted.at(-1);
  const verdict: RustVerdict | null =
    last !== undefined && values.share !== null
      ? converterVerdict({
          convertedShare: values.share,
          coats: converted.length,
          hoursSince: (now() - last) / HOUR_MS,
          staleTin: staleOnShelf,
        })
      : null;
  const { thicknessMm, originalMm, pitMm } = values;
  const plate =
    thicknessMm !== null && originalMm !== null
      ? attempt(() => plateLeft({ thicknessMm, originalMm, ...(pitMm === null ? {} : { pitMm }) }))
      : null;
  const next = values.next ?? verdict?.next ?? 'scrape';
  const save = async () => {
    if (plate?.problem) return setProblem(plate.problem);
    if ([pitMm, thicknessMm, originalMm].some((v) => v !== null && !(v >= 0)))
      return setProblem('A figure cannot be read. Type it again, or leave it empty.');
    if (next === 'leave' && (values.reason.trim().length < 3 || values.dueOn === ''))
      return setProblem('What is left knowingly wants a reason and a day: it becomes the list of the next haul-out.');
    const wrong = await logOnZones(
      view,
      [surface.id],
      {
        kind: 'rustLooked',
        body: {
          convertedShare: last === undefined ? null : values.share,
          next,
          ...(values.reason.trim() ? { reason: values.reason.trim() } : {}),
          ...(values.dueOn ? { dueOn: values.dueOn } : {}),
          ...(pitMm === null ? {} : { pitMm }),
          ...(thicknessMm === null ? {} : { thicknessMm }),
          ...(originalMm === null ? {} : { originalMm }),
          ...(values.place ? { drawnAt: values.place } : {}),
        },
      },
      `${surface.name}: rust looked at`,
    );
    if (wrong) return setProblem(wrong);
    onClose();
    return undefined;
  };
  return { coats: converted.length, verdict, plate: plate?.value ?? null, next, values, set, problem, save };
}

/** When coats of converter went on that were logged as coats. */
function coatsOfConverter(view: BoatView, surface: SurfaceRow): number[] {
  return view.coats
    .filter(
      (c) =>
        c.on.some((t) => t.surfaceId === surface.id) &&
        view.sheetById.get(c.sheetRevisionId)?.body.kind === 'converter',
    )
    .map((c) => c.finishedAt ?? c.startedAt);
}

/** Whether a tin of converter on the shelf is past its date. */
function useStaleConverter(): boolean {
  const { stores } = useStores();
  const { data: sheets } = useSheets();
  if (!stores || !sheets) return false;
  const sheetOf = (id: string) => sheets.find((s) => s.id === id)?.current.body;
  return tinsNow(stores, sheetOf).some((t) => sheetOf(t.sheetId)?.kind === 'converter' && t.stale);
}

/** A thickness in mm, as plates are measured; typed in another unit it is taken too. */
function Mm({ label, value, onValue }: { label: string; value: number | null; onValue: (mm: number | null) => void }) {
  const [text, setText] = useState(value === null ? '' : String(value));
  const type = (raw: string) => {
    setText(raw);
    const parsed = parseQuantity({ quantity: 'width', text: raw, system: 'metric', bareUnit: 'mm' });
    onValue(raw.trim() === '' ? null : parsed.ok ? parsed.value * 1000 : Number.NaN);
  };
  return <TextField label={label} inputMode="decimal" value={text} onChange={(e) => type(e.target.value)} />;
}
