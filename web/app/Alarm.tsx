import { BellRing } from 'lucide-react';
import { useEffect, useState } from 'react';
import { Link } from 'react-router';
import type { Boat } from '#contracts/rows/boat';
import { logEntry, queryClient, useYard } from '../data/store';
import { useNow } from '../data/now';
import { useOutbox } from '../data/outbox';
import { batchTimers, type NamedTimer } from '#core/coat/clocks';
import { foldLog } from '#core/coat/fold';
import type { SheetRow } from '#contracts/rows/sheet';
import type { Yard } from '#contracts/rows/yard';
import { ringInTitle } from './pageTitle';

/**
 * Two short notes, made here so that no sound file is needed. Browsers allow it once the page was touched. In between it rests:
 * one that runs wakes the machine some hundred times a second, and empties a phone.
 */
let audio: AudioContext | null = null;
function armSound(): void {
  if (audio?.state === 'suspended' || audio?.state === 'running') return;
  audio ??= typeof AudioContext === 'undefined' ? null : new AudioContext();
  void audio?.resume().then(() => audio?.suspend());
}
/** A browser may keep it waiting, during a phone call say: then it rings once, not once for each time it was asked. */
let waking = false;
async function ring(): Promise<void> {
  // A phone in a glove is felt before it is heard; where a device cannot, nothing happens.
  if ('vibrate' in navigator) navigator.vibrate([300, 120, 300]);
  if (!audio || waking) return;
  waking = true;
  await audio.resume().finally(() => (waking = false));
  for (const [start, pitch] of [
    [0, 880],
    [0.22, 660],
  ] as const) {
    const tone = audio.createOscillator();
    const volume = audio.createGain();
    tone.frequency.value = pitch;
    volume.gain.setValueAtTime(0.25, audio.currentTime + start);
    volume.gain.exponentialRampToValueAtTime(0.001, audio.currentTime + start + 0.2);
    tone.connect(volume).connect(audio.destination);
    tone.start(audio.currentTime + start);
    tone.stop(audio.currentTime + start + 0.2);
    if (start > 0) tone.onended = () => void audio?.suspend();
  }
}

const RING_EVERY_MS = 3000;

/**
 * Timers shout wherever one is in the program: on screen, in the title and by sound, until they are
 * silenced. They are instants in the log, so a reload or a restart changes nothing.
 */
export function Alarm() {
  const alarm = useDueTimers();
  const { ringing, text } = alarm;
  useEffect(() => {
    if (!ringing || text === null) return;
    void ring();
    let flip = true;
    ringInTitle(`● ${text}`);
    const timer = setInterval(() => {
      flip = !flip;
      ringInTitle(flip ? `● ${text}` : null);
      void ring();
    }, RING_EVERY_MS);
    return () => {
      clearInterval(timer);
      ringInTitle(null);
    };
  }, [ringing, text]);
  return ringing ? <AlarmStrip due={alarm.due} /> : null;
}

type Due = NamedTimer & { boat: Boat };

const DUE_WORDS = {
  stir: 'is stirred: let it stand, or start',
  stand: 'has stood, may be used',
  pot: 'pot life has ended',
} as const;

const TITLE_WORDS = { stir: 'Stirred', stand: 'Has stood', pot: 'Pot life has ended' } as const;

/** One line for all that rings, however many; it opens to each. */
function AlarmStrip({ due }: { due: readonly Due[] }) {
  const [open, setOpen] = useState(false);
  const [first] = due;
  if (!first) return null;
  const silenceAll = () => due.forEach(silence);
  return (
    <div className="no-print sticky top-0 z-30 bg-warning text-warning-content" role="alert">
      <div className="flex items-center gap-2 px-3">
        <BellRing size={20} aria-hidden="true" className="shrink-0" />
        <Link
          to={`/boats/${first.boat.id}/mix`}
          className="narrow mr-auto min-w-0 py-1 text-lg leading-tight font-semibold wrap-anywhere"
        >
          {first.product || 'Batch'} {DUE_WORDS[first.timer]}{' '}
          <span className="text-base font-medium">· {first.boat.name}</span>
        </Link>
        {due.length > 1 && (
          <button
            type="button"
            className="narrow min-h-11 shrink-0 px-1 text-lg underline underline-offset-4"
            aria-expanded={open}
            onClick={() => setOpen(!open)}
          >
            {due.length}
            <span className="sr-only"> ringing: show each</span>
            <span aria-hidden="true">{open ? ' ▴' : ' ▾'}</span>
          </button>
        )}
        <button
          type="button"
          className="narrow min-h-11 shrink-0 px-2 text-lg font-semibold underline underline-offset-4"
          onClick={silenceAll}
        >
          {due.length > 1 ? 'Silence all' : 'Silence'}
        </button>
      </div>
      {open && due.length > 1 && (
        <ul className="border-t border-current px-3">
          {due.map((timer) => (
            <li key={`${timer.batchId}-${timer.timer}`} className="flex items-center gap-2">
              <Link to={`/boats/${timer.boat.id}/mix`} className="link-row narrow mr-auto text-lg">
                {timer.product || 'Batch'} {DUE_WORDS[timer.timer]}
                {timer.timer === 'pot' ? ': throw the rest away safely' : ''} · {timer.boat.name}
              </Link>
              <button
                type="button"
                className="narrow min-h-11 px-2 text-lg underline underline-offset-4"
                onClick={() => silence(timer)}
              >
                Silence<span className="sr-only"> {timer.product}</span>
              </button>
            </li>
          ))}
        </ul>
      )}
    </div>
  );
}

/** Silences a timer here at once, and in the log. */
function silence(timer: Due): void {
  queryClient.setQueryData<Yard>(
    ['yard'],
    (y) =>
      y && {
        ...y,
        boats: y.boats.map((b) => ({
          ...b,
          timers: b.timers.map((t) =>
            t.batchId === timer.batchId && t.timer === timer.timer ? { ...t, silenced: true } : t,
          ),
        })),
      },
  );
  void logEntry(
    {
      boatId: timer.boat.id,
      stream: 'batch',
      streamId: timer.batchId,
      kind: 'silenced',
      body: { timer: timer.timer },
    },
    'Timer silenced',
    { quiet: true },
  );
}

/** Timers that are due on any boat and not silenced, and what the title says of the first. */
function useDueTimers() {
  const at = useNow(1000);
  const { data: yard } = useYard();
  const waiting = useOutbox();
  useEffect(() => {
    addEventListener('pointerdown', armSound);
    addEventListener('keydown', armSound);
    return () => {
      removeEventListener('pointerdown', armSound);
      removeEventListener('keydown', armSound);
    };
  }, []);

  // What waits to be sent counts already: a pot mixed with no signal rings, one that was emptied is quiet.
  const unsent = waiting.flatMap((w) =>
    w.change.kind === 'entry' && w.change.entry.stream === 'batch'
      ? [{ ...w.change.entry, recordedAt: w.change.entry.occurredAt }]
      : [],
  );
  const quiet = (batchId: string, timer: string) =>
    unsent.some(
      (e) => e.streamId === batchId && (e.kind === 'emptied' || (e.kind === 'silenced' && e.body.timer === timer)),
    );
  const productOf = (revisionId: string) =>
    (queryClient.getQueryData<SheetRow[]>(['sheets']) ?? []).find((s) => s.current.id === revisionId)?.current.body
      .name ?? '';
  const due: Due[] = (yard?.boats ?? []).flatMap((b) => {
    const own = batchTimers(foldLog(unsent.filter((e) => e.boatId === b.boat.id)).batches, at);
    return [...b.timers, ...own.filter((t) => !b.timers.some((x) => x.batchId === t.batchId))]
      .filter((t) => !t.silenced && t.dueAt <= at && !quiet(t.batchId, t.timer))
      .map((t) => ({ ...t, product: 'product' in t ? String(t.product) : productOf(t.sheetRevisionId), boat: b.boat }));
  });
  const ringing = due.length > 0;
  const first = due[0];
  const text = first ? `${TITLE_WORDS[first.timer]}: ${first.product || first.boat.name}` : null;
  return { ringing, text, due };
}
