import { useMemo, useState } from 'react';
import { Link, useNavigate, useSearchParams } from 'react-router';
import { v7 as uuid } from 'uuid';
import { checkConditions } from '#core/air/conditions';
import { temperatureAt } from '#core/air/surfaceSeries';
import { weatherAt } from '#core/air/weather';
import type { NewEntry } from '#core/coat/events';
import { checkAppend, zoneReadings } from '#core/coat/fold';
import { blockingWork, coatAdvice, zoneSeries, type ZoneStatus } from '#core/coat/zoneStatus';
import { wetFilmMicron } from '#core/film/spreading';
import { isSheltered } from '#core/hull/zones';
import { figure } from '#core/units/format';
import type { QuantityName } from '#core/units/quantities';
import { sheetThinnerOfMixed } from '#core/sheet/thinner';
import { useView } from '../../app/BoatShell';
import { now } from '../../data/now';
import { settings, useSettings } from '../../data/settings';
import { logEntry, type BoatView } from '../../data/store';
import { stintFor, stintsOf, type Stint } from '../../data/targets';
import { attempt } from '../../parts/attempt';
import { Choice, FormProblem, QuantityField, TextField } from '../../parts/Field';
import { Fig } from '../../parts/Fig';
import { TimeField } from '../../parts/TimeField';
import { Verdict } from '../../parts/Verdict';
import { MASKED_WORDS, OPEN_WORK_WORDS } from '../../parts/choiceWords';
import { openStops } from '../film/planned';
import { nextName, windowLine } from '../../parts/zoneWords';

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
    <Start
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

function Start({
  view,
  stints,
  stint,
  chosen,
  batchId,
  onPick,
}: {
  view: BoatView;
  stints: Stint[];
  stint: Stint;
  chosen: ZoneStatus[];
  batchId: string | null;
  onPick: (ids: string[]) => void;
}) {
  const navigate = useNavigate();
  const { boat, surfaces, hours } = view;
  const [when, setWhen] = useState<'now' | 'earlier'>('now');
  const [startedAt, setStartedAt] = useState(() => now() - 24 * 3_600_000);
  const [finishedAt, setFinishedAt] = useState(() => now() - 22 * 3_600_000);
  const [airC, setAir] = useState<number | null>(null);
  const [rh, setRh] = useState<number | null>(null);
  const [surfaceC, setSurface] = useState<number | null>(null);
  const [grit, setGrit] = useState('');
  const [reason, setReason] = useState('');
  const [problem, setProblem] = useState<string | null>(null);

  const { units } = useSettings();
  const guess = (quantity: QuantityName, value: number) => `≈ ${figure(quantity, value, units, 0).number}`;
  const first = chosen[0] as ZoneStatus;
  const sheet = first.nextSheet as NonNullable<ZoneStatus['nextSheet']>;
  const layer = first.nextLayer as NonNullable<ZoneStatus['nextLayer']>;
  const zoneOf = (id: string) => surfaces.find((s) => s.id === id) as BoatView['surfaces'][number];
  const surface = zoneOf(first.surfaceId);
  const at = when === 'now' ? view.at : startedAt;
  const sheltered = chosen.every((z) => isSheltered(zoneOf(z.surfaceId).exposure));

  const forecast = Number.isFinite(at) ? weatherAt(hours, at) : null;
  const typed = { airC: usable(airC), rh: usable(rh), surfaceC: usable(surfaceC) };
  const temps = useMemo(() => {
    const readings = zoneReadings(view.entries, surface.id);
    return zoneSeries(
      surface,
      hours,
      typed.surfaceC === null || !Number.isFinite(at) ? readings : [...readings, { at, surfaceC: typed.surfaceC }],
    );
  }, [view.entries, surface, hours, at, typed.surfaceC]);
  const conditions =
    forecast && temps.length > 0
      ? {
          airC: typed.airC ?? forecast.airC,
          rh: typed.rh ?? forecast.rh,
          surfaceC: typed.surfaceC ?? temperatureAt(temps, at),
          ...(forecast.windMs === undefined ? {} : { windMs: forecast.windMs }),
          ...(forecast.rainMm === undefined ? {} : { rainMm: forecast.rainMm }),
        }
      : typed.airC !== null && typed.rh !== null && typed.surfaceC !== null
        ? { airC: typed.airC, rh: typed.rh, surfaceC: typed.surfaceC }
        : null;
  const verdict = conditions
    ? attempt(() => checkConditions({ conditions, limits: sheet.limits, method: layer.method, sheltered })).value
    : null;
  const areaM2 = chosen.reduce((sum, z) => sum + zoneOf(z.surfaceId).areaM2, 0);
  const advice = useAdvice(when === 'now' && temps.length > 0, {
    now: at,
    hours,
    temps,
    sheet,
    method: layer.method,
    areaM2,
    sheltered,
  });
  const mustAbrade = when === 'now' && chosen.some((z) => z.state === 'abrade');
  const gritNumber = Number(grit);
  const abraded = grit.trim() !== '' && Number.isInteger(gritNumber) && gritNumber >= 16;
  const against =
    when === 'now'
      ? chosen.flatMap((z) =>
          z.state === 'shut' || z.state === 'closed' || z.state === 'waits' || (z.state === 'abrade' && !abraded)
            ? [`${zoneOf(z.surfaceId).name}: ${windowLine(z, { at: view.at, zone: boat.timeZone })}`]
            : [],
        )
      : [];
  // Open work stands against a coat logged afterwards as well: it says so in the record.
  for (const z of chosen)
    for (const work of blockingWork(zoneOf(z.surfaceId)))
      against.push(
        `${zoneOf(z.surfaceId).name}: ${OPEN_WORK_WORDS[work.kind].toLowerCase()}, still open${work.note ? ` (${work.note.replace(/\.$/, '')})` : ''}`,
      );
  if (verdict && !verdict.ok && when === 'now') against.push('the air is outside the sheet’s limits');
  // What the rules stop and nobody has let stand under Film needs its reason here at the latest.
  for (const z of chosen)
    for (const f of openStops(view, z)) against.push(`${zoneOf(z.surfaceId).name}: ${f.reason.replace(/\.$/, '')}`);
  const needsReason = against.length > 0;
  const masks = chosen.flatMap((z) => zoneOf(z.surfaceId).maskList);

  const openBatches = view.batches.filter(
    (b) =>
      !b.emptied &&
      view.sheetById.get(b.sheetRevisionId)?.sheetId === stint.sheetId &&
      !view.coats.some((c) => c.batches.some((x) => x.batchId === b.id)),
  );
  const usesBatches = when === 'now' ? openBatches.filter((b) => b.id === batchId || batchId === null) : [];

  const start = () => {
    const coatId = uuid();
    const beganAt = when === 'now' ? now() : startedAt;
    if ([airC, rh, surfaceC].some((v) => Number.isNaN(v)))
      return setProblem('A reading cannot be read. Type it again, or leave it empty.');
    if (rh !== null && (rh <= 0 || rh > 1)) return setProblem('Humidity is between 1 and 100 %. Type it again.');
    if (!Number.isFinite(beganAt)) return setProblem('Type when the coat was started.');
    if (beganAt > now()) return setProblem('The start has not come yet. Check the date and time.');
    if (when === 'earlier' && !Number.isFinite(finishedAt)) return setProblem('Type when the coat was finished.');
    if (when === 'earlier' && finishedAt < beganAt)
      return setProblem('The coat would finish before it started. Check the two times.');
    if (when === 'earlier' && finishedAt > now())
      return setProblem('The finish has not come yet. Check the date and time.');
    if (grit.trim() !== '' && !abraded) return setProblem('Type the grit as a number, for example 180.');
    if (needsReason && reason.trim().length < 3)
      return setProblem('Something stands against it. Write why you start all the same.');
    const base = { boatId: boat.id, stream: 'coat' as const, streamId: coatId };
    const started = {
      ...base,
      kind: 'started' as const,
      occurredAt: beganAt,
      body: {
        on: chosen.map((z) => ({ surfaceId: z.surfaceId, layerId: z.nextLayer?.id ?? layer.id })),
        sheetRevisionId: stint.sheetRevisionId,
        method: layer.method,
        thinner: sheetThinnerOfMixed(sheet, layer.thinnerShare),
        dftMicron: layer.dftMicron,
        colour: layer.colour,
        colourHex: layer.colourHex,
        overrideReason: needsReason ? reason.trim() : null,
        abradedGrit: abraded ? gritNumber : null,
      },
    };
    try {
      checkAppend(view.entries, {
        ...started,
        id: uuid(),
        supersedes: null,
        painter: '',
        device: '',
        recordedAt: now(),
      } as NewEntry & { recordedAt: number });
    } catch (error) {
      return setProblem((error as Error).message);
    }
    void logEntry(started, `Coat started on ${chosen.map((z) => zoneOf(z.surfaceId).name).join(', ')}`);
    if (airC !== null || rh !== null || surfaceC !== null)
      void logEntry(
        { ...base, kind: 'reading', occurredAt: beganAt, body: { airC, rh, surfaceC } },
        'Conditions logged',
        { quiet: true },
      );
    for (const b of usesBatches)
      void logEntry(
        { ...base, kind: 'batchOn', occurredAt: beganAt, body: { batchId: b.id, litres: b.totalL } },
        'Batch on',
        { quiet: true },
      );
    if (when === 'earlier')
      void logEntry({ ...base, kind: 'finished', occurredAt: finishedAt, body: { litresOn: null } }, 'Coat finished', {
        quiet: true,
      });
    void navigate(`/boats/${boat.id}/coat/${coatId}`, { replace: true });
    return undefined;
  };

  return (
    <div className="grid min-w-0 gap-x-10 gap-y-3 lg:grid-cols-2">
      <section className="flex min-w-0 flex-col gap-3" aria-label="Start">
        <h1 className="text-2xl">
          {sheet.name}, {nextName(first)}
        </h1>
        <fieldset>
          <legend className="lab">On</legend>
          {stint.zones.map((z) => {
            const on = chosen.some((c) => c.surfaceId === z.surfaceId);
            const ids = on
              ? chosen.filter((c) => c.surfaceId !== z.surfaceId).map((c) => c.surfaceId)
              : [...chosen.map((c) => c.surfaceId), z.surfaceId];
            return (
              <label key={z.surfaceId} className="flex min-h-11 items-center gap-3 leading-snug">
                <input
                  type="checkbox"
                  className="checkbox"
                  checked={on}
                  onChange={() => ids.length > 0 && onPick(ids)}
                />
                <span>
                  <span className="font-semibold">{zoneOf(z.surfaceId).name}</span> {nextName(z)}
                  <span className="block text-sm quiet">{windowLine(z, { at: view.at, zone: boat.timeZone })}</span>
                </span>
              </label>
            );
          })}
        </fieldset>
        {stints.length > 1 && (
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
        )}
        <Choice
          label="When"
          options={[
            ['now', 'Now'],
            ['earlier', 'It was earlier'],
          ]}
          value={when}
          onPick={setWhen}
        />
        {when === 'earlier' && (
          <div className="grid grid-cols-1 gap-3 sm:grid-cols-2">
            <TimeField label="Started" at={startedAt} onAt={setStartedAt} zone={boat.timeZone} />
            <TimeField label="Finished" at={finishedAt} onAt={setFinishedAt} zone={boat.timeZone} />
          </div>
        )}
        <div className="grid grid-cols-3 gap-3">
          <QuantityField
            label="Air"
            quantity="temperature"
            value={airC}
            onValue={setAir}
            placeholder={forecast ? guess('temperature', forecast.airC) : undefined}
          />
          <QuantityField
            label="Humidity"
            quantity="percent"
            value={rh}
            onValue={setRh}
            placeholder={forecast ? guess('percent', forecast.rh) : undefined}
          />
          <QuantityField
            label="Surface"
            quantity="temperature"
            value={surfaceC}
            onValue={setSurface}
            placeholder={
              temps.length > 0 && Number.isFinite(at) ? guess('temperature', temperatureAt(temps, at)) : undefined
            }
          />
        </div>
        {mustAbrade && (
          <TextField
            label="Abraded with grit"
            inputMode="numeric"
            value={grit}
            onChange={(e) => setGrit(e.target.value)}
            hint="The bonding window has passed: abrade all over, then say with what."
          />
        )}
      </section>
      <section className="flex min-w-0 flex-col gap-3" aria-label="Conditions">
        <Verdict
          verdict={verdict}
          advice={advice}
          measured={typed.airC !== null && typed.rh !== null && typed.surfaceC !== null}
          at={view.at}
          zone={boat.timeZone}
          simulated={hours.some((h) => h.source === 'simulated' && h.at >= at)}
        />
        <p>
          Comb for{' '}
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
        {usesBatches.length > 0 && (
          <p>
            With the batch of <Fig quantity="volume" value={usesBatches.reduce((sum, b) => sum + b.totalL, 0)} />.
          </p>
        )}
        {sheet.caution && (
          <p className="border-l-4 border-base-content pl-3 text-sm">
            {sheet.caution} Follow the maker’s sheet and your local rules.
          </p>
        )}
        {masks.length > 0 && (
          <p>
            <span className="lab">Masked first:</span>{' '}
            {masks
              .map((m) => `${m.count} × ${MASKED_WORDS[m.thing].toLowerCase()}${m.note ? ` (${m.note})` : ''}`)
              .join(', ')}
            .
          </p>
        )}
        {needsReason && (
          <div className="border-l-4 border-error pl-3">
            <p className="font-semibold">Against it: {against.join('; ')}.</p>
            <TextField
              label="Start all the same, because"
              value={reason}
              onChange={(e) => setReason(e.target.value)}
              hint="Stands in the record."
            />
          </div>
        )}
        <FormProblem message={problem} />
        <div className="sticky bottom-[3.3rem] -mx-3 flex flex-wrap items-center gap-3 bg-base-100 px-3 py-2 lg:static lg:mx-0 lg:px-0">
          <button type="button" className="btn btn-primary grow text-xl lg:grow-0 lg:px-10" onClick={start}>
            {when === 'now' ? 'Start coat' : 'Log this coat'}
          </button>
          <Link to={`/boats/${boat.id}/mix?on=${chosen.map((z) => z.surfaceId).join(',')}`} className="btn">
            Mix first
          </Link>
          {settings().painter === '' && (
            <Link to="/settings" className="link-row text-sm underline underline-offset-4">
              No painter’s name on this device
            </Link>
          )}
        </div>
      </section>
    </div>
  );
}

/** Walking the forecast is worth doing once, not at every key pressed in a field beside it. */
function useAdvice(
  wanted: boolean,
  { now: from, hours, temps, sheet, method, areaM2, sheltered }: Parameters<typeof coatAdvice>[0],
) {
  return useMemo(
    () => (wanted ? coatAdvice({ now: from, hours, temps, sheet, method, areaM2, sheltered }) : null),
    [wanted, from, hours, temps, sheet, method, areaM2, sheltered],
  );
}

const usable = (v: number | null) => (v === null || Number.isNaN(v) ? null : v);
