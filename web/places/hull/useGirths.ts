import equal from 'fast-deep-equal';
import { useMemo, useRef, useState, type RefObject } from 'react';
import { evenStations, stationsProblem, straysOf } from '#core/hull/stations';
import { areaBy } from '#core/hull/zoneArea';
import { NO_MODEL, type GirthRecord, type GirthStation } from '#core/model/area';
import type { SurfaceRow } from '#contracts/rows/boat';
import { save, type BoatView } from '../../data/store';
import { attempt } from '../../parts/attempt';

/** A zone's girths as they are typed: kept as soon as they make sense, and following what is kept elsewhere. */
function useKeptGirths({ boat }: BoatView, surface: SurfaceRow) {
  const usualLength = surface.kind === 'underwater' || surface.kind === 'bootTop' ? boat.lwlM : boat.loaM;
  const [draft, setDraft] = useState<GirthRecord>(
    () => surface.area.girths ?? { even: true, stations: evenStations(9, usualLength, []) },
  );
  const ahead = useRef(0);
  // Undo, or another device, changes what is kept: shown here too. What was sent from here comes back as itself.
  const kept = surface.area.girths ?? null;
  const [sent, setSent] = useState(kept);
  const [seen, setSeen] = useState(kept);
  if (!equal(kept, seen)) {
    setSeen(kept);
    if (kept && !equal(kept, sent)) setDraft(kept);
  }

  /** Keep a record that makes sense; what does not stands here with its sentence until it does. */
  const keep = (record: GirthRecord, label: string, method = surface.area.method) => {
    if (stationsProblem(record.stations)) return;
    const area = { ...surface.area, girths: record, method };
    if (equal(record, kept) && method === surface.area.method) return;
    setSent(record);
    // Two figures in a breath: the second stands on the first, though the page has not heard of it yet.
    const version = Math.max(surface.version, ahead.current);
    ahead.current = version + 1;
    void save({ kind: 'surface', row: { ...surface, area, version } }, label).then((outcome) => {
      if (!outcome.ok) ahead.current = 0;
    });
  };
  return { draft, setDraft, keep };
}

/** Taping a zone: which station is taped, what stands against it, what area there is so far. */
export function useGirths(view: BoatView, surface: SurfaceRow, first: RefObject<HTMLDivElement | null>) {
  const { boat, hull } = view;
  const { draft, setDraft, keep } = useKeptGirths(view, surface);
  const [picked, setAt] = useState(() =>
    Math.max(
      0,
      draft.stations.findIndex((s) => s.halfGirthM === null),
    ),
  );
  const [importing, setImporting] = useState(false);
  const { stations } = draft;
  // An undo may have taken stations away.
  const at = Math.min(picked, stations.length - 1);
  const current = stations[at] as GirthStation;
  const length = (stations[stations.length - 1] as GirthStation).xM - (stations[0] as GirthStation).xM;

  const problem = useMemo(() => stationsProblem(stations), [stations]);
  const strays = useMemo(() => straysOf(stations), [stations]);
  const result = useMemo(
    () =>
      attempt(() =>
        areaBy({ ...surface, boat, hull: hull ?? NO_MODEL, area: { ...surface.area, girths: draft } }, 'girths'),
      ),
    [surface, draft, boat, hull],
  );
  const stray = strays.find((s) => s.index === at);
  const inUse = surface.area.method === 'girths';

  const type = (change: Partial<GirthStation>) =>
    setDraft({ ...draft, stations: stations.map((s, i) => (i === at ? { ...s, ...change } : s)) });
  const commit = () => keep(draft, `Station ${at + 1} of ${surface.name}`);
  const go = (to: number) => {
    commit();
    setAt(Math.min(stations.length - 1, Math.max(0, to)));
    first.current?.querySelector('input')?.focus();
  };
  const lay = (next: GirthRecord, label: string) => {
    setDraft(next);
    setAt(Math.min(at, next.stations.length - 1));
    keep(next, label);
  };
  return {
    boat,
    hull,
    stations,
    strays,
    at,
    go,
    current,
    commit,
    type,
    draft,
    stray,
    problem,
    result,
    inUse,
    keep,
    lay,
    length,
    setImporting,
    importing,
  };
}
