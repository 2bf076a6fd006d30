import { Plus } from 'lucide-react';
import { useState } from 'react';
import { Link } from 'react-router';
import { v7 as uuid } from 'uuid';
import { checkBorder, type BorderRule } from '#core/system/borders';
import { withSheets } from '#core/system/ledger';
import type { BorderRow } from '#contracts/rows/system';
import { useView } from '../../app/BoatShell';
import { save, type BoatView } from '../../data/store';
import { Choice, QuantityField, SelectField, TextField } from '../../parts/Field';
import { Fig } from '../../parts/Fig';
import { BORDER_WORDS } from '../../parts/choiceWords';
import { FindingMark } from './FindingMark';

/** Where zones meet: what runs on across the line, how the coats above it meet, the strip that is done by hand first. */
export function BordersPage() {
  const view = useView();
  const { boat, borders, surfaces } = view;
  const [editing, setEditing] = useState<BorderRow | null>(null);
  const zones = surfaces.filter((s) => !s.parentId);
  const blank = (): BorderRow => ({
    id: uuid(),
    boatId: boat.id,
    upperId: zones[0]?.id ?? '',
    lowerId: zones[1]?.id ?? '',
    rule: 'butt',
    widthM: 0,
    epoxyRunsOn: true,
    handStripM: 0,
    note: '',
    version: 0,
    deleted: false,
  });
  const name = view.zoneName;
  return (
    <div className="min-w-0 max-w-5xl">
      <div className="ruled flex flex-wrap items-center gap-3 pb-1">
        <h1 className="mr-auto text-2xl">Borders between zones</h1>
        <Link to={`/boats/${boat.id}/film`} className="btn">
          Back to the section
        </Link>
        {zones.length > 1 && !editing && (
          <button type="button" className="btn btn-primary" onClick={() => setEditing(blank())}>
            <Plus size={16} aria-hidden="true" /> Border
          </button>
        )}
      </div>
      <p className="max-w-prose py-2 quiet">
        The protective epoxy runs unbroken across a border. Topcoat and antifouling above it butt at the line, overlap,
        or leave a stripe between.
      </p>
      {zones.length < 2 && <p>A border needs two zones. Add the second one under Hull.</p>}
      {editing && (
        <BorderForm
          key={editing.id}
          row={editing}
          zones={zones.map((z) => [z.id, z.name] as const)}
          onDone={() => setEditing(null)}
        />
      )}
      <ul className="sheet-rule">
        {borders.map((b) => (
          <OneBorder b={b} view={view} name={name} setEditing={setEditing} key={b.id} />
        ))}
      </ul>
    </div>
  );
}

function OneBorder({
  b,
  view,
  name,
  setEditing,
}: {
  b: BorderRow;
  view: BoatView;
  name: (id: string) => string;
  setEditing: (value: BorderRow | null) => void;
}) {
  return (
    <li className="flex flex-wrap items-center gap-x-5 gap-y-1 py-2">
      <BorderDrawing view={view} border={b} />
      <div className="min-w-0 flex-1 basis-60">
        <p className="font-semibold">
          {name(b.upperId)} over {name(b.lowerId)}
        </p>
        <p>
          {BORDER_WORDS[b.rule]}
          {b.rule !== 'butt' && (
            <>
              {' '}
              <Fig quantity="length" value={b.widthM} digits={2} />
            </>
          )}
          , {b.epoxyRunsOn ? 'the epoxy runs on' : 'the epoxy stops at it'}
          {b.handStripM > 0 && (
            <>
              , <Fig quantity="length" value={b.handStripM} digits={2} /> by hand first
            </>
          )}
        </p>
        {b.note && <p className="text-sm quiet">{b.note}</p>}
        {bordersFound(view, b).map((f) => (
          <p key={f.rule} className="flex items-center gap-2">
            <FindingMark severity={f.severity} /> {f.reason}
          </p>
        ))}
      </div>
      <button
        type="button"
        className="btn"
        onClick={() => setEditing(b)}
        aria-label={`Change the border of ${name(b.upperId)} and ${name(b.lowerId)}`}
      >
        Change
      </button>
    </li>
  );
}

function bordersFound(view: BoatView, border: BorderRow) {
  const zone = (id: string) => {
    const surface = view.surfaces.find((s) => s.id === id);
    return surface
      ? {
          id,
          name: surface.name,
          exposure: surface.exposure,
          layers: withSheets(view.buildUps.find((b) => b.surfaceId === id)?.layers ?? [], view.sheetById),
        }
      : null;
  };
  const upper = zone(border.upperId);
  const lower = zone(border.lowerId);
  return upper && lower ? checkBorder({ border, upper, lower }) : [];
}

/** The line cut across: the outermost coats of both zones as they meet, the epoxy beneath. */
function BorderDrawing({ view, border }: { view: BoatView; border: BorderRow }) {
  const top = (id: string) => view.buildUps.find((b) => b.surfaceId === id)?.layers.at(-1)?.colourHex ?? '#d8d4c8';
  const upper = top(border.upperId);
  const lower = top(border.lowerId);
  const gap = border.rule === 'stripe' ? 9 : 0;
  const lap = border.rule === 'overlap' ? 12 : 0;
  return (
    <svg width="104" height="52" viewBox="0 0 104 52" aria-hidden="true" className="shrink-0">
      <rect x="1" y="38" width="102" height="13" fill="#cfcabc" stroke="currentColor" strokeWidth=".8" />
      <path
        d={border.epoxyRunsOn ? 'M1 34h102v4H1z' : 'M1 34h50v4H1zM53 34h50v4H53z'}
        fill="#8f979b"
        stroke="currentColor"
        strokeWidth=".6"
      />
      <rect x="1" y="24" width={51 - gap / 2} height="10" fill={upper} stroke="currentColor" strokeWidth=".8" />
      <path
        d={`M103 34V24H${52 + gap / 2}${lap ? `l-4-9H${52 - lap}v9H52` : ''}v10z`}
        fill={lower}
        stroke="currentColor"
        strokeWidth=".8"
      />
    </svg>
  );
}

function BorderForm({
  row,
  zones,
  onDone,
}: {
  row: BorderRow;
  zones: readonly (readonly [string, string])[];
  onDone: () => void;
}) {
  const [draft, setDraft] = useState(row);
  const set = (change: Partial<BorderRow>) => setDraft({ ...draft, ...change });
  const bad =
    draft.upperId === draft.lowerId
      ? 'A border lies between two zones. Choose another one.'
      : [draft.widthM, draft.handStripM].some((v) => !Number.isFinite(v) || v < 0 || v > 5)
        ? 'A width cannot be read, or is wider than five metres. Type it again.'
        : null;
  return (
    <form
      className="my-3 flex flex-col gap-3 border-l-4 border-base-content pl-4"
      onSubmit={(e) => {
        e.preventDefault();
        if (bad) return;
        void save({ kind: 'border', row: draft }, row.version === 0 ? 'Border added' : 'Border changed');
        onDone();
      }}
    >
      <div className="grid grid-cols-2 gap-3">
        <SelectField label="Above" options={zones} value={draft.upperId} onPick={(upperId) => set({ upperId })} />
        <SelectField
          label="Below"
          options={zones}
          value={draft.lowerId}
          onPick={(lowerId) => set({ lowerId })}
          error={draft.upperId === draft.lowerId ? (bad ?? undefined) : undefined}
        />
      </div>
      <BorderFields draft={draft} set={set} />
      <TextField
        label="Note, such as how it is taped"
        value={draft.note}
        onChange={(e) => set({ note: e.target.value })}
      />
      <BorderButtons bad={bad} onDone={onDone} row={row} />
    </form>
  );
}

function BorderFields({ draft, set }: { draft: BorderRow; set: (change: Partial<BorderRow>) => void }) {
  return (
    <div className="flex flex-wrap items-end gap-4">
      <Choice
        label="The coats above the epoxy"
        options={Object.entries(BORDER_WORDS) as [BorderRule, string][]}
        value={draft.rule}
        onPick={(rule) => set({ rule, widthM: rule === 'butt' ? 0 : draft.widthM || 0.02 })}
      />
      {draft.rule !== 'butt' && (
        <div className="w-36">
          <QuantityField
            label="Width"
            quantity="length"
            value={draft.widthM}
            onValue={(v) => set({ widthM: v ?? Number.NaN })}
          />
        </div>
      )}
      <div className="w-44">
        <QuantityField
          label="Strip by hand first"
          quantity="length"
          value={draft.handStripM}
          onValue={(v) => set({ handStripM: v ?? 0 })}
        />
      </div>
      <label className="link-row gap-2">
        <input
          type="checkbox"
          className="checkbox"
          checked={draft.epoxyRunsOn}
          onChange={(e) => set({ epoxyRunsOn: e.target.checked })}
        />{' '}
        the epoxy runs on across it
      </label>
    </div>
  );
}

function BorderButtons({
  bad,
  onDone,
  row,
}: {
  bad:
    | 'A border lies between two zones. Choose another one.'
    | 'A width cannot be read, or is wider than five metres. Type it again.'
    | null;
  onDone: () => void;
  row: BorderRow;
}) {
  return (
    <div className="flex flex-wrap gap-3">
      <button type="submit" className="btn btn-primary" disabled={bad !== null}>
        Save border
      </button>
      <button type="button" className="btn" onClick={onDone}>
        Back
      </button>
      {row.version > 0 && (
        <button
          type="button"
          className="btn btn-ghost text-error"
          onClick={() => {
            void save({ kind: 'border', row: { ...row, deleted: true } }, 'Border removed');
            onDone();
          }}
        >
          Remove
        </button>
      )}
    </div>
  );
}
