import { useMemo } from 'react';
import type { Layer } from '#core/model/layer';
import { ledger as jobLedger, type Ledger } from '#core/system/ledger';
import { USUAL_CHOICES, type JobChoices } from '#core/system/schools';
import { USUAL_RULES } from '#contracts/rows/stores';
import { useSheets, useStores, type BoatView } from '../../data/store';
import { shelfOf, type SheetOf } from './planned';

export function useSheetOf(): SheetOf {
  const { data } = useSheets();
  return useMemo(() => {
    const bodies = new Map(data?.map((s) => [s.id, s.current.body]));
    return (sheetId) => bodies.get(sheetId);
  }, [data]);
}

export interface JobLedger {
  readonly ledger: Ledger;
  /** Whether the shelf has answered, or cannot be asked: until then nothing of it is taken off what is to be bought. */
  readonly shelfKnown: boolean;
  readonly chance: number;
  readonly currency: string;
  readonly choices: JobChoices;
}

/** A job before its ledger is drawn up: `ledgerOf` does, with the build-ups of some zones as they are being changed. */
interface Job extends Omit<JobLedger, 'ledger'> {
  readonly ledgerOf: (drafts?: ReadonlyMap<string, readonly Layer[]>) => Ledger;
}

/** What a ledger rests on but for the drafts: neither the shelf nor the zones change while a film is dragged. */
function useJob(view: BoatView): Job {
  const { stores, error } = useStores();
  const sheetOf = useSheetOf();
  const { boat, surfaces, buildUps, coats, sheetById, jobs } = view;
  const { chance, currency } = stores?.rules ?? USUAL_RULES;
  const onHand = useMemo(
    () => (stores ? shelfOf(stores, sheetOf).shared.callable.get(boat.id) : undefined),
    [stores, sheetOf, boat.id],
  );
  const zones = useMemo(
    () =>
      surfaces.map((surface) => {
        const row = buildUps.find((b) => b.surfaceId === surface.id);
        return {
          surface,
          layers: row?.layers ?? [],
          targetMicron: row?.targetMicron ?? null,
          records: row?.records ?? [],
        };
      }),
    [surfaces, buildUps],
  );
  const shelfKnown = onHand !== undefined || error !== null;
  const job = jobs[jobs.length - 1];
  return useMemo(
    () => ({
      ledgerOf: (drafts) =>
        jobLedger({
          zones: drafts ? zones.map((z) => ({ ...z, layers: drafts.get(z.surface.id) ?? z.layers })) : zones,
          coats,
          revisionById: sheetById,
          waters: boat.waters,
          sheetOf,
          onHandOf: (id) => onHand?.get(id) ?? [],
          chance,
        }),
      shelfKnown,
      chance,
      currency,
      choices: job?.choices ?? USUAL_CHOICES,
    }),
    [zones, coats, sheetById, boat.waters, sheetOf, onHand, chance, currency, shelfKnown, job],
  );
}

/** The job's ledger, with the build-ups of some zones as they are being changed. */
export function useJobLedger(view: BoatView, drafts?: ReadonlyMap<string, readonly Layer[]>): JobLedger {
  const job = useJob(view);
  return useMemo(() => ({ ...job, ledger: job.ledgerOf(drafts) }), [job, drafts]);
}
