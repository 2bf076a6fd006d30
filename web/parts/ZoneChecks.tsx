import type { ReactNode } from 'react';
import type { ZoneStatus } from '#core/coat/zoneStatus';

/** Zones that are done in one go, ticked and unticked; the last one stays. */
export function ZoneChecks({
  legend,
  zones,
  chosen,
  onPick,
  children,
}: {
  legend: string;
  zones: readonly ZoneStatus[];
  chosen: readonly ZoneStatus[];
  /** Ids of all that are ticked then. */
  onPick: (ids: string[]) => void;
  /** What is told of a zone beside its box. */
  children: (zone: ZoneStatus) => ReactNode;
}) {
  const ids = chosen.map((z) => z.surfaceId);
  return (
    <fieldset>
      <legend className="lab">{legend}</legend>
      {zones.map((zone) => {
        const on = ids.includes(zone.surfaceId);
        const next = on ? ids.filter((id) => id !== zone.surfaceId) : [...ids, zone.surfaceId];
        return (
          <label key={zone.surfaceId} className="flex min-h-11 items-center gap-3">
            <input type="checkbox" className="checkbox" checked={on} onChange={() => next.length > 0 && onPick(next)} />
            {children(zone)}
          </label>
        );
      })}
    </fieldset>
  );
}
