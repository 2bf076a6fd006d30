import { readFileSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import type { KeepingNotice } from '#contracts/rows/keeping';
import { writeDown } from './state';

const FILE = 'notices.json';
/** Older ones go: whoever has not read so many will not read the next. */
const MOST = 20;

/** What a person has to know of how the yard was kept: it stays, over starts, until somebody says to have read it. */
export class Notices {
  private told: readonly KeepingNotice[] = [];

  /** @param dir the data folder; null: nothing is kept */
  constructor(private readonly dir: string | null) {
    if (dir === null) return;
    try {
      const read = JSON.parse(readFileSync(join(dir, FILE), 'utf8')) as KeepingNotice[];
      if (Array.isArray(read)) this.told = read.filter((n) => typeof n.text === 'string' && typeof n.at === 'number');
    } catch {
      // There is none, or none that can be read.
    }
  }

  /** Newest first. */
  get list(): readonly KeepingNotice[] {
    return this.told;
  }

  add(at: number, text: string): void {
    this.told = [{ at, text }, ...this.told].slice(0, MOST);
    if (this.dir !== null) writeDown(this.dir, FILE, this.told);
  }

  clear(): void {
    this.told = [];
    if (this.dir !== null) rmSync(join(this.dir, FILE), { force: true });
  }
}
