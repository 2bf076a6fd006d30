import { Suspense } from 'react';
import { Link } from 'react-router';
import type { SheetBody } from '#core/model/sheet';
import { useYard } from '../../data/store';
import { useFigure } from '../../parts/Fig';
import { Amounts, useAmount, workedAmount, type AmountState } from '../../parts/tin/Amounts';
import { Times, useTempC, type AtC } from '../../parts/tin/Times';
import { useWide } from '../../parts/useWide';
import { timeRows } from './timeRows';
import { part } from '../../parts/part';

const TimeCurve = part(() => import('./TimeCurve'), 'TimeCurve');

/** A sheet answers by itself: how much of the other part, how long the pot lasts, when the next coat may go on. */
export function AtTheTin({ sheet }: { sheet: SheetBody }) {
  const amount = useAmount();
  const temp = useTempC();
  return (
    <section aria-labelledby="tin" className="py-3">
      <h2 id="tin" className="ruled pb-1">
        At the tin
      </h2>
      <TinAnswers sheet={sheet} amount={amount} temp={temp} />
    </section>
  );
}

/** The same without a heading, for a page that has its own. */
export function TinAnswers({ sheet, amount, temp }: { sheet: SheetBody; amount: AmountState; temp: AtC }) {
  const wide = useWide();
  return (
    <div className="grid gap-x-12 gap-y-4 pt-2 lg:grid-cols-2">
      <div className="flex min-w-0 flex-col gap-3">
        <Amounts parts={sheet.parts} basis={sheet.ratioBasis} state={amount} />
        {wide && <MixFor sheet={sheet} amount={amount} />}
      </div>
      <div className="min-w-0">
        <Times sheet={sheet} temp={temp} />
        <Suspense fallback={<div className="h-64" />}>
          <TimeCurve rows={timeRows(sheet)} minCureC={sheet.minCureC} atC={temp.atC} />
        </Suspense>
      </div>
      {!wide && <MixFor sheet={sheet} amount={amount} />}
    </div>
  );
}

/** Where it is the next coat: what was worked out is kept there as a batch, rings and comes off the shelf. */
function MixFor({ sheet, amount: [typed] }: { sheet: SheetBody; amount: AmountState }) {
  const figure = useFigure();
  const litres = workedAmount(sheet.parts, sheet.ratioBasis, typed).value?.totalL ?? null;
  const { data: yard } = useYard();
  const next = (yard?.boats ?? []).flatMap((b) =>
    b.zones.filter((z) => z.nextName === sheet.name).map((z) => ({ boat: b.boat, zone: z })),
  );
  if (next.length === 0)
    return (
      <p className="text-sm quiet">
        On no boat here is it the next coat. Once it is, Mix sizes the batch for the zone, keeps time and writes it
        down.
      </p>
    );
  return (
    <div className="flex flex-wrap gap-2">
      {next.slice(0, 4).map(({ boat, zone }) => (
        <Link
          key={zone.surfaceId}
          to={`/boats/${boat.id}/mix?on=${zone.surfaceId}${litres ? `&litres=${Number(litres.toPrecision(6))}` : ''}`}
          className="btn h-auto min-h-11 max-w-full py-2 whitespace-normal"
        >
          {litres ? `Keep ${figure('volume', litres)} as a batch` : 'Mix'} for {zone.name}, {boat.name}
        </Link>
      ))}
    </div>
  );
}
