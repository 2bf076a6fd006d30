import { useState } from 'react';
import { Link, useSearchParams } from 'react-router';
import type { Coat } from '#core/coat/fold';
import type { SheetBody } from '#core/model/sheet';
import { counted } from '#core/units/format';
import { logEntry, type BoatView } from '../../../data/store';
import { BottomSheet } from '../../../parts/BottomSheet';
import { Fig } from '../../../parts/Fig';
import { breakWords, coatName, ORDER_WORDS, spanWords, timerWords, timeWords } from '../../../parts/words';
import { useSettings } from '../../../data/settings';
import { CombField } from '../CombField';
import { FinishForm } from './FinishForm';
import { HandsForm } from './HandsForm';
import { nextBatch } from './nextBatch';
import { PauseForm } from './PauseForm';
import { PictureForm } from '../../../parts/PictureForm';
import { RemarkForm } from './RemarkForm';
import { PanelDrawing } from './PanelDrawing';
import { WetFilm } from './WetFilm';
import { useInHand, type InHandFacts } from './useInHand';

type Asked = 'comb' | 'pause' | 'remark' | 'picture' | 'finish' | 'hands';

const TITLES: Record<Asked, string> = {
  comb: 'Comb',
  pause: 'Pause',
  remark: 'Remark',
  picture: 'Picture',
  finish: 'Finish',
  hands: 'Hands',
};

/** One screen while a coat goes on, to be read at arm's length and worked with a thumb. */
export function InHand({
  view,
  coat,
  sheet,
  number,
}: {
  view: BoatView;
  coat: Coat;
  sheet: SheetBody;
  number: number;
}) {
  const facts = useInHand(view, coat, sheet);
  const [search, setSearch] = useSearchParams();
  const wanted = search.get('ask');
  const [asked, setAsked] = useState<Asked | null>(wanted !== null && wanted in TITLES ? (wanted as Asked) : null);
  const close = () => {
    setAsked(null);
    if (wanted !== null) setSearch({}, { replace: true });
  };
  const painters = coat.stints[coat.stints.length - 1]?.painters ?? [];
  const zones = coat.on.map((t) => view.zoneName(t.surfaceId)).join(', ');
  return (
    <div className="flex min-w-0 flex-col gap-1.5">
      <div className="flex items-center gap-3">
        <h1 className="min-w-0 truncate text-2xl lg:text-[1.9rem]">
          {zones}: {coatName(sheet.kind, number)}
          {coat.pausedAt !== null && <span className="text-error"> — paused</span>}
        </h1>
        <button
          type="button"
          className="narrow ml-auto min-h-11 shrink-0 underline underline-offset-4"
          onClick={() => setAsked('hands')}
        >
          {painters.length === 1 && painters[0] ? painters[0] : counted(Math.max(1, painters.length), 'painter')}
        </button>
      </div>
      <WetFilm coat={coat} facts={facts} />
      <Left view={view} facts={facts} sheet={sheet} />
      <ZonePanels view={view} coat={coat} zones={facts.zones} />
      <Buttons
        view={view}
        coat={coat}
        nextBatchL={nextBatch(view, coat, { sheet, progress: facts.progress })}
        onAsk={setAsked}
      />
      {asked && (
        <BottomSheet title={TITLES[asked]} onClose={close}>
          {asked === 'comb' && <CombField boatId={view.boat.id} coat={coat} onLogged={close} />}
          {asked === 'hands' && <HandsForm view={view} coat={coat} onDone={close} />}
          {asked === 'pause' && <PauseForm view={view} coat={coat} onDone={close} />}
          {asked === 'remark' && <RemarkForm view={view} coat={coat} zones={facts.zones} onDone={close} />}
          {asked === 'picture' && (
            <PictureForm
              boatId={view.boat.id}
              of={{ stream: 'coat', streamId: coat.id }}
              at={coat.finishedAt ?? undefined}
              onDone={close}
            />
          )}
          {asked === 'finish' && <FinishForm view={view} coat={coat} sheet={sheet} facts={facts} onDone={close} />}
        </BottomSheet>
      )}
    </div>
  );
}

/** What is left, of the pot, of the edge, of the air, and how far that goes. */
function Left({ view, facts, sheet }: { view: BoatView; facts: InHandFacts; sheet: SheetBody }) {
  const { now, progress, pot, stand, wetEdgeAt } = facts;
  const edge = wetEdgeAt === null ? null : wetEdgeAt - now;
  return (
    <section aria-label="What is left" className="border-b border-base-300 pb-1">
      <div className="grid grid-cols-3 gap-2">
        <p className="leading-tight">
          <span className="lab block">to do</span>
          <Fig quantity="area" value={progress.leftM2} approx={!progress.told} className="text-3xl" />
          <span className="block text-sm">
            {!progress.told && '≈ '}
            {spanWords(progress.leftH * 3_600_000)}
          </span>
        </p>
        <p className="leading-tight">
          <span className="lab block">pot</span>
          {pot ? (
            <span className={`fig text-3xl ${pot.dueAt <= now ? 'text-error' : ''}`}>
              {timerWords(pot.dueAt - now)}
            </span>
          ) : (
            <span className="quiet">{sheet.potLife ? 'none in use' : 'no limit'}</span>
          )}
          {stand && <span className="block text-sm">let it stand {timerWords(stand.dueAt - now)}</span>}
        </p>
        <p className="leading-tight">
          <span className="lab block">wet edge{facts.wetEdgeUsual ? ' ≈' : ''}</span>
          {edge === null ? (
            <span className="quiet">paused</span>
          ) : edge > 0 ? (
            <span className="fig text-3xl">{timerWords(edge)}</span>
          ) : (
            <span className={progress.told ? 'font-semibold text-error' : 'quiet'}>
              {progress.told ? 'past: the edge has set' : 'tick panels as they are done'}
            </span>
          )}
        </p>
      </div>
      <Air view={view} facts={facts} />
    </section>
  );
}

/** "Dew at 18:20: go on until panel 6". */
function Air({ view, facts }: { view: BoatView; facts: InHandFacts }) {
  const { units } = useSettings();
  const { closing, against, now } = facts;
  if (!closing || !against) return <p className="text-base">The air stays open as far as the forecast goes.</p>;
  const what = closing.by === 'dusk' ? 'dusk' : breakWords(closing.by, units);
  const when = timeWords(closing.at, now, view.boat.timeZone);
  if (closing.at <= now + 60_000)
    return <p className="border-l-4 border-error pl-2 font-semibold text-error">The air is against it now: {what}.</p>;
  return (
    <p className={`text-base ${against.fits ? '' : 'border-l-4 border-warning pl-2 font-semibold'}`}>
      {closing.by === 'dusk' ? '≈ ' : ''}
      {when}: {what}.{' '}
      {against.fits
        ? 'All of it goes on before that.'
        : against.untilPanel !== null
          ? `Go on until panel ${against.untilPanel}, and stop at an edge.`
          : 'Stop at an edge before that.'}
    </p>
  );
}

/** The panels of the zone that is painted; of several, one at a time, so that nothing has to be scrolled for. */
function ZonePanels({ view, coat, zones }: { view: BoatView; coat: Coat; zones: InHandFacts['zones'] }) {
  const [picked, setPicked] = useState<string | null>(null);
  const zone = zones.find((z) => z.surface.id === picked) ?? zones.find((z) => z.done.length < z.panels.of) ?? zones[0];
  if (!zone) return null;
  return (
    <>
      {zones.length > 1 && (
        <select
          className="select min-h-11 w-full"
          aria-label="Panels of"
          value={zone.surface.id}
          onChange={(e) => setPicked(e.target.value)}
        >
          {zones.map((z) => (
            <option key={z.surface.id} value={z.surface.id}>
              {z.surface.name}, {z.done.length} of {z.panels.of}
            </option>
          ))}
        </select>
      )}
      <Panels view={view} coat={coat} zone={zone} />
    </>
  );
}

/** The panels of one zone: ticked as they are done. */
function Panels({ view, coat, zone }: { view: BoatView; coat: Coat; zone: InHandFacts['zones'][number] }) {
  const { surface, panels, done } = zone;
  const toggle = (panel: number) => {
    const next = done.includes(panel) ? done.filter((p) => p !== panel) : [...done, panel].sort((a, b) => a - b);
    void logEntry(
      {
        boatId: view.boat.id,
        stream: 'coat',
        streamId: coat.id,
        kind: 'covered',
        body: { surfaceId: surface.id, share: next.length / panels.of, panels: next, of: panels.of },
      },
      `${counted(next.length, 'panel')} of ${surface.name}`,
      { quiet: true },
    );
  };
  return (
    <section aria-label={`Panels of ${surface.name}`}>
      <p className="flex flex-wrap items-baseline justify-between gap-x-3 text-sm">
        <span>
          {done.length} of {panels.of} panels, <Fig quantity="length" value={panels.widthM} /> wide each
        </span>
        <span className="quiet">{ORDER_WORDS[panels.order]}</span>
      </p>
      <PanelDrawing
        view={view}
        zone={zone}
        colourHex={coat.colourHex}
        onToggle={toggle}
        marks={[...coat.notes, ...coat.pictures].flatMap((n) => n.drawnAt ?? [])}
      />
    </section>
  );
}

function Buttons({
  view,
  coat,
  nextBatchL,
  onAsk,
}: {
  view: BoatView;
  coat: Coat;
  nextBatchL: number | null;
  onAsk: (asked: Asked) => void;
}) {
  const { boat } = view;
  const paused = coat.pausedAt !== null;
  const goOn = () =>
    void logEntry({ boatId: boat.id, stream: 'coat', streamId: coat.id, kind: 'resumed', body: {} }, 'Went on');
  const big = 'btn h-14 text-lg';
  return (
    <div className="grid grid-cols-3 gap-2">
      <button type="button" className={`${big} btn-primary`} onClick={() => onAsk('comb')}>
        Comb
      </button>
      <Link to={`/boats/${boat.id}/mix?on=${coat.on.map((t) => t.surfaceId).join(',')}`} className={big}>
        <span>
          Next batch
          {nextBatchL !== null && (
            <span className="block text-sm">
              <Fig quantity="volume" value={nextBatchL} />
            </span>
          )}
        </span>
      </Link>
      <button type="button" className={big} onClick={() => (paused ? goOn() : onAsk('pause'))}>
        {paused ? 'Go on' : 'Pause'}
      </button>
      <button type="button" className={big} onClick={() => onAsk('remark')}>
        Remark
      </button>
      <button type="button" className={big} onClick={() => onAsk('picture')}>
        Picture
      </button>
      <button type="button" className={`${big} btn-primary`} onClick={() => onAsk('finish')}>
        Finish
      </button>
    </div>
  );
}
