import { ShoppingCart } from 'lucide-react';
import type { ReactNode } from 'react';
import { Link } from 'react-router';
import type { BuildUpQuantities } from '#core/system/quantities';
import { packsMinor } from '#core/stores/money';
import type { JobProduct } from '#core/stores/share';
import type { Unit } from '#core/units/quantities';
import { Fig, FigRange, useListUnit } from '../../parts/Fig';
import { casesWords, moneyWords, NOT_PROVEN_WORDS, packWords } from '../../parts/words';
import type { JobLedger } from './useLedger';

/** Name, this zone, the job, what to buy; on a phone the name and the job over the other two. */
const COLUMNS = 'grid grid-cols-2 gap-x-3 @lg:grid-cols-[minmax(0,1fr)_7.5rem_6.5rem_12.5rem]';

/** What this zone takes and what the whole job then has to buy. */
export function LedgerPanel({
  quantities,
  job,
  boatId,
  sheetIdOf,
}: {
  /** Of this zone; null where they cannot be worked out. */
  quantities: BuildUpQuantities | null;
  job: JobLedger;
  boatId: string;
  sheetIdOf: (revisionId: string) => string | undefined;
}) {
  const unit = useListUnit([
    ...(quantities?.products ?? []).map((z) => z.litres.likely),
    ...job.ledger.products.map((p) => p.wantL),
  ]);
  if (!quantities || quantities.products.length === 0) return null;
  const { products } = job.ledger;
  return (
    <section aria-labelledby="ledger" className="@container">
      <div className="ruled flex flex-wrap items-baseline gap-x-4 pb-1">
        <h2 id="ledger" className="mr-auto">
          Litres and packs
        </h2>
        <Link
          to={`/boats/${boatId}/film/buy`}
          className="narrow link-row gap-1.5 text-lg underline decoration-1 underline-offset-4 lg:min-h-8"
        >
          <ShoppingCart size={17} aria-hidden="true" /> Shopping list
        </Link>
      </div>
      <div role="table" aria-label="Litres by product">
        <div role="row" className={`${COLUMNS} lab @max-lg:hidden`}>
          {['Product', 'this zone', 'job still needs', 'to buy'].map((column, i) => (
            <span key={column} role="columnheader" className={`py-1 ${i > 0 ? 'text-right' : ''}`}>
              {column}
            </span>
          ))}
        </div>
        {quantities.products.map((zone) => (
          <ProductRow
            key={zone.sheetRevisionId}
            zone={zone}
            product={products.find((p) => p.sheetId === sheetIdOf(zone.sheetRevisionId))}
            job={job}
            unit={unit}
          />
        ))}
      </div>
      <FilmAndMoney
        total={quantities.total}
        money={job.shelfKnown ? moneyWords(packsMinor(products), job.currency) : '…'}
      />
      <p className="text-sm quiet">
        Packs are enough in {casesWords(job.chance)}, with the shelf used first; litres of coats that are on are no
        longer counted in.
        {products.some((p) => p.purchase?.provenLeast === false) && ` ${NOT_PROVEN_WORDS}`}
      </p>
    </section>
  );
}

function FilmAndMoney({ total, money }: { total: BuildUpQuantities['total']; money: string }) {
  return (
    <p className="flex flex-wrap items-baseline justify-between gap-x-5 border-t-2 border-base-content pt-1 @lg:h-9 @lg:flex-nowrap">
      <span className="min-w-0">
        Film <Fig quantity="film" value={total.dftMicron} className="text-xl" />
        {total.dftMicron - total.keptMicron > 0.5 && (
          <>
            , of which <Fig quantity="film" value={total.keptMicron} /> stays after abrading
          </>
        )}
      </span>
      <span className="ml-auto min-w-0">
        job’s packs <span className="fig text-xl">{money}</span>
      </span>
    </p>
  );
}

/** A row of its own where there is room for it; on a phone many packs take the lines they need. */
function ProductRow({
  zone,
  product,
  job,
  unit,
}: {
  zone: BuildUpQuantities['products'][number];
  product: JobProduct | undefined;
  job: JobLedger;
  unit: Unit;
}) {
  const { name, litres } = zone;
  return (
    <div
      role="row"
      data-product={name}
      className={`${COLUMNS} border-t border-base-300 py-1 leading-tight @lg:h-18 @lg:grid-rows-[auto_1fr]`}
    >
      <span role="rowheader" className="line-clamp-2 self-start @lg:row-span-2" title={name}>
        {name}
      </span>
      <Cell label="this zone" className="@max-lg:order-1 @max-lg:text-left @lg:row-span-2">
        <Fig quantity="volume" value={litres.likely} approx unit={unit} className="text-lg" />
        <span className="narrow quiet block text-sm whitespace-nowrap">
          <FigRange quantity="volume" low={litres.low} high={litres.high} unit={unit} />
        </span>
      </Cell>
      <Cell label="job still needs">
        {product ? <Fig quantity="volume" value={product.wantL} unit={unit} /> : <span className="quiet">nothing</span>}
      </Cell>
      <Cell label="to buy" className="@max-lg:order-2 @lg:contents">
        <span className="fig @lg:text-right">{costOf(product, job)}</span>
        <PackLines packs={packsOf(product, job)} className="@lg:col-span-2 @lg:text-right" />
      </Cell>
    </div>
  );
}

function packsOf(product: JobProduct | undefined, { shelfKnown }: JobLedger): string {
  if (!shelfKnown) return '…';
  if (!product) return '·';
  const packs = product.purchase?.packs;
  return !packs ? 'no pack on the sheet covers it' : packs.length === 0 ? 'on the shelf' : packWords(packs);
}

function costOf(product: JobProduct | undefined, { shelfKnown, currency }: JobLedger): string {
  const purchase = product?.purchase;
  return shelfKnown && purchase && purchase.packs.length > 0 && purchase.costMinor !== null
    ? moneyWords(purchase.costMinor, currency)
    : '';
}

/** Packs that may be many: two lines of them where there is room for a row of its own, all on a phone; whole as its title. */
export function PackLines({ packs, className }: { packs: string; className: string }) {
  return (
    <span className={`narrow block min-w-0 px-0.5 leading-tight @lg:line-clamp-2 ${className}`} title={packs}>
      {packs}
    </span>
  );
}

function Cell({ label, className = '', children }: { label: string; className?: string; children: ReactNode }) {
  return (
    <div role="cell" className={`min-w-0 text-right ${className}`}>
      <span className="lab mr-1 @lg:hidden">{label}</span>
      {children}
    </div>
  );
}
