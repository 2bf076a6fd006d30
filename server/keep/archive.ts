import { createReadStream, createWriteStream, mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { PassThrough, Transform, type Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { createGunzip } from 'node:zlib';
import { asc, getTableColumns, sql } from 'drizzle-orm';
import type { PgColumn, PgTable } from 'drizzle-orm/pg-core';
import Joi from 'joi';
import { getHull, getSurfaces, withAreas } from './db/boats';
import type { Db } from './db/open';
import { boats, TABLES } from './db/schema';
import { Refusal } from './errors';
import type { FileStore } from './files';

/**
 * A backup is one gzipped file of JSON lines: a header, then rows of the tables, parents first, then the files,
 * in pieces. See docs/formats.md. Version 1 was a single JSON object without files,
 * version 2 knew fewer tables; both are still read.
 */
export const BACKUP_FORMAT = 'jack-plane-backup';
export const BACKUP_VERSION = 3;
/** Largest backup file taken, as sent. */
const PACKED_MAX = 1024 ** 3;
/** Unpacked, more than this is refused: no yard writes that much. */
const UNPACKED_MAX = 4 * 1024 ** 3;
const LINE_MAX = 256 * 1024 * 1024;
const ROWS_A_LINE = 200;
const FILE_PIECE = 768 * 1024;

type TableName = keyof typeof TABLES;
type Rows = Record<string, unknown>[];
const ENTRIES = Object.entries(TABLES) as [TableName, PgTable][];

/** All rows of one table, in a fixed order. */
async function readTable(db: Db, table: PgTable): Promise<Rows> {
  const columns = getTableColumns(table) as Record<string, PgColumn>;
  return (await db.select().from(table).orderBy(asc((columns.seq ?? columns.id ?? columns.key) as PgColumn))) as Rows;
}

/** All rows, parents first, each table in a fixed order. */
export async function readTables(db: Db): Promise<Record<TableName, Rows>> {
  const out = {} as Record<TableName, Rows>;
  await db.transaction(async (tx) => {
    for (const [name, table] of ENTRIES) out[name] = await readTable(tx as unknown as Db, table);
  });
  return out;
}

/** The lines of a backup. The tables are read at one moment; files never change, so they can follow at leisure. */
export async function* backupLines(db: Db, files: FileStore, now: number): AsyncGenerator<string> {
  const tables = await readTables(db);
  const line = (value: object) => `${JSON.stringify(value)}\n`;
  yield line({ format: BACKUP_FORMAT, version: BACKUP_VERSION, createdAt: new Date(now).toISOString() });
  for (const [table] of ENTRIES) {
    for (let i = 0; i < tables[table].length; i += ROWS_A_LINE) yield line({ table, rows: tables[table].slice(i, i + ROWS_A_LINE) });
  }
  for (const file of files.list()) {
    for await (const piece of files.read(file).pipe(new Pieces())) yield line({ file, piece: (piece as Buffer).toString('base64') });
    yield line({ file, end: true });
  }
  yield line({ end: true });
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

const header = Joi.object({ format: Joi.valid(BACKUP_FORMAT).required(), version: Joi.number().integer().required(), createdAt: Joi.string().isoDate().required(), tables: Joi.object().optional() });
const rowsLine = Joi.object({ table: Joi.valid(...Object.keys(TABLES)).required(), rows: Joi.array().items(Joi.object()).required() });
const fileLine = Joi.object({ file: Joi.string().hex().length(64).required(), piece: Joi.string().base64(), end: Joi.valid(true) }).xor('piece', 'end');

const NOT_OURS = () => new Refusal(422, 'not_a_backup', 'This file is not a backup of Jack Plane. Choose the file that "Back up" gave you.');
const DAMAGED = () => new Refusal(422, 'damaged_backup', 'This backup is damaged and was not restored. Everything here is as it was. Try an older backup.');

/**
 * Put a backup in place of everything here, whole or not at all.
 * @throws Refusal 422 with a sentence when the file is not one of ours, damaged or too new; 413 past the limit
 */
export async function restoreBackup(db: Db, files: FileStore, source: Readable): Promise<{ rows: number; files: number }> {
  const dir = mkdtempSync(join(tmpdir(), 'jack-plane-restore-'));
  const spool = join(dir, 'sent');
  try {
    await pipeline(source, upTo(PACKED_MAX), createWriteStream(spool));
    return await restoreFrom(db, files, spool);
  } finally {
    rmSync(dir, { recursive: true, force: true });
  }
}

async function restoreFrom(db: Db, files: FileStore, spool: string): Promise<{ rows: number; files: number }> {
  let recognised = false;
  const counted = { rows: 0, files: 0 };
  try {
    await db.transaction(async (tx) => {
      const inTx = tx as unknown as Db;
      let ended = false;
      let arriving: { name: string; stream: PassThrough; stored: Promise<{ hash: string }> } | null = null;
      for await (const value of readLines(spool)) {
        if (!recognised) {
          if (header.validate(value).error) throw NOT_OURS();
          const first = value as { version: number; tables?: Record<string, Rows> };
          if (first.version > BACKUP_VERSION) throw new Refusal(422, 'too_new', 'This backup was made by a newer version. Update first, then restore.');
          recognised = true;
          for (const [, table] of [...ENTRIES].reverse()) await tx.delete(table);
          if (first.version === 1) {
            for (const [name] of ENTRIES) counted.rows += await insertRows(inTx, name, first.tables?.[name] ?? []);
            ended = true;
          }
        } else if ('table' in value) {
          if (rowsLine.validate(value).error) throw DAMAGED();
          counted.rows += await insertRows(inTx, value.table as TableName, value.rows as Rows);
        } else if ('file' in value) {
          if (fileLine.validate(value).error) throw DAMAGED();
          const name = value.file as string;
          if (!arriving) {
            const stream = new PassThrough();
            const stored = files.put(stream);
            // Looked at when it ends; until then a failure must not go unheard.
            stored.catch(() => undefined);
            arriving = { name, stream, stored };
          }
          if (arriving.name !== name) throw DAMAGED();
          if (value.end) {
            arriving.stream.end();
            if ((await arriving.stored).hash !== name) throw DAMAGED();
            arriving = null;
            counted.files += 1;
          } else if (!arriving.stream.write(Buffer.from(value.piece as string, 'base64'))) {
            await new Promise((done) => arriving?.stream.once('drain', done));
          }
        } else {
          ended = value.end === true;
        }
      }
      if (!recognised) throw NOT_OURS();
      if (!ended) throw DAMAGED();
      // Numbering of the log goes on after the restored entries.
      await tx.execute(sql`select setval(pg_get_serial_sequence('entries', 'seq'), coalesce((select max(seq) from entries), 0) + 1, false)`);
      // What cannot be shown afterwards is refused now.
      for (const boat of await tx.select().from(boats)) withAreas(await getSurfaces(inTx, boat.id), boat, await getHull(inTx, boat.id));
    });
  } catch (error) {
    if (error instanceof Refusal) throw error;
    throw recognised ? DAMAGED() : NOT_OURS();
  }
  return counted;
}

async function insertRows(db: Db, name: TableName, rows: Rows): Promise<number> {
  const table: PgTable = TABLES[name];
  const known = Object.keys(getTableColumns(table));
  if (rows.some((row) => Object.keys(row).some((key) => !known.includes(key)))) throw DAMAGED();
  for (let i = 0; i < rows.length; i += ROWS_A_LINE) await db.insert(table).values(rows.slice(i, i + ROWS_A_LINE) as never);
  return rows.length;
}

/** Each line of a spooled backup as an object, unpacked where it is packed. @throws where it is neither */
async function* readLines(spool: string): AsyncGenerator<Record<string, unknown>> {
  const start = await new Promise<Buffer>((done, fail) => createReadStream(spool, { end: 1 }).once('data', (c) => done(c as Buffer)).once('end', () => done(Buffer.alloc(0))).once('error', fail));
  const packed = start[0] === 0x1f && start[1] === 0x8b;
  const file = createReadStream(spool);
  const text = packed ? unpacked(file) : file;
  let held: Buffer[] = [];
  let size = 0;
  const parse = (): Record<string, unknown> => {
    const value = JSON.parse(Buffer.concat(held).toString('utf8')) as unknown;
    if (value === null || typeof value !== 'object') throw new Error('not an object');
    return value as Record<string, unknown>;
  };
  for await (const chunk of text as AsyncIterable<Buffer>) {
    let from = 0;
    for (let at = chunk.indexOf(10); at >= 0; at = chunk.indexOf(10, from)) {
      held.push(chunk.subarray(from, at));
      if (held.some((h) => h.length > 0)) yield parse();
      held = [];
      size = 0;
      from = at + 1;
    }
    held.push(chunk.subarray(from));
    size += chunk.length - from;
    if (size > LINE_MAX) throw new Error('line too long');
  }
  if (held.some((h) => h.length > 0)) yield parse();
}

async function* unpacked(file: Readable): AsyncGenerator<Buffer> {
  let total = 0;
  for await (const chunk of file.pipe(createGunzip()) as AsyncIterable<Buffer>) {
    total += chunk.length;
    if (total > UNPACKED_MAX) throw new Error('too large unpacked');
    yield chunk;
  }
}

function upTo(limit: number): Transform {
  let bytes = 0;
  return new Transform({
    transform(chunk: Buffer, _encoding, done) {
      bytes += chunk.length;
      if (bytes > limit) done(new Refusal(413, 'too_large', `A backup may have up to ${limit / 1024 ** 3} GB.`));
      else done(null, chunk);
    },
  });
}
