import { ShoppingCart } from 'lucide-react';
import { memo, type ReactNode } from 'react';
import { Link } from 'react-router';
import type { BuildUpQuantities } from '#core/system/quantities';
import { packsMinor } from '#core/stores/money';
import { Fig } from '../../parts/Fig';
import { casesWords, moneyWords, packWords } from '../../parts/words';
import type { JobLedger } from './useLedger';

/** Name, this zone, the job, what to buy; on a phone the name and the job over the other two. */
const COLUMNS = 'grid grid-cols-2 gap-x-3 sm:grid-cols-[minmax(0,1fr)_7.5rem_6.5rem_12.5rem]';

/** What this zone takes and what the whole job then has to buy; it follows the film while that is dragged and is drawn apart from what rests then. */
export function LedgerPanel({ quantities, job, boatId, sheetIdOf }: { quantities: BuildUpQuantities | null; job: JobLedger; boatId: string; sheetIdOf: (revisionId: string) => string | undefined }) {
  if (!quantities || quantities.layers.length === 0) return null;
  const { total } = quantities;
  const lost = total.dftMicron - total.keptMicron;
  return (
    <section aria-labelledby="ledger" className="apart">
      <Heading boatId={boatId} />
      <div role="table" aria-label="Litres by product">
        <div role="row" className={`${COLUMNS} lab max-sm:hidden`}>
          {['Product', 'this zone', 'job still needs', 'to buy'].map((column, i) => (
            <span key={column} role="columnheader" className={`py-1 ${i > 0 ? 'text-right' : ''}`}>
              {column}
            </span>
          ))}
        </div>
        {quantities.products.map((p) => {
          const whole = job.ledger.products.find((x) => x.sheetId === sheetIdOf(p.sheetRevisionId));
          const packs = whole?.purchase?.packs ?? null;
          const cost = whole?.purchase?.costMinor ?? null;
          return (
            <ProductRow
              key={p.sheetRevisionId}
              name={p.name}
              low={p.litres.low}
              likely={p.litres.likely}
              high={p.litres.high}
              wantL={whole ? whole.wantL : null}
              packs={!job.shelfKnown ? '…' : !whole ? '·' : packs === null ? 'no pack on the sheet covers it' : packs.length === 0 ? 'on the shelf' : packWords(packs)}
              cost={job.shelfKnown && packs && packs.length > 0 && cost !== null ? moneyWords(cost, job.currency) : null}
            />
          );
        })}
      </div>
      <p className="flex flex-wrap items-baseline justify-between gap-x-5 border-t-2 border-base-content pt-1 sm:h-9 sm:flex-nowrap sm:overflow-hidden sm:[contain:strict]">
        <span>
          Film <Fig quantity="film" value={total.dftMicron} className="text-xl" />
          {lost > 0.5 && (
            <>
              , of which <Fig quantity="film" value={total.keptMicron} /> stays after abrading
            </>
          )}
        </span>
        <span className="ml-auto">
          job’s packs <span className="fig text-xl">{job.shelfKnown ? moneyWords(packsMinor(job.ledger.products), job.currency) : '…'}</span>
        </span>
      </p>
      <p className="text-sm quiet">Packs are enough in {casesWords(job.chance)}, with the shelf used first; litres of coats that are on are no longer counted in.</p>
    </section>
  );
}

const Heading = memo(function Heading({ boatId }: { boatId: string }) {
  return (
    <div className="ruled flex flex-wrap items-baseline gap-x-4 pb-1">
      <h2 id="ledger" className="mr-auto">
        Litres and packs
      </h2>
      <Link to={`/boats/${boatId}/film/buy`} className="narrow link-row gap-1.5 text-lg underline decoration-1 underline-offset-4 lg:min-h-8">
        <ShoppingCart size={17} aria-hidden="true" /> Shopping list
      </Link>
    </div>
  );
});

/** A row of its own where there is room for it; on a phone many packs take the lines they need. */
const ProductRow = memo(function ProductRow({ name, low, likely, high, wantL, packs, cost }: { name: string; low: number; likely: number; high: number; wantL: number | null; packs: string; cost: string | null }) {
  return (
    <div role="row" data-product={name} className={`${COLUMNS} border-t border-base-300 py-1 leading-tight sm:h-[4.25rem] sm:[contain:strict]`}>
      <span role="rowheader" className="line-clamp-2 self-start" title={name}>
        {name}
      </span>
      <Cell label="this zone" className="max-sm:order-1 max-sm:text-left">
        <Fig quantity="volume" value={likely} approx className="text-lg" />
        <span className="narrow quiet block text-sm whitespace-nowrap">
          <Fig quantity="volume" value={low} /> to <Fig quantity="volume" value={high} />
        </span>
      </Cell>
      <Cell label="job still needs">{wantL === null ? <span className="quiet">nothing</span> : <Fig quantity="volume" value={wantL} />}</Cell>
      <Cell label="to buy" className="max-sm:order-2">
        <span className="narrow sm:line-clamp-2" title={packs}>
          {packs}
        </span>
        {cost !== null && <span className="fig block">{cost}</span>}
      </Cell>
    </div>
  );
});

function Cell({ label, className = '', children }: { label: string; className?: string; children: ReactNode }) {
  return (
    <div role="cell" className={`min-w-0 text-right ${className}`}>
      <span className="lab mr-1 sm:hidden">{label}</span>
      {children}
    </div>
  );
}
