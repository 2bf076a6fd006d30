import { useId, useState, type InputHTMLAttributes, type ReactNode, type SelectHTMLAttributes } from 'react';
import { shownUnit, systemFor } from '#core/units/format';
import { editText } from '#core/units/parse';
import { parseQuantity } from '#core/units/parse';
import type { QuantityName } from '#core/units/quantities';
import { useSettings } from '../data/settings';
import { useSpoken } from './spoken';

/** A label, its field, a hint, and what is wrong with it, tied together for everyone. */
export function Field({
  label,
  hint,
  error,
  children,
}: {
  label: string;
  hint?: ReactNode;
  error?: string | undefined;
  children: (ids: { id: string; 'aria-describedby'?: string; 'aria-invalid'?: true }) => ReactNode;
}) {
  const id = useId();
  const say = useSpoken();
  const note = say(error ?? hint);
  return (
    <div className="flex min-w-0 flex-col gap-1">
      <label htmlFor={id} className="lab">
        {say(label)}
      </label>
      {children({
        id,
        ...(note ? { 'aria-describedby': `${id}-note` } : {}),
        ...(error ? { 'aria-invalid': true as const } : {}),
      })}
      {note && (
        <p id={`${id}-note`} className={`text-sm ${error ? 'text-error' : 'quiet'}`} role={error ? 'alert' : undefined}>
          {note}
        </p>
      )}
    </div>
  );
}

export function TextField({
  label,
  hint,
  error,
  ...input
}: { label: string; hint?: ReactNode; error?: string | undefined } & InputHTMLAttributes<HTMLInputElement>) {
  return (
    <Field label={label} hint={hint} error={error}>
      {(ids) => (
        <input type="text" autoComplete="off" {...input} {...ids} className={`input ${error ? 'input-error' : ''}`} />
      )}
    </Field>
  );
}

export function SelectField<T extends string>({
  label,
  hint,
  error,
  options,
  value,
  onPick,
  ...rest
}: {
  label: string;
  hint?: ReactNode;
  error?: string | undefined;
  options: readonly (readonly [T, string])[];
  value: T;
  onPick: (value: T) => void;
} & Omit<SelectHTMLAttributes<HTMLSelectElement>, 'value' | 'onChange'>) {
  const say = useSpoken();
  return (
    <Field label={label} hint={hint} error={error}>
      {(ids) => (
        <select {...rest} {...ids} className="select" value={value} onChange={(e) => onPick(e.target.value as T)}>
          {options.map(([key, words]) => (
            <option key={key} value={key}>
              {say(words)}
            </option>
          ))}
        </select>
      )}
    </Field>
  );
}

interface QuantityProps {
  label: string;
  quantity: QuantityName;
  value: number | null;
  onValue: (value: number | null) => void;
  /** A number is the quantity's own, and shown as the device has it. */
  placeholder?: string | number | undefined;
}

/** Quantities that are often typed with letters, marks or a minus, which a phone's pad of digits does not have. */
const WITH_LETTERS: ReadonlySet<QuantityName> = new Set(['length', 'temperature', 'duration']);
const WITH_LETTERS_US: ReadonlySet<QuantityName> = new Set(['volume', 'mass', 'width']);

const padFor = (quantity: QuantityName, system: 'metric' | 'us'): 'text' | 'decimal' =>
  WITH_LETTERS.has(quantity) || (system === 'us' && WITH_LETTERS_US.has(quantity)) ? 'text' : 'decimal';

/** The text of a quantity's field, what it means, and what is wrong with it. */
function useQuantityText({ quantity, value, onValue }: Pick<QuantityProps, 'quantity' | 'value' | 'onValue'>) {
  const { units } = useSettings();
  const system = systemFor(units, quantity);
  const [typed, setTyped] = useState<{ text: string; value: number | null; system: string } | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  // The typed text stands while it still means the value; a change from outside or of units shows anew.
  const stands = typed !== null && Object.is(typed.value, value) && (typed.system === system || Number.isNaN(value));
  const parse = (raw: string) => (raw.trim() === '' ? null : parseQuantity({ quantity, text: raw, system }));
  const complaint = (raw: string) => {
    const parsed = parse(raw);
    return parsed && !parsed.ok ? parsed.message : null;
  };
  return {
    symbol: shownUnit(quantity, units).symbol,
    inputMode: padFor(quantity, system),
    text: stands ? typed.text : editText(quantity, value, units),
    problem,
    onChange(raw: string) {
      const parsed = parse(raw);
      const next = parsed === null ? null : parsed.ok ? parsed.value : Number.NaN;
      setTyped({ text: raw, value: next, system });
      if (problem) setProblem(complaint(raw));
      onValue(next);
    },
    onBlur: (raw: string) => setProblem(complaint(raw)),
  };
}

/**
 * A figure with its unit. Typed text may carry any unit of the quantity; what was typed stays as typed.
 * Tells the parent the core's value, null when empty, NaN while it cannot be read.
 */
export function QuantityField({
  label,
  hint,
  error,
  placeholder,
  inputMode,
  ...props
}: QuantityProps & { hint?: ReactNode; error?: string | undefined; inputMode?: 'text' | undefined }) {
  const field = useQuantityText(props);
  const { units } = useSettings();
  return (
    <Field label={label} hint={hint} error={field.problem ?? error}>
      {(ids) => (
        <span className={`input ${(field.problem ?? error) ? 'input-error' : ''}`}>
          <input
            {...ids}
            type="text"
            inputMode={inputMode ?? field.inputMode}
            autoComplete="off"
            className="narrow w-full text-lg"
            value={field.text}
            placeholder={typeof placeholder === 'number' ? editText(props.quantity, placeholder, units) : placeholder}
            onChange={(e) => field.onChange(e.target.value)}
            onBlur={(e) => field.onBlur(e.target.value)}
          />
          <span className="narrow quiet" aria-hidden="true">
            {field.symbol}
          </span>
        </span>
      )}
    </Field>
  );
}

/** The same without a visible label, for the head of a grid. */
export function QuantityCell({ label, ...props }: QuantityProps) {
  const field = useQuantityText(props);
  return (
    <input
      aria-label={label}
      title={field.problem ?? undefined}
      aria-invalid={field.problem !== null}
      type="text"
      inputMode={field.inputMode}
      autoComplete="off"
      className={`input narrow min-w-20 text-center text-lg ${field.problem ? 'input-error' : ''}`}
      value={field.text}
      onChange={(e) => field.onChange(e.target.value)}
      onBlur={(e) => field.onBlur(e.target.value)}
    />
  );
}

/** A choice of few, all in sight. */
export function Choice<T extends string>({
  label,
  options,
  value,
  onPick,
}: {
  label: string;
  options: readonly (readonly [T, string])[];
  value: T;
  onPick: (value: T) => void;
}) {
  const name = useId();
  const say = useSpoken();
  return (
    <fieldset className="min-w-0">
      <legend className="lab mb-1">{say(label)}</legend>
      <div className="join relative flex-wrap">
        {options.map(([key, words]) => (
          <label key={key} className={`btn join-item ${key === value ? 'btn-primary' : ''}`}>
            <input type="radio" name={name} className="sr-only" checked={key === value} onChange={() => onPick(key)} />
            {say(words)}
          </label>
        ))}
      </div>
    </fieldset>
  );
}

/** What went wrong with a whole form, where eyes are. */
export function FormProblem({ message }: { message: string | null }) {
  const say = useSpoken();
  if (!message) return null;
  return (
    <p role="alert" className="border-l-4 border-error bg-base-200 px-3 py-2 text-error">
      {say(message)}
    </p>
  );
}
