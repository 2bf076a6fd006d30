import { useState } from 'react';
import { v7 as uuid } from 'uuid';
import { weatherAt } from '#core/air/weather';
import type { ZoneStatus } from '#core/coat/zoneStatus';
import { areaLeftM2, batchToMix, type BatchToMix, type MixWish } from '#core/mix/batchToMix';
import type { Layer } from '#core/model/layer';
import type { SheetBody } from '#core/model/sheet';
import type { SurfaceRow } from '#contracts/rows/boat';
import { useDraft } from '../../data/drafts';
import { logEntry } from '../../data/store';
import type { BoatView } from '../../data/store';
import type { Stint } from '../../data/targets';
import { attempt } from '../../parts/attempt';

export interface MixProps {
  view: BoatView;
  stints: readonly Stint[];
  stint: Stint;
  chosen: readonly ZoneStatus[];
  /** Other zones by their ids, at least one. */
  onPick: (ids: string[]) => void;
}

/** What was typed of a batch; the rest is as it is worked out. */
interface Typed {
  readonly amounts: Readonly<Record<string, Pick<Partial<MixWish>, 'by' | 'areaM2' | 'litres' | 'massKg'>>>;
  readonly thinner?: number | null;
  readonly potC?: number | null;
  readonly diameterM?: number | null;
}

/** A pot that stands in most sheds, m across. */
const USUAL_POT_M = 0.18;

export interface Mix extends BatchToMix {
  readonly sheet: SheetBody;
  readonly first: ZoneStatus;
  readonly layer: Layer;
  readonly chosen: readonly ZoneStatus[];
  readonly zoneOf: (surfaceId: string) => SurfaceRow;
  readonly wish: MixWish;
  readonly set: (change: Partial<MixWish>) => void;
  readonly airNowC: number;
  readonly diameterM: number | null;
  readonly setDiameter: (m: number | null) => void;
  /** Id of the batch once it is mixed; null before. */
  readonly mixedId: string | null;
  /** Mixed already for the coat that is going on, litres without thinner; 0 for one to come. */
  readonly mixedForL: number;
  readonly again: () => void;
  readonly mixIt: () => void;
}

/** What is wished for of a batch, and what comes of it. */
export function useMix({ view, stint, chosen }: MixProps): Mix {
  const { boat, surfaces, at, hours } = view;
  const first = chosen[0] as ZoneStatus;
  const sheet = first.nextSheet as SheetBody;
  const layer = first.nextLayer as Layer;
  const airNowC = weatherAt(hours, at)?.airC ?? 20;
  const zoneOf = (id: string) => surfaces.find((s) => s.id === id) as SurfaceRow;
  const zones = chosen.map((z) => ({ areaM2: zoneOf(z.surfaceId).areaM2, layer: z.nextLayer ?? layer }));
  const mixedForL = stint.coat ? stint.coat.batches.reduce((sum, b) => sum + b.unthinnedL, 0) : 0;
  const areaM2 = attempt(() => areaLeftM2({ sheet, zones, mixedForL })).value;
  const potC = Math.round(airNowC * 10) / 10;
  const { wish, set, typed, setTyped, forget } = useWish(`mix/${boat.id}/${stint.key}`, chosen, {
    by: 'area',
    areaM2,
    litres: null,
    thinner: layer.thinnerShare,
    potC,
  });
  const diameterM = typed.diameterM === undefined ? USUAL_POT_M : typed.diameterM;
  const [mixed, setMixed] = useState<{ id: string; made: BatchToMix } | null>(null);
  const fresh = batchToMix({ sheet, zones, method: layer.method, wish });
  // What was poured is what was logged, whatever is typed or sent meanwhile.
  const made = mixed?.made ?? fresh;
  const mixIt = () => {
    const { batch, pot } = made;
    if (!batch) return;
    const id = uuid();
    setMixed({ id, made });
    forget();
    const body = {
      sheetRevisionId: stint.sheetRevisionId,
      on: chosen.map((z) => ({ surfaceId: z.surfaceId, layerId: z.nextLayer?.id ?? layer.id })),
      parts: batch.parts,
      thinnerL: batch.thinnerL,
      totalL: batch.totalL,
      standMin: sheet.inductionMin ?? 0,
      potLifeH: pot?.hours ?? null,
      potTempC: wish.potC,
    };
    void logEntry({ boatId: boat.id, stream: 'batch', streamId: id, kind: 'mixed', body }, 'Batch mixed');
    // It belongs to the coat that is going on.
    if (stint.coat)
      void logEntry(
        {
          boatId: boat.id,
          stream: 'coat',
          streamId: stint.coat.id,
          kind: 'batchOn',
          body: { batchId: id, litres: batch.totalL },
        },
        'Batch on',
        { quiet: true },
      );
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
    airNowC,
    diameterM,
    setDiameter: (diameterM) => setTyped({ diameterM }),
    mixedId: mixed?.id ?? null,
    mixedForL,
    again: () => {
      setTyped({ amounts: {} });
      setMixed(null);
    },
    mixIt,
  };
}

/** What is wished for: as it was typed, the rest as it is worked out. */
function useWish(key: string, chosen: readonly ZoneStatus[], usual: MixWish) {
  // What was typed of the amount is for the zones it was typed for; thinner, pot and temperature stay as they are.
  const zonesKey = chosen.map((z) => z.surfaceId).join();
  const [typed, setTyped, forget] = useDraft<Typed>(key, () => ({ amounts: {} }));
  const wish: MixWish = {
    ...usual,
    ...(typed.thinner === undefined ? {} : { thinner: typed.thinner }),
    ...(typed.potC === undefined ? {} : { potC: typed.potC }),
    ...typed.amounts[zonesKey],
  };
  const set = ({ thinner, potC, ...amount }: Partial<MixWish>) =>
    setTyped({
      ...(thinner === undefined ? {} : { thinner }),
      ...(potC === undefined ? {} : { potC }),
      ...(Object.keys(amount).length > 0
        ? { amounts: { ...typed.amounts, [zonesKey]: { ...typed.amounts[zonesKey], ...amount } } }
        : {}),
    });
  return { wish, set, typed, setTyped, forget };
}
