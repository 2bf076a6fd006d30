import { useMemo } from 'react';
import { consumablesFor, type ConsumableNeed } from '#core/stores/consumables';
import { shoppingLists, type SupplierList } from '#core/stores/list';
import { jobMoney, type JobMoney } from '#core/stores/money';
import { workOf } from '#core/stores/needs';
import { prepWork, type PrepWork } from '#core/prep/prepWork';
import { thinnerOnShelf, thinnersToBuy } from '#core/stores/thinners';
import { USUAL_RULES } from '#contracts/rows/stores';
import { useStores, type BoatView } from '../../data/store';
import { tinsNow } from '../../data/tins';
import { daysTo } from '../../parts/words';
import { maskingOf } from '../prep/useMasking';
import { listOf } from '../prep/usePrep';
import { useJobLedger, useSheetOf, type JobLedger } from '../film/useLedger';

export interface Shopping {
  readonly job: JobLedger;
  readonly consumables: readonly ConsumableNeed[];
  readonly lists: readonly SupplierList[];
  readonly money: JobMoney;
  /** Days on the hard that are paid for this haul-out; to today where no launch is fixed. */
  readonly yardDays: number;
}

/** Everything a job still has to buy, and what it costs. */
export function useShopping(view: BoatView): Shopping {
  const job = useJobLedger(view);
  const { stores } = useStores();
  const { boat, jobs, at } = view;
  const ready = useMemo(() => gettingReady(view), [view]);
  const haul = jobs[jobs.length - 1];
  const sheetOf = useSheetOf();
  const tins = useMemo(() => (stores ? tinsNow(stores, sheetOf) : []), [stores, sheetOf]);
  return useMemo(() => {
    const { needs, products } = job.ledger;
    const daysLeft = haul?.inOn ? Math.max(0, daysTo(haul.inOn, at, boat.timeZone)) : 0;
    const yardDays = haul
      ? Math.max(0, (haul.inOn ? daysTo(haul.inOn, at, boat.timeZone) : 0) - daysTo(haul.outOn, at, boat.timeZone))
      : 0;
    const consumables = consumablesFor({
      rules: stores?.rules.consumables ?? USUAL_RULES.consumables,
      work: workOf({ needs, ...ready, days: daysLeft }),
    });
    const thinners = thinnersToBuy({ products, onHandL: (name) => thinnerOnShelf(tins, name) });
    return {
      job,
      consumables,
      lists: shoppingLists({ products, thinners, consumables }),
      money: jobMoney({
        needs,
        products,
        thinners,
        consumables,
        yardDays,
        yardCostPerDayMinor: haul?.yardCostPerDayMinor ?? null,
      }),
      yardDays,
    };
  }, [job, stores, tins, ready, boat, haul, at]);
}

/** Edges to tape, and what the steps that are still to do take. */
function gettingReady(view: BoatView): { borderM: number; prep: PrepWork } {
  const { surfaces, statuses } = view;
  return {
    borderM: maskingOf(view).edges.reduce((sum, e) => sum + e.lengthM * e.tapings, 0),
    prep: prepWork(
      surfaces.flatMap((s) => {
        const list = listOf(view, s);
        const next = statuses.find((x) => x.surfaceId === s.id)?.nextLayer;
        return list && next ? [{ list, areaM2: s.areaM2, planned: next.prep === 'abrade' }] : [];
      }),
    ),
  };
}
