import { useState } from 'react';
import { amountsFrom, type Amounts as Worked, type Measured } from '#core/mix/amounts';
import type { RatioPart } from '#core/mix/splitBatch';
import { partShares } from '#core/mix/splitBatch';
import { pouringUnit } from '#core/units/format';
import { useSettings } from '../../data/settings';
import { attempt } from '../attempt';
import { Choice, FormProblem, QuantityField } from '../Field';
import { Fig } from '../Fig';

/** What was measured, as it is typed: null while nothing is. */
export interface AmountTyped {
  readonly by: Measured['by'] | null;
  readonly of: Measured['of'] | null;
  readonly amount: number | null;
}
export type AmountState = readonly [typed: AmountTyped, set: (change: Partial<AmountTyped>) => void];

/** Kept for as long as the page is. */
export function useAmount(): AmountState {
  const [typed, setTyped] = useState<AmountTyped>({ by: null, of: null, amount: null });
  return [typed, (change) => setTyped((before) => ({ ...before, ...change }))];
}

/** What comes of an amount as it is typed, and in what it was measured. */
export function workedAmount(parts: readonly RatioPart[], basis: 'volume' | 'mass', typed: AmountTyped) {
  const weighs = basis === 'mass' || parts.every((p) => p.densityKgPerL);
  const pours = attempt(() => partShares({ parts, basis })).value != null;
  const by = typed.by ?? (pours ? 'volume' : 'mass');
  const known = typed.of !== null && (typed.of === 'mix' || typed.of < parts.length);
  const of = known ? typed.of : parts.length > 1 ? 0 : 'mix';
  const { amount } = typed;
  const measured = by === 'mass' && !weighs ? 'volume' : by === 'volume' && !pours ? 'mass' : by;
  const { value, problem } = attempt(() =>
    amount === null || Number.isNaN(amount)
      ? null
      : amountsFrom({ parts, basis, measured: { of, by: measured, amount } }),
  );
  return { weighs, pours, of, measured, value, problem };
}

/** So much of either part or of the mix, typed; the others in large figures. */
export function Amounts({
  parts,
  basis,
  state: [typed, set],
}: {
  parts: readonly RatioPart[];
  basis: 'volume' | 'mass';
  state: AmountState;
}) {
  const { weighs, pours, of, measured, value, problem } = workedAmount(parts, basis, typed);
  const { amount } = typed;
  return (
    <section aria-label="Amounts" className="flex min-w-0 flex-col gap-3">
      <div className="grid gap-3 sm:grid-cols-2">
        <QuantityField
          label={`How much ${of === 'mix' ? (parts.length > 1 ? 'of the mix' : 'paint') : (parts[of]?.name.toLowerCase() ?? '')}`}
          quantity={measured === 'mass' ? 'mass' : 'volume'}
          value={amount}
          onValue={(v) => set({ amount: v })}
        />
        {parts.length > 1 && (
          <Choice
            label="That is"
            options={[...parts.map((p, i) => [String(i), p.name] as const), ['mix', 'the mix'] as const]}
            value={String(of)}
            onPick={(picked) => set({ of: picked === 'mix' ? 'mix' : Number(picked) })}
          />
        )}
      </div>
      {weighs && pours && (
        <Choice
          label="Measured"
          options={[
            ['volume', 'by volume'],
            ['mass', 'on the scale'],
          ]}
          value={measured}
          onPick={(picked) => set({ by: picked })}
        />
      )}
      <FormProblem message={problem} />
      {value && parts.length > 1 && <Result worked={value} by={measured} weighs={weighs} />}
      {value && parts.length === 1 && value.totalKg !== null && value.totalL !== null && (
        <p>
          <Fig quantity="volume" value={value.totalL} className="text-2xl" /> is{' '}
          <Fig quantity="mass" value={value.totalKg} className="text-2xl" />.
        </p>
      )}
      {!weighs && measured === 'volume' && parts.length > 1 && (
        <p className="text-sm quiet">
          By volume only: the densities of the parts are not known, so it cannot be weighed.
        </p>
      )}
    </section>
  );
}

function Result({ worked, by, weighs }: { worked: Worked; by: Measured['by']; weighs: boolean }) {
  const { units } = useSettings();
  const unit = pouringUnit('volume', units, worked.totalL ?? 0);
  const rows = [...worked.parts, { name: 'Mix', litres: worked.totalL, kg: worked.totalKg }];
  return (
    <table className="w-full" aria-live="polite">
      <thead className="sr-only">
        <tr>
          <th scope="col">Part</th>
          <th scope="col">Volume</th>
          {weighs && <th scope="col">On the scale</th>}
        </tr>
      </thead>
      <tbody>
        {rows.map((r, i) => (
          <tr
            key={`${r.name}${i}`}
            className={`border-b ${i === rows.length - 2 ? 'border-base-content' : 'border-base-300'}`}
          >
            <th scope="row" className="py-1 text-left font-normal">
              {r.name}
            </th>
            <td className="py-1 text-right">
              {r.litres === null ? (
                <span className="quiet">not known</span>
              ) : (
                <Fig quantity="volume" value={r.litres} unit={unit} className={by === 'volume' ? 'text-2xl' : ''} />
              )}
            </td>
            {weighs && (
              <td className="py-1 pl-4 text-right">
                {r.kg !== null && <Fig quantity="mass" value={r.kg} className={by === 'mass' ? 'text-2xl' : ''} />}
              </td>
            )}
          </tr>
        ))}
      </tbody>
    </table>
  );
}
