import { useMemo } from 'react';
import type { PrepList } from '#core/prep/prepSteps';
import { planFor, prepOf } from '#core/prep/prepLog';
import { zonePrep } from '#core/prep/zonePrep';
import type { LogEntry } from '#core/model/log';
import type { PrepPlanBody } from '#core/model/prep';
import type { SurfaceRow } from '#contracts/rows/boat';
import { now } from '../../data/now';
import { save, saveAll, signed, type BoatView, type EntryDraft } from '../../data/store';

/** A later moment than this has not come yet; clocks of devices are a little off. */
const AHEAD_MS = 5 * 60_000;

/** The list of one zone, worked out from the boat as she is shown. */
export function listOf(view: BoatView, surface: SurfaceRow): PrepList | null {
  const status = view.statuses.find((s) => s.surfaceId === surface.id);
  return status ? zonePrep({ ...view, shelter: view.boat.shelter, now: view.at }, surface, status) : null;
}

export function usePrep(view: BoatView, surface: SurfaceRow) {
  const list = useMemo(() => listOf(view, surface), [view, surface]);
  const log = prepOf(view.entries, surface.id);
  return { list, log };
}

export type Draft = Pick<EntryDraft, 'kind' | 'body'> & { occurredAt?: number; painter?: string; supersedes?: string };

/**
 * Log the same on several zones, as one thing that can be taken back.
 * @returns what is wrong, in a sentence; null where it was taken
 */
export async function logOnZones(
  view: BoatView,
  zones: readonly string[],
  draftFor: Draft | ((zone: string) => Draft),
  label: string,
  options: { inline?: boolean } = { inline: true },
): Promise<string | null> {
  const drafts = zones.map((zone) => ({ zone, draft: typeof draftFor === 'function' ? draftFor(zone) : draftFor }));
  if (drafts.length === 0) return 'Choose at least one zone.';
  for (const { draft } of drafts) {
    if (draft.occurredAt !== undefined && !Number.isFinite(draft.occurredAt)) return 'Type when it was.';
    if (draft.occurredAt !== undefined && draft.occurredAt > now() + AHEAD_MS)
      return 'This time has not come yet. Check the date and time.';
  }
  const outcome = await saveAll(
    drafts.map(({ zone, draft }) => ({
      kind: 'entry' as const,
      entry: signed({ boatId: view.boat.id, stream: 'zone', streamId: zone, ...draft }),
    })),
    label,
    options,
  );
  return outcome.ok ? null : outcome.failure.message;
}

/** A tap is shown at once; what a form holds waits for an answer. */
export const TAP = { inline: false };

/** Log something of the boat as a whole. */
export async function logOnBoat(
  view: BoatView,
  draft: Draft,
  label: string,
  options: { inline?: boolean } = { inline: true },
): Promise<string | null> {
  const outcome = await saveAll(
    [{ kind: 'entry', entry: signed({ boatId: view.boat.id, stream: 'boat', streamId: view.boat.id, ...draft }) }],
    label,
    options,
  );
  return outcome.ok ? null : outcome.failure.message;
}

/** Say that open work of a zone is done. */
export const closeWork = (surface: SurfaceRow, workId: string, label: string) =>
  void save(
    {
      kind: 'surface',
      row: { ...surface, openWork: surface.openWork.map((w) => (w.id === workId ? { ...w, done: true } : w)) },
    },
    label,
  );

const NO_PLAN: PrepPlanBody = { way: null, added: [], leftOut: [], order: [] };

/** A zone's list as it was changed by hand, to be changed further. */
export const planOf = (view: BoatView, surfaceId: string): PrepPlanBody => {
  const lastCoat = view.statuses.find((s) => s.surfaceId === surfaceId)?.lastCoat ?? null;
  const plan = planFor(prepOf(view.entries, surfaceId), lastCoat);
  return plan ? { way: plan.way, added: plan.added, leftOut: plan.leftOut, order: plan.order } : NO_PLAN;
};

/** Take back one entry. */
export const withdraw = (entry: LogEntry, label: string) =>
  saveAll(
    [
      {
        kind: 'entry',
        entry: signed({
          boatId: entry.boatId,
          stream: entry.stream,
          streamId: entry.streamId,
          kind: 'withdrawn',
          body: { reason: '' },
          supersedes: entry.id,
        }),
      },
    ],
    label,
  );
