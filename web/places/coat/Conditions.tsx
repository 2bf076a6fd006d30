import type { StartReadings } from '#core/coat/start';
import { readSimulated } from '../../devices/hygrometer';
import { now } from '../../data/now';
import type { BoatView } from '../../data/store';
import { QuantityField } from '../../parts/Field';

export const NO_READINGS: StartReadings = { airC: null, rh: null, surfaceC: null };

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
  const { airC, rh, surfaceC } = readings;
  return (
    <div>
      <div className="grid grid-cols-3 gap-3">
        <QuantityField
          label="Air"
          quantity="temperature"
          value={airC}
          onValue={(value) => onRead({ airC: value })}
          placeholder={placeholders.airC}
        />
        <QuantityField
          label="Humidity"
          quantity="percent"
          value={rh}
          onValue={(value) => onRead({ rh: value })}
          placeholder={placeholders.rh}
        />
        <QuantityField
          label="Surface"
          quantity="temperature"
          value={surfaceC}
          onValue={(value) => onRead({ surfaceC: value })}
          placeholder={placeholders.surfaceC}
        />
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
