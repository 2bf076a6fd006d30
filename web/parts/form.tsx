import { useEffect, useRef, useState } from 'react';
import { joiResolver } from '@hookform/resolvers/joi';
import type Joi from 'joi';
import type { ReactNode } from 'react';
import {
  Controller,
  useFormContext,
  useForm,
  type DefaultValues,
  type FieldValues,
  type UseFormReturn,
} from 'react-hook-form';
import { parsePlain } from '#core/units/parse';
import type { QuantityName } from '#core/units/quantities';
import { OPTIONS, sentence } from '#contracts/schemas/messages';
import { badFields, goTo } from './goToBad';
import { useLeaveGuard } from './useLeaveGuard';
import { Choice, QuantityField, SelectField, TextField } from './Field';

/** A form whose values are checked against the same contract as on the server. */
export function useContractForm<T extends FieldValues>(
  schema: Joi.ObjectSchema,
  defaultValues: DefaultValues<T>,
): UseFormReturn<T> {
  const form = useForm<T>({
    defaultValues,
    resolver: joiResolver(schema, { ...OPTIONS, abortEarly: false }) as never,
    mode: 'onSubmit',
    reValidateMode: 'onChange',
  });
  // A save leaves by itself.
  const { isDirty, isSubmitting } = form.formState;
  useLeaveGuard(isDirty && !isSubmitting);
  return form;
}

interface BadField {
  readonly id: string;
  readonly label: string;
}

const nameOf = (field: Element): string =>
  field.getAttribute('aria-label') ?? document.querySelector(`label[for="${field.id}"]`)?.textContent ?? 'A field';

/** After a save that was refused: how many fields want something, each a tap away; the first of them has the focus. */
export function FormErrors() {
  const { formState } = useFormContext();
  const { submitCount, isSubmitting } = formState;
  const [bad, setBad] = useState<readonly BadField[]>([]);
  const place = useRef<HTMLDivElement>(null);
  useEffect(() => {
    if (submitCount === 0 || isSubmitting) return;
    // Fields say what is wrong with them as they are drawn anew.
    const drawn = setTimeout(() => {
      const found = badFields(place.current?.closest('form'));
      setBad(found.map((field) => ({ id: field.id, label: nameOf(field) })));
      goTo(found[0]);
    });
    return () => clearTimeout(drawn);
  }, [submitCount, isSubmitting]);
  return (
    <div ref={place}>
      {bad.length > 0 && (
        <div role="alert" className="border-l-4 border-error bg-base-200 px-3 py-2">
          <p className="font-semibold">{bad.length === 1 ? 'One field wants' : `${bad.length} fields want`} a look:</p>
          <ul>
            {bad.map(({ id, label }) => (
              <li key={`${id}${label}`} className="inline-block pr-4">
                <button
                  type="button"
                  className="link-row text-left underline underline-offset-4"
                  onClick={() => goTo(document.getElementById(id))}
                >
                  {label}
                </button>
              </li>
            ))}
          </ul>
        </div>
      )}
    </div>
  );
}

function useError(name: string): string | undefined {
  const { formState, getFieldState } = useFormContext();
  const message = getFieldState(name, formState).error?.message;
  return message ? sentence(message) : undefined;
}

export function FormText({
  name,
  label,
  hint,
  type,
}: {
  name: string;
  label: string;
  hint?: ReactNode;
  type?: string;
}) {
  const { register } = useFormContext();
  const error = useError(name);
  return (
    <TextField
      label={label}
      hint={hint}
      error={error}
      {...(type ? { type } : {})}
      {...register(name, type === 'date' ? { setValueAs: (v: string) => v || null } : {})}
    />
  );
}

/** @param props.scale how many of the quantity's core unit one of the field's value is: litres to a cubic metre */
export function FormQuantity({
  name,
  label,
  quantity,
  hint,
  placeholder,
  inputMode,
  scale = 1,
}: {
  name: string;
  label: string;
  quantity: QuantityName;
  hint?: ReactNode;
  placeholder?: string | number;
  inputMode?: 'text';
  scale?: number;
}) {
  const error = useError(name);
  const shown = (value: number | null | undefined) => (value === null || value === undefined ? null : value * scale);
  return (
    <Controller
      name={name}
      render={({ field }) => (
        <QuantityField
          label={label}
          quantity={quantity}
          hint={hint}
          placeholder={placeholder}
          inputMode={inputMode}
          error={error}
          value={shown(field.value as number | null)}
          onValue={(v) => field.onChange(v === null ? null : v / scale)}
        />
      )}
    />
  );
}

/** A plain number without a unit. */
export function FormNumber({
  name,
  label,
  hint,
  signed = false,
}: {
  name: string;
  label: string;
  hint?: ReactNode;
  /** It may be below nought: a phone's pad of digits has no minus. */
  signed?: boolean;
}) {
  const { register } = useFormContext();
  const error = useError(name);
  return (
    <TextField
      label={label}
      hint={hint}
      error={error}
      inputMode={signed ? 'text' : 'decimal'}
      {...register(name, { setValueAs: toNumber })}
    />
  );
}

const toNumber = (text: unknown): number | null =>
  typeof text === 'number' || text === null || text === undefined ? (text ?? null) : parsePlain(String(text));

/**
 * @param props.emptyAs what the value is while the option '' is picked
 * @param props.emptyText keeps it as the empty text
 */
export function FormSelect({
  name,
  label,
  options,
  hint,
  onPicked,
  emptyAs,
  emptyText = false,
}: {
  name: string;
  label: string;
  options: readonly (readonly [string, string])[];
  hint?: ReactNode;
  onPicked?: (value: string) => void;
  emptyAs?: null | undefined;
  emptyText?: boolean;
}) {
  const error = useError(name);
  return (
    <Controller
      name={name}
      render={({ field }) => (
        <SelectField
          label={label}
          hint={hint}
          error={error}
          options={options}
          value={(field.value as string | null | undefined) ?? ''}
          onPick={(v) => {
            field.onChange(v === '' && !emptyText ? emptyAs : v);
            onPicked?.(v);
          }}
        />
      )}
    />
  );
}

export function FormChoice({
  name,
  label,
  options,
}: {
  name: string;
  label: string;
  options: readonly (readonly [string, string])[];
}) {
  return (
    <Controller
      name={name}
      render={({ field }) => (
        <Choice label={label} options={options} value={field.value as string} onPick={field.onChange} />
      )}
    />
  );
}

/** Yes, no, or not said: three answers, since a sheet that is silent has not said no. */
export function FormYesNo({ name, label }: { name: string; label: string }) {
  return (
    <Controller
      name={name}
      render={({ field }) => (
        <SelectField
          label={label}
          options={[
            ['', 'not said'],
            ['yes', 'yes'],
            ['no', 'no'],
          ]}
          value={field.value === true ? 'yes' : field.value === false ? 'no' : ''}
          onPick={(v) => field.onChange(v === '' ? undefined : v === 'yes')}
        />
      )}
    />
  );
}

export function FormTick({ name, label }: { name: string; label: string }) {
  const { register } = useFormContext();
  return (
    <label className="link-row gap-2">
      <input type="checkbox" className="checkbox" {...register(name)} /> {label}
    </label>
  );
}

export const optionsOf = <T extends string>(words: Record<T, string>) => Object.entries(words) as [T, string][];
