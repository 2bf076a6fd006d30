import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, afterEach } from 'vitest';

const ofTest: string[] = [];
const ofFile: string[] = [];
const clear = (dirs: string[]) => dirs.splice(0).forEach((dir) => rmSync(dir, { recursive: true, force: true }));
afterEach(() => clear(ofTest));
afterAll(() => clear(ofFile));

/** Tests only: an empty folder, gone after the test, or after all tests of the file. */
export function folder(until: 'test' | 'file' = 'test'): string {
  const dir = mkdtempSync(join(tmpdir(), 'jack-plane-keep-'));
  (until === 'test' ? ofTest : ofFile).push(dir);
  return dir;
}
