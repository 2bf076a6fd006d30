import { mkdirSync } from 'node:fs';
import { parseArgs } from 'node:util';
import { DateTime } from 'luxon';
import { readConfig } from './config';
import { beginHistoryAnew, openYard } from './keep/yard';
import { lockFolder } from './keep/lock';
import { rebuild } from './keep/rebuild';
import { counted } from '#core/units/format';

const HELP = `Puts the database of a data folder together again, from the last backup that can be read and the journal.
The old database is moved aside, never removed.

  npm run recover                                everything that was ever saved
  npm run recover -- --until 2026-05-14T09:30    the yard as it was then (this computer's time)

The folder is JACKPLANE_DATA, or .data/yard; with JACKPLANE_DEMO=1 .data/demo. Stop the program first.
`;

async function main(): Promise<void> {
  const { values } = parseArgs({ options: { until: { type: 'string' }, help: { type: 'boolean' } } });
  if (values.help) return void process.stdout.write(HELP);
  const { dataDir, demo, databaseUrl } = readConfig({ ...process.env, PORT: '0', HOST: '' });
  if (databaseUrl !== null)
    throw new Error(
      'DATABASE_URL is set, and a database server sees to its own files. Restore a backup under Settings instead, or leave DATABASE_URL out to put the yard together in the data folder.',
    );
  const until = values.until === undefined ? null : DateTime.fromISO(values.until);
  if (until && !until.isValid)
    throw new Error(`--until must be a date and time like 2026-05-14T09:30, not "${values.until}".`);

  mkdirSync(dataDir, { recursive: true });
  const unlock = lockFolder(dataDir);
  const built = await rebuild(dataDir, { until: until?.toMillis() ?? null }).finally(unlock);
  // What comes after that moment is a history of its own; the journal of before stays.
  const yard = await openYard({ dataDir, now: Date.now, demo, trusted: true });
  await beginHistoryAnew(yard);
  await yard.close();

  const when = (at: number) => DateTime.fromMillis(at).toFormat('d LLLL yyyy HH:mm:ss');
  const lines = [
    `The database in ${dataDir} was put together from ${built.backup ? `the backup ${built.backup}` : 'an empty yard'} and ${counted(built.changes, 'change')} of the journal.`,
    built.upTo === null ? null : `The last change in it is number ${built.upTo.n}, of ${when(built.upTo.at)}.`,
    built.aside === null
      ? null
      : `The old database is in ${built.aside}. Remove it when everything is as it should be.`,
    ...built.notes,
  ];
  process.stdout.write(`${lines.filter((l) => l !== null).join('\n')}\n`);
}

main().catch((error: unknown) => {
  process.stderr.write(`Nothing was changed: ${(error as Error).message}\n`);
  process.exit(1);
});
