import type { ReactNode } from 'react';
import { figure } from '#core/units/format';
import type { QuantityName, Unit } from '#core/units/quantities';
import { useSettings } from '../data/settings';

/** A figure with its unit, the unit lighter than the number; ≈ and a dotted line where it is an estimate. */
export function Fig({
  quantity,
  value,
  approx = false,
  digits,
  unit: fixed,
  className = '',
}: {
  quantity: QuantityName;
  value: number;
  approx?: boolean;
  digits?: number;
  unit?: Unit;
  className?: string;
}) {
  const { units } = useSettings();
  const { number, unit } = figure(quantity, value, units, digits, fixed);
  return (
    <span className={`fig ${className}`}>
      {approx && <span aria-label="about">≈ </span>}
      <span className={approx ? 'approx' : ''}>{number}</span> <span className="unit">{unit}</span>
    </span>
  );
}

/** A label over its value, ruled apart from the next. */
export function Line({ label, children }: { label: ReactNode; children: ReactNode }) {
  return (
    <div className="flex items-baseline justify-between gap-4 py-1.5">
      <span className="lab">{label}</span>
      <span className="text-right">{children}</span>
    </div>
  );
}
