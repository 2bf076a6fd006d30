import { Link } from 'react-router';
import { sprayCan } from '#core/film/layer';
import type { Batch } from '#core/mix/splitBatch';
import { counted, plainNumber, pouringUnit, ratioShown } from '#core/units/format';
import type { Unit } from '#core/units/quantities';
import { useSettings } from '../../data/settings';
import type { Stint } from '../../data/targets';
import { Fig } from '../../parts/Fig';
import { spanWords } from '../../parts/words';
import { Pot } from './Pot';
import type { Mix } from './useMix';

/** The batch: what to pour in which order, how the pot stands then, what to heed, and that it is mixed. */
export function BatchView({ mix, boatId, stint }: { mix: Mix; boatId: string; stint: Stint }) {
  const { units } = useSettings();
  const { batch, sheet, withoutDensity } = mix;
  if (mix.mixedId === null && mix.mixedForL > 0 && mix.mixedL === 0 && mix.litresPerM2 > 0)
    return (
      <p className="border-l-4 border-base-content px-3 py-2">
        <Fig quantity="volume" value={mix.mixedForL} /> was mixed for this coat, without thinner. That does{' '}
        <Fig quantity="area" value={mix.mixedForL / mix.litresPerM2} /> of <Fig quantity="area" value={mix.wholeM2} />.
        Type the area or the litres that are still wanted.
      </p>
    );
  const can = sprayCan(sheet);
  if (can) return <Cans mix={mix} coversM2={can.coversM2} />;
  if (!batch) return <p className="border-l-4 border-error px-3 py-2">{mix.problem}</p>;
  const volumes = batch.parts.map((p) => p.volumeL);
  const masses = batch.parts.map((p) => p.massKg ?? 0);
  const volumeUnit = pouringUnit('volume', units, batch.totalL, [...volumes, batch.thinnerL]);
  const massUnit = pouringUnit(
    'mass',
    units,
    masses.reduce((sum, m) => sum + m, 0),
    masses,
  );
  const shown = ratioShown('volume', volumes, volumeUnit);
  return (
    <>
      <div className="grid items-end gap-x-6 gap-y-2 sm:grid-cols-[minmax(0,1fr)_minmax(0,16rem)]">
        <Pours batch={batch} thinner={sheet.thinner?.name || 'thinner'} volumeUnit={volumeUnit} massUnit={massUnit} />
        <PotOfBatch mix={mix} batch={batch} unit={volumeUnit} />
      </div>
      {shown && (
        <p className="mt-2 border-l-4 border-warning pl-3">
          So little cannot be measured finer: these figures come to {shown.map((r) => plainNumber(r, 2)).join(' : ')}.
        </p>
      )}
      {withoutDensity.length > 0 && (
        <p className="mt-2">
          No weighing: the density of {withoutDensity.join(' and ')} is not on the sheet.{' '}
          <Link className="underline underline-offset-4" to={`/sheets/${stint.sheetId}/edit`}>
            Type it in
          </Link>
          ; a volume ratio never goes on the scale as it is.
        </p>
      )}
      <Heed mix={mix} />
      {sheet.caution && (
        <p className="mt-2 border-l-4 border-base-content pl-3 text-sm">
          {sheet.caution} Follow the maker’s sheet and your local rules.
        </p>
      )}
      <MixedIt mix={mix} boatId={boatId} stint={stint} />
    </>
  );
}

/** Out of spray cans nothing is poured: how many do it. */
function Cans({ mix, coversM2 }: { mix: Mix; coversM2: number }) {
  const cans = Math.ceil(mix.doesM2 / coversM2 - 1e-9);
  return (
    <>
      <p className="text-3xl">{counted(cans, 'can')}</p>
      <p className="py-1.5">
        One covers <Fig quantity="area" value={coversM2} /> once; <Fig quantity="area" value={mix.doesM2} /> of{' '}
        <Fig quantity="area" value={mix.wholeM2} />. Nothing is mixed: shake each for two minutes and start the coat.
      </p>
      {mix.sheet.caution && (
        <p className="mt-2 border-l-4 border-base-content pl-3 text-sm">
          {mix.sheet.caution} Follow the maker’s sheet and your local rules.
        </p>
      )}
    </>
  );
}

interface PoursProps {
  batch: Batch;
  thinner: string;
  volumeUnit: Unit;
  massUnit: Unit;
}

/** Parts in the order they are poured, by volume and as the scale reads then. */
function Pours({ batch, thinner, volumeUnit, massUnit }: PoursProps) {
  return (
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
              + {thinner}
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
  );
}

function PotOfBatch({ mix, batch, unit }: { mix: Mix; batch: Batch; unit: Unit }) {
  const { diameterM, mixedL, wholeL, mixedId, set } = mix;
  return (
    diameterM !== null &&
    diameterM > 0 &&
    Number.isFinite(diameterM) && (
      <Pot
        pours={[
          ...batch.parts.map((p) => ({ name: p.name, litres: p.volumeL })),
          ...(batch.thinnerL > 0 ? [{ name: 'thinner', litres: batch.thinnerL }] : []),
        ]}
        diameterM={diameterM}
        unit={unit}
        largestL={Math.max(wholeL * 1.5, 1)}
        onTotal={(total) =>
          mixedId === null && set({ by: 'litres', litres: total / (batch.totalL > 0 ? batch.totalL / mixedL : 1) })
        }
      />
    )
  );
}

/** What to heed of it: what it does, its stand, its pot life. */
function Heed({ mix }: { mix: Mix }) {
  const { sheet, layer, pot, largestL, wish, set } = mix;
  const { units } = useSettings();
  return (
    <ul className="sheet-rule mt-2">
      <li className="py-1.5">
        Does <Fig quantity="area" value={mix.doesM2} /> of <Fig quantity="area" value={mix.wholeM2} /> at{' '}
        <Fig quantity="film" value={layer.dftMicron} /> dry.
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
          at <Fig quantity="temperature" value={wish.potC ?? mix.airNowC} />
          {pot.estimated && <span className="quiet"> estimated from one figure</span>}.
        </li>
      ) : (
        sheet.parts.length > 1 && <li className="py-1.5 quiet">The sheet has no pot life: no timer for it.</li>
      )}
      {largestL !== null && mix.mixedL > largestL && (
        <li className="border-l-4 border-warning bg-base-200 px-3 py-1.5">
          More than one painter puts on in the pot life: at most{' '}
          <Fig quantity="volume" value={largestL} unit={pouringUnit('volume', units, mix.mixedL)} /> at a time by{' '}
          {layer.method}.{' '}
          <button
            type="button"
            className="underline underline-offset-4"
            onClick={() => set({ by: 'litres', litres: Math.floor(largestL * 100) / 100 })}
          >
            Make it that much
          </button>
        </li>
      )}
    </ul>
  );
}

function MixedIt({ mix, boatId, stint }: { mix: Mix; boatId: string; stint: Stint }) {
  return (
    <div className="mt-4 flex flex-wrap gap-3">
      {mix.mixedId === null ? (
        <button type="button" className="btn btn-primary" disabled={mix.mixedL <= 0} onClick={mix.mixIt}>
          Mixed: start the clocks
        </button>
      ) : (
        <>
          <Link
            className="btn btn-primary"
            to={
              stint.coat
                ? `/boats/${boatId}/coat/${stint.coat.id}`
                : `/boats/${boatId}/coat/start?on=${mix.chosen.map((z) => z.surfaceId).join(',')}&batch=${mix.mixedId}`
            }
          >
            {stint.coat ? 'Back to the coat' : 'Start the coat with it'}
          </Link>
          <button type="button" className="btn" onClick={mix.again}>
            Another batch
          </button>
        </>
      )}
    </div>
  );
}
