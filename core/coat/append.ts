import { foldLog, standing } from './fold';
import type { LogEntry, LogEntryOf, StartedBody } from '../model/log';
import { Impossible } from '../impossible';

/**
 * Whether an entry may join the log, as the log stands. A second start of one coat, or of one layer of a zone, a finish
 * before its start, or a thing that happens to a coat that was never started are refused.
 * @throws RangeError with a sentence that says what to do
 * @example
 *   checkAppend(entries, { ...entries[0], id: 'again' }) // → throws This coat is already started. Correct its start instead.
 */
export function checkAppend(entries: readonly LogEntry[], entry: LogEntry): void {
  const own = entries.filter((e) => e.stream === entry.stream && e.streamId === entry.streamId);
  if (entry.supersedes !== null) {
    const old = own.find((e) => e.id === entry.supersedes);
    if (!old) throw new Impossible('The entry to correct is not in this log. Reload and try again.');
    if (entry.kind !== 'withdrawn' && old.kind !== entry.kind)
      throw new Impossible(`A ${old.kind} entry can only be corrected by another one of its kind.`);
    if (old.kind === 'withdrawn') throw new Impossible('A withdrawal stands. Log the entry again instead.');
    if (own.some((e) => e.supersedes === old.id))
      throw new Impossible('This entry was already corrected. Correct the newer one.');
  } else if (entry.kind === 'withdrawn') {
    throw new Impossible('Say which entry is withdrawn.');
  }
  const after = [...own, entry];
  const valid = standing(after);
  if (entry.stream === 'coat') checkCoat(valid, entry);
  if (entry.kind === 'started') checkOneCoat(entries, entry);
  if (entry.stream === 'batch') {
    const mixed = valid.filter((e) => e.kind === 'mixed');
    if (mixed.length > 1) throw new Impossible('This batch is already logged.');
    if (mixed.length === 0 && entry.kind !== 'withdrawn') throw new Impossible('Log the mixing of this batch first.');
  }
}

/** One layer of a zone is one coat, however many stints and devices it takes. */
function checkOneCoat(
  entries: readonly LogEntry[],
  { streamId, body: { on } }: LogEntryOf<'started', StartedBody>,
): void {
  const other = foldLog(entries).coats.find(
    (c) =>
      c.id !== streamId && c.on.some((t) => on.some((o) => o.surfaceId === t.surfaceId && o.layerId === t.layerId)),
  );
  if (!other) return;
  throw new Impossible(
    other.finishedAt === null
      ? 'This coat is going on already. Open it under Coat: what is mixed, combed and finished belongs there.'
      : 'This coat is on already. Open it under Coat and correct its finish, if it went on for longer.',
  );
}

/** What happens while a coat goes on, or after it. */
const IN_COAT: ReadonlySet<LogEntry['kind']> = new Set([
  'wetFilm',
  'handTest',
  'paused',
  'resumed',
  'covered',
  'picture',
] as const);

/** What happens only until a coat is finished. */
const IN_STINT: ReadonlySet<LogEntry['kind']> = new Set(['paused', 'resumed'] as const);

/** Whether nobody was at a coat when it is said to be paused. */
function pausedBefore(valid: readonly LogEntry[], entry: LogEntry): boolean {
  const last = valid.findLast(
    (e) => e.id !== entry.id && e.occurredAt <= entry.occurredAt && (IN_STINT.has(e.kind) || e.kind === 'started'),
  );
  return last?.kind === 'paused';
}

function checkCoat(valid: readonly LogEntry[], entry: LogEntry): void {
  const starts = valid.filter((e) => e.kind === 'started');
  const finishes = valid.filter((e) => e.kind === 'finished');
  const start = starts[0];
  if (starts.length > 1) throw new Impossible('This coat is already started. Correct its start instead.');
  if (!start) {
    // Without its start there is no coat: what else was logged of it counts for nothing, and stays readable.
    if (entry.kind !== 'withdrawn') throw new Impossible('Start the coat first.');
    return;
  }
  if (finishes.length > 1) throw new Impossible('This coat is already finished. Correct its finish instead.');
  const finish = finishes[0];
  if (finish && finish.occurredAt < start.occurredAt)
    throw new Impossible('The coat would finish before it started. Check the two times.');
  const early = valid.find((e) => IN_COAT.has(e.kind) && e.occurredAt < start.occurredAt);
  if (early) throw new Impossible('This would come before the coat was started. Check the time.');
  const late = valid.find((e) => IN_STINT.has(e.kind) && finish !== undefined && e.occurredAt > finish.occurredAt);
  if (late) throw new Impossible('The coat was finished before that. Check the time, or correct its finish first.');
  if (entry.kind === 'paused' && pausedBefore(valid, entry))
    throw new Impossible('The coat is paused already. Go on with it, or finish it.');
  const test = valid.find((e) => e.kind === 'handTest' && finish !== undefined && e.occurredAt < finish.occurredAt);
  if (test) throw new Impossible('A hand test comes after the coat is finished. Check the time.');
  if (entry.kind === 'handTest' && !finish) throw new Impossible('Finish the coat before testing it.');
  if (!finish && valid.some((e) => e.kind === 'handTest'))
    throw new Impossible(
      'A hand test stands on this finish. Withdraw the test first, or correct the time of the finish.',
    );
}
