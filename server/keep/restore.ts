import { createHash } from 'node:crypto';
import { createReadStream, createWriteStream, existsSync, mkdirSync, statSync, type WriteStream } from 'node:fs';
import { once } from 'node:events';
import { join } from 'node:path';
import { finished } from 'node:stream/promises';
import { sql } from 'drizzle-orm';
import { ARCHIVE_ROWS, archiveEnd, archiveFile, archiveHead, archiveRows } from '#contracts/schemas/archive';
import { OPTIONS, sentence } from '#contracts/schemas/messages';
import { unsoundText } from '#contracts/rows/text';
import { withAreas } from '../db/boats';
import { BoatCache } from '../db/boatCache';
import { rawRows } from '../db/open';
import type { Db } from '../db/database';
import { boats, TABLES, type TableName } from '../db/schema';
import type { Row } from '../db/ops';
import { filesNamed } from './pictures';
import { Refusal } from '../errors';
import { ARCHIVE_VERSION, LIMITS, readArchive, Unreadable, type ArchiveHead } from './archive';
import { FILE_MAX_BYTES } from './files';

const NOT_OURS = () =>
  new Refusal(422, 'not_a_backup', 'This file is not a backup of Jack Plane. Choose the file that "Back up" gave you.');
const damaged = (why: string) =>
  new Refusal(
    422,
    'damaged_backup',
    `This backup is damaged and was not restored: ${why.replace(/\.$/, '')}. Everything here is as it was. Try an older backup.`,
  );
const NEWER = () => new Refusal(422, 'too_new', 'This backup was made by a newer version. Update first, then restore.');

export interface CheckedArchive {
  readonly path: string;
  readonly head: ArchiveHead;
  readonly rows: number;
  /** Hashes of the files that belong to it. */
  readonly files: readonly string[];
}

/**
 * Look an archive over from its first line to its last, before anything is written: limits, checksum, every row by the
 * contract of its table, every file by its hash. Files it holds are laid into `staging`, where that is given.
 * @param options.beside where files lie that it only names
 * @param options.pause called between its lines: whatever else waits has its turn then
 * @param options.tell hears how much of it was read
 * @throws Refusal 422 with a sentence
 */
export async function checkArchive(
  path: string,
  options: { staging?: string; beside?: string; pause?: () => Promise<void>; tell?: (share: number) => void },
): Promise<CheckedArchive> {
  let head: ArchiveHead | null = null;
  let rows = 0;
  let ended = false;
  const files: string[] = [];
  let arriving: ArrivingFile | null = null;
  try {
    for await (const { value, sha256, share } of readArchive(path, statSync(path).size)) {
      await options.pause?.();
      options.tell?.(share);
      if (ended) throw damaged('there is more after its end');
      if (!head) {
        if (archiveHead.validate(value).error) throw NOT_OURS();
        head = { ...value, tables: undefined } as unknown as ArchiveHead;
        if (head.version > ARCHIVE_VERSION) throw NEWER();
        if (head.version === 1) {
          for (const [table, list] of Object.entries((value.tables ?? {}) as Record<string, Row[]>))
            rows += checkedRows(table, list).length;
          ended = true;
        }
      } else if ('table' in value) {
        must(archiveRows, value);
        rows += checkedRows(value.table as string, value.rows as Row[]).length;
        if (rows > LIMITS.rows) throw damaged('it holds more rows than any yard');
      } else if ('file' in value) {
        must(archiveFile, value);
        const name = value.file as string;
        if (value.beside) {
          if (!options.beside || !(await hasHash(join(options.beside, name), name)))
            throw damaged(`the file ${name.slice(0, 12)}… that it names is not beside it`);
          files.push(name);
        } else {
          arriving ??= new ArrivingFile(name, options.staging ?? null);
          if (arriving.name !== name) throw damaged('a file in it is not whole');
          if (value.piece !== undefined) await arriving.add(Buffer.from(value.piece as string, 'base64'));
          else {
            const done = arriving;
            arriving = null;
            if (!(await done.end())) throw damaged('a file in it is not what it was');
            files.push(name);
          }
        }
        if (files.length > LIMITS.files) throw damaged('it holds more files than any yard');
      } else {
        must(archiveEnd, value);
        if (head.version >= 4 && value.sha256 !== sha256()) throw damaged('its checksum does not fit');
        ended = true;
      }
    }
    if (!head) throw NOT_OURS();
    if (!ended || arriving) throw damaged('it was cut off');
    return { path, head, rows, files };
  } catch (error) {
    if (error instanceof Unreadable) throw head ? damaged(error.message) : NOT_OURS();
    throw error;
  } finally {
    arriving?.drop();
  }
}

function must(schema: { validate(value: unknown): { error?: Error | undefined } }, value: Row): void {
  const { error } = schema.validate(value);
  if (error) throw damaged(`a line of it cannot be (${error.message})`);
}

/** The rows of a line as they are to be stored, each held to its contract. Tables of earlier versions are told in today's. */
function checkedRows(table: string, list: readonly Row[]): { table: TableName; row: Row }[] {
  if (table === 'weatherIssues') {
    const typed = list
      .filter((r) => r.source === 'typed')
      .map(({ id, boatId, issuedAt, typedDays }) => ({ id, boatId, issuedAt, days: typedDays ?? [] }));
    return checkedRows('typedForecasts', typed);
  }
  const schema = Object.hasOwn(ARCHIVE_ROWS, table) ? ARCHIVE_ROWS[table as TableName] : null;
  if (!schema) throw damaged(`it speaks of "${table.slice(0, 40)}", which no yard has`);
  return list.map((given) => {
    const { seq: _seq, ...rest } = given;
    const unsound = unsoundText(rest);
    if (unsound) throw damaged(`${table}: ${unsound.join('.')} holds a character that cannot be`);
    const { value, error } = schema.validate(rest, { ...OPTIONS, abortEarly: true });
    if (error) throw damaged(`${table}: ${sentence(error.details[0]?.message ?? error.message)}`);
    return { table: table as TableName, row: value as Row };
  });
}

/** A file that comes in pieces: hashed, and laid down where it is wanted. */
class ArrivingFile {
  private readonly hash = createHash('sha256');
  private readonly out: WriteStream | null;
  private bytes = 0;
  private failed: Error | null = null;
  constructor(
    readonly name: string,
    staging: string | null,
  ) {
    if (staging !== null) mkdirSync(staging, { recursive: true });
    this.out = staging === null ? null : createWriteStream(join(staging, name), { flush: true });
    this.out?.on('error', (error) => (this.failed = error));
  }
  async add(piece: Buffer): Promise<void> {
    this.bytes += piece.length;
    if (this.failed) throw this.failed;
    if (this.bytes > FILE_MAX_BYTES) throw damaged('a file in it is too large');
    this.hash.update(piece);
    if (this.out && !this.out.write(piece)) await once(this.out, 'drain');
  }
  /** Whether it came out at the hash that names it. */
  async end(): Promise<boolean> {
    if (this.out) {
      this.out.end();
      await finished(this.out);
    }
    return this.hash.digest('hex') === this.name;
  }
  drop(): void {
    this.out?.destroy();
  }
}

async function hasHash(path: string, name: string): Promise<boolean> {
  if (!existsSync(path)) return false;
  const hash = createHash('sha256');
  for await (const chunk of createReadStream(path)) hash.update(chunk as Buffer);
  return hash.digest('hex') === name;
}

/**
 * Put the rows of a checked archive in place of everything, in one transaction.
 * @param last called within it when all rows are in: what must be so when it holds, and not when it does not
 * @throws Refusal 422 when its rows do not hold together
 */
export async function fillFrom(
  db: Db,
  archive: CheckedArchive,
  last: (tx: Db) => Promise<void>,
  tell: (share: number) => void = () => undefined,
): Promise<void> {
  try {
    await db.transaction(async (transaction) => {
      const tx = transaction as unknown as Db;
      for (const table of Object.values(TABLES).reverse()) await tx.delete(table);
      for await (const { value, share } of readArchive(archive.path, statSync(archive.path).size)) {
        tell(share);
        if ('tables' in value)
          for (const [table, list] of Object.entries(value.tables as Record<string, Row[]>))
            await insertRows(tx, table, list);
        else if ('table' in value) await insertRows(tx, value.table as string, value.rows as Row[]);
      }
      await checkReferences(tx, archive.files);
      await last(tx);
    });
  } catch (error) {
    if (error instanceof Refusal) throw error;
    const { code, message, cause } = error as {
      code?: string;
      message: string;
      cause?: { code?: string; message?: string };
    };
    const sqlState = code ?? cause?.code ?? '';
    if (/^(22|23)/.test(sqlState)) throw damaged(`its rows do not hold together (${cause?.message ?? message})`);
    throw error;
  }
}

async function insertRows(tx: Db, table: string, list: readonly Row[]): Promise<void> {
  const rows = checkedRows(table, list);
  const [first] = rows;
  if (!first) return;
  for (let i = 0; i < rows.length; i += 200)
    await tx.insert(TABLES[first.table]).values(rows.slice(i, i + 200).map((r) => r.row));
}

/** References that the database itself does not hold, and what could not be shown afterwards. */
async function checkReferences(tx: Db, files: readonly string[]): Promise<void> {
  const lacking = async (what: string, query: ReturnType<typeof sql>) => {
    if ((await rawRows(tx, sql`${query} limit 1`)).length > 0) throw damaged(what);
  };
  await lacking(
    'a patch in it has no zone',
    sql`select 1 from surfaces s where s.parent_id is not null and not exists (select 1 from surfaces p where p.id = s.parent_id and p.boat_id = s.boat_id)`,
  );
  for (const table of ['build_ups', 'named_build_ups']) {
    await lacking(
      'a coat in it has no data sheet',
      sql`select 1 from ${sql.identifier(table)} b, jsonb_array_elements(b.layers) l where not exists (select 1 from sheet_revisions r where r.id::text = l->>'sheetRevisionId')`,
    );
  }
  await lacking(
    'an entry in it has no data sheet',
    sql`select 1 from entries e where e.kind in ('started', 'mixed') and not exists (select 1 from sheet_revisions r where r.id::text = e.body->>'sheetRevisionId')`,
  );
  await lacking(
    'an entry in it corrects one that is not there',
    sql`select 1 from entries e where e.supersedes is not null and not exists (select 1 from entries o where o.id = e.supersedes and o.boat_id = e.boat_id)`,
  );
  await lacking(
    'a coat in it was put on a zone that is not there',
    sql`select 1 from entries e, jsonb_array_elements(e.body->'on') o where e.kind in ('started', 'mixed') and not exists (select 1 from surfaces s where s.id::text = o->>'surfaceId' and s.boat_id = e.boat_id)`,
  );
  if ([...(await filesNamed(tx))].some((hash) => !files.includes(hash)))
    throw damaged('the mesh of a hull or a picture of a coat is not in it');
  const cache = new BoatCache(tx);
  for (const { id } of await tx.select({ id: boats.id }).from(boats)) {
    const rows = await cache.get(id);
    try {
      if (rows) withAreas(rows.surfaces, rows.boat, rows.hull);
    } catch (error) {
      throw damaged((error as Error).message);
    }
  }
}
