import { Download, FileText } from 'lucide-react';
import { useMemo, useState } from 'react';
import { Link } from 'react-router';
import { otherWays } from '#core/stores/shopping';
import { cheaperProducts, type SupplierList } from '#core/stores/list';
import type { JobProduct } from '#core/stores/share';
import type { Boat } from '#contracts/rows/boat';
import type { Unit } from '#core/units/quantities';
import { useView } from '../../app/BoatShell';
import { useSettings } from '../../data/settings';
import { useSheets, useStores } from '../../data/store';
import { attempt } from '../../parts/attempt';
import { FormProblem } from '../../parts/Field';
import { Fig, useListUnit, Line } from '../../parts/Fig';
import { pdfOf } from '../../parts/pdf';
import { saveBlob, saveCsv } from '../../parts/saveText';
import { casesWords, moneyWords, NOT_PROVEN_WORDS, packWords, dateWords } from '../../parts/words';
import { NeedBar } from './NeedBar';
import { lineCount, shoppingCells, shoppingPage, supplierWords } from './files';
import { useShopping, type Shopping } from './useShopping';
import { counted } from '#core/units/format';

/** What to buy for the job, by supplier; how sure it is to be enough; what it all costs. */
export function BuyPlace() {
  const view = useView();
  const { units } = useSettings();
  const { error } = useStores();
  const shopping = useShopping(view);
  const [problem, setProblem] = useState<string | null>(null);
  const { lists, job } = shopping;
  const { boat, at } = view;
  // Sums of nothing would read as if it were for free.
  const priced = lists.some((list) => list.lines.some((l) => l.minor !== null));
  const file = `${boat.name} shopping list`;
  const print = async () => {
    setProblem(null);
    try {
      const day = dateWords(at, boat.timeZone);
      saveBlob(`${file}.pdf`, await pdfOf(shoppingPage(view, shopping, units, day)));
    } catch {
      setProblem('The PDF could not be written. Try again, or take the CSV.');
    }
  };
  // A list that does not know the shelf would send someone to the shop for what stands here.
  if (!job.shelfKnown && !error)
    return <div className="skeleton h-64 rounded-sm" role="status" aria-label="Loading the shelf" />;
  return (
    <div className="min-w-0">
      <ListHead boat={boat} print={print} file={file} shopping={shopping} />
      <FormProblem
        message={
          problem ?? (error ? 'The shelf could not be asked: nothing on it is counted. It is tried again.' : null)
        }
      />
      <p className="py-2 quiet">
        Enough in {casesWords(job.chance)}, the shelf used first after what boats that are launched earlier need. The
        chance and the rules for consumables are set under{' '}
        <Link to="/stores#rules" className="underline underline-offset-4">
          Stores
        </Link>
        .
      </p>
      {job.ledger.without.length > 0 && (
        <FormProblem
          message={`Not counted, since a figure is missing on its sheet: ${job.ledger.without.join('; ')}.`}
        />
      )}
      <div className="grid min-w-0 gap-x-12 gap-y-5 lg:grid-cols-[minmax(0,6fr)_minmax(0,5fr)]">
        <div className="flex min-w-0 flex-col gap-4">
          {lists.length === 0 && (
            <p>Nothing is to be bought: no coat is still to go on, or the shelf holds all of it.</p>
          )}
          {lists.map((list) => (
            <OneSupplier list={list} currency={job.currency} priced={priced} key={list.supplier} />
          ))}
          <Sums shopping={shopping} priced={priced} />
        </div>
        <section className="min-w-0" aria-labelledby="enough">
          <h2 id="enough" className="ruled pb-1">
            Is it enough?
          </h2>
          {job.ledger.products.map((p) => (
            <ProductNote key={p.sheetId} product={p} currency={job.currency} chance={job.chance} />
          ))}
        </section>
      </div>
    </div>
  );
}

function ListHead({
  boat,
  print,
  file,
  shopping,
}: {
  boat: Boat;
  print: () => Promise<void>;
  file: string;
  shopping: Shopping;
}) {
  return (
    <div className="ruled flex flex-wrap items-center gap-3 pb-1">
      <h1 className="mr-auto text-2xl">Shopping list of {boat.name}</h1>
      <Link to={`/boats/${boat.id}/film`} className="btn no-print">
        Film
      </Link>
      <Link to="/stores" className="btn no-print">
        Stores
      </Link>
      <button type="button" className="btn no-print" onClick={() => void print()}>
        <FileText size={18} aria-hidden="true" /> PDF
      </button>
      <button
        type="button"
        className="btn no-print"
        onClick={() => void saveCsv(`${file}.csv`, shoppingCells(shopping))}
      >
        <Download size={18} aria-hidden="true" /> CSV
      </button>
    </div>
  );
}

/** What it all comes to, where anything has a price. */
function Sums({ shopping, priced }: { shopping: Shopping; priced: boolean }) {
  const { money, job } = shopping;
  if (!priced && !money.yardMinor)
    return <p className="text-sm quiet">No prices are known: type them on the sheets and under Stores, Rules.</p>;
  return (
    <>
      {priced && (
        <p className="flex justify-between border-t-2 border-base-content pt-1 text-lg">
          <span>To buy</span>
          <span className="fig text-xl">{moneyWords(money.packsMinor + money.consumablesMinor, job.currency)}</span>
        </p>
      )}
      {priced && money.unpriced.length > 0 && (
        <p className="text-sm quiet">Without a price: {money.unpriced.join(', ')}.</p>
      )}
      <MoneyTable shopping={shopping} />
    </>
  );
}

function OneSupplier({ list, currency, priced }: { list: SupplierList; currency: string; priced: boolean }) {
  return (
    <section aria-label={supplierWords(list.supplier)}>
      <h2 className="ruled flex items-baseline justify-between pb-1">
        {supplierWords(list.supplier)}{' '}
        {list.lines.some((l) => l.minor !== null) && <span className="fig">{moneyWords(list.minor, currency)}</span>}
      </h2>
      <ul className="sheet-rule">
        {list.lines.map((l) => (
          <li
            key={`${l.what}${l.pack}`}
            className="grid grid-cols-[minmax(0,1fr)_auto] items-baseline gap-x-3 py-1.5 sm:grid-cols-[minmax(0,1fr)_auto_5rem_6rem]"
          >
            <span>{l.what}</span>
            <span className="fig text-right sm:order-3">
              {l.minor === null ? priced && <span className="quiet">ask</span> : moneyWords(l.minor, currency)}
            </span>
            <span className="narrow text-lg">{lineCount(l)}</span>
            <span className="text-right">{l.litres !== null && <Fig quantity="volume" value={l.litres} />}</span>
          </li>
        ))}
      </ul>
    </section>
  );
}

/** How often something is so, as a hundred cases. */
function shareInWords(share: number): string {
  if (share > 0.995) return 'practically always';
  if (share < 0.005) return 'practically never';
  return `in ${counted(Math.round(share * 100), 'case')} of 100`;
}

/** One product: need with its ±, shelf, what is over, what a size smaller risks, what else would do. */
function ProductNote({ product: p, currency, chance }: { product: JobProduct; currency: string; chance: number }) {
  const { data: sheets } = useSheets();
  const others = useMemo(
    () =>
      attempt(() =>
        cheaperProducts({
          product: p,
          sheets: (sheets ?? []).filter((s) => !s.withdrawn).map((s) => ({ id: s.id, body: s.current.body })),
          chance,
        }),
      ).value ?? [],
    [p, sheets, chance],
  );
  const other = useMemo(() => otherWays(p), [p]);
  const patches = p.parts.some((part) => part.patchesL > 0.005);
  const unit = useListUnit([p.need.likelyL]);
  return (
    <div className="border-b border-base-300 py-2" data-product={p.sheet.name}>
      <p className="flex items-baseline justify-between gap-3">
        <Link to={`/sheets/${p.sheetId}`} className="font-semibold underline decoration-1 underline-offset-4">
          {p.sheet.name}
        </Link>
        <span>
          <Fig quantity="volume" value={p.need.likelyL} approx unit={unit} /> <span className="narrow quiet">± </span>
          <Fig quantity="volume" value={2 * p.need.sigmaL} unit={unit} />
        </span>
      </p>
      <NeedBar product={p} unit={unit} />
      <PartsToBuy p={p} unit={unit} />
      {!p.purchase && (
        <p className="text-error">No pack on its sheet covers it. Put pack sizes and prices on the sheet.</p>
      )}
      {p.purchase && <Bought purchase={p.purchase} chance={other.chance} unit={unit} />}
      {other.smaller && (
        <p className="text-sm quiet">
          One size smaller{other.smaller.packs.length > 0 ? `, ${packWords(other.smaller.packs)}` : ', nothing'}
          {other.smaller.costMinor !== null && `, ${moneyWords(other.smaller.costMinor, currency)}`}: enough{' '}
          {shareInWords(other.smaller.chance)}.
        </p>
      )}
      {other.leastOver && (
        <p className="text-sm quiet">
          Least over: {packWords(other.leastOver.packs)}
          {other.leastOver.costMinor !== null && `, ${moneyWords(other.leastOver.costMinor, currency)}`}.
        </p>
      )}
      {others.slice(0, 2).map((o) => (
        <p key={o.sheetId} className="text-sm quiet">
          {o.name} would put the same film on for {moneyWords(o.costMinor, currency)}. Hold it against the rules first.
        </p>
      ))}
      {p.packForATouch && (
        <p className="border-l-4 border-warning pl-3 text-[0.95rem]">
          The smallest pack is ten times what this needs: ask for a part tin, or take what another job leaves.
        </p>
      )}
      {patches && <PatchesHeld p={p} unit={unit} />}
    </div>
  );
}

function PartsToBuy({ p, unit }: { p: JobProduct; unit: Unit }) {
  return (
    <p className="text-[0.95rem]">
      {p.parts.map((part, i) => (
        <span key={part.name} className="mr-4 inline-block">
          {part.name} <Fig quantity="volume" value={part.wantL} unit={unit} />
          {(p.parts[i]?.onHandL ?? 0) > 0.005 && (
            <span className="quiet">
              {' '}
              (<Fig quantity="volume" value={part.onHandL} unit={unit} /> on the shelf)
            </span>
          )}
        </span>
      ))}
    </p>
  );
}

function Bought({
  purchase,
  chance,
  unit,
}: {
  purchase: NonNullable<JobProduct['purchase']>;
  chance: number;
  unit: Unit;
}) {
  const over = purchase.leftL.reduce((sum, l) => sum + Math.max(0, l), 0);
  return (
    <p className="text-[0.95rem]">
      {purchase.packs.length > 0
        ? `${packWords(purchase.packs)}: enough ${shareInWords(chance)}`
        : `What is on the shelf is enough ${shareInWords(chance)}`}
      , about <Fig quantity="volume" value={over} unit={unit} /> over.{!purchase.provenLeast && ` ${NOT_PROVEN_WORDS}`}
    </p>
  );
}

function PatchesHeld({ p, unit }: { p: JobProduct; unit: Unit }) {
  return (
    <p className="text-[0.95rem]">
      Hold back for patches, unmixed:{' '}
      {p.parts.map((part) => (
        <span key={part.name} className="mr-3 whitespace-nowrap">
          {part.name} <Fig quantity="volume" value={part.patchesL} unit={unit} />
        </span>
      ))}
    </p>
  );
}

/** Money by zone and coat, with consumables and days. */
function MoneyTable({ shopping }: { shopping: Shopping }) {
  const { money, job, yardDays } = shopping;
  const amount = (minor: number | null) =>
    minor === null ? (
      <span className="quiet">no price</span>
    ) : (
      <span className="fig">{moneyWords(minor, job.currency)}</span>
    );
  const unit = useListUnit(money.coats.map((c) => c.litres));
  return (
    <section aria-labelledby="money">
      <h2 id="money" className="ruled pb-1">
        Money, coats still to go on
      </h2>
      <div className="sheet-rule">
        {money.zones.map((zone) => (
          <details key={zone.surfaceId}>
            <summary className="flex min-h-11 cursor-pointer items-center justify-between gap-3">
              <span>{zone.name}</span> {amount(zone.minor)}
            </summary>
            <ul className="mb-2 border-l-2 border-base-300 pl-3">
              {money.coats
                .filter((c) => c.surfaceId === zone.surfaceId)
                .map((c) => (
                  <li key={c.layerId} className="flex justify-between gap-3">
                    <span>
                      Coat {c.number}, <Fig quantity="volume" value={c.litres} approx unit={unit} />
                    </span>
                    {amount(c.minor)}
                  </li>
                ))}
            </ul>
          </details>
        ))}
        <Line label="Packs, with what stays in the tins">{amount(money.packsMinor)}</Line>
        <Line label="Consumables">{amount(money.consumablesMinor)}</Line>
        <Line label={`Yard, ${yardDays} days from haul-out to launch`}>{amount(money.yardMinor)}</Line>
        <Line label="In all">
          <span className="text-xl">{amount(money.totalMinor)}</span>
        </Line>
      </div>
    </section>
  );
}
