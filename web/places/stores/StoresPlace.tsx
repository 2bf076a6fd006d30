import { Plus } from 'lucide-react';
import { DateTime } from 'luxon';
import { useMemo, useState, type JSX } from 'react';
import { useNewHere } from '../../parts/useNewHere';
import { Link } from 'react-router';
import { v7 as uuid } from 'uuid';
import type { LotState } from '#core/stores/lots';
import type { Reserved, Parts, SharedShelf } from '#core/stores/share';
import type { SheetBody } from '#core/model/sheet';
import type { Unit } from '#core/units/quantities';
import type { LotRow, Stores } from '#contracts/rows/stores';
import type { SheetRow } from '#contracts/rows/sheet';
import { now } from '../../data/now';
import { dateWords } from '../../parts/words';
import { useSheets, useStores } from '../../data/store';
import { Fig, useListUnit } from '../../parts/Fig';
import { shelfOf } from '../film/planned';
import { useSheetOf } from '../film/useLedger';
import { LotForm } from './LotForm';
import { RulesForm } from './RulesForm';
import { Tin } from './Tin';
import { counted } from '#core/units/format';

/** The paint store: tins as they stand, base beside hardener, what is spoken for and by whom. */
export function StoresPlace() {
  const { stores, error } = useStores();
  const { data: sheets } = useSheets();
  if (!stores || !sheets)
    return error ? (
      <p className="p-5">The stores cannot be read just now. It is tried again.</p>
    ) : (
      <div className="skeleton m-5 h-64 rounded-sm" role="status" aria-label="Loading the stores" />
    );
  return <Shelf stores={stores} sheets={sheets} />;
}

function Shelf({ stores, sheets }: { stores: Stores; sheets: SheetRow[] }) {
  const sheetOf = useSheetOf();
  const [editing, setEditing] = useState<LotRow | null>(null);
  const { lots, shared } = useMemo(() => shelfOf(stores, sheetOf), [stores, sheetOf]);
  const products = [...new Set(lots.map((l) => l.sheetId))]
    .map((id) => sheets.find((s) => s.id === id))
    .filter((s) => s !== undefined)
    .sort((a, b) => a.current.body.name.localeCompare(b.current.body.name));
  const blank = (sheet: SheetRow, like?: LotState): LotRow => ({
    id: uuid(),
    sheetId: sheet.id,
    part: like?.part ?? sheet.current.body.parts[0]?.name ?? '',
    sizeL: like?.sizeL ?? sheet.current.body.packs[0]?.sizeL ?? 1,
    batchNumber: '',
    supplier: like?.supplier ?? '',
    boughtOn: stores.today,
    openedOn: null,
    expiresOn: null,
    leftL: like?.sizeL ?? sheet.current.body.packs[0]?.sizeL ?? 1,
    measuredAt: now(),
    weighed: null,
    note: '',
    version: 0,
    deleted: false,
  });
  const first = products[0] ?? sheets[0];
  useNewHere(() => first && setEditing(blank(first)));
  return (
    <div className="mx-auto w-full max-w-[88rem] px-3 py-4 sm:px-5">
      <div className="ruled flex flex-wrap items-center gap-3 pb-2">
        <h1 className="mr-auto">Stores</h1>
        <Link to="/stores/kit" className="link-row underline underline-offset-4">
          Pots, pumps, syringes
        </Link>
        {first && !editing && (
          <button type="button" className="btn btn-primary" onClick={() => setEditing(blank(first))}>
            <Plus size={16} aria-hidden="true" /> Tin
          </button>
        )}
      </div>
      {editing && (
        <LotForm
          key={editing.id}
          row={editing}
          state={lots.find((l) => l.id === editing.id) ?? null}
          sheets={sheets}
          onDone={() => setEditing((now) => (now?.id === editing.id ? null : now))}
        />
      )}
      {lots.length === 0 && !editing && <EmptyShelf sheets={sheets} />}
      {products.map((sheet) => (
        <Product
          key={sheet.id}
          sheet={sheet}
          lots={lots.filter((l) => l.sheetId === sheet.id)}
          shared={shared}
          stores={stores}
          onEdit={(l) => setEditing(stores.lots.find((r) => r.id === l.id) ?? null)}
          onAdd={() =>
            setEditing(
              blank(
                sheet,
                lots.findLast((l) => l.sheetId === sheet.id),
              ),
            )
          }
        />
      ))}
      <p className="py-2 text-sm quiet">
        A filled lid is unopened; hatched is past its shelf life and not counted on. Batches take from open tins first,
        then from what goes stale first. Store tins ashore, ventilated, away from flames.
      </p>
      <RulesForm stores={stores} />
    </div>
  );
}

/** What to do first where nothing is on the shelf. */
function EmptyShelf({ sheets }: { sheets: SheetRow[] }) {
  return (
    <div className="max-w-prose py-4">
      <p>
        Nothing is on the shelf yet. Put every part in as its own tin, base and hardener apart: then what is left of
        each tells how much can still be mixed.
      </p>
      {sheets.length === 0 && (
        <p className="mt-2">
          A tin needs its data sheet first:{' '}
          <Link to="/sheets/new/quick?back=/stores" className="underline underline-offset-4">
            quick, from the tin
          </Link>
          .
        </p>
      )}
    </div>
  );
}

function Product({
  sheet,
  lots,
  shared,
  stores,
  onEdit,
  onAdd,
}: {
  sheet: SheetRow;
  lots: readonly LotState[];
  shared: SharedShelf;
  stores: Stores;
  onEdit: (lot: LotState) => void;
  onAdd: () => void;
}) {
  const { body } = sheet.current;
  // Parts in their order, thinner after them.
  const place = (part: string) => {
    const i = body.parts.findIndex((p) => p.name === part);
    return i < 0 ? body.parts.length : i;
  };
  const standing = [...lots].sort((a, b) => place(a.part) - place(b.part));
  const empty = standing.filter((l) => l.nowL <= EMPTY_L);
  const reserved = shared.reserved.filter((r) => r.sheetId === sheet.id);
  const free = shared.freeL.get(sheet.id) ?? [];
  const boat = (id: string) => stores.boats.find((b) => b.boatId === id)?.name ?? 'a boat';
  const unit = useListUnit([...lots.map((l) => l.sizeL), ...free]);
  const amounts = (litres: readonly number[]) =>
    body.parts.map((p, i) => (
      <span key={p.name} className="mr-3 whitespace-nowrap">
        {body.parts.length > 1 && `${p.name} `}
        <Fig quantity="volume" value={litres[i] ?? 0} unit={unit} />
      </span>
    ));
  return (
    <section
      aria-label={body.name}
      className="grid gap-x-10 gap-y-2 border-b border-base-300 py-3 lg:grid-cols-[minmax(0,7fr)_minmax(0,5fr)]"
    >
      <Tins sheet={sheet} body={body} onAdd={onAdd} standing={standing} onEdit={onEdit} empty={empty} />
      <SpokenFor reserved={reserved} boat={boat} amounts={amounts} free={free} />
    </section>
  );
}

/** The tins of one product; the empty ones folded away. */
function Tins({
  sheet,
  body,
  onAdd,
  standing,
  onEdit,
  empty,
}: {
  sheet: SheetRow;
  body: SheetBody;
  onAdd: () => void;
  standing: LotState[];
  onEdit: (lot: LotState) => void;
  empty: LotState[];
}) {
  // One product's tins are told in one unit.
  const unit = useListUnit(standing.map((l) => l.sizeL));
  return (
    <div className="min-w-0">
      <h2 className="mb-1 flex flex-wrap items-center gap-x-4">
        <Link to={`/sheets/${sheet.id}`} className="underline decoration-1 underline-offset-4">
          {body.name}
        </Link>
        <button
          type="button"
          className="narrow link-row gap-1 text-base font-medium underline decoration-dotted underline-offset-4"
          onClick={onAdd}
          aria-label={`One more tin of ${body.name}`}
        >
          <Plus size={15} aria-hidden="true" /> one more
        </button>
        <Link
          to={`/stores/ledger/${sheet.id}`}
          className="narrow link-row text-base font-medium underline decoration-dotted underline-offset-4"
        >
          ratio ledger
        </Link>
      </h2>
      <ul className="flex flex-wrap items-end gap-x-6 gap-y-3">
        {standing
          .filter((l) => l.nowL > EMPTY_L)
          .map((lot) => (
            <OneTin key={lot.id} lot={lot} unit={unit} body={body} onEdit={onEdit} />
          ))}
      </ul>
      {empty.length > 0 && (
        <details className="mt-1">
          <summary className="link-row cursor-pointer quiet">
            {counted(empty.length, 'empty tin')}, by what batches took
          </summary>
          <ul className="flex flex-wrap items-end gap-x-6 gap-y-3">
            {empty.map((lot) => (
              <OneTin key={lot.id} lot={lot} unit={unit} body={body} onEdit={onEdit} />
            ))}
          </ul>
        </details>
      )}
    </div>
  );
}

/** What of a product is spoken for, by whom, and what is free. */
function SpokenFor({
  reserved,
  boat,
  amounts,
  free,
}: {
  reserved: Reserved[];
  boat: (id: string) => string;
  amounts: (litres: readonly number[]) => JSX.Element[];
  free: Parts;
}) {
  return (
    <div className="min-w-0 text-[0.95rem]">
      {reserved.map((r) => (
        <p key={r.boatId} className="border-b border-base-300 py-1">
          <Link to={`/boats/${r.boatId}/film/buy`} className="font-semibold underline decoration-1 underline-offset-4">
            {boat(r.boatId)}
          </Link>{' '}
          {amounts(r.takenL)}
          {r.patchesL.some((l) => l > 0.005) && (
            <span className="block quiet">of it held back for patches, unmixed: {amounts(r.patchesL)}</span>
          )}
        </p>
      ))}
      {reserved.length === 0 && <p className="quiet">No boat in hand has called on it.</p>}
      <p className="py-1">
        <span className="lab">free</span> {amounts(free)}
      </p>
    </div>
  );
}

function OneTin({
  lot,
  unit,
  body,
  onEdit,
}: {
  lot: LotState;
  unit: Unit;
  body: SheetBody;
  onEdit: (lot: LotState) => void;
}) {
  return (
    <li>
      <button
        type="button"
        className="flex items-end gap-2 text-left"
        onClick={() => onEdit(lot)}
        aria-label={`${lot.part} of ${body.name}, ${lot.batchNumber || 'no batch number'}: change or weigh it`}
      >
        <Tin lot={lot} colour={lot.part === body.parts[0]?.name ? (body.colours[0]?.hex ?? '#9a9a94') : '#c9b48a'} />
        <span className="narrow leading-tight">
          <span className="font-semibold">{lot.part}</span>
          <br />
          <Fig quantity="volume" value={lot.nowL} unit={unit} /> <span className="quiet">of</span>{' '}
          <Fig quantity="volume" value={lot.sizeL} unit={unit} />
          <br />
          <span className="quiet">
            {openWords(lot)}
            {lot.stale ? ', stale' : lot.staleFrom ? `, good to ${civil(lot.staleFrom)}` : ''}
          </span>
          {lot.batchNumber && (
            <>
              <br />
              <span className="quiet">{lot.batchNumber}</span>
            </>
          )}
        </span>
      </button>
    </li>
  );
}

/** Whether a tin is open, and since when. */
function openWords(lot: LotState): string {
  const since = lot.openedOn ?? lot.tappedOn;
  return since === null ? 'unopened' : `open since ${civil(since)}`;
}

/** Less than this is what sticks to the tin. */
const EMPTY_L = 0.005;

const civil = (date: string): string => dateWords(DateTime.fromISO(date, { zone: 'utc' }).toMillis(), 'utc');
