import { computed, type ReadonlySignal } from '@preact/signals-core';
import { ShoppingCart } from 'lucide-react';
import { useMemo, type ReactNode } from 'react';
import { Link } from 'react-router';
import type { Ledger } from '#core/system/ledger';
import type { BuildUpQuantities } from '#core/system/quantities';
import { packsMinor } from '#core/stores/money';
import { LiveLines, LiveFig, LiveRange, LiveText, useLive } from '../../parts/live';
import { casesWords, moneyWords, packWords } from '../../parts/words';
import type { Job } from './useLedger';

/** Name, this zone, the job, what to buy; on a phone the name and the job over the other two. */
const COLUMNS = 'grid grid-cols-2 gap-x-3 sm:grid-cols-[minmax(0,1fr)_7.5rem_6.5rem_12.5rem]';

/** What this zone takes and what the whole job then has to buy; it follows the film while that is dragged and is drawn apart from what rests then. */
export function LedgerPanel({
  quantities,
  ledger,
  job,
  boatId,
  sheetIdOf,
}: {
  /** Of this zone; null where they cannot be worked out. */
  quantities: ReadonlySignal<BuildUpQuantities | null>;
  ledger: ReadonlySignal<Ledger>;
  job: Job;
  boatId: string;
  sheetIdOf: (revisionId: string) => string | undefined;
}) {
  const revisions = useLive(
    useMemo(() => computed(() => quantities.value?.products.map((p) => p.sheetRevisionId).join() ?? ''), [quantities]),
  );
  const abraded = useLive(useMemo(() => computed(() => lostMicron(quantities.value) > 0.5), [quantities]));
  if (revisions === '') return null;
  return (
    <section aria-labelledby="ledger" className="apart">
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
        <div role="row" className={`${COLUMNS} lab max-sm:hidden`}>
          {['Product', 'this zone', 'job still needs', 'to buy'].map((column, i) => (
            <span key={column} role="columnheader" className={`py-1 ${i > 0 ? 'text-right' : ''}`}>
              {column}
            </span>
          ))}
        </div>
        {revisions.split(',').map((id, i) => (
          <ProductRow
            key={id}
            zone={() => quantities.value?.products[i]}
            whole={() => ledger.value.products.find((x) => x.sheetId === sheetIdOf(id))}
            job={job}
          />
        ))}
      </div>
      <p className="flex flex-wrap items-baseline justify-between gap-x-5 border-t-2 border-base-content pt-1 sm:h-9 sm:flex-nowrap sm:box-of-its-own">
        <span className="min-w-0">
          Film <LiveFig quantity="film" of={() => quantities.value?.total.dftMicron ?? 0} className="text-xl" />
          {abraded && (
            <>
              , of which <LiveFig quantity="film" of={() => quantities.value?.total.keptMicron ?? 0} /> stays after
              abrading
            </>
          )}
        </span>
        <span className="ml-auto min-w-0">
          job’s packs{' '}
          <LiveText
            of={() => (job.shelfKnown ? moneyWords(packsMinor(ledger.value.products), job.currency) : '…')}
            className="fig text-xl"
          />
        </span>
      </p>
      <p className="text-sm quiet">
        Packs are enough in {casesWords(job.chance)}, with the shelf used first; litres of coats that are on are no
        longer counted in.
      </p>
    </section>
  );
}

function lostMicron(quantities: BuildUpQuantities | null): number {
  return quantities ? quantities.total.dftMicron - quantities.total.keptMicron : 0;
}

/** A row of its own where there is room for it; on a phone many packs take the lines they need. */
function ProductRow({
  zone,
  whole,
  job,
}: {
  zone: () => BuildUpQuantities['products'][number] | undefined;
  whole: () => Ledger['products'][number] | undefined;
  job: Job;
}) {
  const name = zone()?.name ?? '';
  // The ledger hands a product of which the same is wanted on as the same object: nothing of it is told anew then.
  const product = useMemo(() => computed(whole), [whole]);
  const wanted = useLive(useMemo(() => computed(() => product.value !== undefined), [product]));
  return (
    <div
      role="row"
      data-product={name}
      className={`${COLUMNS} border-t border-base-300 py-1 leading-tight sm:box-of-its-own sm:h-18 sm:grid-rows-[auto_1fr]`}
    >
      <span role="rowheader" className="line-clamp-2 overflow-clip self-start sm:row-span-2" title={name}>
        {name}
      </span>
      <Cell label="this zone" className="max-sm:order-1 max-sm:text-left sm:row-span-2">
        <LiveFig quantity="volume" of={() => zone()?.litres.likely ?? 0} approx className="text-lg" />
        <span className="narrow quiet block text-sm whitespace-nowrap">
          <LiveRange quantity="volume" low={() => zone()?.litres.low ?? 0} high={() => zone()?.litres.high ?? 0} />
        </span>
      </Cell>
      <Cell label="job still needs">
        {wanted ? (
          <LiveFig quantity="volume" of={() => product.value?.wantL ?? 0} />
        ) : (
          <span className="quiet">nothing</span>
        )}
      </Cell>
      <Cell label="to buy" className="max-sm:order-2 sm:contents">
        <LiveText of={() => costTold(product.value, job)} className="fig sm:text-right" />
        <LiveLines of={() => packsTold(product.value, job)} className="narrow sm:col-span-2 sm:text-right" />
      </Cell>
    </div>
  );
}

function packsTold(product: Ledger['products'][number] | undefined, { shelfKnown }: Job): string {
  if (!shelfKnown) return '…';
  if (!product) return '·';
  const packs = product.purchase?.packs;
  return !packs ? 'no pack on the sheet covers it' : packs.length === 0 ? 'on the shelf' : packWords(packs);
}

function costTold(product: Ledger['products'][number] | undefined, { shelfKnown, currency }: Job): string {
  const purchase = product?.purchase;
  return shelfKnown && purchase && purchase.packs.length > 0 && purchase.costMinor !== null
    ? moneyWords(purchase.costMinor, currency)
    : '';
}

function Cell({ label, className = '', children }: { label: string; className?: string; children: ReactNode }) {
  return (
    <div role="cell" className={`min-w-0 text-right ${className}`}>
      <span className="lab mr-1 sm:hidden">{label}</span>
      {children}
    </div>
  );
}
