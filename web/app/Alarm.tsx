import { BellRing } from 'lucide-react';
import { useEffect, useRef } from 'react';
import { Link } from 'react-router';
import type { Boat } from '#contracts/rows/boat';
import { logEntry, queryClient, useYard } from '../data/store';
import { useNow } from '../data/now';
import { useOutbox } from '../data/outbox';
import { batchTimers, type BatchTimer } from '#core/coat/clocks';
import { foldLog } from '#core/coat/fold';
import type { SheetRow } from '#contracts/rows/sheet';
import type { Yard } from '#contracts/rows/yard';

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

  const title = useRef(document.title);
  useEffect(() => {
    if (!alarm.ringing || alarm.text === null) return;
    const own = title.current;
    void ring();
    let flip = true;
    document.title = `● ${alarm.text}`;
    const timer = setInterval(() => {
      flip = !flip;
      document.title = flip ? `● ${alarm.text}` : own;
      void ring();
    }, RING_EVERY_MS);
    return () => {
      clearInterval(timer);
      document.title = own;
    };
  }, [alarm.ringing, alarm.text]);

  if (!alarm.ringing) return null;
  return (
    <div className="no-print sticky top-0 z-30 bg-warning text-warning-content" role="alert">
      {alarm.due.map((timer) => (
        <div key={`${timer.batchId}-${timer.timer}`} className="flex flex-wrap items-center gap-3 px-4 py-1">
          <BellRing size={22} aria-hidden="true" />
          <Link
            to={`/boats/${timer.boat.id}/mix`}
            className="narrow mr-auto text-xl font-semibold underline decoration-1 underline-offset-4"
          >
            {timer.product ? `${timer.product}: ` : ''}
            {timer.timer === 'stand'
              ? 'stand is over, the batch may be used'
              : 'pot life has ended, throw the rest away safely'}{' '}
            · {timer.boat.name}
          </Link>
          <Silence timer={timer} />
        </div>
      ))}
    </div>
  );
}

/** Silences a timer here at once, and in the log. */
function Silence({ timer }: { timer: BatchTimer & { boat: Boat } }) {
  return (
    <button
      type="button"
      className="btn border-current bg-transparent text-inherit"
      onClick={() => {
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
      }}
    >
      Silence
    </button>
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
  const due = (yard?.boats ?? []).flatMap((b) => {
    const own = batchTimers(foldLog(unsent.filter((e) => e.boatId === b.boat.id)).batches, at);
    return [...b.timers, ...own.filter((t) => !b.timers.some((x) => x.batchId === t.batchId))]
      .filter((t) => !t.silenced && t.dueAt <= at && !quiet(t.batchId, t.timer))
      .map((t) => ({ ...t, product: 'product' in t ? t.product : productOf(t.sheetRevisionId), boat: b.boat }));
  });
  const ringing = due.length > 0;
  const first = due[0];
  const text = first
    ? `${first.timer === 'stand' ? 'Stand is over' : 'Pot life has ended'}: ${first.product || first.boat.name}`
    : null;
  return { ringing, text, due };
}
