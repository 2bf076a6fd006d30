import { useSyncExternalStore } from 'react';
import { v7 as uuid } from 'uuid';
import type { QuantityName, UnitSystem } from '#core/units/quantities';
import type { UnitChoice } from '#core/units/format';

/** What this device prefers. Kept on the device, changed at any time. */
export interface Settings {
  readonly units: UnitChoice;
  readonly theme: 'chalk' | 'shed';
  readonly painter: string;
  readonly device: string;
}

const KEY = 'jack-plane/settings';
const listeners = new Set<() => void>();
let current = load();

function load(): Settings {
  const fresh: Settings = { units: { system: 'metric' }, theme: 'chalk', painter: '', device: uuid() };
  try {
    const stored = JSON.parse(localStorage.getItem(KEY) ?? 'null') as Partial<Settings> | null;
    const settings = { ...fresh, ...stored };
    localStorage.setItem(KEY, JSON.stringify(settings));
    return settings;
  } catch {
    return fresh;
  }
}

export function settings(): Settings {
  return current;
}

export function changeSettings(change: Partial<Settings>): void {
  current = { ...current, ...change };
  try {
    localStorage.setItem(KEY, JSON.stringify(current));
  } catch {
    // A device that keeps nothing still works until it is closed.
  }
  document.documentElement.dataset.theme = current.theme;
  listeners.forEach((tell) => tell());
}

/** Show one quantity in another system than the rest, or drop the exception. */
export function setQuantitySystem(quantity: QuantityName, system: UnitSystem | null): void {
  const except = { ...current.units.except };
  if (system === null || system === current.units.system) delete except[quantity];
  else except[quantity] = system;
  changeSettings({ units: { ...current.units, except } });
}

export function useSettings(): Settings {
  return useSyncExternalStore((tell) => {
    listeners.add(tell);
    return () => listeners.delete(tell);
  }, settings);
}

// Another tab may have changed them.
addEventListener('storage', (event) => {
  if (event.key !== KEY) return;
  current = load();
  document.documentElement.dataset.theme = current.theme;
  listeners.forEach((tell) => tell());
});
