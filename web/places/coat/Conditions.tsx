import type { StartReadings } from '#core/coat/start';
import { readSimulated } from '../../devices/hygrometer';
import { now } from '../../data/now';
import type { BoatView } from '../../data/store';
import { QuantityField } from '../../parts/Field';

export const NO_READINGS: StartReadings = { airC: null, rh: null, surfaceC: null };

const FIELDS = [
  ['airC', 'Air', 'temperature'],
  ['rh', 'Humidity', 'percent'],
  ['surfaceC', 'Surface', 'temperature'],
] as const;

/** Air, humidity and surface: typed, or read from the simulated hygrometer and surface thermometer. */
export function Conditions({
  view,
  surfaceId,
  readings,
  placeholders = {},
  onRead,
}: {
  view: BoatView;
  surfaceId: string;
  readings: StartReadings;
  placeholders?: Partial<Record<keyof StartReadings, string | undefined>>;
  onRead: (readings: Partial<StartReadings>) => void;
}) {
  return (
    <div>
      <div className="grid grid-cols-3 gap-3">
        {FIELDS.map(([key, label, quantity]) => (
          <QuantityField
            key={key}
            label={label}
            quantity={quantity}
            value={readings[key]}
            onValue={(value) => onRead({ [key]: value })}
            placeholder={placeholders[key]}
          />
        ))}
      </div>
      <button
        type="button"
        className="narrow min-h-11 underline underline-offset-4"
        onClick={() => {
          const read = readSimulated(view, surfaceId, now());
          if (read) onRead(read);
        }}
      >
        Read the hygrometer (simulated)
      </button>
    </div>
  );
}
