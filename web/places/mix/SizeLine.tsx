import { useState } from 'react';
import { counted } from '#core/units/format';
import type { Unit } from '#core/units/quantities';
import { QuantityField, TextField } from '../../parts/Field';
import { Fig } from '../../parts/Fig';
import type { Mix } from './useMix';

/** How big, in how many batches, and the most that one may hold, with the rule behind it: seen, and overridden by hand. */
export function SizeLine({ mix, unit }: { mix: Mix; unit: Unit }) {
  const { mixedL, plan, limitL, ruleL, set, mixedId } = mix;
  const [open, setOpen] = useState(false);
  const litres = (value: number, className = '') => (
    <Fig quantity="volume" value={value} unit={unit} className={className} />
  );
  const over = limitL !== null && mixedL > limitL + 1e-6;
  return (
    <section aria-label="Size of the batch">
      <p className="text-lg">
        {litres(mixedL, 'text-3xl')} without thinner does <Fig quantity="area" value={mix.doesM2} /> of{' '}
        <Fig quantity="area" value={mix.wholeM2} /> at <Fig quantity="film" value={mix.layer.dftMicron} /> dry
        {plan && plan.count > 1 && (
          <>
            ; {counted(plan.count, 'batch', 'batches')} for what is left: {litres(plan.eachL)} each, the last{' '}
            {litres(plan.lastL)}
          </>
        )}
        .
      </p>
      {limitL !== null && (
        <div className={over ? 'border-l-4 border-warning bg-base-200 px-3 py-1.5' : 'py-1'}>
          {over ? 'More than goes on within the pot life: at most ' : 'At most '}
          {litres(limitL)} at a time
          {limitL === ruleL ? (
            <span className="quiet">
              {' '}
              by the pot life less the stand and a tenth, <Fig quantity="area" value={mix.rateM2PerH} digits={0} /> an
              hour
              {mix.painters > 1 ? `, ${mix.painters} painters` : ''}
            </span>
          ) : (
            <span className="font-semibold">
              {' '}
              as you decided{ruleL !== null && <>; the rule says {litres(ruleL)}</>}
            </span>
          )}
          .{' '}
          {over && plan && plan.count > 1 && mixedId === null && (
            <button
              type="button"
              className="min-h-11 underline underline-offset-4"
              onClick={() => set({ by: 'litres', litres: Math.round(plan.eachL * 1000) / 1000 })}
            >
              Make it {litres(plan.eachL)}
            </button>
          )}{' '}
          {mixedId === null && (
            <button
              type="button"
              className="min-h-11 underline underline-offset-4"
              aria-expanded={open}
              onClick={() => setOpen(!open)}
            >
              Change<span className="sr-only"> what the largest batch rests on</span>
            </button>
          )}
        </div>
      )}
      {plan === null && limitL === 0 && (
        <p role="alert" className="border-l-4 border-error pl-3">
          The stand eats the pot life at this temperature: nothing would be left to put on. Cool the paint, or wait.
        </p>
      )}
      {open && mixedId === null && <LimitFields mix={mix} />}
    </section>
  );
}

function LimitFields({ mix }: { mix: Mix }) {
  const { wish, set, ruleL, realLPerM2 } = mix;
  return (
    <div className="grid grid-cols-2 gap-3 pb-2 sm:grid-cols-4">
      <TextField
        label="Painters"
        inputMode="numeric"
        value={wish.painters ?? ''}
        onChange={(e) => set({ painters: e.target.value.trim() === '' ? null : Math.floor(Number(e.target.value)) })}
      />
      <QuantityField
        label="Each does, an hour"
        quantity="area"
        value={wish.rateM2PerH ?? null}
        onValue={(rateM2PerH) => set({ rateM2PerH })}
        placeholder={mix.rateM2PerH}
      />
      <QuantityField
        label="Largest batch"
        quantity="volume"
        value={wish.limitL ?? null}
        onValue={(limitL) => set({ limitL })}
        placeholder={ruleL ?? undefined}
        hint="Empty: by the rule"
      />
      {realLPerM2 !== null && (
        <div className="self-end">
          <button
            type="button"
            className="btn"
            aria-pressed={wish.litresPerM2 != null}
            onClick={() => set({ litresPerM2: wish.litresPerM2 == null ? realLPerM2 : null })}
          >
            {wish.litresPerM2 == null ? 'Take what it really takes' : 'Back to what was planned'}
          </button>
          <p className="text-sm quiet">
            <Fig quantity="spreadingRate" value={1 / realLPerM2} /> so far, planned{' '}
            <Fig quantity="spreadingRate" value={1 / mix.plannedLPerM2} />
          </p>
        </div>
      )}
    </div>
  );
}
