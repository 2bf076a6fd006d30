import { useState } from 'react';
import { Link, useParams } from 'react-router';
import { prepCautions } from '#core/care/cautions';
import type { PrepStep } from '#core/prep/prepSteps';
import type { SurfaceRow } from '#contracts/rows/boat';
import { counted } from '#core/units/format';
import { useView } from '../../app/BoatShell';
import { NotFound } from '../../app/PlaceError';
import type { BoatView } from '../../data/store';
import { EXISTING_WORDS, SUBSTRATE_WORDS } from '../../parts/choiceWords';
import { CautionsOf } from '../../parts/Cautions';
import { StateSwatch } from '../../parts/patterns';
import { Pictures } from '../../parts/Pictures';
import { useSpoken } from '../../parts/spoken';
import { nextName, windowLine } from '../../parts/zoneWords';
import { ZoneNav } from '../../parts/ZoneNav';
import { FairingRounds } from './FairingRounds';
import { Happened } from './Happened';
import { PrepLogList } from './PrepLogList';
import { StepForm } from './StepForm';
import { Steps } from './Steps';
import { SurfaceClocks } from './SurfaceClocks';
import { usePrep } from './usePrep';

/** What stands between each zone and its next coat: steps, clocks of the surface, and what happened to it. */
export function PrepPlace() {
  const view = useView();
  const { surfaceId } = useParams();
  const { surfaces, statuses, boat } = view;
  const first = surfaces.find((_, i) => statuses[i]?.state === 'unready') ?? surfaces[0];
  const surface = surfaceId ? surfaces.find((s) => s.id === surfaceId) : first;
  if (surfaceId && !surface) return <NotFound what="zone" />;
  if (!surface)
    return (
      <section className="max-w-prose py-6">
        <h1>No zone to get ready</h1>
        <p className="my-3">
          What has to be done before paint follows from what a zone is made of and what is on it. Add the first zone,
          and its list is here without another word.
        </p>
        <Link to={`/boats/${boat.id}/hull/new`} className="btn btn-primary">
          Add a zone
        </Link>
      </section>
    );
  return <ZonePrep key={surface.id} view={view} surface={surface} />;
}

function ZonePrep({ view, surface }: { view: BoatView; surface: SurfaceRow }) {
  const { list, log } = usePrep(view, surface);
  const [step, setStep] = useState<PrepStep | null>(null);
  const status = view.statuses.find((s) => s.surfaceId === surface.id);
  const say = useSpoken();
  if (!list || !status) return null;
  const bare = surface.existing === 'bare';
  const sheet = status.nextSheet;
  return (
    <div className="grid min-w-0 gap-x-10 gap-y-3 lg:grid-cols-[minmax(0,7fr)_minmax(0,5fr)]">
      <div className="min-w-0 lg:col-span-2">
        <ZoneNav view={view} surfaceId={surface.id} place="prep" />
      </div>
      <section className="min-w-0" aria-labelledby="prep-of">
        <h1 id="prep-of" className="text-2xl">
          {surface.name}
          <span className="quiet"> {sheet ? `before ${nextName(status)}` : 'with no coat to come'}</span>
        </h1>
        <p className="quiet">
          {status.lastCoat
            ? `on ${status.lastCoat.colour || 'the last coat'}`
            : `${say(SUBSTRATE_WORDS[surface.substrate])}${bare ? '' : `, ${EXISTING_WORDS[surface.existing].toLowerCase()}`}`}
          {' · '}
          {list.ready ? 'ready for it' : `${counted(list.open, 'step')} to go`}
        </p>
        {!sheet && list.steps.length > 0 && (
          <p className="border-l-4 border-warning pl-3">
            No coat is planned on this zone.{' '}
            <Link to={`/boats/${view.boat.id}/film/${surface.id}`} className="link-row underline underline-offset-4">
              Plan it under Film
            </Link>{' '}
            before it is laid bare.
          </p>
        )}
        {list.steps.length === 0 && (
          <p className="py-3">Nothing stands before a coat here: none is to come. Plan one under Film.</p>
        )}
        <Steps view={view} surface={surface} list={list} onOpen={setStep} />
        {sheet && (
          <p className="flex items-center gap-3 py-2">
            <StateSwatch state={status.state} colour={status.nextLayer?.colourHex ?? null} size={28} />
            <span className="min-w-0">
              <span className="font-semibold">{sheet.name}</span>,{' '}
              {windowLine(status, { at: view.at, zone: view.boat.timeZone })}
            </span>
          </p>
        )}
      </section>
      <div className="flex min-w-0 flex-col gap-4">
        <SurfaceClocks view={view} list={list} log={log} />
        <FairingRounds view={view} surface={surface} fairing={list.fairing} onOpen={setStep} />
        <Happened view={view} surface={surface} list={list} log={log} />
        <CautionsOf
          view={view}
          cautions={prepCautions({ surface, steps: list.steps.filter((s) => s.state !== 'done').map((s) => s.kind) })}
          surfaceIds={[surface.id]}
        />
        <Pictures pictures={log.pictures} />
        <PrepLogList view={view} log={log} />
      </div>
      {step && <StepForm view={view} surface={surface} step={step} onClose={() => setStep(null)} />}
    </div>
  );
}
