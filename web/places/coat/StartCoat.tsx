import { useMemo } from 'react';
import { Link, useSearchParams } from 'react-router';
import { wetFilmMicron } from '#core/film/spreading';
import { sheetThinnerOfMixed } from '#core/sheet/thinner';
import { figure, type UnitChoice } from '#core/units/format';
import type { QuantityName } from '#core/units/quantities';
import { useView } from '../../app/BoatShell';
import { useSettings } from '../../data/settings';
import type { BoatView } from '../../data/store';
import { stintFor, stintsOf } from '../../data/targets';
import { attempt } from '../../parts/attempt';
import { Choice, FormProblem, QuantityField, SelectField, TextField } from '../../parts/Field';
import { BeforeCoat } from '../prep/BeforeCoat';
import { Cautions } from '../../parts/Cautions';
import { Fig } from '../../parts/Fig';
import { Term } from '../../parts/Term';
import { NoPainter } from '../../parts/NoPainter';
import { TimeField } from '../../parts/TimeField';
import { Verdict } from '../../parts/Verdict';
import { ZoneChecks } from '../../parts/ZoneChecks';
import { ABRADE_FOR } from '#core/model/layer';
import { ABRADE_FOR_WORDS, MASKED_WORDS } from '../../parts/choiceWords';
import { breakWords, timeWords } from '../../parts/words';
import { nextName, windowLine } from '../../parts/zoneWords';
import { Conditions } from './Conditions';
import { useStart, type Start, type StartProps } from './useStart';

/** From the conditions to the first brush: what stands against a start is said, and overridden only in writing. */
export function StartCoat() {
  const view = useView();
  const [search, setSearch] = useSearchParams();
  const stints = useMemo(() => stintsOf(view), [view]);
  const found = stintFor(stints, search.get('on')?.split(',') ?? []);
  if (!found) {
    return (
      <section className="max-w-prose py-4">
        <h1>No coat to start</h1>
        <p className="my-3">
          {view.surfaces.length === 0
            ? 'The boat has no zones yet.'
            : 'No zone has a build-up with a coat to come. Plan it under Film.'}
        </p>
        <Link
          to={`/boats/${view.boat.id}/${view.surfaces.length === 0 ? 'hull/new' : 'film'}`}
          className="btn btn-primary"
        >
          {view.surfaces.length === 0 ? 'Add a zone' : 'To Film'}
        </Link>
      </section>
    );
  }
  return (
    <StartOne
      key={found.stint.sheetId}
      view={view}
      stints={stints}
      stint={found.stint}
      chosen={found.chosen}
      batchId={search.get('batch')}
      onPick={(ids) => setSearch((s) => (s.set('on', ids.join(',')), s), { replace: true, flushSync: true })}
    />
  );
}

function StartOne(props: StartProps) {
  const start = useStart(props);
  const { view } = props;
  return (
    <div className="grid min-w-0 gap-x-10 gap-y-3 lg:grid-cols-2">
      <section className="flex min-w-0 flex-col gap-3" aria-label="Start">
        <h1 className="text-2xl">
          {start.sheet.name}, {nextName(start.first)}
        </h1>
        <Onto {...props} start={start} />
        <OtherProducts {...props} />
        <When start={start} timeZone={view.boat.timeZone} />
        <Readings view={view} start={start} />
        <Abraded start={start} />
        <With start={start} view={view} />
      </section>
      <section className="flex min-w-0 flex-col gap-3" aria-label="Conditions">
        <Cautions
          view={view}
          step="start"
          sheet={start.sheet}
          surfaceIds={start.chosen.map((z) => z.surfaceId)}
          method={start.layer.method}
        />
        <BeforeCoat view={view} surfaceIds={start.chosen.map((z) => z.surfaceId)} />
        <Said view={view} start={start} />
        <Reason start={start} />
        <FormProblem message={start.reasonWanted ? null : start.problem} />
        <Go start={start} boatId={view.boat.id} />
      </section>
    </div>
  );
}

/** The zones that it goes onto. */
function Onto({ view, stint, onPick, start }: StartProps & { start: Start }) {
  return (
    <ZoneChecks legend="On" zones={stint.zones} chosen={start.chosen} onPick={onPick}>
      {(z) => (
        <span className="leading-snug">
          <span className="font-semibold">{start.zoneOf(z.surfaceId).name}</span> {nextName(z)}
          <span className="block text-sm quiet">{windowLine(z, { at: view.at, zone: view.boat.timeZone })}</span>
        </span>
      )}
    </ZoneChecks>
  );
}

function OtherProducts({ stints, stint }: StartProps) {
  return (
    stints.length > 1 && (
      <p className="text-sm">
        Another product:{' '}
        {stints
          .filter((s) => s.sheetId !== stint.sheetId)
          .map((s) => (
            <Link key={s.sheetId} to={`?on=${s.zones[0]?.surfaceId}`} className="mr-3 underline underline-offset-4">
              {s.name}
            </Link>
          ))}
      </p>
    )
  );
}

function When({ start, timeZone }: { start: Start; timeZone: string }) {
  const { wish, set } = start;
  return (
    <>
      <Choice
        label="When"
        options={[
          ['now', 'Now'],
          ['earlier', 'It was earlier'],
        ]}
        value={wish.when}
        onPick={(when) => set({ when })}
      />
      {wish.when === 'earlier' && (
        <div className="grid grid-cols-1 gap-3 sm:grid-cols-2">
          <TimeField label="Started" at={wish.startedAt} onAt={(startedAt) => set({ startedAt })} zone={timeZone} />
          <TimeField label="Finished" at={wish.finishedAt} onAt={(finishedAt) => set({ finishedAt })} zone={timeZone} />
        </div>
      )}
    </>
  );
}

/** What was read at the hull; what is expected stands where nothing was. */
function Readings({ view, start }: { view: BoatView; start: Start }) {
  const { units } = useSettings();
  const { forecast, surfaceGuessC } = start;
  const guess = (quantity: QuantityName, value: number) => `≈ ${figure(quantity, value, units, 0).number}`;
  return (
    <>
      <Conditions
        view={view}
        surfaceId={start.readOn}
        readings={start.wish.readings}
        onRead={start.read}
        placeholders={{
          airC: forecast ? guess('temperature', forecast.airC) : undefined,
          rh: forecast ? guess('percent', forecast.rh) : undefined,
          surfaceC: surfaceGuessC === null ? undefined : guess('temperature', surfaceGuessC),
        }}
      />
      {start.chosen.length > 1 && (
        <SelectField
          label="Surface read on"
          value={start.readOn}
          options={start.chosen.map((z) => [z.surfaceId, start.zoneOf(z.surfaceId).name] as const)}
          onPick={(readOn) => start.set({ readOn })}
        />
      )}
      <TextField
        label="Who is at it"
        value={start.wish.painters ?? start.painter}
        onChange={(e) => start.set({ painters: e.target.value })}
        hint="Several by commas: the largest batch and the time to the end follow."
      />
    </>
  );
}

function Abraded({ start }: { start: Start }) {
  const { wish, set, toAbrade, layer } = start;
  return (
    toAbrade && (
      <div className="grid grid-cols-2 items-start gap-3">
        <TextField
          label="Abraded with grit"
          inputMode="numeric"
          value={wish.grit}
          onChange={(e) => set({ grit: e.target.value })}
          hint={
            toAbrade === 'late'
              ? 'It bonds as is no longer: abrade all over, then say with what.'
              : layer.grit
                ? `Planned with ${layer.grit}`
                : 'Abrading was planned before this coat.'
          }
        />
        <SelectField
          label="Abraded"
          value={start.abradedFor}
          options={ABRADE_FOR.map((f) => [f, ABRADE_FOR_WORDS[f]] as const)}
          onPick={(f) => set({ abradedFor: f })}
        />
        {layer.grit && wish.grit === '' && (
          <button type="button" className="btn" onClick={() => set({ grit: String(layer.grit) })}>
            With {layer.grit}, as planned
          </button>
        )}
      </div>
    )
  );
}

/** Batches that it goes on with: what was mixed, and the rest of one that another coat left. */
function With({ start, view }: { start: Start; view: BoatView }) {
  const { wish, set, offered, batches } = start;
  const ids = batches.map((b) => b.id);
  return (
    <>
      {offered.length > 0 && (
        <fieldset>
          <legend className="lab">With</legend>
          {offered.map((b) => (
            <label key={b.id} className="flex min-h-11 items-center gap-3">
              <input
                type="checkbox"
                className="checkbox"
                checked={ids.includes(b.id)}
                onChange={(e) => set({ batchIds: e.target.checked ? [...ids, b.id] : ids.filter((id) => id !== b.id) })}
              />
              <span>
                {b.restL < b.totalL ? 'the rest, ' : 'the batch, '}
                <Fig quantity="volume" value={b.restL} />, mixed {timeWords(b.mixedAt, view.at, view.boat.timeZone)}
                {b.potLifeH !== null && (
                  <span className="quiet">
                    {' '}
                    · pot life until {timeWords(b.mixedAt + b.potLifeH * 3_600_000, view.at, view.boat.timeZone)}
                  </span>
                )}
              </span>
            </label>
          ))}
        </fieldset>
      )}
      {wish.when === 'earlier' && (
        <div className="grid grid-cols-1 gap-3 sm:grid-cols-2">
          <QuantityField
            label={offered.length > 0 ? 'Mixed besides, not logged' : 'Mixed for it, if known'}
            quantity="volume"
            value={wish.mixedL ?? null}
            onValue={(mixedL) => set({ mixedL })}
            hint="Without thinner"
          />
          <QuantityField
            label="On the hull, if known"
            quantity="volume"
            value={wish.litresOn ?? null}
            onValue={(litresOn) => set({ litresOn })}
            hint="As it was in the pot"
          />
        </div>
      )}
    </>
  );
}

/** What the conditions say, and what is to be kept in mind at the hull. */
function Said({ view, start }: { view: BoatView; start: Start }) {
  const { layer, sheet } = start;
  return (
    <>
      <Verdict
        verdict={start.verdict}
        scales={start.scales}
        advice={start.advice}
        measured={start.measured}
        past={start.wish.when === 'earlier'}
        at={start.wish.when === 'now' ? view.at : start.at}
        zone={view.boat.timeZone}
        simulated={view.hours.some((h) => h.source === 'simulated' && h.at >= start.at)}
      />
      <p>
        <Term of="comb">Comb</Term> for{' '}
        <Fig
          quantity="film"
          value={wetFilmMicron({
            dftMicron: layer.dftMicron,
            solids: sheet.solids,
            thinner: attempt(() => sheetThinnerOfMixed(sheet, layer.thinnerShare)).value ?? 0,
          })}
          className="text-2xl"
        />{' '}
        wet, which dries to <Fig quantity="film" value={layer.dftMicron} />.
      </p>
      {sheet.caution && (
        <p className="border-l-4 border-base-content pl-3 text-sm">
          {sheet.caution} Follow the maker’s sheet and your local rules.
        </p>
      )}
      {start.masks.length > 0 && (
        <p>
          <span className="lab">Masked first:</span>{' '}
          {start.masks
            .map((m) => `${m.count} × ${MASKED_WORDS[m.thing].toLowerCase()}${m.note ? ` (${m.note})` : ''}`)
            .join(', ')}
          .
        </p>
      )}
    </>
  );
}

function Reason({ start }: { start: Start }) {
  const { wish, set } = start;
  return (
    start.against.length > 0 && (
      <div className="border-l-4 border-error pl-3">
        <p className="font-semibold">Against it: {start.against.join('; ')}.</p>
        <TextField
          label="Start all the same, because"
          value={wish.reason}
          onChange={(e) => set({ reason: e.target.value })}
          error={start.reasonWanted ? (start.problem ?? undefined) : undefined}
          hint="Stands in the record."
        />
      </div>
    )
  );
}

/** What the verdict comes to, in a line. */
function inShort({ against, verdict, advice }: Start, units: UnitChoice): string {
  if (against.length > 0)
    return `Asks a reason: ${against[0]}${against.length > 1 ? `, and ${against.length - 1} more` : ''}`;
  const caution = verdict?.breaks[0] ?? advice?.caution?.break;
  if (caution) return `Caution: ${breakWords(caution, units)}`;
  if (!verdict) return 'The air is not known: read it.';
  return advice?.nowHolds ? 'Within the limits, until touch dry' : 'Within the limits';
}

function Go({ start, boatId }: { start: Start; boatId: string }) {
  const { units } = useSettings();
  return (
    <div className="sticky bottom-[calc(3.3rem+var(--toasts,0px))] -mx-3 flex flex-wrap items-center gap-x-3 gap-y-1 bg-base-100 px-3 py-2 lg:static lg:mx-0 lg:px-0">
      {/* The verdict itself may lie further down: in short it goes with the button. */}
      <p className={`w-full text-sm lg:hidden ${start.against.length > 0 ? 'text-error' : ''}`}>
        {inShort(start, units)}
      </p>
      <button type="button" className="btn btn-primary grow text-xl lg:grow-0 lg:px-10" onClick={start.go}>
        {start.wish.when === 'now' ? 'Start coat' : 'Log this coat'}
      </button>
      <Link to={`/boats/${boatId}/mix?on=${start.chosen.map((z) => z.surfaceId).join(',')}`} className="btn">
        Mix first
      </Link>
      <NoPainter />
    </div>
  );
}
