import type { ZoneStatus } from '#core/coat/zoneStatus';
import type { BoatView } from './store';

/** Zones whose next coat is of one product: they can be mixed for and painted in one stint. */
export interface Stint {
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
        sheetId: revision.sheetId,
        sheetRevisionId: revision.id,
        name: revision.body.name,
        zones: [status],
      });
  }
  return [...groups.values()];
}

/** The stint that a list of zone ids (from an address) means: that of its first known zone. */
export function stintFor(
  stints: readonly Stint[],
  ids: readonly string[],
): { stint: Stint; chosen: ZoneStatus[] } | null {
  const stint = stints.find((s) => s.zones.some((z) => ids.includes(z.surfaceId))) ?? stints[0];
  if (!stint) return null;
  const chosen = stint.zones.filter((z) => ids.includes(z.surfaceId));
  return { stint, chosen: chosen.length > 0 ? chosen : stint.zones.slice(0, 1) };
}
