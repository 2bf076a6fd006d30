import { execFileSync } from 'node:child_process';
import { linkSync, mkdirSync, readFileSync, renameSync, rmSync, unlinkSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';

/** Thrown when another process owns the folder. */
export class FolderInUse extends Error {}

interface Owner {
  pid: number;
  /** When that process started, as the system tells it: a process id alone is used again. */
  startedAt: string;
}

/**
 * Own a data folder, alone. A PGlite folder opened by two processes silently loses rows, so a second one
 * must be refused. The owner is known by process id and start time, never by the age of a file, so a lock
 * left by a killed process does not block.
 * @returns a function that gives the folder back
 * @throws FolderInUse when a living process owns it
 */
export function lockFolder(dir: string): () => void {
  mkdirSync(dir, { recursive: true });
  const path = join(dir, 'lock.json');
  const mine: Owner = { pid: process.pid, startedAt: processStart(process.pid) ?? '' };
  const draft = join(dir, `lock.${process.pid}.json`);
  writeFileSync(draft, JSON.stringify(mine));
  try {
    for (let attempt = 0; attempt < 20; attempt += 1) {
      try {
        // A link is made whole or not at all: nobody can read a half-written lock.
        linkSync(draft, path);
        return () => release(path, mine);
      } catch (error) {
        if ((error as NodeJS.ErrnoException).code !== 'EEXIST') throw error;
      }
      const owner = readOwner(path);
      if (owner === null) continue;
      if (isAlive(owner)) {
        throw new FolderInUse(`The data folder ${dir} is in use by process ${owner.pid}. Stop that one first, or set JACKPLANE_DATA to another folder.`);
      }
      removeStale(path, owner, draft);
    }
    throw new FolderInUse(`The data folder ${dir} could not be locked. Stop other copies of the program and try again.`);
  } finally {
    rmSync(draft, { force: true });
  }
}

function release(path: string, mine: Owner): void {
  const owner = readOwner(path);
  if (owner && sameOwner(owner, mine)) rmSync(path, { force: true });
}

/** Take a dead owner's lock out of the way; if another process was quicker, put its lock back. */
function removeStale(path: string, stale: Owner, draft: string): void {
  const aside = `${draft}.stale`;
  try {
    renameSync(path, aside);
  } catch {
    return;
  }
  const taken = readOwner(aside);
  if (taken && !sameOwner(taken, stale)) {
    try {
      linkSync(aside, path);
    } catch {
      // A third process has it by now; its own check will find the second one gone or alive.
    }
  }
  unlinkSync(aside);
}

function readOwner(path: string): Owner | null {
  try {
    const owner = JSON.parse(readFileSync(path, 'utf8')) as Owner;
    return Number.isInteger(owner.pid) ? owner : { pid: -1, startedAt: '' };
  } catch (error) {
    // Gone meanwhile: try again. Unreadable: nobody who lives wrote that.
    return (error as NodeJS.ErrnoException).code === 'ENOENT' ? null : { pid: -1, startedAt: '' };
  }
}

const sameOwner = (a: Owner, b: Owner) => a.pid === b.pid && a.startedAt === b.startedAt;

function isAlive(owner: Owner): boolean {
  if (owner.pid <= 0) return false;
  const started = processStart(owner.pid);
  return started !== null && started === owner.startedAt;
}

/** When a process started, in whatever terms the system has; null when there is no such process. */
export function processStart(pid: number): string | null {
  if (process.platform === 'linux') {
    try {
      const stat = readFileSync(`/proc/${pid}/stat`, 'utf8');
      // The name in brackets may hold spaces and brackets of its own; fields count from after it.
      const fields = stat.slice(stat.lastIndexOf(')') + 2).split(' ');
      return fields[0] === 'Z' ? null : (fields[19] ?? null);
    } catch {
      return null;
    }
  }
  try {
    if (process.platform === 'win32') {
      const script = `(Get-Process -Id ${pid}).StartTime.ToFileTimeUtc()`;
      return execFileSync('powershell', ['-NoProfile', '-Command', script], { stdio: ['ignore', 'pipe', 'ignore'] }).toString().trim() || null;
    }
    return execFileSync('ps', ['-o', 'lstart=', '-p', String(pid)], { stdio: ['ignore', 'pipe', 'ignore'] }).toString().trim() || null;
  } catch {
    return null;
  }
}
