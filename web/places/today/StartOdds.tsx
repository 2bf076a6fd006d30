import { useMemo } from 'react';
import { applyHours } from '#core/coat/coatAdvice';
import { zoneReadings } from '#core/coat/fold';
import { startOdds } from '#core/coat/startOdds';
import { zoneSeries } from '#core/coat/zoneSeries';
import type { ZoneStatus } from '#core/coat/zoneStatus';
import { isSheltered } from '#core/hull/zones';
import type { BoatView } from '../../data/store';
import { attempt } from '../../parts/attempt';

/** In how many of the weathers that the forecast allows the start that is offered holds until touch dry. */
export function StartOdds({ view, status }: { view: BoatView; status: ZoneStatus }) {
  const { advice } = status;
  const at = advice?.nowHolds ? view.at : (advice?.firstStartAt ?? null);
  const share = useMemo(() => (at === null ? null : shareAt(view, status, at)), [view, status, at]);
  if (share === null) return null;
  return (
    <>
      ; {advice?.nowHolds ? '' : 'then '}holds in {Math.round(share * 10)} of 10
    </>
  );
}

function shareAt(view: BoatView, { surfaceId, nextSheet, nextLayer }: ZoneStatus, at: number): number | null {
  const surface = view.surfaces.find((s) => s.id === surfaceId);
  if (!surface || !nextSheet || !nextLayer) return null;
  const { boat, hours, entries } = view;
  return attempt(() =>
    startOdds({
      hours,
      surface: zoneSeries(surface, hours, zoneReadings(entries, surfaceId), boat),
      at,
      issuedAt: view.at,
      sheet: nextSheet,
      method: nextLayer.method,
      durationH: applyHours(surface.areaM2, nextLayer),
      sheltered: isSheltered(surface, boat.shelter),
      seed: boat.id,
    }),
  ).value;
}
