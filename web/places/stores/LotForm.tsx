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
  const [draft, setDraft] = useState(row);
  const [how, setHow] = useState<'volume' | 'weigh'>(row.weighed ? 'weigh' : 'volume');
  // What stands here may be what was measured long ago: until someone looks again, the tin's own reckoning goes on.
  const [left, setLeft] = useState<number | null>(state?.nowL ?? row.leftL);
  const [gross, setGross] = useState<number | null>(row.weighed?.grossKg ?? null);
  const [tare, setTare] = useState<number | null>(row.weighed?.tareKg ?? null);
  const [looked, setLooked] = useState(row.version === 0);
  const { failure, theirs, sending, submit } = useSubmit();
  const set = (change: Partial<LotRow>) => setDraft({ ...draft, ...change });
  const sheet = sheets.find((s) => s.id === draft.sheetId);
  const parts = sheet?.current.body.parts ?? [];
  const part = parts.find((p) => p.name === draft.part) ?? parts[0];
  const density = part?.densityKgPerL ?? null;
  const weighed =
    how === 'weigh' && gross !== null && tare !== null && density !== null
      ? attempt(() => litresFromWeight({ grossKg: gross, tareKg: tare, densityKgPerL: density }))
      : null;
  const leftL = how === 'weigh' ? (weighed?.value ?? null) : left;
  const problem =
    !Number.isFinite(draft.sizeL) || draft.sizeL <= 0
      ? 'Type how much the full tin holds.'
      : looked && how === 'weigh' && density === null
        ? `The sheet gives no density of ${part?.name ?? 'this part'}: put it there, or type what is left.`
        : looked && (leftL === null || !Number.isFinite(leftL))
          ? (weighed?.problem ?? 'Type what is left, or weigh the tin.')
          : looked && (leftL as number) > draft.sizeL * 1.1
            ? 'More is left than the tin holds. Check both figures and their units.'
            : null;
  const send = async (version = draft.version) => {
    if (problem || !part) return;
    const measured = looked
      ? {
          leftL: leftL as number,
          measuredAt: now(),
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
  return (
    <form
      className="my-3 flex flex-col gap-3 border-l-4 border-base-content pl-4"
      aria-label="Tin"
      onSubmit={(e) => {
        e.preventDefault();
        void send(theirs?.version);
      }}
    >
      <div className="grid grid-cols-2 gap-3 md:grid-cols-4">
        <div className="col-span-2">
          <SelectField
            label="Product"
            options={sheets.map((s) => [s.id, s.current.body.name] as const)}
            value={draft.sheetId}
            onPick={(sheetId) =>
              set({ sheetId, part: sheets.find((s) => s.id === sheetId)?.current.body.parts[0]?.name ?? '' })
            }
          />
        </div>
        <SelectField
          label="Part"
          options={parts.map((p) => [p.name, p.name] as const)}
          value={part?.name ?? ''}
          onPick={(name) => set({ part: name })}
        />
        <QuantityField
          label="Holds when full"
          quantity="volume"
          value={draft.sizeL}
          onValue={(v) => set({ sizeL: v ?? Number.NaN })}
        />
        <TextField
          label="Batch number"
          value={draft.batchNumber}
          onChange={(e) => set({ batchNumber: e.target.value })}
        />
        <TextField label="Supplier" value={draft.supplier} onChange={(e) => set({ supplier: e.target.value })} />
        <TextField
          label="Bought on"
          type="date"
          value={draft.boughtOn ?? ''}
          onChange={(e) => set({ boughtOn: e.target.value || null })}
        />
        <TextField
          label="Opened on"
          type="date"
          value={draft.openedOn ?? ''}
          onChange={(e) => set({ openedOn: e.target.value || null })}
          hint="Empty: unopened"
        />
        <TextField
          label="Use by"
          type="date"
          value={draft.expiresOn ?? ''}
          onChange={(e) => set({ expiresOn: e.target.value || null })}
          hint="As printed on it"
        />
        <div className="col-span-2 md:col-span-3">
          <TextField label="Note" value={draft.note} onChange={(e) => set({ note: e.target.value })} />
        </div>
      </div>
      {row.version > 0 && (
        <label className="link-row gap-2">
          <input type="checkbox" className="checkbox" checked={looked} onChange={(e) => setLooked(e.target.checked)} />{' '}
          I looked now how much is left
        </label>
      )}
      {looked && (
        <div className="flex flex-wrap items-end gap-4">
          <Choice
            label="What is left"
            options={[
              ['volume', 'by volume'],
              ['weigh', 'by weighing the tin'],
            ]}
            value={how}
            onPick={setHow}
          />
          {how === 'volume' ? (
            <div className="w-40">
              <QuantityField label="Left" quantity="volume" value={left} onValue={setLeft} />
            </div>
          ) : (
            <>
              <div className="w-40">
                <QuantityField label="Tin with paint" quantity="mass" value={gross} onValue={setGross} />
              </div>
              <div className="w-40">
                <QuantityField label="Empty tin" quantity="mass" value={tare} onValue={setTare} />
              </div>
              {density !== null && (
                <p className="pb-2">
                  less its tare, over <Fig quantity="density" value={density} />
                  {weighed?.value != null && (
                    <>
                      : <Fig quantity="volume" value={weighed.value} className="text-xl" /> left
                    </>
                  )}
                </p>
              )}
            </>
          )}
        </div>
      )}
      <FormProblem message={failure?.message ?? problem} />
      <div className="flex flex-wrap gap-3">
        <button type="submit" className="btn btn-primary" disabled={problem !== null || sending}>
          {sending ? 'Saving…' : theirs ? 'Keep what stands here' : 'Save tin'}
        </button>
        <button type="button" className="btn" onClick={onDone}>
          Back
        </button>
        {row.version > 0 && (
          <button type="button" className="btn btn-ghost text-error" onClick={() => void remove()}>
            Take off the shelf
          </button>
        )}
      </div>
    </form>
  );
}
