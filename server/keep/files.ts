import { createHash, randomUUID } from 'node:crypto';
import {
  copyFileSync,
  createReadStream,
  createWriteStream,
  existsSync,
  linkSync,
  mkdirSync,
  mkdtempSync,
  readdirSync,
  renameSync,
  rmSync,
  statSync,
} from 'node:fs';
import { tmpdir } from 'node:os';
import { dirname, join } from 'node:path';
import { Transform, type Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { MESH_MAX_BYTES } from '#core/hull/stl';
import { Refusal } from '../errors';
import { syncFolder } from './journal';

const HASH = /^[0-9a-f]{64}$/;
/** Largest file taken: a mesh of a hull. */
export const FILE_MAX_BYTES = MESH_MAX_BYTES;

export interface StoredFile {
  /** SHA-256 of the content, hex: also its name. */
  readonly hash: string;
  readonly bytes: number;
}

/** Files as they came, each once, named by their content. Nothing is ever changed in place. */
export class FileStore {
  readonly dir: string;
  private readonly incoming: string;

  /** @param dir null: a folder of the system's for as long as the process lasts (tests) */
  constructor(dir: string | null) {
    this.dir = dir ?? mkdtempSync(join(tmpdir(), 'jack-plane-files-'));
    this.incoming = join(this.dir, 'incoming');
    // What was still on its way when the server stopped is of no use.
    rmSync(this.incoming, { recursive: true, force: true });
    mkdirSync(this.incoming, { recursive: true });
  }

  /** Take a stream in. @throws Refusal 413 past the limit; whatever arrived is thrown away then */
  async put(source: AsyncIterable<Buffer>, limit = FILE_MAX_BYTES): Promise<StoredFile> {
    const draft = join(this.incoming, randomUUID());
    const hash = createHash('sha256');
    let bytes = 0;
    const count = new Transform({
      transform(chunk: Buffer, _encoding, done) {
        bytes += chunk.length;
        hash.update(chunk);
        if (bytes > limit) done(tooLarge(limit));
        else done(null, chunk);
      },
    });
    try {
      await pipeline(source, count, createWriteStream(draft, { flush: true }));
      const name = hash.digest('hex');
      renameSync(draft, join(this.dir, name));
      syncFolder(this.dir);
      return { hash: name, bytes };
    } catch (error) {
      rmSync(draft, { force: true });
      if ((error as NodeJS.ErrnoException).code === 'ENOSPC')
        throw new Refusal(507, 'disk_full', 'The disk with the data folder is full. Make room on it, then try again.');
      throw error;
    }
  }

  /** Take in the files of another folder, each named by its hash already; those that are here stay. */
  adopt(dir: string, hashes: readonly string[]): void {
    for (const hash of hashes) if (!this.has(hash)) shareFile(join(dir, hash), join(this.dir, hash));
    syncFolder(this.dir);
  }

  /** Keep these and no others. */
  keepOnly(hashes: ReadonlySet<string>): void {
    for (const hash of this.list()) if (!hashes.has(hash)) rmSync(join(this.dir, hash), { force: true });
  }

  has(hash: string): boolean {
    return HASH.test(hash) && existsSync(join(this.dir, hash));
  }

  size(hash: string): number {
    return statSync(join(this.dir, hash)).size;
  }

  read(hash: string): Readable {
    return createReadStream(join(this.dir, hash));
  }

  list(): string[] {
    return readdirSync(this.dir)
      .filter((name) => HASH.test(name))
      .sort();
  }
}

/** One content in two folders: by a second name where the system can, else by a copy. */
export function shareFile(from: string, to: string): void {
  if (existsSync(to)) return;
  mkdirSync(dirname(to), { recursive: true });
  try {
    linkSync(from, to);
  } catch {
    copyFileSync(from, to);
  }
}

export function tooLarge(limit: number): Refusal {
  return new Refusal(
    413,
    'too_large',
    `The file is larger than ${Math.round(limit / 1024 / 1024)} MB. Export the hull with fewer triangles, or as binary STL.`,
  );
}
