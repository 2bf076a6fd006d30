import type { ReactNode } from 'react';
import { figure, shownUnit } from '#core/units/format';
import type { QuantityName, Unit } from '#core/units/quantities';
import { useSettings } from '../data/settings';

/** A figure with its unit, the unit lighter than the number; ≈ and a dotted line where it is an estimate. */
export function Fig({
  quantity,
  value,
  approx = false,
  digits,
  unit: fixed,
  bare = false,
  className = '',
}: {
  quantity: QuantityName;
  value: number;
  approx?: boolean;
  digits?: number;
  unit?: Unit;
  /** Without its unit, which stands over the column. */
  bare?: boolean;
  className?: string;
}) {
  const { units } = useSettings();
  const { number, unit } = figure(quantity, value, units, digits, fixed);
  return (
    <span className={`fig ${className}`}>
      {approx && (
        <>
          <span className="sr-only">about </span>
          <span aria-hidden="true">≈ </span>
        </>
      )}
      <span className={approx ? 'approx' : ''}>{number}</span>
      {!bare && (
        <>
          {' '}
          <span className="unit">{unit}</span>
        </>
      )}
    </span>
  );
}

/** A figure as text, with its unit, for where there is room for text only. */
export function useFigure(): (quantity: QuantityName, value: number, digits?: number, unit?: Unit) => string {
  const { units } = useSettings();
  return (quantity, value, digits, fixed) => {
    const { number, unit } = figure(quantity, value, units, digits, fixed);
    return `${number} ${unit}`.trim();
  };
}

/** The unit that all litres of a list are shown in: that of the largest. */
export function useListUnit(litres: readonly number[]): Unit {
  const { units } = useSettings();
  return shownUnit('volume', units, Math.max(0, ...litres));
}

/** A range, both its ends in the unit of the lower one where none is given. */
export function FigRange({
  quantity,
  low,
  high,
  unit: fixed,
}: {
  quantity: QuantityName;
  low: number;
  high: number;
  unit?: Unit;
}) {
  const { units } = useSettings();
  const unit = fixed ?? shownUnit(quantity, units, low);
  const number = (end: number) => figure(quantity, end, units, undefined, unit).number;
  return (
    <span className="fig">
      {number(low)} to {number(high)} <span className="unit">{unit.symbol}</span>
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
