import { useMemo, useState } from 'react';
import { Link, useSearchParams } from 'react-router';
import { v7 as uuid } from 'uuid';
import { weatherAt } from '#core/air/weather';
import { litresNeeded, USUAL_RATE_M2_PER_H } from '#core/film/spreading';
import { largestBatchL, potLifeH } from '#core/mix/pot';
import { splitBatch, type Batch } from '#core/mix/splitBatch';
import { sheetThinnerOfMixed } from '#core/sheet/thinner';
import type { ZoneStatus } from '#core/coat/zoneStatus';
import { useView } from '../../app/BoatShell';
import { pouringUnit } from '#core/units/format';
import { useSettings } from '../../data/settings';
import { logEntry, type BoatView } from '../../data/store';
import { stintFor, stintsOf, type Stint } from '../../data/targets';
import { Choice, QuantityField, SelectField } from '../../parts/Field';
import { Fig } from '../../parts/Fig';
import { Timers } from '../../parts/Timers';
import { spanWords } from '../../parts/words';
import { nextName } from '../../parts/zoneWords';
import { Pot } from './Pot';

/** One batch at a time, in large figures. */
export function MixPlace() {
  const view = useView();
  const [search, setSearch] = useSearchParams();
  const stints = useMemo(() => stintsOf(view), [view]);
  const found = stintFor(stints, search.get('on')?.split(',') ?? []);
  const running = <Timers view={view} />;
  if (!found) {
    return (
      <section className="max-w-prose py-4">
        {running}
        <h1>Nothing to mix</h1>
        <p className="my-3">No zone has a coat to come. Plan the next one under Film.</p>
        <Link to={`/boats/${view.boat.id}/film`} className="btn btn-primary">
          To Film
        </Link>
      </section>
    );
  }
  // At once, not as a transition: a box ticked with a glove must not wait for the page.
  const pick = (ids: string[]) => setSearch({ on: ids.join(',') }, { replace: true, flushSync: true });
  return (
    <div className="min-w-0">
      {running}
      <MixOne
        key={`${found.stint.sheetId}/${found.chosen.map((z) => z.surfaceId).join()}`}
        view={view}
        stints={stints}
        stint={found.stint}
        chosen={found.chosen}
        onPick={pick}
      />
    </div>
  );
}

function MixOne({
  view,
  stints,
  stint,
  chosen,
  onPick,
}: {
  view: BoatView;
  stints: Stint[];
  stint: Stint;
  chosen: ZoneStatus[];
  onPick: (ids: string[]) => void;
}) {
  const { units } = useSettings();
  const { boat, surfaces, at, hours } = view;
  const sheet = chosen[0]?.nextSheet as NonNullable<ZoneStatus['nextSheet']>;
  const layer = chosen[0]?.nextLayer as NonNullable<ZoneStatus['nextLayer']>;
  const airNow = weatherAt(hours, at)?.airC ?? 20;
  const zoneOf = (id: string) => surfaces.find((s) => s.id === id) as BoatView['surfaces'][number];
  // Litres that each chosen zone takes whole, by its own layer's film and loss.
  const takes = chosen.map((z) => {
    const own = z.nextLayer ?? layer;
    const { areaM2 } = zoneOf(z.surfaceId);
    return {
      areaM2,
      litres: litresNeeded({
        areaM2,
        dftMicron: own.dftMicron,
        solids: sheet.solids,
        loss: own.loss,
        deadVolumeLPerM2: own.deadVolumeLPerM2,
      }),
    };
  });
  const wholeM2 = takes.reduce((sum, t) => sum + t.areaM2, 0);
  const wholeL = takes.reduce((sum, t) => sum + t.litres, 0);
  const perM2 = wholeL / wholeM2;

  const [by, setBy] = useState<'area' | 'litres'>('area');
  const [areaM2, setArea] = useState<number | null>(wholeM2);
  const [litres, setLitres] = useState<number | null>(null);
  const [potC, setPotC] = useState<number | null>(Math.round(airNow * 10) / 10);
  const [thinner, setThinner] = useState<number | null>(layer.thinnerShare);
  const [diameterM, setDiameter] = useState<number | null>(0.18);
  const [mixedId, setMixedId] = useState<string | null>(null);

  const wantedL = by === 'litres' && litres !== null ? litres : (areaM2 ?? 0) * perM2;
  const mixedL = Number.isFinite(wantedL) && wantedL > 0 ? wantedL : 0;
  const pot =
    sheet.potLife && potC !== null && Number.isFinite(potC) ? potLifeH({ table: sheet.potLife, tempC: potC }) : null;
  const mostL = pot
    ? largestBatchL({
        potLifeH: pot.hours,
        inductionMin: sheet.inductionMin ?? 0,
        rateM2PerH: USUAL_RATE_M2_PER_H[layer.method],
        painters: 1,
        litresPerM2: perM2,
      })
    : null;

  let batch: Batch | null = null;
  let problem: string | null = null;
  try {
    const share = Number.isFinite(thinner) ? (thinner ?? 0) : 0;
    batch = splitBatch({
      parts: sheet.parts,
      basis: sheet.ratioBasis,
      mixedL,
      thinner: { share: sheetThinnerOfMixed(sheet, share), of: 'mixed' },
    });
  } catch (error) {
    problem = (error as Error).message;
  }
  const volumeUnit = pouringUnit('volume', units, batch?.totalL ?? 0);
  const massUnit = pouringUnit('mass', units, batch?.parts.reduce((sum, p) => sum + (p.massKg ?? 0), 0) ?? 0);
  const missing = sheet.parts.filter((p) => p.densityKgPerL === null).map((p) => p.name);

  const mix = () => {
    if (!batch) return;
    const id = uuid();
    setMixedId(id);
    void logEntry(
      {
        boatId: boat.id,
        stream: 'batch',
        streamId: id,
        kind: 'mixed',
        body: {
          sheetRevisionId: stint.sheetRevisionId,
          on: chosen.map((z) => ({ surfaceId: z.surfaceId, layerId: z.nextLayer?.id ?? layer.id })),
          parts: batch.parts,
          thinnerL: batch.thinnerL,
          totalL: batch.totalL,
          standMin: sheet.inductionMin ?? 0,
          potLifeH: pot?.hours ?? null,
          potTempC: potC,
        },
      },
      'Batch mixed',
    );
  };

  return (
    <div className="grid min-w-0 gap-x-10 gap-y-4 lg:grid-cols-[minmax(0,5fr)_minmax(0,7fr)]">
      <h1 className="order-1 text-2xl lg:col-span-2">
        Mix {sheet.name}, {nextName(chosen[0] as ZoneStatus)}
      </h1>
      <section className="order-3 flex min-w-0 flex-col gap-3 lg:order-2" aria-label="For what">
        {stints.length > 1 && (
          <SelectField
            label="Product"
            value={stint.sheetId}
            options={stints.map(
              (s) => [s.sheetId, `${s.name}: ${s.zones.map((z) => zoneOf(z.surfaceId).name).join(', ')}`] as const,
            )}
            onPick={(sheetId) => onPick([stints.find((s) => s.sheetId === sheetId)?.zones[0]?.surfaceId ?? ''])}
          />
        )}
        <fieldset>
          <legend className="lab">For</legend>
          {stint.zones.map((z) => {
            const on = chosen.some((c) => c.surfaceId === z.surfaceId);
            const ids = on
              ? chosen.filter((c) => c.surfaceId !== z.surfaceId).map((c) => c.surfaceId)
              : [...chosen.map((c) => c.surfaceId), z.surfaceId];
            return (
              <label key={z.surfaceId} className="flex min-h-11 items-center gap-3">
                <input
                  type="checkbox"
                  className="checkbox"
                  checked={on}
                  onChange={() => ids.length > 0 && onPick(ids)}
                />
                <span className="flex-1">
                  {zoneOf(z.surfaceId).name} <span className="quiet">{nextName(z)}</span>
                </span>
                <Fig
                  quantity="area"
                  value={zoneOf(z.surfaceId).areaM2}
                  approx={zoneOf(z.surfaceId).area.method === 'dimensions'}
                />
              </label>
            );
          })}
        </fieldset>
        <Choice
          label="Size of the batch by"
          options={[
            ['area', 'Area to do'],
            ['litres', 'Litres'],
          ]}
          value={by}
          onPick={(next) => {
            setBy(next);
            if (next === 'litres' && litres === null) setLitres(Math.round(mixedL * 100) / 100);
          }}
        />
        <div className="grid grid-cols-2 gap-3">
          {by === 'area' ? (
            <QuantityField
              label="Area to do"
              quantity="area"
              value={areaM2}
              onValue={setArea}
              hint="Less what is done already"
            />
          ) : (
            <QuantityField label="Mixed paint, without thinner" quantity="volume" value={litres} onValue={setLitres} />
          )}
          <QuantityField
            label={`Thinner, of ${sheet.thinner?.of === 'base' ? 'the base' : 'the mix'}`}
            quantity="percent"
            value={thinner}
            onValue={setThinner}
            hint={
              sheet.thinner
                ? `${sheet.thinner.name}, at most ${Math.round(sheet.thinner.maxShare * 100)} %`
                : 'The sheet gives none'
            }
          />
          <QuantityField
            label="Temperature of the paint"
            quantity="temperature"
            value={potC}
            onValue={setPotC}
            hint="Air now, until you measure"
          />
          <QuantityField
            label="Pot, inside width"
            quantity="length"
            value={diameterM}
            onValue={setDiameter}
            hint="7 in, 18 cm"
          />
        </div>
        {thinner !== null && thinner > (sheet.thinner?.maxShare ?? 0) && (
          <p className="border-l-4 border-warning bg-base-200 px-3 py-1">
            More thinner than the sheet allows: it sags and loses film.
          </p>
        )}
      </section>
      <section className="order-2 min-w-0 lg:order-3" aria-label="The batch">
        {problem && <p className="border-l-4 border-error px-3 py-2">{problem}</p>}
        {batch && (
          <>
            <div className="grid items-end gap-x-6 gap-y-2 sm:grid-cols-[minmax(0,1fr)_minmax(0,16rem)]">
              <table className="w-full text-left">
                <thead>
                  <tr className="border-b border-base-content">
                    <th className="lab py-1">Pour, in this order</th>
                    <th className="lab py-1 text-right">By volume</th>
                    <th className="lab py-1 text-right">Scale reads</th>
                  </tr>
                </thead>
                <tbody>
                  {batch.parts.map((part, i) => {
                    const upTo = batch.parts.slice(0, i + 1).every((p) => p.massKg !== null)
                      ? batch.parts.slice(0, i + 1).reduce((sum, p) => sum + (p.massKg as number), 0)
                      : null;
                    return (
                      <tr key={part.name} className="border-b border-base-300 align-baseline">
                        <th scope="row" className="py-1.5 pr-2 font-normal">
                          {i > 0 && '+ '}
                          {part.name}
                          {part.massKg !== null && (
                            <span className="block text-sm quiet">
                              alone <Fig quantity="mass" value={part.massKg} unit={massUnit} />
                            </span>
                          )}
                        </th>
                        <td className="py-1.5 text-right">
                          <Fig quantity="volume" value={part.volumeL} unit={volumeUnit} className="text-3xl" />
                        </td>
                        <td className="py-1.5 text-right">
                          {upTo === null ? (
                            <span className="quiet">no weighing</span>
                          ) : (
                            <Fig quantity="mass" value={upTo} unit={massUnit} className="text-3xl" />
                          )}
                        </td>
                      </tr>
                    );
                  })}
                  {batch.thinnerL > 0 && (
                    <tr className="border-b border-base-300 align-baseline">
                      <th scope="row" className="py-1.5 font-normal">
                        + {sheet.thinner?.name || 'thinner'}
                      </th>
                      <td className="py-1.5 text-right">
                        <Fig quantity="volume" value={batch.thinnerL} unit={volumeUnit} className="text-3xl" />
                      </td>
                      <td />
                    </tr>
                  )}
                  <tr className="align-baseline">
                    <th scope="row" className="py-1.5">
                      In the pot
                    </th>
                    <td className="py-1.5 text-right">
                      <Fig quantity="volume" value={batch.totalL} unit={volumeUnit} className="text-2xl" />
                    </td>
                    <td />
                  </tr>
                </tbody>
              </table>
              {diameterM !== null && diameterM > 0 && Number.isFinite(diameterM) && (
                <Pot
                  pours={[
                    ...batch.parts.map((p) => ({ name: p.name, litres: p.volumeL })),
                    ...(batch.thinnerL > 0 ? [{ name: 'thinner', litres: batch.thinnerL }] : []),
                  ]}
                  diameterM={diameterM}
                  unit={volumeUnit}
                  largestL={Math.max(wholeL * 1.5, 1)}
                  onTotal={(total) => {
                    setBy('litres');
                    setLitres(total / (batch.totalL > 0 ? batch.totalL / mixedL : 1));
                  }}
                />
              )}
            </div>
            {missing.length > 0 && (
              <p className="mt-2">
                No weighing: the density of {missing.join(' and ')} is not on the sheet.{' '}
                <Link className="underline underline-offset-4" to={`/sheets/${stint.sheetId}/edit`}>
                  Type it in
                </Link>
                ; a volume ratio never goes on the scale as it is.
              </p>
            )}
            <ul className="sheet-rule mt-2">
              <li className="py-1.5">
                Does <Fig quantity="area" value={perM2 > 0 ? mixedL / perM2 : 0} /> of{' '}
                <Fig quantity="area" value={wholeM2} /> at <Fig quantity="film" value={layer.dftMicron} /> dry.
              </li>
              {sheet.inductionMin ? (
                <li className="py-1.5">
                  Let it stand <span className="fig">{sheet.inductionMin} min</span> before the first brush.
                </li>
              ) : null}
              {pot ? (
                <li className="py-1.5">
                  Pot life{' '}
                  <span className={`fig ${pot.estimated ? 'approx' : ''}`}>
                    {pot.estimated && '≈ '}
                    {spanWords(pot.hours * 3_600_000)}
                  </span>{' '}
                  at <Fig quantity="temperature" value={potC ?? airNow} />
                  {pot.estimated && <span className="quiet"> estimated from one figure</span>}.
                </li>
              ) : (
                sheet.parts.length > 1 && <li className="py-1.5 quiet">The sheet has no pot life: no timer for it.</li>
              )}
              {mostL !== null && mixedL > mostL && (
                <li className="border-l-4 border-warning bg-base-200 px-3 py-1.5">
                  More than one painter puts on in the pot life: at most <Fig quantity="volume" value={mostL} /> at a
                  time by {layer.method}.{' '}
                  <button
                    type="button"
                    className="underline underline-offset-4"
                    onClick={() => (setBy('litres'), setLitres(Math.floor(mostL * 100) / 100))}
                  >
                    Make it that much
                  </button>
                </li>
              )}
            </ul>
            {sheet.caution && (
              <p className="mt-2 border-l-4 border-base-content pl-3 text-sm">
                {sheet.caution} Follow the maker’s sheet and your local rules.
              </p>
            )}
            <div className="mt-4 flex flex-wrap gap-3">
              {mixedId === null ? (
                <button type="button" className="btn btn-primary" disabled={mixedL <= 0} onClick={mix}>
                  Mixed: start the clocks
                </button>
              ) : (
                <>
                  <Link
                    className="btn btn-primary"
                    to={`/boats/${boat.id}/coat/start?on=${chosen.map((z) => z.surfaceId).join(',')}&batch=${mixedId}`}
                  >
                    Start the coat with it
                  </Link>
                  <button type="button" className="btn" onClick={() => setMixedId(null)}>
                    Another batch
                  </button>
                </>
              )}
            </div>
          </>
        )}
      </section>
    </div>
  );
}
