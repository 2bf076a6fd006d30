import { Link } from 'react-router';
import { sprayCan } from '#core/film/layer';
import type { SheetBody } from '#core/model/sheet';
import { counted, plainNumber, ratioShown } from '#core/units/format';
import type { Unit } from '#core/units/quantities';
import type { Stint } from '../../data/targets';
import type { BoatView } from '../../data/store';
import { Cautions } from '../../parts/Cautions';
import { Fig } from '../../parts/Fig';
import { spanWords } from '../../parts/words';
import { Measuring } from './Measuring';
import { OffRatio } from './OffRatio';
import { Pot } from './Pot';
import { PourList, potOf, useStepUnits } from './PourList';
import { SizeLine } from './SizeLine';
import { StickButton } from './StickButton';
import type { Mix } from './useMix';

/** The batch: what to pour in which order, how the pot stands then, what to heed, and that it is mixed. */
export function BatchView({ mix, view, stint }: { mix: Mix; view: BoatView; stint: Stint }) {
  const units = useStepUnits(mix);
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
  return (
    <>
      <SizeLine mix={mix} unit={units.volume} />
      {mix.mixedId === null && (
        <Cautions
          view={view}
          step="mix"
          sheet={sheet}
          surfaceIds={mix.chosen.map((z) => z.surfaceId)}
          method={mix.layer.method}
        />
      )}
      <Measuring mix={mix} units={units} />
      <div className="grid items-start gap-x-6 gap-y-2 sm:grid-cols-[minmax(0,1fr)_minmax(0,16rem)]">
        <div>
          <PourList mix={mix} units={units} />
          <OffRatio mix={mix} units={units} />
          <MixedIt mix={mix} boatId={view.boat.id} stint={stint} />
        </div>
        <PotOfBatch mix={mix} unit={units.volume} />
      </div>
      <RoundedRatio mix={mix} unit={units.volume} />
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
      <Caution sheet={sheet} />
    </>
  );
}

function Caution({ sheet }: { sheet: SheetBody }) {
  if (!sheet.caution) return null;
  return (
    <p className="mt-2 border-l-4 border-base-content pl-3 text-sm">
      {sheet.caution} Follow the maker’s sheet and your local rules.
    </p>
  );
}

/** What the figures come to where nobody can measure them finer. */
function RoundedRatio({ mix, unit }: { mix: Mix; unit: Unit }) {
  const parts = mix.pouring?.steps.filter((s) => s.kind === 'part') ?? [];
  const shown = ratioShown(
    'volume',
    parts.map((p) => p.litres),
    unit,
  );
  if (!shown || mix.measure === 'pump') return null;
  return (
    <p className="mt-2 border-l-4 border-warning pl-3">
      So little cannot be measured finer: these figures come to {shown.map((r) => plainNumber(r, 2)).join(' : ')}.
    </p>
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
      <Caution sheet={mix.sheet} />
    </>
  );
}

function PotOfBatch({ mix, unit }: { mix: Mix; unit: Unit }) {
  const { pouring, mixedL, mixedId, set, kit, setTyped } = mix;
  const pot = potOf(mix);
  if (!pot || !pouring) return null;
  const inPotL = pouring.steps.reduce((sum, s) => sum + s.litres, 0);
  return (
    <div>
      <Pot
        pours={pouring.steps.map((s) => ({ name: s.name, litres: s.pouredL ?? s.litres }))}
        pot={pot}
        unit={unit}
        onTotal={(total) =>
          mixedId === null && set({ by: 'litres', litres: total / (inPotL > 0 && mixedL > 0 ? inPotL / mixedL : 1) })
        }
      />
      <div className="flex flex-wrap items-center gap-x-4">
        <select
          className="narrow min-h-11 max-w-40 min-w-0 truncate bg-base-100 underline underline-offset-4"
          aria-label="Pot"
          value={pot.id}
          onChange={(e) => setTyped({ potId: e.target.value })}
        >
          {kit.pots.map((p) => (
            <option key={p.id} value={p.id}>
              {p.name}
            </option>
          ))}
        </select>
        <StickButton mix={mix} />
        <Link to="/stores/kit" className="link-row text-sm underline underline-offset-4">
          Pots and pumps
        </Link>
      </div>
    </div>
  );
}

/** What to heed of it: what it does, its stand, its pot life. */
function Heed({ mix }: { mix: Mix }) {
  const { sheet, pot, wish } = mix;
  return (
    <ul className="sheet-rule mt-2">
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
      {sheet.parts.length > 1 && (
        <li className="py-1.5">
          Stir each part, scrape the bottom; two minutes by hand or with a paddle. A deep pot goes off sooner: pour it
          into a tray.
        </li>
      )}
    </ul>
  );
}

function MixedIt({ mix, boatId, stint }: { mix: Mix; boatId: string; stint: Stint }) {
  return (
    <div className="mt-4 flex flex-wrap gap-3">
      {mix.mixedId === null ? (
        <button
          type="button"
          className="btn btn-primary"
          disabled={mix.mixedL <= 0 || mix.pouring?.reasonWanted === true}
          onClick={mix.mixIt}
        >
          {mix.sheet.parts.length > 1 ? 'All in: stir, start the clocks' : 'Stirred: start the clocks'}
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
