import { createHash } from 'node:crypto';
import { createReadStream, createWriteStream, statSync } from 'node:fs';
import { Readable, Transform } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { createGunzip, createGzip } from 'node:zlib';
import { getTableColumns, sql } from 'drizzle-orm';
import type { PgColumn, PgTable } from 'drizzle-orm/pg-core';
import { rawRows } from '../db/open';
import type { Db } from '../db/database';
import { TABLES } from '../db/schema';
import { LAST_CHANGE } from '../db/lastChange';
import type { Row } from '../db/ops';
import type { FileStore } from './files';

/**
 * The archive: everything of a yard in one gzipped file of JSON lines, for backups by hand and automatic ones. A
 * header, rows table by table with parents first, files, and a last line with the checksum of all before it. See
 * docs/formats.md. Older versions are still read.
 */
export const ARCHIVE_FORMAT = 'jack-plane-backup';
export const ARCHIVE_VERSION = 4;

export interface ArchiveHead {
  readonly format: typeof ARCHIVE_FORMAT;
  readonly version: number;
  readonly createdAt: string;
  /** History and number of the last change in it; versions before 4 had no journal. */
  readonly history?: string | null;
  readonly change?: number;
}

/** So many rows stand in a line at most, and are read at once where others wait for their turn in between. */
const A_LINE = 30;
/** So many are read at once where nobody does. */
const PAGE = 500;
/** A line of rows is closed when it has come to this. */
const LINE_BYTES = 256 * 1024;
const FILE_PIECE = 768 * 1024;
/** The fact that tells which history a database is of. */
export const HISTORY = 'history';

/** Facts that tell of a database, not of a yard. */
const OF_THE_DATABASE: readonly unknown[] = [HISTORY, LAST_CHANGE];

export interface WhatToWrite {
  /** All rows, parents first. */
  readonly rows: AsyncIterable<TableRows>;
  readonly files: Pick<FileStore, 'list' | 'size' | 'read'>;
  readonly now: number;
  readonly history: string | null;
  readonly change: number;
  /** Files lie beside the backup and are named in it only. */
  readonly filesBeside: boolean;
}

export interface TableRows {
  readonly table: string;
  readonly rows: Row[];
}

/** Write an archive into a file that was not there. */
export async function writeArchive(path: string, what: WhatToWrite): Promise<void> {
  await pipeline(archiveStream(what), createWriteStream(path, { flush: true }));
}

/** An archive as the bytes that it is, made while they are taken. */
export function archiveStream(what: WhatToWrite): Readable {
  return Readable.from(archiveLines(what)).compose(createGzip());
}

async function* archiveLines({ rows, files, now, history, change, filesBeside }: WhatToWrite): AsyncGenerator<string> {
  const hash = createHash('sha256');
  const line = (value: object) => {
    const text = `${JSON.stringify(value)}\n`;
    hash.update(text);
    return text;
  };
  yield line({
    format: ARCHIVE_FORMAT,
    version: ARCHIVE_VERSION,
    createdAt: new Date(now).toISOString(),
    history,
    change,
  } satisfies ArchiveHead);
  for await (const { table, rows: some } of rows) yield line({ table, rows: some });
  for (const file of files.list()) {
    if (filesBeside) yield line({ file, bytes: files.size(file), beside: true });
    else {
      for await (const piece of files.read(file).pipe(new Pieces()))
        yield line({ file, piece: (piece as Buffer).toString('base64') });
      yield line({ file, end: true });
    }
  }
  yield `${JSON.stringify({ end: true, sha256: hash.digest('hex') })}\n`;
}

/** A table as the database itself tells it. */
interface StoredTable {
  readonly name: string;
  readonly sqlName: string;
}

/** The tables that are there, parents first; those that a newer version made, last. */
export async function storedTables(db: Db): Promise<StoredTable[]> {
  const there = new Set(
    (
      await rawRows(db, sql`select table_name as name from information_schema.tables where table_schema = 'public'`)
    ).map((r) => r.name as string),
  );
  const known = (Object.entries(TABLES) as [string, PgTable][]).map(([name, table]) => ({
    name,
    sqlName: tableName(table),
  }));
  const unknown = [...there].filter((t) => !known.some((k) => k.sqlName === t)).sort();
  return [...known, ...unknown.map((t) => ({ name: camel(t), sqlName: t }))].filter((t) => there.has(t.sqlName));
}

const keyNameOf = (sqlName: string) => (sqlName === 'entries' ? 'seq' : sqlName === 'facts' ? 'key' : 'id');

interface ReadingOptions {
  /** Up to this key, it included; left out: all. */
  readonly upTo?: number;
  /** Called between two pages. */
  readonly pause?: () => Promise<void>;
}

/**
 * The rows of a table in the order of their keys, in lines, read page by page and as the database itself tells them: so a
 * database can be backed up before it is brought up to date.
 */
export async function* rowsOfTable(
  db: Db,
  table: StoredTable,
  { upTo, pause }: ReadingOptions = {},
): AsyncGenerator<TableRows> {
  const { name, sqlName } = table;
  const key = sql.identifier(keyNameOf(sqlName));
  const inside = upTo === undefined ? sql`` : sql`and ${key} <= ${upTo}`;
  const size = pause ? A_LINE : PAGE;
  let after: unknown = null;
  for (;;) {
    const beyond = after === null ? sql`where true` : sql`where ${key} > ${after}`;
    const page = await rawRows(
      db,
      sql`select ${key}::text as at, to_jsonb(t)::text as row from ${sql.identifier(sqlName)} t ${beyond} ${inside} order by ${key} limit ${size}`,
    );
    for (const rows of inLines(page.map((found) => toldRow(name, found.row as string)).filter((row) => row !== null)))
      yield { table: name, rows };
    if (page.length < size) return;
    after = page[page.length - 1]?.at;
    await pause?.();
  }
}

/** Rows as they are told to a line: not too many, and not too long. */
export function* inLines(rows: readonly Row[]): Generator<Row[]> {
  let line: Row[] = [];
  let bytes = 0;
  for (const row of rows) {
    const size = JSON.stringify(row).length;
    if (line.length === A_LINE || (line.length > 0 && bytes + size > LINE_BYTES)) {
      yield line;
      line = [];
      bytes = 0;
    }
    line.push(row);
    bytes += size;
  }
  if (line.length > 0) yield line;
}

/** Rows of a table by their keys. */
export async function rowsByKey(db: Db, table: StoredTable, keys: readonly string[]): Promise<Row[]> {
  const found: Row[] = [];
  const key = sql.identifier(keyNameOf(table.sqlName));
  for (const one of keys) {
    const [told] = await rawRows(
      db,
      sql`select to_jsonb(t)::text as row from ${sql.identifier(table.sqlName)} t where ${key}::text = ${one}`,
    );
    const row = told && toldRow(table.name, told.row as string);
    if (row) found.push(row);
  }
  return found;
}

/** A row under the names that the program has for its columns; null for one that is not the yard's. */
function toldRow(table: string, text: string): Row | null {
  const keys = columnsOf(table);
  const row = Object.fromEntries(
    Object.entries(JSON.parse(text) as Row).map(([column, value]) => [keys.get(column) ?? camel(column), value]),
  );
  if (table === 'facts' && OF_THE_DATABASE.includes(row.key)) return null;
  delete row.seq;
  return row;
}

const columns = new Map<string, ReadonlyMap<string, string>>();
function columnsOf(table: string): ReadonlyMap<string, string> {
  let found = columns.get(table);
  if (!found) {
    const known = table in TABLES ? getTableColumns(TABLES[table as keyof typeof TABLES]) : {};
    found = new Map(Object.entries(known as Record<string, PgColumn>).map(([key, column]) => [column.name, key]));
    columns.set(table, found);
  }
  return found;
}

/** All rows of a database that nobody writes to meanwhile, parents first, each table in a fixed order. */
export async function* tableRows(db: Db): AsyncGenerator<TableRows> {
  for (const table of await storedTables(db)) yield* rowsOfTable(db, table);
}

const camel = (name: string) => name.replace(/_([a-z])/g, (_, letter: string) => letter.toUpperCase());

function tableName(table: PgTable): string {
  return (table as unknown as Record<symbol, string>)[Symbol.for('drizzle:Name')] as string;
}

/** A stream cut into pieces of one size, so that each can be a line. */
class Pieces extends Transform {
  private held: Buffer = Buffer.alloc(0);
  constructor() {
    super({ readableObjectMode: true });
  }
  override _transform(chunk: Buffer, _encoding: string, done: () => void): void {
    this.held = Buffer.concat([this.held, chunk]);
    while (this.held.length >= FILE_PIECE) {
      this.push(this.held.subarray(0, FILE_PIECE));
      this.held = this.held.subarray(FILE_PIECE);
    }
    done();
  }
  override _flush(done: () => void): void {
    if (this.held.length > 0) this.push(this.held);
    done();
  }
}

/** Limits on what is read: a yard's own backups stay far inside, whatever else is sent does not get far. */
export const LIMITS = {
  /** Largest archive taken, as sent. */
  packedBytes: 1024 ** 3,
  unpackedBytes: 3 * 1024 ** 3,
  /** Text of a yard packs about one to ten. */
  ratio: 200,
  lineBytes: 16 * 1024 * 1024,
  rows: 2_000_000,
  files: 250_000,
} as const;

/** An archive that cannot be read on, with what is wrong. */
export class Unreadable extends Error {}

/** The first line of an archive; null where it is none that can be read. */
export async function archiveHeadOf(path: string): Promise<ArchiveHead | null> {
  try {
    for await (const { value } of readArchive(path, statSync(path).size))
      return value.format === ARCHIVE_FORMAT ? (value as unknown as ArchiveHead) : null;
  } catch (error) {
    if (!(error instanceof Unreadable)) throw error;
  }
  return null;
}

/** Hashes of the files that an archive holds or names; of one that is damaged, those that can be read. */
export async function* filesOfArchive(path: string): AsyncGenerator<string> {
  try {
    for await (const { value } of readArchive(path, statSync(path).size))
      if (typeof value.file === 'string' && value.piece === undefined) yield value.file;
  } catch (error) {
    if (!(error instanceof Unreadable)) throw error;
  }
}

/**
 * The lines of an archive, packed or not, each parsed, one at a time; `sha256` is that of all lines before it, `share` how
 * much of the file was read for it.
 * @throws Unreadable
 */
export async function* readArchive(
  path: string,
  packedBytes: number,
): AsyncGenerator<{ value: Row; sha256: () => string; share: number }> {
  const head = await new Promise<Buffer>((done, fail) => {
    const start = createReadStream(path, { end: 1 });
    start
      .once('error', fail)
      .once('data', (chunk) => done(chunk as Buffer))
      .once('end', () => done(Buffer.alloc(0)));
  });
  const packed = head[0] === 0x1f && head[1] === 0x8b;
  const file = createReadStream(path);
  const source = packed ? createGunzip() : file;
  const fed = packed ? pipeline(file, source as Transform) : Promise.resolve();
  // Heard of where the lines are read.
  fed.catch(() => undefined);
  const hash = createHash('sha256');
  const sha256 = () => hash.copy().digest('hex');
  const most = Math.min(LIMITS.unpackedBytes, packed ? 16 * 1024 * 1024 + packedBytes * LIMITS.ratio : Infinity);
  let held: Buffer[] = [];
  let size = 0;
  let total = 0;
  try {
    for await (const chunk of source as AsyncIterable<Buffer>) {
      total += chunk.length;
      if (total > most) throw new Unreadable('unpacked it is larger than any yard');
      let from = 0;
      for (let at = chunk.indexOf(10); at >= 0; at = chunk.indexOf(10, from)) {
        held.push(chunk.subarray(from, at + 1));
        const text = Buffer.concat(held);
        yield { value: parseLine(text), sha256, share: Math.min(1, file.bytesRead / Math.max(1, packedBytes)) };
        hash.update(text);
        held = [];
        size = 0;
        from = at + 1;
      }
      held.push(chunk.subarray(from));
      size += chunk.length - from;
      if (size > LIMITS.lineBytes) throw new Unreadable('a line of it is far too long');
    }
  } catch (error) {
    if (error instanceof Unreadable) throw error;
    const { code, message } = error as NodeJS.ErrnoException;
    throw new Unreadable(code === 'Z_BUF_ERROR' ? 'it was cut off' : message);
  } finally {
    file.destroy();
    (source as Transform).destroy();
  }
  // Version 1 had no line end.
  if (size > 0) yield { value: parseLine(Buffer.concat(held)), sha256, share: 1 };
}

function parseLine(text: Buffer): Row {
  let value: unknown;
  try {
    value = JSON.parse(text.toString('utf8'));
  } catch {
    throw new Unreadable('a line of it is not JSON');
  }
  if (value === null || typeof value !== 'object' || Array.isArray(value))
    throw new Unreadable('a line of it is not an object');
  return value as Row;
}
