import type { Coat } from '#core/coat/fold';
import type { ZoneStatus } from '#core/coat/zoneStatus';
import type { BoatView } from './store';

/** Zones whose next coat is of one product: they can be mixed for and painted in one stint. */
export interface Stint {
  /** The coat that is going on, or the product of the next one. */
  readonly key: string;
  /** The coat in hand that it is for; null for one to come. */
  readonly coat: Coat | null;
  readonly sheetId: string;
  readonly sheetRevisionId: string;
  readonly name: string;
  readonly zones: readonly ZoneStatus[];
}

export function stintsOf(view: BoatView): Stint[] {
  const groups = new Map<string, Stint & { zones: ZoneStatus[] }>();
  for (const status of view.statuses) {
    if (!status.nextLayer || status.state === 'inHand') continue;
    const revision = view.sheetById.get(status.nextLayer.sheetRevisionId);
    if (!revision) continue;
    const group = groups.get(revision.sheetId);
    if (group) group.zones.push(status);
    else
      groups.set(revision.sheetId, {
        key: revision.sheetId,
        coat: null,
        sheetId: revision.sheetId,
        sheetRevisionId: revision.id,
        name: revision.body.name,
        zones: [status],
      });
  }
  return [...groups.values()];
}

/**
 * Coats that are going on: what is mixed now is for them. Their zones stand as they did before the coat: it is what comes
 * next on them until it is finished.
 */
export function stintsInHand(view: BoatView): Stint[] {
  return view.coats.flatMap((coat): Stint[] => {
    const revision = view.sheetById.get(coat.sheetRevisionId);
    if (coat.finishedAt !== null || !revision) return [];
    const zones = coat.on.flatMap(({ surfaceId, layerId }): ZoneStatus[] => {
      const status = view.statuses.find((s) => s.surfaceId === surfaceId);
      const planned = view.buildUps.find((b) => b.surfaceId === surfaceId)?.layers.find((l) => l.id === layerId);
      if (!status || !planned) return [];
      const number = status.coats.filter((c) => c.sheetRevisionId === coat.sheetRevisionId).length;
      const nextLayer = { ...planned, sheetRevisionId: revision.id, dftMicron: coat.dftMicron, method: coat.method };
      return [{ ...status, nextLayer, nextSheet: revision.body, nextNumber: Math.max(1, number) }];
    });
    if (zones.length === 0) return [];
    const { sheetId, body } = revision;
    return [{ key: coat.id, coat, sheetId, sheetRevisionId: revision.id, name: body.name, zones }];
  });
}

/** The stint that a list of zone ids (from an address) means: that of its first known zone. */
export function stintFor(
  stints: readonly Stint[],
  ids: readonly string[],
): { stint: Stint; chosen: ZoneStatus[] } | null {
  const stint = stints.find((s) => s.zones.some((z) => ids.includes(z.surfaceId))) ?? stints[0];
  if (!stint) return null;
  const chosen = stint.zones.filter((z) => ids.includes(z.surfaceId));
  return { stint, chosen: chosen.length > 0 ? chosen : stint.coat ? [...stint.zones] : stint.zones.slice(0, 1) };
}
