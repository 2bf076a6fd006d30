import type { SurfaceRow } from '#contracts/rows/boat';

/** The same on other zones in one go. */
export function OtherZones({
  zones,
  picked,
  onPick,
}: {
  zones: readonly SurfaceRow[];
  picked: readonly string[];
  onPick: (ids: string[]) => void;
}) {
  if (zones.length === 0) return null;
  return (
    <fieldset className="min-w-0">
      <legend className="lab mb-1">The same on</legend>
      <div className="flex flex-wrap gap-x-5">
        {zones.map((z) => (
          <label key={z.id} className="link-row gap-2">
            <input
              type="checkbox"
              className="checkbox"
              checked={picked.includes(z.id)}
              onChange={(e) => onPick(e.target.checked ? [...picked, z.id] : picked.filter((p) => p !== z.id))}
            />
            {z.name}
          </label>
        ))}
      </div>
    </fieldset>
  );
}
