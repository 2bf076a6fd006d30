import { useState } from 'react';
import { USUAL_RATE_M2_PER_H } from '#core/film/spreading';
import { BARE_METAL_H } from '#core/prep/bareMetal';
import { BLAST_M2_PER_H, blastDay, type BlastDay } from '#core/prep/blast';
import type { SurfaceRow } from '#contracts/rows/boat';
import { counted, plainNumber } from '#core/units/format';
import type { BoatView } from '../../data/store';
import { attempt } from '../../parts/attempt';
import { BottomSheet } from '../../parts/BottomSheet';
import { Fig } from '../../parts/Fig';
import { FormProblem, QuantityField, TextField } from '../../parts/Field';
import { timeWords } from '../../parts/words';

const HOUR_MS = 3_600_000;

/** How much of a zone to lay bare today: no more than can be primed while it holds and before the air closes. */
export function BlastForm({ view, surface, onClose }: { view: BoatView; surface: SurfaceRow; onClose: () => void }) {
  const blast = useBlast(view, surface);
  const { day, lastStartAt } = blast;
  return (
    <BottomSheet title={`${surface.name}: how much to blast`} onClose={onClose}>
      <div className="flex flex-col gap-3">
        {day.value && (
          <p role="status">
            <Fig quantity="area" value={day.value.areaM2} className="text-3xl" />{' '}
            <span className="text-lg">
              {day.value.areaM2 === 0
                ? 'today: there is no time to prime it.'
                : `today, ${plainNumber(day.value.blastH, 1)} h of blasting and ${plainNumber(day.value.primeH, 1)} h of priming`}
            </span>
            <span className="quiet block">{heldWords(day.value)}</span>
          </p>
        )}
        <div className="grid grid-cols-2 gap-3">
          <QuantityField label="Still to blast" quantity="area" value={blast.areaM2} onValue={blast.setAreaM2} />
          <TextField
            label="Hours left for primer"
            inputMode="decimal"
            value={blast.dayH}
            onChange={(e) => blast.setDayH(e.target.value)}
            hint={
              lastStartAt === null
                ? 'The forecast gives no last start'
                : `Last start ${timeWords(lastStartAt, view.at, view.boat.timeZone)} by the forecast`
            }
          />
          <QuantityField label="Blasted in an hour" quantity="area" value={blast.rate} onValue={blast.setRate} />
          <QuantityField label="Primed in an hour, each" quantity="area" value={blast.prime} onValue={blast.setPrime} />
          <TextField
            label="Painters"
            inputMode="numeric"
            value={blast.painters}
            onChange={(e) => blast.setPainters(e.target.value)}
          />
          <TextField
            label="Hours between"
            inputMode="decimal"
            value={blast.between}
            onChange={(e) => blast.setBetween(e.target.value)}
            hint="Clearing up, mixing"
          />
          <TextField
            label="Bare metal holds, hours"
            inputMode="decimal"
            value={blast.holds}
            onChange={(e) => blast.setHolds(e.target.value)}
          />
        </div>
        <FormProblem message={day.problem} />
      </div>
    </BottomSheet>
  );
}

/** What holds it down, and how many days all of it takes. */
function heldWords({ days, heldBy, areaM2 }: BlastDay): string {
  if (areaM2 === 0) return 'Wait for a day with more hours.';
  if (days <= 1) return 'All of it can be primed while it holds.';
  const held = heldBy === 'bareMetal' ? 'how long bare metal waits' : 'the hours left for primer';
  return `Held down by ${held}. ${counted(days, 'day')} for all of it: the rest stays covered.`;
}

/** What it rests on, to begin with: the zone, usual rates, and the last start by the forecast. */
function useBlast(view: BoatView, surface: SurfaceRow) {
  const status = view.statuses.find((s) => s.surfaceId === surface.id);
  const lastStartAt = status?.advice?.lastStartAt ?? null;
  const method = status?.nextLayer?.method ?? 'roller';
  const [areaM2, setAreaM2] = useState<number | null>(surface.areaM2);
  const [rate, setRate] = useState<number | null>(BLAST_M2_PER_H);
  const [prime, setPrime] = useState<number | null>(USUAL_RATE_M2_PER_H[method]);
  const [painters, setPainters] = useState('1');
  const [between, setBetween] = useState('1');
  const [dayH, setDayH] = useState(() =>
    lastStartAt === null ? '' : plainNumber(Math.max(0, (lastStartAt - view.at) / HOUR_MS), 1),
  );
  const [holds, setHolds] = useState(String(BARE_METAL_H));
  const number = (text: string) => Number(text.replace(',', '.'));
  const day = attempt(() =>
    blastDay({
      areaM2: areaM2 ?? Number.NaN,
      blastM2PerH: rate ?? Number.NaN,
      primeM2PerH: prime ?? Number.NaN,
      painters: number(painters),
      betweenH: number(between),
      dayH: dayH.trim() === '' ? 24 : number(dayH),
      bareMetalH: number(holds),
    }),
  );
  return {
    day,
    lastStartAt,
    areaM2,
    setAreaM2,
    rate,
    setRate,
    prime,
    setPrime,
    painters,
    setPainters,
    between,
    setBetween,
    dayH,
    setDayH,
    holds,
    setHolds,
  };
}
