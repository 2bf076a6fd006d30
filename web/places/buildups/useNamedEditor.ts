import equal from 'fast-deep-equal';
import { useMemo, useState } from 'react';
import { useLeaveGuard } from '../../parts/useLeaveGuard';
import { v7 as uuid } from 'uuid';
import { coatOf } from '#core/coat/fold';
import type { Layer } from '#core/model/layer';
import type { Substrate } from '#core/model/surface';
import { checkBuildUp } from '#core/system/checkBuildUp';
import { withSheets } from '#core/system/ledger';
import { applyMend } from '#core/system/mend';
import { buildUpQuantities } from '#core/system/quantities';
import { putIn } from '#core/system/schools';
import type { SheetRevision } from '#core/model/sheet';
import type { Mend } from '#core/system/stack';
import { applyNamed, followers } from '#core/system/system';
import type { BuildUpRow } from '#contracts/rows/boat';
import type { NamedBuildUpRow } from '#contracts/rows/system';
import { save, useBoats, useSheets, type BoatView } from '../../data/store';
import { toast } from '../../data/toasts';
import { useSubmit } from '../../data/useSubmit';
import { attempt } from '../../parts/attempt';
import { plannedCoats, usableSheets } from '../film/planned';
import { useHeldLayers } from '../film/useHeldLayers';
import { sheetIdsOf } from './sheetIds';

/** A zone that took the build-up. */
export interface Zone {
  readonly view: BoatView;
  readonly row: BuildUpRow;
  readonly name: string;
  readonly areaM2: number;
  readonly layers: readonly Layer[];
}

/** What `applyNamed` asks to put a build-up on a zone. */
export const onZone = (zone: Zone, named: readonly Layer[], sheetOf: (revisionId: string) => string) => ({
  named,
  current: zone.layers,
  isOn: (id: string) => coatOf(zone.view.coats, zone.row.surfaceId, id) !== undefined,
  sheetOf,
});

export type NamedEditor = ReturnType<typeof useNamedEditor>;

/** A named build-up as it is worked on: its coats, what the rules say, who follows it, and how it is saved. */
export function useNamedEditor(row: NamedBuildUpRow, boatIds: readonly string[]) {
  const { data: sheets, refetch } = useSheets();
  const views = useBoats(boatIds);
  const [draft, setDraft] = useState<NamedBuildUpRow | null>(null);
  useLeaveGuard(draft !== null);
  const { failure, theirs, sending, submit } = useSubmit();
  const now = draft ?? row;
  const { layers, hold, letGo } = useHeldLayers(now.layers);
  const set = (change: Partial<NamedBuildUpRow>) => setDraft((before) => ({ ...(before ?? row), ...change }));
  const setLayers = (next: readonly Layer[]) => set({ layers: [...next] });
  const revisionById = useMemo(
    () =>
      new Map([
        ...views.flatMap((v) => [...v.sheetById]),
        ...(sheets ?? []).map((s) => [s.current.id, s.current] as const),
      ]),
    [views, sheets],
  );
  const sheetOf = useMemo(() => sheetIdsOf(sheets ?? [], [...revisionById.values()]), [sheets, revisionById]);
  const zones = useMemo(() => zonesOf(views, row.id), [views, row.id]);
  const followed = useMemo(() => followers({ named: row.layers, zones, sheetOf }), [row.layers, zones, sheetOf]);
  const { targetMicron } = now;
  const { findings, coats } = useChecked(now, layers, revisionById);
  const bad = problemOf(now);

  const put = (targets: readonly Zone[], label: string) => {
    for (const view of views) {
      const rows = targets
        .filter((z) => z.view.boat.id === view.boat.id)
        .flatMap((z) => {
          const next = applyNamed({ ...onZone(z, layers, sheetOf), newId: uuid });
          return next ? [{ ...z.row, layers: [...next], targetMicron }] : [];
        });
      if (rows.length > 0) void save({ kind: 'buildUps', boatId: view.boat.id, rows }, label);
    }
  };
  const write = async () => {
    if (bad) return;
    const name = now.name.trim();
    const version = theirs?.version ?? row.version;
    if (!(await submit({ kind: 'named', row: { ...now, name, version } }, `${name} saved`))) return;
    if (!equal(layers, row.layers) || targetMicron !== row.targetMicron)
      put(followed.follow, `Put on the zones of ${name}`);
    setDraft(null);
  };
  return {
    now,
    layers,
    /** Null where they are as they were saved. */
    changedLayers: layers === row.layers ? null : layers,
    coats,
    findings,
    views,
    ...followed,
    sheetOf,
    revisionById,
    changed: draft !== null,
    bad,
    failure,
    theirs,
    sending,
    set,
    setLayers,
    add: (added: Layer[], at: number) => setLayers(putIn({ layers, at, added, bond: now.bond, revisionById })),
    mend: async (mend: Mend) => {
      const newest = usableSheets(sheets ?? (await refetch()).data);
      const mended = applyMend({ layers, mend, sheets: newest, newId: uuid });
      if ('problem' in mended) toast(mended.problem);
      else setLayers(mended.layers);
    },
    hold,
    letGo: () => {
      const kept = letGo();
      if (kept) setLayers(kept);
    },
    put,
    write,
    back: () => setDraft(null),
  };
}

/** What the rules say of the coats, and what each takes. */
function useChecked(now: NamedBuildUpRow, layers: readonly Layer[], revisionById: ReadonlyMap<string, SheetRevision>) {
  const { substrates, exposure, targetMicron } = now;
  const stack = useMemo(() => withSheets(layers, revisionById), [layers, revisionById]);
  const findings = useMemo(
    () =>
      stack.length === 0
        ? []
        : checkBuildUp({ substrate: substrates[0] as Substrate, exposure, layers: stack, targetMicron }),
    [stack, substrates, exposure, targetMicron],
  );
  const coats = useMemo(() => {
    // No zone, so no litres that mean anything: what each coat takes of a square metre.
    const whole = stack.length === layers.length;
    const perM2 = whole ? attempt(() => buildUpQuantities({ areaM2: 1, areaShare: 0, layers: stack })).value : null;
    return plannedCoats(layers, revisionById, perM2);
  }, [layers, stack, revisionById]);
  return { findings, coats };
}

function zonesOf(views: readonly BoatView[], namedId: string): Zone[] {
  return views.flatMap((view) =>
    view.buildUps
      .filter((b) => b.namedId === namedId)
      .flatMap((b): Zone[] => {
        const surface = view.surfaces.find((s) => s.id === b.surfaceId);
        return surface ? [{ view, row: b, name: surface.name, areaM2: surface.areaM2, layers: b.layers }] : [];
      }),
  );
}

function problemOf({ name, substrates, targetMicron }: NamedBuildUpRow): string | null {
  if (name.trim() === '') return 'A build-up needs a name. Type it.';
  if (substrates.length === 0) return 'Choose at least one substrate.';
  return targetMicron !== null && !(targetMicron > 0)
    ? 'The target cannot be read. Type it again, or leave it empty.'
    : null;
}
