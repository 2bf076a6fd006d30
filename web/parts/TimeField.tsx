import { DateTime } from 'luxon';
import { Field } from './Field';

/** A date and time at the boat, in her own zone whatever the device thinks; NaN while it cannot be read. */
export function TimeField({ label, at, onAt, zone, hint, error }: { label: string; at: number; onAt: (at: number) => void; zone: string; hint?: string; error?: string }) {
  const text = Number.isFinite(at) ? DateTime.fromMillis(at, { zone }).toFormat("yyyy-LL-dd'T'HH:mm") : '';
  return (
    <Field label={label} hint={hint} error={error}>
      {(ids) => (
        <input
          {...ids}
          type="datetime-local"
          className="input narrow text-lg"
          defaultValue={text}
          onChange={(e) => {
            const parsed = DateTime.fromISO(e.target.value, { zone });
            onAt(parsed.isValid ? parsed.toMillis() : Number.NaN);
          }}
        />
      )}
    </Field>
  );
}
