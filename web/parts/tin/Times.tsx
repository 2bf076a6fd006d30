import { useState } from 'react';
import type { SheetBody } from '#core/model/sheet';
import { timesAt, type TinTimeAt } from '#core/sheet/timesAt';
import { useNow } from '../../data/now';
import { deviceZone } from '../../data/device';
import { attempt } from '../attempt';
import { FormProblem, QuantityField } from '../Field';
import { useFigure } from '../Fig';
import { SHEET_KIND_WORDS, spanWords, timeWords } from '../words';

const HOUR_MS = 3_600_000;
/** Where most sheets give their figures. */
const USUAL_C = 20;

/** In place of % stands what the next coat is, where the sheet tells several apart. */
const LABELS: Record<TinTimeAt['what'], string> = {
  potLife: 'Pot life',
  touchDry: 'Touch dry',
  shortest: 'Next coat% not before',
  longestAsIs: 'Next coat% as is, until',
  longest: 'Next coat% even abraded, until',
  sandable: 'Dry to sand',
  immersion: 'Into the water, not before',
  fullCure: 'Full cure',
};

function labelOf(time: TinTimeAt): string {
  const by = 'after' in time && time.after !== 'any' ? ` (${SHEET_KIND_WORDS[time.after].toLowerCase()})` : '';
  return LABELS[time.what].replace('%', by);
}

export interface AtC {
  readonly tempC: number | null;
  readonly setTempC: (tempC: number | null) => void;
  /** The one that counts: as typed, else the usual one. */
  readonly atC: number;
}

export const atTempC = (tempC: number | null, setTempC: AtC['setTempC']): AtC => ({
  tempC,
  setTempC,
  atC: tempC === null || Number.isNaN(tempC) ? USUAL_C : tempC,
});

export function useTempC(): AtC {
  return atTempC(...useState<number | null>(null));
}

/** A sheet's clocks at one temperature, as spans, and as times for a coat that is finished now. */
export function Times({ sheet, temp }: { sheet: SheetBody; temp: AtC }) {
  const at = useNow(60_000);
  const figure = useFigure();
  const { value: times, problem } = attempt(() => timesAt({ sheet, tempC: temp.atC }));
  const overcoats = times?.some((t) => t.what === 'shortest') ?? false;
  const zone = deviceZone();
  return (
    <section aria-label="Times" className="flex min-w-0 flex-col gap-2">
      <QuantityField
        label="At"
        quantity="temperature"
        value={temp.tempC}
        onValue={temp.setTempC}
        hint={
          temp.tempC === null ? `Left empty: ${figure('temperature', USUAL_C, 0)}, as most sheets have it` : undefined
        }
      />
      <FormProblem message={problem} />
      {times && times.length > 0 && (
        <table className="w-full" aria-live="polite">
          <thead>
            <tr className="lab text-left">
              <th scope="col" className="sr-only">
                What
              </th>
              <th scope="col" className="text-right font-medium">
                takes
              </th>
              <th scope="col" className="pl-4 text-right font-medium">
                mixed, or finished, now
              </th>
            </tr>
          </thead>
          <tbody>
            {times.map((t, i) => (
              <tr key={`${t.what}${i}`} className="border-t border-base-300">
                <th scope="row" className="py-1 text-left font-normal">
                  {labelOf(t)}
                </th>
                <td className="fig py-1 text-right text-xl">
                  {t.estimated && '≈ '}
                  {Number.isFinite(t.hours) ? spanWords(t.hours * HOUR_MS) : 'not at all'}
                </td>
                <td className="fig py-1 pl-4 text-right">
                  {Number.isFinite(t.hours) ? timeWords(at + t.hours * HOUR_MS, at, zone) : 'too cold to cure'}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      {!overcoats && (
        <p className="border-l-4 border-warning pl-3">
          Its sheet gives no overcoat times: when the next coat may go on cannot be told until they are typed.
        </p>
      )}
      <p className="text-sm quiet">
        At this temperature all the time. On a boat the clock follows her weather, and the maker’s sheet goes first.
      </p>
    </section>
  );
}
