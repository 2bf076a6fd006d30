import { useState } from 'react';
import { ofThisYard } from './base';
import { now } from './now';

const PREFIX = `${ofThisYard('jack-plane')}/draft/`;
/** Readings and areas of a form left alone for longer are no longer those of now. */
const KEPT_MS = 2 * 3_600_000;

function kept<T>(key: string): T | null {
  try {
    const found = JSON.parse(sessionStorage.getItem(PREFIX + key) ?? 'null') as { at: number; value: T } | null;
    return found && Math.abs(now() - found.at) < KEPT_MS ? found.value : null;
  } catch {
    return null;
  }
}

function keep(key: string, value: unknown): void {
  try {
    if (value === null) sessionStorage.removeItem(PREFIX + key);
    else sessionStorage.setItem(PREFIX + key, JSON.stringify({ at: now(), value }));
  } catch {
    // Without a store, what is typed lives as long as the page.
  }
}

/**
 * What is typed at the hull and not logged yet: it outlives a look at another page and a reload, for two hours. The third
 * of what is returned forgets it.
 */
export function useDraft<T extends object>(
  key: string,
  fresh: () => T,
): readonly [T, (change: Partial<T>) => void, () => void] {
  const [draft, setDraft] = useState<T>(() => ({ ...fresh(), ...kept<Partial<T>>(key) }));
  const set = (change: Partial<T>) =>
    setDraft((before) => {
      const after = { ...before, ...change };
      keep(key, after);
      return after;
    });
  return [draft, set, () => keep(key, null)];
}
