import { execFileSync } from 'node:child_process';
import { closeSync, fsyncSync, openSync, readFileSync, renameSync, writeSync } from 'node:fs';
import { uptime } from 'node:os';
import { join } from 'node:path';
import { syncFolder } from './journal';

/** How the folder was left: by whom the system was started then, and whether the program was closed in order. */
export interface FolderState {
  readonly boot: string;
  readonly clean: boolean;
  /** Where the journal stood. */
  readonly history: string | null;
  readonly n: number;
}

const FILE = 'state.json';

export function readState(dataDir: string): FolderState | null {
  try {
    return JSON.parse(readFileSync(join(dataDir, FILE), 'utf8')) as FolderState;
  } catch {
    return null;
  }
}

export function writeState(dataDir: string, state: Omit<FolderState, 'boot'>): void {
  writeDown(dataDir, FILE, { ...state, boot: bootId() } satisfies FolderState);
}

/** A small file of the folder, whole or as it was before, and on the disk. */
export function writeDown(dataDir: string, name: string, value: unknown): void {
  const draft = join(dataDir, `${name}.part`);
  const fd = openSync(draft, 'w');
  writeSync(fd, JSON.stringify(value));
  fsyncSync(fd);
  closeSync(fd);
  renameSync(draft, join(dataDir, name));
  syncFolder(dataDir);
}

/** The system was started anew since, and the program had not been closed: what it had not written down may be gone. */
export function wentDown(state: FolderState): boolean {
  return !state.clean && state.boot !== bootId();
}

/** What tells one run of the system from the next. */
function bootId(): string {
  try {
    if (process.platform === 'linux') return readFileSync('/proc/sys/kernel/random/boot_id', 'utf8').trim();
    if (process.platform === 'darwin')
      return execFileSync('sysctl', ['-n', 'kern.boottime'])
        .toString()
        .replace(/\s*}.*/s, '')
        .trim();
  } catch {
    // Told by the time below.
  }
  return `${Math.round((Date.now() / 1000 - uptime()) / 120)}`;
}
