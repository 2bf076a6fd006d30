import { useState } from 'react';
import { v7 as uuid } from 'uuid';
import { weatherAt } from '#core/air/weather';
import type { ZoneStatus } from '#core/coat/zoneStatus';
import { coatProgress } from '#core/coat/progress';
import { areaLeftM2, batchToMix, type BatchToMix, type MixWish } from '#core/mix/batchToMix';
import type { Kit } from '#core/model/kit';
import type { Layer } from '#core/model/layer';
import type { Measure, MixedBody } from '#core/model/log';
import type { SheetBody } from '#core/model/sheet';
import { forUse } from '#core/sheet/useRatio';
import type { LotState } from '#core/stores/lots';
import type { SurfaceRow } from '#contracts/rows/boat';
import { useDraft } from '../../data/drafts';
import { useSettings } from '../../data/settings';
import { logEntry } from '../../data/store';
import type { BoatView } from '../../data/store';
import type { Stint } from '../../data/targets';
import { attempt } from '../../parts/attempt';
import { pouredOf, type Pouring } from './pouring';
import { AGAIN, type Amount, type Typed } from './typed';
import { mixableL, useShelf } from './useShelf';

export interface MixProps {
  view: BoatView;
  stints: readonly Stint[];
  stint: Stint;
  chosen: readonly ZoneStatus[];
  /** Other zones by their ids, at least one. */
  onPick: (ids: string[]) => void;
  /** Wanted, as it was worked out elsewhere, L; null: by the area. */
  litres: number | null;
}

export interface Mix extends BatchToMix {
  readonly sheet: SheetBody;
  readonly first: ZoneStatus;
  readonly layer: Layer;
  readonly chosen: readonly ZoneStatus[];
  readonly zoneOf: (surfaceId: string) => SurfaceRow;
  readonly wish: MixWish;
  readonly set: (change: Partial<MixWish>) => void;
  readonly typed: Typed;
  readonly setTyped: (change: Partial<Typed>) => void;
  readonly airNowC: number;
  readonly measure: Measure;
  readonly kit: Kit;
  /** Tins of the product and its thinner as they are now; null until the shelf has answered. */
  readonly tins: readonly LotState[] | null;
  readonly pouring: Pouring | null;
  /** What it really takes, litres a m², as far as the coat tells; null where it does not yet. */
  readonly realLPerM2: number | null;
  /** Id of the batch once it is mixed; null before. */
  readonly mixedId: string | null;
  /** Mixed already for the coat that is going on, litres without thinner; 0 for one to come. */
  readonly mixedForL: number;
  readonly again: () => void;
  readonly mixIt: () => void;
}

/** What is wished for of a batch, and what comes of it. */
export function useMix({ view, stint, chosen, litres }: MixProps): Mix {
  const { boat, surfaces, at, hours } = view;
  const first = chosen[0] as ZoneStatus;
  const sheet = first.nextSheet as SheetBody;
  const layer = first.nextLayer as Layer;
  const airNowC = weatherAt(hours, at)?.airC ?? 20;
  const zoneOf = (id: string) => surfaces.find((s) => s.id === id) as SurfaceRow;
  const zones = chosen.map((z) => ({ areaM2: zoneOf(z.surfaceId).areaM2, layer: z.nextLayer ?? layer }));
  const { measure } = useSettings();
  const shelf = useShelf(stint.sheetId, sheet, layer.method);
  const mixedForL = stint.coat ? stint.coat.batches.reduce((sum, b) => sum + b.unthinnedL, 0) : 0;
  const progress = stint.coat
    ? progressOf(stint.coat, chosen, { zoneOf, now: at, rateM2PerH: shelf.rateM2PerH })
    : null;
  const areaM2 = progress?.told
    ? Math.round(progress.leftM2 * 10) / 10
    : attempt(() => areaLeftM2({ sheet, zones, mixedForL })).value;
  const usual: MixWish = {
    by: litres === null ? 'area' : 'litres',
    areaM2,
    litres,
    thinner: layer.thinnerShare,
    potC: Math.round(airNowC * 10) / 10,
    painters: stint.coat?.stints[stint.coat.stints.length - 1]?.painters.length ?? 1,
    rateM2PerH: progress?.realRateM2PerH ?? shelf.rateM2PerH,
  };
  const { wish: wished, set, typed, setTyped, forget } = useWish(`mix/${boat.id}/${stint.key}`, chosen, usual);
  const cansL = attempt(() => mixableL(forUse(sheet, wished.use), shelf.haveL)).value;
  const wish: MixWish = { ...wished, cansL };
  const [mixed, setMixed] = useState<{ id: string; made: BatchToMix; pouring: Pouring } | null>(null);
  const fresh = batchToMix({ sheet, zones, method: layer.method, wish });
  // What was poured is what was logged, whatever is typed or sent meanwhile.
  const made = mixed?.made ?? fresh;
  const pouring =
    mixed?.pouring ??
    (made.batch
      ? pouredOf({ sheet, made, typed, wish, measure, kit: shelf.kit, tins: shelf.tins, sheetId: stint.sheetId })
      : null);
  const mixIt = () => {
    if (!pouring) return;
    const id = uuid();
    setMixed({ id, made, pouring });
    forget();
    logBatch({ view, stint, chosen, id, body: { ...pouring.body, on: targetsOf(chosen, layer) } });
  };
  return {
    ...made,
    sheet,
    first,
    layer,
    chosen,
    zoneOf,
    wish,
    set,
    typed,
    setTyped,
    airNowC,
    measure,
    kit: shelf.kit,
    tins: shelf.tins,
    pouring,
    realLPerM2: progress?.told && progress.doneM2 > 0 && mixedForL > 0 ? mixedForL / progress.doneM2 : null,
    mixedId: mixed?.id ?? null,
    mixedForL,
    again: () => {
      setTyped(AGAIN);
      setMixed(null);
    },
    mixIt,
  };
}

function progressOf(
  coat: NonNullable<Stint['coat']>,
  chosen: readonly ZoneStatus[],
  on: { zoneOf: (id: string) => SurfaceRow; now: number; rateM2PerH: number },
) {
  return coatProgress({
    coat,
    zones: chosen.map((z) => ({ surfaceId: z.surfaceId, areaM2: on.zoneOf(z.surfaceId).areaM2 })),
    rateM2PerH: on.rateM2PerH,
    now: on.now,
  });
}

const targetsOf = (chosen: readonly ZoneStatus[], layer: Layer) =>
  chosen.map((z) => ({ surfaceId: z.surfaceId, layerId: z.nextLayer?.id ?? layer.id }));

/** Log a batch, and that it belongs to the coat that is going on. */
function logBatch({
  view,
  stint,
  id,
  body,
}: Pick<MixProps, 'view' | 'stint' | 'chosen'> & { id: string; body: Omit<MixedBody, 'sheetRevisionId'> }): void {
  const boatId = view.boat.id;
  void logEntry(
    {
      boatId,
      stream: 'batch',
      streamId: id,
      kind: 'mixed',
      body: { ...body, sheetRevisionId: stint.sheetRevisionId },
    },
    'Batch mixed',
  );
  if (!stint.coat) return;
  void logEntry(
    { boatId, stream: 'coat', streamId: stint.coat.id, kind: 'batchOn', body: { batchId: id, litres: body.totalL } },
    'Batch on',
    { quiet: true },
  );
}

/** What is wished for: as it was typed, the rest as it is worked out. */
function useWish(key: string, chosen: readonly ZoneStatus[], usual: MixWish) {
  // What was typed of the amount is for the zones it was typed for; thinner, pot and temperature stay as they are.
  const zonesKey = chosen.map((z) => z.surfaceId).join();
  const [typed, setTyped, forget] = useDraft<Typed>(key, () => ({ amounts: {} }));
  const { use, additives, painters, rateM2PerH, litresPerM2, limitL, thinner, potC } = typed;
  const said = Object.fromEntries(
    Object.entries({ use, additives, painters, rateM2PerH, litresPerM2, limitL, thinner, potC }).filter(
      ([, value]) => value !== undefined,
    ),
  ) as Partial<MixWish>;
  const wish: MixWish = { ...usual, ...said, ...typed.amounts[zonesKey] };
  const set = ({ by, areaM2, litres, massKg, ...terms }: Partial<MixWish>) => {
    const amount = Object.fromEntries(
      Object.entries({ by, areaM2, litres, massKg }).filter(([, value]) => value !== undefined),
    ) as Amount;
    setTyped({
      ...(terms as Partial<Typed>),
      ...(Object.keys(amount).length > 0
        ? { amounts: { ...typed.amounts, [zonesKey]: { ...typed.amounts[zonesKey], ...amount } } }
        : {}),
    });
  };
  return { wish, set, typed, setTyped, forget };
}
