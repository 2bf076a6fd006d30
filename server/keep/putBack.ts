import { createReadStream, createWriteStream, mkdirSync, renameSync, rmSync, statSync } from 'node:fs';
import { randomUUID } from 'node:crypto';
import type { IncomingMessage } from 'node:http';
import { join } from 'node:path';
import { Transform, type Writable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import type { Restored } from '#contracts/rows/keeping';
import type { Db } from '../db/database';
import { lastChangeOp } from '../db/lastChange';
import { applyOps } from '../db/ops';
import { SEEDED, TOUCHED } from '../db/touched';
import { bodyOf } from '../body';
import { notFound, Refusal } from '../errors';
import { archiveStream, HISTORY, LIMITS, tableRows, writeArchive } from './archive';
import { backupFilesDir, listBackups } from './backups';
import { shareFile } from './files';
import { syncFolder, type SegmentHead } from './journal';
import type { Tell } from './longWork';
import { checkArchive, fillFrom } from './restore';
import { snapshotOf } from './snapshot';
import type { Yard } from './yard';

/**
 * Everything of a yard in one file that stands by itself, sent as it is made: others go on saving meanwhile.
 * @param into is ended when all of it is there, destroyed where that cannot be
 * @throws Refusal 409 while another one is made
 */
export function sendArchive({ store, files, work }: Yard, now: number, into: Writable): Promise<void> {
  return work.run('backup', async () => {
    const { n, history, rows } = await snapshotOf(store);
    await pipeline(archiveStream({ rows, files, now, history, change: n, filesBeside: false }), into);
  });
}

/**
 * Take a backup in, and put it in place of everything, whole or not at all; what was here before is backed up first.
 * @returns once it is here; `restoring` when it stands, or is refused
 * @throws Refusal 409, 413, 422 with a sentence; nothing has changed then
 */
export async function restoreSent(
  yard: Yard,
  source: IncomingMessage,
  now: () => number,
  demo: boolean,
): Promise<{ restoring: Promise<Restored> }> {
  const dir = join(yard.spool, `restore-${randomUUID()}`);
  mkdirSync(dir, { recursive: true });
  const clear = () => rmSync(dir, { recursive: true, force: true });
  try {
    const sent = join(dir, 'sent');
    await pipeline(bodyOf(source), upTo(LIMITS.packedBytes), createWriteStream(sent, { flush: true }));
    // It is here: from now on nobody has to hold the line.
    const restoring = yard.work.run('restore', (tell) => putBack(yard, sent, dir, { now, demo, tell }));
    return { restoring: restoring.finally(clear) };
  } catch (error) {
    clear();
    throw error;
  }
}

/** Put one of the automatic backups in place of everything. @throws Refusal 404, 409, 422 */
export function restoreKept(yard: Yard, name: string, now: () => number, demo: boolean): Promise<Restored> {
  const { backups } = yard;
  const kept = backups ? listBackups(backups.dataDir).find((b) => b.name === name) : undefined;
  if (!backups || !kept) throw notFound('backup');
  const dir = join(yard.spool, `restore-${randomUUID()}`);
  mkdirSync(dir, { recursive: true });
  return yard.work
    .run('restore', (tell) => putBack(yard, join(backups.dir, name), dir, { now, demo, tell }))
    .finally(() => rmSync(dir, { recursive: true, force: true }));
}

const WAITS =
  'A backup is being put in place of everything just now. What you enter waits, and is sent when that is done.';

async function putBack(
  yard: Yard,
  path: string,
  dir: string,
  { now, demo, tell }: { now: () => number; demo: boolean; tell: Tell },
): Promise<Restored> {
  const { store, files, backups } = yard;
  const staging = join(dir, 'files');
  mkdirSync(staging);
  const beside = backups ? backupFilesDir(backups.dataDir) : undefined;
  const archive = await checkArchive(path, {
    staging,
    ...(beside ? { beside } : {}),
    pause: () => store.breathe(),
    tell: (share) => tell('checking', share),
  });
  return store.alone(async () => {
    const { journal, db } = store;
    const filesOf = beside ?? staging;
    if (beside) for (const hash of archive.files) shareFile(join(staging, hash), join(beside, hash));
    const had = new Set(files.list());
    let before: string | null = null;
    let begun = null as SegmentHead | null;
    try {
      await store.replace(WAITS, async () => {
        tell('keepingBefore', null);
        before = backups ? (await backups.makeAlone('before-restore')).name : null;
        const fill = async (tx: Db) => {
          tell('puttingInPlace', 1);
          if (demo) {
            // A demo that someone restored was touched, and is not made anew.
            await applyOps(tx, [
              ['put', 'facts', { key: TOUCHED, value: true }],
              ['put', 'facts', { key: SEEDED, value: now() }],
            ]);
          }
          if (backups) {
            // The new history is on the disk before it holds: a start in between finds it there and finishes this.
            const base = backups.freeName(now(), 'restored');
            const held = join(backups.dir, base);
            const kept = {
              list: () => [...archive.files],
              size: (hash: string) => statSync(join(filesOf, hash)).size,
              read: (hash: string) => createReadStream(join(filesOf, hash)),
            };
            await writeArchive(`${held}.part`, {
              rows: tableRows(tx),
              files: kept,
              now: now(),
              history: null,
              change: journal.n,
              filesBeside: true,
            });
            renameSync(`${held}.part`, held);
            syncFolder(backups.dir);
            begun = await journal.begin(now(), { base });
            await applyOps(tx, [
              ['put', 'facts', { key: HISTORY, value: journal.history }],
              lastChangeOp(journal.n, journal.n),
            ]);
          }
          files.adopt(filesOf, archive.files);
        };
        await fillFrom(db, archive, fill, (share) => tell('puttingInPlace', share));
      });
    } catch (error) {
      if (begun) journal.abandon(begun);
      // Files of a refused backup are of no use to anyone.
      files.keepOnly(had);
      throw error;
    }
    files.keepOnly(new Set(archive.files));
    return { rows: archive.rows, files: archive.files.length, before };
  });
}

function upTo(limit: number): Transform {
  let bytes = 0;
  return new Transform({
    transform(chunk: Buffer, _encoding, done) {
      bytes += chunk.length;
      if (bytes > limit) done(new Refusal(413, 'too_large', `A backup may have up to ${limit / 1024 ** 3} GB.`));
      else done(null, chunk);
    },
  });
}
