import { createReadStream, createWriteStream, mkdirSync, renameSync, rmSync, statSync } from 'node:fs';
import { randomUUID } from 'node:crypto';
import { join } from 'node:path';
import { Transform, type Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import type { Restored } from '#contracts/rows/keeping';
import { applyOps } from '../db/ops';
import { SEEDED, TOUCHED } from '../db/touched';
import { notFound, Refusal } from '../errors';
import { HISTORY, LIMITS, writeArchive } from './archive';
import { backupFilesDir, listBackups } from './backups';
import { shareFile } from './files';
import { syncFolder, type SegmentHead } from './journal';
import { checkArchive, fillFrom } from './restore';
import type { Yard } from './yard';

/** Everything of a yard in one file that stands by itself, made in the spool. The caller removes it. */
export async function archiveForDownload(yard: Yard, now: number): Promise<string> {
  const { store, files, spool } = yard;
  const path = join(spool, `backup-${randomUUID()}`);
  await store.alone(() =>
    writeArchive(path, {
      db: store.db,
      files,
      now,
      history: store.journal.history,
      change: store.journal.n,
      filesBeside: false,
    }),
  );
  return path;
}

/**
 * Put a backup that was sent in place of everything, whole or not at all. What was here before is backed up first.
 * @throws Refusal 413, 422 with a sentence; nothing has changed then
 */
export async function restoreSent(yard: Yard, source: Readable, now: () => number, demo: boolean): Promise<Restored> {
  const dir = join(yard.spool, `restore-${randomUUID()}`);
  mkdirSync(dir, { recursive: true });
  try {
    const sent = join(dir, 'sent');
    await pipeline(source, upTo(LIMITS.packedBytes), createWriteStream(sent, { flush: true }));
    return await putBack(yard, sent, dir, now, demo);
  } finally {
    rmSync(dir, { recursive: true, force: true });
  }
}

/** Put one of the automatic backups in place of everything. @throws Refusal 404, 422 */
export async function restoreKept(yard: Yard, name: string, now: () => number, demo: boolean): Promise<Restored> {
  const { backups } = yard;
  const kept = backups ? listBackups(backups.dataDir).find((b) => b.name === name) : undefined;
  if (!backups || !kept) throw notFound('backup');
  const dir = join(yard.spool, `restore-${randomUUID()}`);
  mkdirSync(dir, { recursive: true });
  try {
    return await putBack(yard, join(backups.dir, name), dir, now, demo);
  } finally {
    rmSync(dir, { recursive: true, force: true });
  }
}

async function putBack(yard: Yard, path: string, dir: string, now: () => number, demo: boolean): Promise<Restored> {
  const { store, files, backups } = yard;
  const staging = join(dir, 'files');
  mkdirSync(staging);
  const beside = backups ? backupFilesDir(backups.dataDir) : undefined;
  const archive = await checkArchive(path, { staging, ...(beside ? { beside } : {}) });
  return store.alone(async () => {
    const { journal, db } = store;
    const filesOf = beside ?? staging;
    if (beside) for (const hash of archive.files) shareFile(join(staging, hash), join(beside, hash));
    const before = backups ? (await backups.makeAlone('before-restore')).name : null;
    const had = new Set(files.list());
    let begun = null as SegmentHead | null;
    try {
      await store.replace(() =>
        fillFrom(db, archive, async (tx) => {
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
              db: tx,
              files: kept,
              now: now(),
              history: null,
              change: journal.n,
              filesBeside: true,
            });
            renameSync(`${held}.part`, held);
            syncFolder(backups.dir);
            begun = await journal.begin(now(), { base });
            await applyOps(tx, [['put', 'facts', { key: HISTORY, value: journal.history }]]);
          }
          files.adopt(filesOf, archive.files);
        }),
      );
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
