import { createHash } from 'node:crypto';
import { createReadStream, createWriteStream } from 'node:fs';
import { Readable, Transform } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { createGunzip, createGzip } from 'node:zlib';
import { getTableColumns, sql } from 'drizzle-orm';
import type { PgColumn, PgTable } from 'drizzle-orm/pg-core';
import { rawRows } from '../db/open';
import type { Db } from '../db/database';
import { TABLES } from '../db/schema';
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

const PAGE = 500;
const ROWS_A_LINE = 200;
/** A line of rows is closed when it has come to this. */
const LINE_BYTES = 256 * 1024;
const FILE_PIECE = 768 * 1024;
/** Facts that tell of a database, not of a yard. */
export const HISTORY = 'history';

interface WhatToWrite {
  readonly db: Db;
  readonly files: Pick<FileStore, 'list' | 'size' | 'read'>;
  readonly now: number;
  readonly history: string | null;
  readonly change: number;
  /** Files lie beside the backup and are named in it only. */
  readonly filesBeside: boolean;
}

/** Write an archive. Nobody may write to the database meanwhile. */
export async function writeArchive(path: string, what: WhatToWrite): Promise<void> {
  await pipeline(Readable.from(archiveLines(what)), createGzip(), createWriteStream(path, { flush: true }));
}

async function* archiveLines({ db, files, now, history, change, filesBeside }: WhatToWrite): AsyncGenerator<string> {
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
  for await (const { table, rows } of tableRows(db)) yield line({ table, rows });
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

/**
 * All rows, table by table, parents first, each in a fixed order, read page by page and as the database itself tells
 * them: so a database can be backed up before it is brought up to date.
 */
export async function* tableRows(db: Db): AsyncGenerator<{ table: string; rows: Row[] }> {
  const there = new Set(
    (
      await rawRows(db, sql`select table_name as name from information_schema.tables where table_schema = 'public'`)
    ).map((r) => r.name as string),
  );
  const known = Object.entries(TABLES) as [string, PgTable][];
  const sqlNames = new Map(known.map(([name, table]) => [name, tableName(table)]));
  const unknown = [...there].filter((t) => ![...sqlNames.values()].includes(t)).sort();
  for (const [name, sqlName] of [...sqlNames, ...unknown.map((t) => [camel(t), t] as const)]) {
    if (!there.has(sqlName)) continue;
    const columns = name in TABLES ? getTableColumns(TABLES[name as keyof typeof TABLES]) : {};
    const keys = new Map(
      Object.entries(columns as Record<string, PgColumn>).map(([key, column]) => [column.name, key]),
    );
    const key = sql.identifier(sqlName === 'entries' ? 'seq' : sqlName === 'facts' ? 'key' : 'id');
    let rows: Row[] = [];
    let bytes = 0;
    let after: unknown = null;
    for (;;) {
      const beyond = after === null ? sql`` : sql`where ${key} > ${after}`;
      const page = await rawRows(
        db,
        sql`select ${key}::text as at, to_jsonb(t)::text as row from ${sql.identifier(sqlName)} t ${beyond} order by ${key} limit ${PAGE}`,
      );
      for (const found of page) {
        const text = found.row as string;
        const row = Object.fromEntries(
          Object.entries(JSON.parse(text) as Row).map(([column, value]) => [keys.get(column) ?? camel(column), value]),
        );
        if (name === 'facts' && row.key === HISTORY) continue;
        delete row.seq;
        if (rows.length === ROWS_A_LINE || (rows.length > 0 && bytes + text.length > LINE_BYTES)) {
          yield { table: name, rows };
          rows = [];
          bytes = 0;
        }
        rows.push(row);
        bytes += text.length;
      }
      if (page.length < PAGE) break;
      after = page[page.length - 1]?.at;
    }
    if (rows.length > 0) yield { table: name, rows };
  }
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
  files: 20_000,
} as const;

/** An archive that cannot be read on, with what is wrong. */
export class Unreadable extends Error {}

/**
 * The lines of an archive, packed or not, each parsed, one at a time; `sha256` is that of all lines before it.
 * @throws Unreadable
 */
export async function* readArchive(
  path: string,
  packedBytes: number,
): AsyncGenerator<{ value: Row; sha256: () => string }> {
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
        yield { value: parseLine(text), sha256 };
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
  if (size > 0) yield { value: parseLine(Buffer.concat(held)), sha256 };
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
