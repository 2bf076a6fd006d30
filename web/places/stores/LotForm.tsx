import { useState } from 'react';
import type { LotState } from '#core/stores/lots';
import { litresFromWeight } from '#core/stores/weigh';
import type { LotRow } from '#contracts/rows/stores';
import type { SheetRow } from '#contracts/rows/sheet';
import { now } from '../../data/now';
import { useSubmit } from '../../data/useSubmit';
import { attempt } from '../../parts/attempt';
import { Choice, FormProblem, QuantityField, SelectField, TextField } from '../../parts/Field';
import { Fig } from '../../parts/Fig';
import { useLeaveGuard } from '../../parts/useLeaveGuard';

/** One tin: what it is, its dates, and what is left of it, told or weighed. */
export function LotForm({
  row,
  state,
  sheets,
  onDone,
}: {
  row: LotRow;
  state: LotState | null;
  sheets: SheetRow[];
  onDone: () => void;
}) {
  const form = useLotForm({ row, state, sheets, onDone });

  return (
    <form
      className="my-3 flex flex-col gap-3 border-l-4 border-base-content pl-4"
      aria-label="Tin"
      onSubmit={(e) => {
        e.preventDefault();
        void form.send(form.theirs?.version);
      }}
    >
      <TinFields sheets={sheets} form={form} />
      {row.version > 0 && (
        <label className="link-row gap-2">
          <input
            type="checkbox"
            className="checkbox"
            checked={form.looked}
            onChange={(e) => form.setLooked(e.target.checked)}
          />{' '}
          I looked now how much is left
        </label>
      )}
      {form.looked && <WhatIsLeft form={form} />}
      <FormProblem message={form.failure?.message ?? form.problem} />
      <div className="flex flex-wrap gap-3">
        <button type="submit" className="btn btn-primary" disabled={form.problem !== null || form.sending}>
          {form.sending ? 'Saving…' : form.theirs ? 'Keep what stands here' : 'Save tin'}
        </button>
        <button type="button" className="btn" onClick={onDone}>
          Back
        </button>
        {row.version > 0 && (
          <button type="button" className="btn btn-ghost text-error" onClick={() => void form.remove()}>
            Take off the shelf
          </button>
        )}
      </div>
    </form>
  );
}

/** What a tin is, and its dates. */
function TinFields({ sheets, form }: { sheets: SheetRow[]; form: ReturnType<typeof useLotForm> }) {
  return (
    <div className="grid grid-cols-2 gap-3 md:grid-cols-4">
      <div className="col-span-2">
        <SelectField
          label="Product"
          options={sheets.map((s) => [s.id, s.current.body.name] as const)}
          value={form.draft.sheetId}
          onPick={(sheetId) =>
            form.set({ sheetId, part: sheets.find((s) => s.id === sheetId)?.current.body.parts[0]?.name ?? '' })
          }
        />
      </div>
      <SelectField
        label="Part"
        options={form.parts.map((p) => [p.name, p.name] as const)}
        value={form.part?.name ?? ''}
        onPick={(name) => form.set({ part: name })}
      />
      <QuantityField
        label="Holds when full"
        quantity="volume"
        value={form.draft.sizeL}
        onValue={(v) => form.set({ sizeL: v ?? Number.NaN })}
      />
      <TextField
        label="Batch number"
        value={form.draft.batchNumber}
        onChange={(e) => form.set({ batchNumber: e.target.value })}
      />
      <TextField
        label="Supplier"
        value={form.draft.supplier}
        onChange={(e) => form.set({ supplier: e.target.value })}
      />
      <TextField
        label="Bought on"
        type="date"
        value={form.draft.boughtOn ?? ''}
        onChange={(e) => form.set({ boughtOn: e.target.value || null })}
      />
      <TextField
        label="Opened on"
        type="date"
        value={form.draft.openedOn ?? ''}
        onChange={(e) => form.set({ openedOn: e.target.value || null })}
        hint="Empty: unopened"
      />
      <TextField
        label="Use by"
        type="date"
        value={form.draft.expiresOn ?? ''}
        onChange={(e) => form.set({ expiresOn: e.target.value || null })}
        hint="As printed on it"
      />
      <div className="col-span-2 md:col-span-3">
        <TextField label="Note" value={form.draft.note} onChange={(e) => form.set({ note: e.target.value })} />
      </div>
    </div>
  );
}

/** What is left of a tin: told by volume, or weighed. */
function WhatIsLeft({ form }: { form: ReturnType<typeof useLotForm> }) {
  return (
    <div className="flex flex-wrap items-end gap-4">
      <Choice
        label="What is left"
        options={[
          ['volume', 'by volume'],
          ['weigh', 'by weighing the tin'],
        ]}
        value={form.how}
        onPick={form.setHow}
      />
      {form.how === 'volume' ? (
        <div className="w-40">
          <QuantityField label="Left" quantity="volume" value={form.left} onValue={form.setLeft} />
        </div>
      ) : (
        <>
          <div className="w-40">
            <QuantityField label="Tin with paint" quantity="mass" value={form.gross} onValue={form.setGross} />
          </div>
          <div className="w-40">
            <QuantityField label="Empty tin" quantity="mass" value={form.tare} onValue={form.setTare} />
          </div>
          {form.density !== null && (
            <p className="pb-2">
              less its tare, over <Fig quantity="density" value={form.density} />
              {form.weighed?.value != null && (
                <>
                  : <Fig quantity="volume" value={form.weighed.value} className="text-xl" /> left
                </>
              )}
            </p>
          )}
        </>
      )}
    </div>
  );
}

/** A tin as it is typed, what stands against it, and how it is sent. */
function useLotForm({ row, state, sheets, onDone }: Parameters<typeof LotForm>[0]) {
  const [draft, setDraft] = useState(row);
  const [how, setHow] = useState<'volume' | 'weigh'>(row.weighed ? 'weigh' : 'volume');
  // What stands here may be what was measured long ago: until someone looks again, the tin's own reckoning goes on.
  const [left, setLeft] = useState<number | null>(state?.nowL ?? row.leftL);
  const [gross, setGross] = useState<number | null>(row.weighed?.grossKg ?? null);
  const [tare, setTare] = useState<number | null>(row.weighed?.tareKg ?? null);
  const [looked, setLooked] = useState(row.version === 0);
  const { failure, theirs, sending, submit } = useSubmit();
  useLeaveGuard(draft !== row && !sending);
  const set = (change: Partial<LotRow>) => setDraft({ ...draft, ...change });
  const sheet = sheets.find((s) => s.id === draft.sheetId);
  const parts = [...(sheet?.current.body.parts ?? []), ...thinnerPart(sheet)];
  const part = parts.find((p) => p.name === draft.part) ?? parts[0];
  const density = part?.densityKgPerL ?? null;
  const weighed =
    how === 'weigh' && gross !== null && tare !== null && density !== null
      ? attempt(() => litresFromWeight({ grossKg: gross, tareKg: tare, densityKgPerL: density }))
      : null;
  const leftL = how === 'weigh' ? (weighed?.value ?? null) : left;
  const problem = tinProblem({ sizeL: draft.sizeL, part: part?.name, looked, how, density, leftL, weighed });
  const send = async (version = draft.version) => {
    if (problem || !part) return;
    const measured = looked
      ? {
          leftL: leftL as number,
          measuredAt: now(),
          past: row.version > 0 ? [...(row.past ?? []), { at: row.measuredAt, leftL: row.leftL }] : [],
          weighed: how === 'weigh' ? { grossKg: gross as number, tareKg: tare as number } : null,
        }
      : {};
    if (
      await submit(
        { kind: 'lot', row: { ...draft, part: part.name, ...measured, version } },
        `${part.name} of ${sheet?.current.body.name ?? ''} saved`,
      )
    )
      onDone();
  };
  const remove = async () => {
    if (await submit({ kind: 'lot', row: { ...row, deleted: true } }, 'Tin taken off the shelf')) onDone();
  };
  return {
    send,
    theirs,
    draft,
    set,
    parts,
    part,
    looked,
    setLooked,
    how,
    setHow,
    left,
    setLeft,
    gross,
    setGross,
    tare,
    setTare,
    density,
    weighed,
    failure,
    problem,
    sending,
    remove,
  };
}

/** The thinner of a sheet, kept in tins of its own. */
const thinnerPart = (sheet: SheetRow | undefined) => {
  const name = sheet?.current.body.thinner?.name;
  return name ? [{ name, densityKgPerL: null }] : [];
};

/** Why a tin cannot be put down as typed; null where it can. */
function tinProblem(tin: {
  sizeL: number;
  part: string | undefined;
  looked: boolean;
  how: 'volume' | 'weigh';
  density: number | null;
  leftL: number | null;
  weighed: { problem: string | null } | null;
}): string | null {
  if (!(Number.isFinite(tin.sizeL) && tin.sizeL > 0)) return 'Type how much the full tin holds.';
  if (!tin.looked) return null;
  if (tin.how === 'weigh' && tin.density === null)
    return `The sheet gives no density of ${tin.part ?? 'this part'}: put it there, or type what is left.`;
  if (tin.leftL === null || !Number.isFinite(tin.leftL))
    return tin.weighed?.problem ?? 'Type what is left, or weigh the tin.';
  if (tin.leftL > tin.sizeL * 1.1) return 'More is left than the tin holds. Check both figures and their units.';
  return null;
}
