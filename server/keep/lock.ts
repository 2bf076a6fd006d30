import { closeSync, ftruncateSync, openSync, readFileSync, writeSync } from 'node:fs';
import { hostname } from 'node:os';
import { join } from 'node:path';
import { tryLock } from 'fs-native-extensions';

/** Thrown when another process owns the folder. */
export class FolderInUse extends Error {
  override readonly name = 'FolderInUse';
}

/**
 * Own a data folder, alone. A PGlite folder opened by two processes silently loses rows, so a second one must be
 * refused. The lock is the system's own on an open file: it holds across containers that share the folder, whatever
 * their process ids, and is gone with the process that held it, however that ended. What stands in the file is only
 * for the sentence.
 * @returns a function that gives the folder back
 * @throws FolderInUse when a living process owns it
 */
export function lockFolder(dir: string): () => void {
  const path = join(dir, 'lock');
  const fd = openSync(path, 'a+');
  if (!tryLock(fd)) {
    closeSync(fd);
    throw new FolderInUse(
      `The data folder ${dir} is in use by ${ownerOf(path)}. Stop that one first, or set JACKPLANE_DATA to another folder.`,
    );
  }
  ftruncateSync(fd);
  writeSync(fd, JSON.stringify({ pid: process.pid, host: hostname() }));
  return () => closeSync(fd);
}

function ownerOf(path: string): string {
  try {
    const { pid, host } = JSON.parse(readFileSync(path, 'utf8')) as { pid: number; host: string };
    return `process ${pid}${host === hostname() ? '' : ` on ${host}`}`;
  } catch {
    return 'another process';
  }
}
