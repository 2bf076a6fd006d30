import { useMemo } from 'react';
import { v7 as uuid } from 'uuid';
import { coatOf } from '#core/coat/fold';
import type { Layer } from '#core/model/layer';
import { applyMend, letStand } from '#core/system/mend';
import { buildUpOnArea } from '#core/system/quantities';
import { putIn } from '#core/system/schools';
import { reorderCoats } from '#core/system/system';
import type { Finding, Mend } from '#core/system/stack';
import type { BuildUpRow } from '#contracts/rows/boat';
import { now } from '../../data/now';
import { settings } from '../../data/settings';
import type { Change } from '../../data/changes';
import { saveAll, useSheets, type BoatView } from '../../data/store';
import { emptyBuildUp } from '../../data/usual';
import { toast } from '../../data/toasts';
import { counted } from '#core/units/format';
import { sectionCoats, usableSheets } from './planned';
import { useHeldLayers } from './useHeldLayers';
import { useJobLedger } from './useLedger';

const NONE: readonly Layer[] = [];
const NO_FINDINGS: readonly Finding[] = [];

export type ZoneFilm = ReturnType<typeof useZoneFilm>;

/** One zone's build-up as it is worked on: its coats, what the rules say, what it takes, and what a hand may do to it. */
export function useZoneFilm(view: BoatView, surface: BoatView['surfaces'][number]) {
  const { data: sheets, refetch } = useSheets();
  const row = view.buildUps.find((b) => b.surfaceId === surface.id);
  const stored = row?.layers ?? NONE;
  const { layers, hold, letGo } = useHeldLayers(stored);
  const drafts = useMemo(
    () => (layers === stored ? undefined : new Map([[surface.id, layers]])),
    [layers, stored, surface.id],
  );
  const job = useJobLedger(view, drafts);
  const own = job.ledger.zones.find((z) => z.surfaceId === surface.id);
  const quantities = useMemo(() => (own?.perM2 ? buildUpOnArea(own.perM2, surface) : null), [own, surface]);
  const coats = useMemo(
    () => sectionCoats(view, surface.id, layers, quantities),
    [view, surface.id, layers, quantities],
  );
  const isOn = (layerId: string) => coatOf(view.coats, surface.id, layerId) !== undefined;
  /** With what has to be there first, where it rests on something new. */
  const write = (change: Partial<BuildUpRow>, label: string, first: readonly Change[] = []) =>
    void saveAll([...first, { kind: 'buildUp', row: { ...(row ?? emptyBuildUp(surface)), ...change } }], label);
  const writeOrTell = (result: { layers: Layer[] } | { problem: string }, label: string) => {
    if ('problem' in result) toast(result.problem);
    else write({ layers: result.layers }, label);
  };
  return {
    row,
    layers,
    coats,
    job,
    quantities,
    findings: own?.findings ?? NO_FINDINGS,
    isOn,
    write,
    hold,
    letGo: () => {
      const kept = letGo();
      if (kept) write({ layers: [...kept] }, 'Film changed');
    },
    reorder: (ids: string[]) => writeOrTell(reorderCoats({ layers, ids, isOn }), 'Order changed'),
    add: (added: Layer[], at: number) => {
      const { bond, abradeFor } = job.choices;
      write(
        { layers: putIn({ layers, at, added, bond, abradeFor, revisionById: view.sheetById }) },
        `${counted(added.length, 'coat')} added`,
      );
    },
    mend: async (mend: Mend) => {
      const newest = usableSheets(sheets ?? (await refetch()).data);
      writeOrTell(applyMend({ layers, mend, sheets: newest, newId: uuid, isOn }), mend.words);
    },
    letStand: (finding: Finding, reason: string) => {
      const said = { reason, at: now(), painter: settings().painter };
      write({ overrides: letStand({ overrides: row?.overrides ?? [], finding, layers, said }) }, 'Let stand');
    },
  };
}
