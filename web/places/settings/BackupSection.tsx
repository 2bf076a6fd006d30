import { useQuery } from '@tanstack/react-query';
import { useEffect, useRef, useState } from 'react';
import { useLocation } from 'react-router';
import type { KeptBackup, Keeping, LongWorkState, Restored } from '#contracts/rows/keeping';
import { call, NoAnswer } from '../../data/api';
import { deviceZone } from '../../data/device';
import { momentWords } from '../../parts/words';
import { BASE } from '../../data/base';
import { queryClient } from '../../data/store';
import { FormProblem } from '../../parts/Field';
import { counted } from '#core/units/format';

const WHY: Record<KeptBackup['why'], string> = {
  first: 'the first',
  daily: 'daily',
  demo: 'the demo as it was made',
  'before-restore': 'before a restore',
  'before-update': 'before an update',
  restored: 'a backup put in place',
  recovered: 'after a recovery',
  gap: 'to cover a gap in the journal',
};

const when = (at: number) => momentWords(at, deviceZone());
const size = (bytes: number) =>
  bytes < 1_000_000 ? `${Math.max(1, Math.round(bytes / 1000))} kB` : `${(bytes / 1e6).toFixed(1)} MB`;

interface Progress {
  readonly problem: string | null;
  readonly done: Restored | null;
  readonly busy: boolean;
}

const IDLE: Progress = { problem: null, done: null, busy: false };
/** A restore is sent for as long as it takes to arrive at a walking pace. */
const SENDING_MS = 3 * 3_600_000;

/** Putting a backup in place, and where that has got to: begun here, or found running by whoever comes back. */
function useRestore(keeping: Keeping | undefined) {
  const [progress, setProgress] = useState<Progress>(IDLE);
  const [followed, setFollowed] = useState<string | null>(null);
  const work = keeping?.work?.kind === 'restore' ? keeping.work : null;
  const runs = work !== null && work.endedAt === null;
  // One that runs is followed to its end, also by a page that was not there when it began.
  if (runs && work.id !== followed) setFollowed(work.id);
  const ended = work !== null && !runs && work.id === followed;
  useEffect(() => {
    if (ended) void queryClient.invalidateQueries({ predicate: ({ queryKey }) => queryKey[0] !== 'keeping' });
  }, [ended]);
  const run = async (path: string, file?: File): Promise<boolean> => {
    setProgress({ ...IDLE, busy: true });
    try {
      const answer = await call<Restored | { ok: true }>('POST', path, file, { limitMs: SENDING_MS });
      if ('ok' in answer) {
        // It takes longer than a page waits: how far it is, is asked for from now on.
        await queryClient.invalidateQueries({ queryKey: ['keeping'] });
        setProgress(IDLE);
        return true;
      }
      await queryClient.invalidateQueries();
      setProgress({ problem: null, done: answer, busy: false });
      return true;
    } catch (error) {
      const said = error instanceof NoAnswer ? (error.said ?? NO_ANSWER) : (error as Error).message;
      setProgress({ problem: said, done: null, busy: false });
      return false;
    }
  };
  return {
    progress: ended
      ? { problem: work.problem, done: work.restored, busy: progress.busy }
      : { ...progress, busy: progress.busy || runs },
    work: runs ? work : null,
    run,
    reset: () => {
      setFollowed(null);
      setProgress(IDLE);
    },
  };
}

const NO_ANSWER =
  'No answer from the server. Whether it arrived shows here when the server answers; if not, send it again.';

type Restoring = ReturnType<typeof useRestore>;

export function BackupSection() {
  const { data: keeping } = useQuery({
    queryKey: ['keeping'],
    queryFn: () => call<Keeping>('GET', '/keeping'),
    refetchInterval: ({ state }) => (state.data?.work && state.data.work.endedAt === null ? 1000 : 60_000),
  });
  const restoring = useRestore(keeping);
  const { problem, done } = restoring.progress;
  const section = useRef<HTMLElement>(null);
  const { hash } = useLocation();
  const told = keeping !== undefined;
  // Whoever was sent here for what is told here sees it, on a phone too.
  useEffect(() => {
    if (told && hash === '#backup') section.current?.scrollIntoView();
  }, [told, hash]);
  return (
    <section ref={section} id="backup" className="flex flex-col gap-4" aria-labelledby="s-backup">
      <h2 id="s-backup" className="ruled pb-1 text-[1.75rem]">
        Back up and restore
      </h2>
      <p>
        One file holds everything: boats, zones, sheets, every entry of the log. Keep it somewhere else than this
        computer.
      </p>
      <a className="btn btn-primary self-start" href={`${BASE}/api/backup`} download>
        Back up
      </a>
      <FromFile restoring={restoring} />
      {restoring.work && <Running work={restoring.work} />}
      <FormProblem message={problem} />
      {done && <Done done={done} restoring={restoring} />}
      {keeping && <Kept keeping={keeping} restoring={restoring} />}
    </section>
  );
}

const STEPS: Record<LongWorkState['step'], string> = {
  begun: 'A restore has begun.',
  checking: 'The backup is looked over: nothing is changed yet.',
  keepingBefore: 'What is here now is backed up first.',
  puttingInPlace: 'It is put in place of everything.',
  ended: 'Done.',
};

/** How far a restore is. */
function Running({ work }: { work: LongWorkState }) {
  const percent = work.share === null ? null : Math.round(work.share * 100);
  return (
    <div className="border-l-4 border-base-content bg-base-200 px-3 py-2" role="status">
      <p>
        {STEPS[work.step]} {percent !== null && `${percent} %`}
      </p>
      <progress
        className="progress w-full"
        aria-label="How far the restore is"
        {...(percent === null ? {} : { value: percent, max: 100 })}
      />
      <p className="text-sm quiet">
        It goes on when this page is left. What is entered meanwhile waits, and is sent after.
      </p>
    </div>
  );
}

function Done({ done, restoring }: { done: Restored; restoring: Restoring }) {
  const { before } = done;
  return (
    <div className="border-l-4 border-success bg-base-200 px-3 py-2" role="status">
      <p>
        Restored: {done.rows} rows{done.files > 0 ? `, ${counted(done.files, 'file')}` : ''}. The yard is as it was in
        that backup.
      </p>
      {before && (
        <>
          <p className="break-words">What was here before is kept: {before}</p>
          <button type="button" className="btn mt-2" onClick={() => void restoring.run(`/backups/${before}/restore`)}>
            Put back what was here
          </button>
        </>
      )}
    </div>
  );
}

function FromFile({ restoring }: { restoring: Restoring }) {
  const input = useRef<HTMLInputElement>(null);
  const [file, setFile] = useState<File | null>(null);
  const { busy } = restoring.progress;
  const restore = async () => {
    if (!file || !(await restoring.run('/restore', file))) return;
    setFile(null);
    if (input.current) input.current.value = '';
  };
  return (
    <div className="flex flex-col gap-3 border-t border-base-300 pt-3">
      <label className="lab flex flex-col gap-1">
        Restore from a backup
        <input
          ref={input}
          type="file"
          accept=".gz,.json,.jsonl,application/gzip,application/json"
          className="file-input h-11 w-full text-base"
          onChange={(e) => {
            setFile(e.target.files?.[0] ?? null);
            restoring.reset();
          }}
        />
      </label>
      {file && (
        <div className="border-l-4 border-warning bg-base-200 px-3 py-2">
          <p>
            This puts {file.name} in place of everything that is here now. What is here is backed up first and can be
            put back.
          </p>
          <button type="button" className="btn mt-2" disabled={busy} onClick={() => void restore()}>
            {busy ? 'Restoring…' : 'Replace everything with this backup'}
          </button>
        </div>
      )}
    </div>
  );
}

function journalWords({ changes, onDisk }: Keeping['journal']): string {
  const soFar =
    changes === 0
      ? ''
      : ` ${counted(changes, 'change')} so far, ${onDisk === changes ? 'all' : onDisk} of them on the disk.`;
  return `Every entry is written to the disk before it counts as saved.${soFar}`;
}

/** How well the yard is kept: the journal, and the automatic backups. */
function Kept({ keeping, restoring }: { keeping: Keeping; restoring: Restoring }) {
  const { journal, backups, backupProblem, putRight, dataDir } = keeping;
  const [last] = backups;
  if (dataDir === null) return null;
  return (
    <div className="flex flex-col gap-2 border-t border-base-300 pt-3">
      <h3 className="lab">Kept by itself</h3>
      {keeping.notices.length > 0 && <ToRead notices={keeping.notices} />}
      {putRight && <p className="border-l-4 border-warning bg-base-200 px-3 py-2">{putRight}</p>}
      <p className={journal.problem ? 'text-error' : ''}>{journal.problem ?? journalWords(journal)}</p>
      <p className={backupProblem ? 'text-error' : ''}>
        {backupProblem
          ? `The last automatic backup failed: ${backupProblem}`
          : last
            ? `Last good backup: ${when(last.at)}, read back and found whole.`
            : 'The first automatic backup comes within the day.'}
      </p>
      {backups.length > 0 && (
        <details>
          <summary className="link-row cursor-pointer underline underline-offset-4">
            {backups.length} automatic {backups.length === 1 ? 'backup' : 'backups'}
          </summary>
          <ul className="sheet-rule">
            {backups.map((backup) => (
              <KeptRow key={backup.name} backup={backup} restoring={restoring} />
            ))}
          </ul>
        </details>
      )}
      <p className="text-sm quiet">
        They lie in <span className="break-all">{dataDir}/backups</span>: the last seven daily ones, before them one a
        week for eight weeks, and the last twelve from before a restore or an update. A day without a change makes none.
        Copy them to another disk now and then. Pictures and files that nothing names any more are cleared after thirty
        days.
      </p>
    </div>
  );
}

/** What is lacking, or could not be looked over: it stays until somebody says to have read it. */
function ToRead({ notices }: { notices: Keeping['notices'] }) {
  const read = async () => {
    await call('POST', '/keeping/read');
    await queryClient.invalidateQueries({ queryKey: ['keeping'] });
    await queryClient.invalidateQueries({ queryKey: ['yard'] });
  };
  return (
    <div className="border-l-4 border-error bg-base-200 px-3 py-2" role="alert">
      {notices.map((n) => (
        <p key={`${n.at} ${n.text}`} className="mb-2 wrap-anywhere">
          <span className="narrow font-semibold">{when(n.at)}</span> {n.text}
        </p>
      ))}
      <button type="button" className="btn" onClick={() => void read().catch(() => undefined)}>
        I have read this
      </button>
    </div>
  );
}

function KeptRow({ backup, restoring }: { backup: KeptBackup; restoring: Restoring }) {
  const [asked, setAsked] = useState(false);
  return (
    <li className="py-2">
      <div className="flex flex-wrap items-center gap-x-3">
        <span className="narrow text-lg">{when(backup.at)}</span>
        <span className="quiet">
          {WHY[backup.why]}, {size(backup.bytes)}
        </span>
        <button
          type="button"
          className="btn btn-sm ml-auto min-h-11"
          aria-expanded={asked}
          onClick={() => setAsked(!asked)}
        >
          Restore
        </button>
      </div>
      {asked && (
        <div className="mt-2 border-l-4 border-warning bg-base-200 px-3 py-2">
          <p>This puts the yard back as it was then. What is here now is backed up first.</p>
          <button
            type="button"
            className="btn mt-2"
            disabled={restoring.progress.busy}
            onClick={() => void restoring.run(`/backups/${backup.name}/restore`).then(() => setAsked(false))}
          >
            {restoring.progress.busy ? 'Restoring…' : 'Replace everything with it'}
          </button>
        </div>
      )}
    </li>
  );
}
