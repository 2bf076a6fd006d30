import { join } from 'node:path';
import { DateTime } from 'luxon';
import { listBackups } from './backups';
import { FolderInUse } from './lock';

/** Run what needs a folder. @throws Error with a sentence that names the folder and what to do about it */
export function folderTrouble<T>(dataDir: string, work: () => T): T {
  try {
    return work();
  } catch (error) {
    if (error instanceof FolderInUse) throw error;
    throw new Error(folderSentence(dataDir, error as NodeJS.ErrnoException), { cause: error });
  }
}

function folderSentence(dataDir: string, error: NodeJS.ErrnoException): string {
  const where = error.path && error.path !== dataDir ? `${dataDir} (${error.path})` : dataDir;
  switch (error.code) {
    case 'ENOSPC':
    case 'EDQUOT':
      return `The disk with the data folder ${where} is full. Make room on it, then start again. ${lastBackup(dataDir)}`;
    case 'EROFS':
    case 'EACCES':
    case 'EPERM':
      return `The data folder ${where} may not be written by this user. Give it to the user who runs the program, or set JACKPLANE_DATA to another folder. ${lastBackup(dataDir)}`;
    case 'ENOTDIR':
    case 'EEXIST':
      return `In the data folder ${where} a file stands where a folder should be. Move it away, then start again. ${lastBackup(dataDir)}`;
    case undefined:
    default:
      return `The data folder ${where} cannot be used: ${error.message}. ${lastBackup(dataDir)}`;
  }
}

/** The database cannot be read: it is left as it is, and the way out is named. */
export function databaseDamaged(dataDir: string, why: string): Error {
  return new Error(
    `The database in ${join(dataDir, 'pg')} cannot be read: ${why.replace(/\.$/, '')}. It was left as it is. ${lastBackup(dataDir)} ` +
      `"npm run recover" puts that backup and the journal together into a new database, up to the last entry that was saved, and keeps the old one aside.`,
  );
}

function lastBackup(dataDir: string): string {
  try {
    const last = listBackups(dataDir).pop();
    return last
      ? `The last backup is ${last.name} of ${DateTime.fromMillis(last.at).toFormat('d LLLL yyyy HH:mm')} in ${join(dataDir, 'backups')}.`
      : `There is no backup in ${join(dataDir, 'backups')} yet.`;
  } catch {
    return `Backups are in ${join(dataDir, 'backups')}.`;
  }
}
