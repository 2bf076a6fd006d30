import { ShoppingCart } from 'lucide-react';
import { Link } from 'react-router';
import type { BuildUpQuantities } from '#core/system/quantities';
import { packsMinor } from '#core/stores/money';
import type { JobProduct } from '#core/stores/share';
import { Fig } from '../../parts/Fig';
import { casesWords, moneyWords, packWords } from '../../parts/words';
import type { JobLedger } from './useLedger';

/** What this zone takes and what the whole job then has to buy; it follows the film while that is dragged, and is drawn apart (`isolate`) from what rests then. */
export function LedgerPanel({ quantities, job, boatId, sheetIdOf }: { quantities: BuildUpQuantities | null; job: JobLedger; boatId: string; sheetIdOf: (revisionId: string) => string | undefined }) {
  if (!quantities || quantities.layers.length === 0) return null;
  const { total } = quantities;
  const cost = packsMinor(job.ledger.products);
  const lost = total.dftMicron - total.keptMicron;
  return (
    <section aria-labelledby="ledger" className="isolate">
      <div className="ruled flex flex-wrap items-baseline gap-x-4 pb-1">
        <h2 id="ledger" className="mr-auto">
          Litres and packs
        </h2>
        <Link to={`/boats/${boatId}/film/buy`} className="narrow link-row gap-1.5 text-lg underline decoration-1 underline-offset-4 lg:min-h-8">
          <ShoppingCart size={17} aria-hidden="true" /> Shopping list
        </Link>
      </div>
      <div className="overflow-x-auto" tabIndex={0} role="group" aria-label="Litres by product">
        <table className="w-full text-left">
          <thead>
            <tr className="lab">
              <th className="py-1 pr-3 font-medium">Product</th>
              <th className="px-2 text-right font-medium">this zone</th>
              <th className="px-2 text-right font-medium">job still needs</th>
              <th className="pl-2 text-right font-medium">to buy</th>
            </tr>
          </thead>
          <tbody>
            {quantities.products.map((p) => {
              const whole = job.ledger.products.find((x) => x.sheetId === sheetIdOf(p.sheetRevisionId));
              return (
                <tr key={p.sheetRevisionId} className="border-t border-base-300 align-baseline" data-product={p.name}>
                  <th scope="row" className="py-1 pr-3 font-normal leading-tight">
                    {p.name}
                  </th>
                  <td className="px-2 text-right">
                    <Fig quantity="volume" value={p.litres.likely} approx className="text-lg" />
                    <span className="narrow quiet block text-sm whitespace-nowrap">
                      <Fig quantity="volume" value={p.litres.low} /> to <Fig quantity="volume" value={p.litres.high} />
                    </span>
                  </td>
                  <td className="px-2 text-right">{whole ? <Fig quantity="volume" value={whole.wantL} /> : <span className="quiet">nothing</span>}</td>
                  <td className="pl-2 text-right">
                    {job.shelfKnown ? <Bought product={whole} currency={job.currency} /> : <span className="quiet">…</span>}
                  </td>
                </tr>
              );
            })}
          </tbody>
        </table>
      </div>
      <p className="flex flex-wrap items-baseline gap-x-5 border-t-2 border-base-content pt-1">
        <span>
          Film <Fig quantity="film" value={total.dftMicron} className="text-xl" />
          {lost > 0.5 && (
            <>
              , of which <Fig quantity="film" value={total.keptMicron} /> stays after abrading
            </>
          )}
        </span>
        <span className="ml-auto">
          job’s packs <span className="fig text-xl">{job.shelfKnown ? moneyWords(cost, job.currency) : '…'}</span>
        </span>
      </p>
      <p className="text-sm quiet">Packs are enough in {casesWords(job.chance)}, with the shelf used first; litres of coats that are on are no longer counted in.</p>
    </section>
  );
}

function Bought({ product, currency }: { product: JobProduct | undefined; currency: string }) {
  if (!product) return <span className="quiet">·</span>;
  const { purchase } = product;
  if (!purchase) return <span>no pack on the sheet covers it</span>;
  if (purchase.packs.length === 0) return <span className="quiet">on the shelf</span>;
  return (
    <>
      <span className="narrow whitespace-nowrap">{packWords(purchase.packs)}</span>
      {purchase.costMinor !== null && <span className="fig block">{moneyWords(purchase.costMinor, currency)}</span>}
    </>
  );
}
