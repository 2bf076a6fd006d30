import { DateTime } from 'luxon';
import { useState } from 'react';
import { Choice, Field } from './Field';
import { instantsOf } from './localTime';

/** A date and time at the boat, in her own zone whatever the device thinks; NaN while it cannot be read. */
export function TimeField({
  label,
  at,
  onAt,
  zone,
  hint,
  error,
}: {
  label: string;
  at: number;
  onAt: (at: number) => void;
  zone: string;
  hint?: string;
  error?: string;
}) {
  const [text, setText] = useState(() =>
    Number.isFinite(at) ? DateTime.fromMillis(at, { zone }).toFormat("yyyy-LL-dd'T'HH:mm") : '',
  );
  const twice = instantsOf(text, zone);
  return (
    <>
      <Field label={label} hint={hint} error={error}>
        {(ids) => (
          <input
            {...ids}
            type="datetime-local"
            className="input narrow text-lg"
            defaultValue={text}
            onChange={(e) => {
              setText(e.target.value);
              onAt(instantsOf(e.target.value, zone)[0] ?? Number.NaN);
            }}
          />
        )}
      </Field>
      {twice.length === 2 && (
        <Choice
          label="The clocks go back: this time comes twice"
          options={[
            ['first', 'the first'],
            ['second', 'the second'],
          ]}
          value={at >= (twice[1] as number) ? 'second' : 'first'}
          onPick={(which) => onAt(twice[which === 'first' ? 0 : 1] as number)}
        />
      )}
    </>
  );
}
