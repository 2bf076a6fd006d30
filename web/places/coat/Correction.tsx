import { useState } from 'react';
import { pouredBody } from '#core/coat/correct';
import { ABRADE_FOR } from '#core/model/layer';
import type {
  CoatTarget,
  CoveredBody,
  FinishedBody,
  HandTestBody,
  LogEntry,
  MixedBody,
  ReadingBody,
  StartedBody,
  WetFilmBody,
} from '#core/model/log';
import type { BoatView } from '../../data/store';
import { ratioProblem } from '#core/sheet/useRatio';
import { attempt } from '../../parts/attempt';
import { FormProblem, QuantityField, SelectField, TextField } from '../../parts/Field';
import { TimeField } from '../../parts/TimeField';
import { ABRADE_FOR_WORDS } from '../../parts/choiceWords';
import { METHOD_WORDS } from '../../parts/words';

interface Fields<Body> {
  view: BoatView;
  body: Body;
  set: (change: Partial<Body>) => void;
}

/** The time, and all that can have been mistyped, of one entry. */
export function Correction({
  entry,
  view,
  problem,
  onSave,
  onWithdraw,
}: {
  entry: LogEntry;
  view: BoatView;
  problem: string | null;
  onSave: (occurredAt: number, body: LogEntry['body']) => void;
  onWithdraw: () => void;
}) {
  const [at, setAt] = useState(entry.occurredAt);
  const [body, setBody] = useState<LogEntry['body']>(entry.body);
  const fields = { view, body: body as never, set: (change: object) => setBody({ ...body, ...change }) };
  return (
    <div className="my-2 flex flex-col gap-3 border-l-2 border-base-content pl-3">
      <TimeField label="When it was" at={at} onAt={setAt} zone={view.boat.timeZone} />
      {entry.kind === 'started' && <StartedFields {...fields} />}
      {entry.kind === 'mixed' && <MixedFields {...fields} />}
      {entry.kind === 'mixed' && offRatio(view, entry, { ...(body as MixedBody), ratioReason: undefined }) !== null && (
        <TextField
          label="Why it is off its ratio"
          value={(body as MixedBody).ratioReason ?? ''}
          onChange={(e) => fields.set({ ratioReason: e.target.value || undefined })}
          hint={offRatio(view, entry, { ...(body as MixedBody), ratioReason: undefined })}
        />
      )}
      {entry.kind === 'reading' && <ReadingFields {...fields} zones={zonesOf(view, entry)} />}
      {entry.kind === 'handTest' && <TestFields {...fields} zones={zonesOf(view, entry)} />}
      {entry.kind === 'finished' && <FinishedFields {...fields} />}
      {entry.kind === 'batchOn' && (
        <QuantityField
          label="Litres of the batch"
          quantity="volume"
          value={(body as { litres: number }).litres}
          onValue={(litres) => fields.set({ litres: litres ?? Number.NaN })}
        />
      )}
      {entry.kind === 'wetFilm' && <CombFields {...fields} />}
      {entry.kind === 'covered' && (
        <QuantityField
          label="Of the zone that has it"
          quantity="percent"
          value={(body as CoveredBody).share}
          onValue={(share) => fields.set({ share: share ?? Number.NaN, panels: undefined, of: undefined })}
        />
      )}
      {(entry.kind === 'paused' || entry.kind === 'picture') && (
        <TextField
          label={entry.kind === 'paused' ? 'Why' : 'What it shows'}
          value={entry.kind === 'paused' ? (body as { reason: string }).reason : (body as { text: string }).text}
          onChange={(e) => fields.set({ [entry.kind === 'paused' ? 'reason' : 'text']: e.target.value })}
        />
      )}
      {entry.kind === 'note' && (
        <TextField
          label="Remark"
          value={(body as { text: string }).text}
          onChange={(e) => fields.set({ text: e.target.value })}
        />
      )}
      <FormProblem message={problem} />
      <div className="flex flex-wrap gap-3">
        <button
          type="button"
          className="btn btn-primary"
          disabled={unread(body) || !Number.isFinite(at) || offRatio(view, entry, body) !== null}
          onClick={() => onSave(at, body)}
        >
          Put right
        </button>
        <button type="button" className="btn" onClick={onWithdraw}>
          {entry.kind === 'started' ? 'The whole coat did not happen' : 'It did not happen'}
        </button>
      </div>
    </div>
  );
}

/** A batch that would be off its ratio without a reason, in a sentence; null for everything else. */
function offRatio(view: BoatView, entry: LogEntry, body: LogEntry['body']): string | null {
  if (entry.kind !== 'mixed') return null;
  const batch = body as MixedBody;
  const sheet = view.sheetById.get(batch.sheetRevisionId)?.body;
  const told = { ...batch, ratioReason: (batch.ratioReason ?? '').trim().length < 3 ? undefined : batch.ratioReason };
  return sheet && !unread(batch) ? (attempt(() => ratioProblem({ sheet, batch: told })).value ?? null) : null;
}

/** Whether a figure of a body cannot be read. */
function unread(value: unknown): boolean {
  if (typeof value === 'number') return Number.isNaN(value);
  return typeof value === 'object' && value !== null && Object.values(value).some(unread);
}

/** Zones of the coat that an entry belongs to. */
function zonesOf(view: BoatView, entry: LogEntry): readonly CoatTarget[] {
  return view.coats.find((c) => c.id === entry.streamId)?.on ?? [];
}

function StartedFields({ view, body, set }: Fields<StartedBody>) {
  const sheet = view.sheetById.get(body.sheetRevisionId);
  const products = [...view.sheetById.values()]
    .filter((r) => r.id === body.sheetRevisionId || r.sheetId !== sheet?.sheetId)
    .map((r) => [r.id, r.body.name] as const)
    .sort((a, b) => a[1].localeCompare(b[1]));
  const colours = sheet?.body.colours ?? [];
  const known = colours.some((c) => c.name === body.colour);
  return (
    <>
      <OnZones view={view} body={body} set={set} />
      <div className="grid grid-cols-1 gap-3 sm:grid-cols-2">
        <SelectField
          label="Product"
          value={body.sheetRevisionId}
          options={products}
          onPick={(sheetRevisionId) => set({ sheetRevisionId })}
        />
        <SelectField
          label="Colour"
          value={body.colour}
          options={[
            ...(known ? [] : [[body.colour, body.colour || 'none'] as const]),
            ...colours.map((c) => [c.name, c.name] as const),
          ]}
          onPick={(colour) => set({ colour, colourHex: colours.find((c) => c.name === colour)?.hex ?? body.colourHex })}
        />
        <SelectField
          label="Method"
          value={body.method}
          options={Object.entries(METHOD_WORDS) as [StartedBody['method'], string][]}
          onPick={(method) => set({ method })}
        />
        <QuantityField
          label="Thinner, of the mix"
          quantity="percent"
          value={body.thinner}
          onValue={(thinner) => set({ thinner: thinner ?? 0 })}
          hint="As its batches were poured, where they are logged"
        />
        <QuantityField
          label="Dry film wanted"
          quantity="film"
          value={body.dftMicron}
          onValue={(dftMicron) => set({ dftMicron: dftMicron ?? Number.NaN })}
        />
        <TextField
          label="Abraded with grit"
          inputMode="numeric"
          value={body.abradedGrit === null || Number.isNaN(body.abradedGrit) ? '' : String(body.abradedGrit)}
          onChange={(e) => {
            const grit = e.target.value.replace(/\D/g, '');
            set(grit === '' ? { abradedGrit: null, abradedFor: null } : { abradedGrit: Number(grit) });
          }}
        />
        {body.abradedGrit !== null && (
          <SelectField
            label="Abraded"
            value={body.abradedFor ?? 'bond'}
            options={ABRADE_FOR.map((f) => [f, ABRADE_FOR_WORDS[f]] as const)}
            onPick={(abradedFor) => set({ abradedFor })}
          />
        )}
        <TextField
          label="Why it was started against advice"
          value={body.overrideReason ?? ''}
          onChange={(e) => set({ overrideReason: e.target.value.trim() === '' ? null : e.target.value })}
        />
      </div>
    </>
  );
}

/** The zones it went onto: those it is logged on, and others with a coat to come. */
function OnZones({ view, body, set }: Fields<StartedBody>) {
  const others = view.statuses.flatMap((s) =>
    s.nextLayer && s.state !== 'inHand' && !body.on.some((t) => t.surfaceId === s.surfaceId)
      ? [{ surfaceId: s.surfaceId, layerId: s.nextLayer.id }]
      : [],
  );
  // Offered as they stood when the correction began: a zone unticked can be ticked again.
  const [offered] = useState<readonly CoatTarget[]>(() => [...body.on, ...others]);
  return (
    <fieldset>
      <legend className="lab">On</legend>
      {offered.map((target) => {
        const on = body.on.some((t) => t.surfaceId === target.surfaceId);
        return (
          <label key={target.surfaceId} className="flex min-h-11 items-center gap-3">
            <input
              type="checkbox"
              className="checkbox"
              checked={on}
              disabled={on && body.on.length === 1}
              onChange={() =>
                set({ on: on ? body.on.filter((t) => t.surfaceId !== target.surfaceId) : [...body.on, target] })
              }
            />
            {view.zoneName(target.surfaceId)}
          </label>
        );
      })}
    </fieldset>
  );
}

function MixedFields({ body, set }: Fields<MixedBody>) {
  const pour = (change: { i?: number; volumeL?: number | null; thinnerL?: number | null }) =>
    set(
      pouredBody(body, {
        partsL: body.parts.map((p, i) => (i === change.i ? (change.volumeL ?? Number.NaN) : p.volumeL)),
        thinnerL: change.thinnerL === undefined ? body.thinnerL : (change.thinnerL ?? 0),
      }),
    );
  return (
    <div className="grid grid-cols-2 gap-3">
      {body.parts.map((part, i) => (
        <QuantityField
          key={part.name}
          label={part.name}
          quantity="volume"
          value={part.volumeL}
          onValue={(volumeL) => pour({ i, volumeL })}
        />
      ))}
      <QuantityField
        label="Thinner"
        quantity="volume"
        value={body.thinnerL}
        onValue={(thinnerL) => pour({ thinnerL })}
      />
    </div>
  );
}

function ZoneChoice({
  view,
  zones,
  value,
  onPick,
}: {
  view: BoatView;
  zones: readonly CoatTarget[];
  value: string | null | undefined;
  onPick: (surfaceId: string | null) => void;
}) {
  if (zones.length < 2) return null;
  return (
    <SelectField
      label="On"
      value={value ?? ''}
      options={[['', 'all of it'], ...zones.map((t) => [t.surfaceId, view.zoneName(t.surfaceId)] as const)]}
      onPick={(id) => onPick(id === '' ? null : id)}
    />
  );
}

function ReadingFields({ view, body, set, zones }: Fields<ReadingBody> & { zones: readonly CoatTarget[] }) {
  return (
    <>
      <div className="grid grid-cols-3 gap-3">
        <QuantityField label="Air" quantity="temperature" value={body.airC} onValue={(airC) => set({ airC })} />
        <QuantityField label="Humidity" quantity="percent" value={body.rh} onValue={(rh) => set({ rh })} />
        <QuantityField
          label="Surface"
          quantity="temperature"
          value={body.surfaceC}
          onValue={(surfaceC) => set({ surfaceC })}
        />
      </div>
      <ZoneChoice view={view} zones={zones} value={body.surfaceId} onPick={(surfaceId) => set({ surfaceId })} />
    </>
  );
}

function TestFields({ view, body, set, zones }: Fields<HandTestBody> & { zones: readonly CoatTarget[] }) {
  const words = body.test === 'thumb' ? ['print, nothing comes off', 'still comes off'] : ['powders', 'gums'];
  return (
    <>
      <SelectField
        label="What it said"
        value={body.passed ? 'yes' : 'no'}
        options={[
          ['yes', words[0] as string],
          ['no', words[1] as string],
        ]}
        onPick={(passed) => set({ passed: passed === 'yes' })}
      />
      <ZoneChoice view={view} zones={zones} value={body.surfaceId} onPick={(surfaceId) => set({ surfaceId })} />
    </>
  );
}

function FinishedFields({ body, set }: Fields<FinishedBody>) {
  return (
    <div className="grid grid-cols-1 gap-3 sm:grid-cols-3">
      <QuantityField
        label="On the hull"
        quantity="volume"
        value={body.litresOn}
        onValue={(litresOn) => set({ litresOn })}
      />
      <QuantityField
        label="Left in the pot"
        quantity="volume"
        value={body.leftL ?? null}
        onValue={(leftL) => set({ leftL })}
      />
      <QuantityField label="Lost" quantity="volume" value={body.lostL ?? null} onValue={(lostL) => set({ lostL })} />
    </div>
  );
}

function CombFields({ body, set }: Fields<WetFilmBody>) {
  return body.micron.map((m, i) => (
    <QuantityField
      key={i}
      label={`Comb reading ${i + 1}`}
      quantity="film"
      value={m}
      // A figure that was typed anew was not read between two teeth.
      onValue={(v) => set({ micron: body.micron.map((x, k) => (k === i ? (v ?? Number.NaN) : x)), teeth: undefined })}
    />
  ));
}
