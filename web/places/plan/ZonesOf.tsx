import type { BoatView } from '../../data/store';

/** All zones, or some of them. */
export function ZonesOf({
  view,
  label,
  zoneIds,
  onZones,
}: {
  view: BoatView;
  label: string;
  zoneIds: readonly string[];
  onZones: (zoneIds: readonly string[]) => void;
}) {
  return (
    <details
      className="relative"
      onBlur={(e) => {
        // It covers what lies below it: it closes when it is left.
        if (!e.currentTarget.contains(e.relatedTarget)) e.currentTarget.open = false;
      }}
    >
      <summary className="btn btn-sm">
        {label}: {zoneIds.length === 0 ? 'all of her' : zoneIds.map(view.zoneName).join(', ')}
      </summary>
      <div
        role="group"
        tabIndex={-1}
        aria-label={label}
        className="absolute z-10 flex max-h-72 min-w-56 flex-col overflow-y-auto border border-base-content bg-base-100 p-2"
      >
        {view.surfaces.map((s) => (
          <label key={s.id} className="link-row gap-2 lg:min-h-8">
            <input
              type="checkbox"
              className="checkbox checkbox-sm"
              checked={zoneIds.includes(s.id)}
              onChange={(e) => onZones(e.target.checked ? [...zoneIds, s.id] : zoneIds.filter((z) => z !== s.id))}
            />
            {s.name}
          </label>
        ))}
      </div>
    </details>
  );
}
