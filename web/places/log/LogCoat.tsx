import { SHEET_KINDS } from '#core/model/sheet';
import { ZONE_KINDS } from '#core/model/surface';
import type { SheetRow } from '#contracts/rows/sheet';
import type { YardBoat } from '#contracts/rows/yard';
import { deviceZone } from '../../data/device';
import { useSettings } from '../../data/settings';
import { useSheets, useYard } from '../../data/store';
import { Choice, FormProblem, SelectField, TextField } from '../../parts/Field';
import { ZONE_WORDS } from '../../parts/choiceWords';
import { NoPainter } from '../../parts/NoPainter';
import { TimeField } from '../../parts/TimeField';
import { SHEET_KIND_WORDS } from '../../parts/words';
import { nextName, windowLine } from '../../parts/zoneWords';
import { againstWords } from '../coat/againstWords';
import { plannedLayer } from './logChanges';
import { useLogCoat, type LogProblem } from './useLogCoat';

/** What a select says of something that is not in its list yet. */
const NEW = 'new';

/** A coat written down from the yard, on one page: what is not known yet is named, and asked for later. */
export function LogCoat() {
  const { data: yard, error } = useYard();
  const { data: sheets } = useSheets();
  if (!yard || !sheets)
    return error ? (
      <p className="p-5">{error.message}</p>
    ) : (
      <div className="skeleton m-5 h-64 rounded-sm" role="status" aria-label="Loading" />
    );
  return <LogOne boats={yard.boats} sheets={sheets.filter((s) => !s.withdrawn)} />;
}

type LogState = ReturnType<typeof useLogCoat>;

function LogOne({ boats, sheets }: { boats: readonly YardBoat[]; sheets: readonly SheetRow[] }) {
  const log = useLogCoat(boats, sheets);
  const { told, set } = log;
  return (
    <form
      className="mx-auto flex w-full max-w-2xl flex-col gap-3 px-3 py-4 sm:px-5"
      noValidate
      onSubmit={(e) => {
        e.preventDefault();
        void log.go();
      }}
    >
      <h1>Log a coat</h1>
      <WhichBoat boats={boats} log={log} />
      <WhichZone log={log} />
      <WhichProduct sheets={sheets} log={log} />
      <Choice
        label="When"
        options={[
          ['done', 'It is done'],
          ['now', 'It starts now'],
        ]}
        value={told.when}
        onPick={(when) => set({ when })}
      />
      {told.when === 'done' && <Times log={log} />}
      <Against log={log} />
      <Untold log={log} />
      <FormProblem message={log.problem && !log.problem.field ? log.problem.message : null} />
      <div className="flex flex-wrap items-center gap-3">
        <button type="submit" className="btn btn-primary grow text-xl sm:grow-0 sm:px-10" disabled={log.sending}>
          {told.when === 'done' ? 'Log this coat' : 'To its start'}
        </button>
        <NoPainter />
      </div>
    </form>
  );
}

/** What is wrong with one field. */
const at = (problem: LogProblem | null, field: LogProblem['field']) =>
  problem?.field === field ? problem?.message : undefined;

function WhichBoat({ boats, log: { told, set, problem } }: { boats: readonly YardBoat[]; log: LogState }) {
  return (
    <>
      {boats.length > 0 && (
        <SelectField
          label="Boat"
          value={told.boatId ?? NEW}
          options={[...boats.map((b) => [b.boat.id, b.boat.name] as const), [NEW, 'A new boat']]}
          onPick={(id) => set({ boatId: id === NEW ? null : id, surfaceId: undefined, sheetId: undefined })}
        />
      )}
      {told.boatId === null && (
        <TextField
          label={boats.length > 0 ? 'Name of the new boat' : 'Boat'}
          value={told.boatName}
          onChange={(e) => set({ boatName: e.target.value })}
          hint="Its name is enough for now."
          error={at(problem, 'boatName')}
        />
      )}
    </>
  );
}

function WhichZone({ log: { told, set, view } }: { log: LogState }) {
  const zones = view?.surfaces ?? [];
  return (
    <div className="grid gap-3 sm:grid-cols-2">
      {zones.length > 0 && (
        <SelectField
          label="Zone"
          value={told.surfaceId ?? NEW}
          options={[...zones.map((z) => [z.id, z.name] as const), [NEW, 'A new zone']]}
          onPick={(id) => set({ surfaceId: id === NEW ? null : id, sheetId: undefined })}
        />
      )}
      {told.surfaceId === null && (
        <SelectField
          label={zones.length > 0 ? 'Kind of the new zone' : 'Zone'}
          value={told.zoneKind}
          options={ZONE_KINDS.map((k) => [k, ZONE_WORDS[k]] as const)}
          onPick={(zoneKind) => set({ zoneKind })}
        />
      )}
    </div>
  );
}

function WhichProduct({ sheets, log: { told, set, view, problem } }: { sheets: readonly SheetRow[]; log: LogState }) {
  const status = view?.statuses.find((s) => s.surfaceId === told.surfaceId);
  const planned = plannedLayer(view, told);
  return (
    <div className="grid gap-3 sm:grid-cols-2">
      {sheets.length > 0 && (
        <SelectField
          label="Product"
          value={told.sheetId ?? NEW}
          options={[...sheets.map((s) => [s.id, s.current.body.name] as const), [NEW, 'Another one']]}
          onPick={(id) => set({ sheetId: id === NEW ? null : id })}
          hint={
            status && planned
              ? `As planned: ${nextName(status)}`
              : status?.nextSheet
                ? 'Not what is planned next: it is put in before that.'
                : undefined
          }
        />
      )}
      {told.sheetId === null && (
        <>
          <TextField
            label={sheets.length > 0 ? 'Name of the product' : 'Product'}
            value={told.productName}
            onChange={(e) => set({ productName: e.target.value })}
            hint="As it stands on the tin."
            error={at(problem, 'productName')}
          />
          <SelectField
            label="Kind of product"
            value={told.productKind}
            options={SHEET_KINDS.map((k) => [k, SHEET_KIND_WORDS[k]] as const)}
            onPick={(productKind) => set({ productKind })}
          />
        </>
      )}
    </div>
  );
}

function Times({ log: { told, set, view } }: { log: LogState }) {
  const zone = view?.boat.timeZone ?? deviceZone();
  return (
    <div className="grid grid-cols-1 gap-3 sm:grid-cols-2">
      <TimeField
        key={`s${zone}`}
        label="Started"
        at={told.startedAt}
        onAt={(startedAt) => set({ startedAt })}
        zone={zone}
      />
      <TimeField
        key={`f${zone}`}
        label="Finished"
        at={told.finishedAt}
        onAt={(finishedAt) => set({ finishedAt })}
        zone={zone}
      />
    </div>
  );
}

function Against({ log: { told, set, view, against, problem } }: { log: LogState }) {
  const { units } = useSettings();
  if (against.length === 0 || !view) return null;
  const words = against.map((a) =>
    againstWords(a, { nameOf: view.zoneName, at: told.startedAt, zone: view.boat.timeZone, past: true, units }),
  );
  return (
    <div className="border-l-4 border-error pl-3">
      <p className="font-semibold">Against it: {words.join('; ')}.</p>
      <TextField
        label="It went on all the same, because"
        value={told.reason}
        onChange={(e) => set({ reason: e.target.value })}
        hint="Stands in the record."
        error={at(problem, 'reason')}
      />
    </div>
  );
}

/** What nothing can be said of until it is asked for. */
function Untold({ log: { told, view, revision } }: { log: LogState }) {
  const status = view?.statuses.find((s) => s.surfaceId === told.surfaceId);
  const missing = [
    ...(told.boatId === null
      ? ['her size: areas and litres are stand-ins until her length, beam and draught are typed']
      : []),
    ...(told.sheetId === null
      ? ['the product’s sheet: no time for the next coat, no film and no mixing until its figures are typed']
      : revision && (revision.body.nameOnly || revision.body.overcoat.length === 0)
        ? ['overcoat times of its sheet: no time for the next coat until they are typed']
        : []),
    ...(told.surfaceId === null ? ['what lay on the zone before, and its area as measured'] : []),
    ...(told.when === 'done'
      ? ['air and surface while it went on: they are taken from the weather, litres and film from the plan']
      : []),
  ];
  return (
    <>
      {status && told.when === 'done' && view && (
        <p className="text-sm quiet">Now: {windowLine(status, { at: view.at, zone: view.boat.timeZone })}.</p>
      )}
      {missing.length > 0 && (
        <div className="border-l-4 border-base-300 pl-3 text-sm">
          <p className="font-semibold">May be told later; until then it is not known:</p>
          <ul>
            {missing.map((m) => (
              <li key={m}>{m}</li>
            ))}
          </ul>
        </div>
      )}
    </>
  );
}
