import { useMemo } from 'react';
import { maskJobs, type MaskEdge, type MaskThing } from '#core/prep/masking';
import { boatStillMasked } from '#core/prep/stillMasked';
import { foldPrep } from '#core/prep/prepLog';
import { bandOf, linesOf } from '../../parts/hullLines';
import type { BoatView } from '../../data/store';

/** Edges and things of a boat that are masked, each with whether it is on now, and since when. */
export function useMasking(view: BoatView) {
  return useMemo(() => maskingOf(view), [view]);
}

export function maskingOf(view: BoatView) {
  const { surfaces, borders, boat, hull, buildUps, statuses, entries, sheetById } = view;
  const toCome = (id: string) => {
    const layers = buildUps.find((b) => b.surfaceId === id)?.layers ?? [];
    const next = statuses.find((s) => s.surfaceId === id)?.nextLayer;
    const from = next ? layers.findIndex((l) => l.id === next.id) : layers.length;
    return layers.slice(Math.max(0, from)).flatMap((l) => {
      const sheet = sheetById.get(l.sheetRevisionId)?.body;
      return sheet ? [{ ...l, sheet }] : [];
    });
  };
  const { edges, things } = maskJobs({
    surfaces,
    borders,
    boat,
    lines: linesOf(hull),
    bandM: bandOf(surfaces),
    toCome,
    sun: boat.shelter === 'open',
  });
  const logs = foldPrep(entries);
  const on = (zones: readonly string[], job: string) =>
    zones.flatMap((z) => (logs.get(z)?.masked ?? []).filter((m) => m.job === job).map((m) => ({ ...m, zone: z })))[0] ??
    null;
  const known = new Set([...edges, ...things].map((k) => k.job));
  return {
    // Masked once, and no longer an edge or a thing of hers: it has to come off all the same.
    others: [...logs].flatMap(([zone, log]) =>
      log.masked.filter((m) => !known.has(m.job) && surfaces.some((s) => s.id === zone)).map((m) => ({ ...m, zone })),
    ),
    edges: edges.map((e) => ({ ...e, on: on([e.lowerId, e.upperId], e.job) })),
    things: things.map((t) => ({
      ...t,
      on: on([t.surfaceId], t.job),
      clearAt: logs.get(t.surfaceId)?.unmaskedAt.get(t.job) ?? null,
    })),
    still: boatStillMasked(view),
  };
}

export type EdgeOn = ReturnType<typeof maskingOf>['edges'][number] & MaskEdge;
export type ThingOn = ReturnType<typeof maskingOf>['things'][number] & MaskThing;
