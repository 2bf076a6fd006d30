import { createReadStream } from 'node:fs';
import { join } from 'node:path';
import { sql } from 'drizzle-orm';
import { rawRows } from '../db/open';
import { Refusal } from '../errors';
import type { FileStore } from './files';

/** Pictures come from a phone scaled down: nothing larger is one of ours. */
const PICTURE_MAX_BYTES = 8 * 1024 * 1024;

/** What a picture is by its first bytes, whatever it calls itself; null for anything else. */
export function pictureType(head: Buffer): 'image/jpeg' | 'image/png' | 'image/webp' | null {
  if (head.subarray(0, 3).equals(Buffer.from([0xff, 0xd8, 0xff]))) return 'image/jpeg';
  if (head.subarray(0, 8).equals(Buffer.from([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a]))) return 'image/png';
  if (head.toString('latin1', 0, 4) === 'RIFF' && head.toString('latin1', 8, 12) === 'WEBP') return 'image/webp';
  return null;
}

/** The type of a kept picture. @throws Refusal 404 where it is not here, 422 where it is none or too large */
export async function pictureTypeOf(files: FileStore, hash: string): Promise<string> {
  if (!files.has(hash)) throw new Refusal(404, 'not_found', 'The picture is not here. Take it again.');
  if (files.size(hash) > PICTURE_MAX_BYTES)
    throw new Refusal(422, 'too_large', 'The picture is larger than 8 MB. Let the page scale it down.', {
      field: 'hash',
    });
  const chunks: Buffer[] = [];
  for await (const chunk of createReadStream(join(files.dir, hash), { end: 11 })) chunks.push(chunk as Buffer);
  const type = pictureType(Buffer.concat(chunks));
  if (!type)
    throw new Refusal(422, 'no_picture', 'This file is no picture. Choose a JPEG, PNG or WebP.', { field: 'hash' });
  return type;
}

/** Every file that the rows of a database name: meshes of hulls, typical years, pictures of coats, zones, the line. */
export async function filesNamed(db: Parameters<typeof rawRows>[0]): Promise<Set<string>> {
  const rows = await rawRows(
    db,
    sql`select mesh->>'fileHash' as hash from hulls where mesh is not null and not deleted
        union select planning->'typicalYear'->>'fileHash' from jobs where planning->'typicalYear'->>'fileHash' is not null
        union select body->>'hash' as hash from entries where kind = 'picture' or (kind = 'evidence' and body ? 'hash')`,
  );
  return new Set(rows.map((r) => r.hash as string));
}
