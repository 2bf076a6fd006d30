import { existsSync, statfsSync } from 'node:fs';

/** Tests copy whole databases about: in memory that takes no time, on a slow disk minutes. Where memory is short, it stays on the disk. */
const SHARED_MEMORY = '/dev/shm';
const ENOUGH_BYTES = 4 * 1024 ** 3;

export function fastTmp(): void {
  if (process.env.TMPDIR || !existsSync(SHARED_MEMORY)) return;
  const { bavail, bsize } = statfsSync(SHARED_MEMORY);
  if (bavail * bsize > ENOUGH_BYTES) process.env.TMPDIR = SHARED_MEMORY;
}
