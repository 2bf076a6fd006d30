import { v7 as uuid } from 'uuid';
import { create } from 'zustand';
import { MEASURES, type Measure } from '#core/model/log';
import { QUANTITIES, type QuantityName, type UnitSystem } from '#core/units/quantities';
import type { UnitChoice } from '#core/units/format';
import { usualTheme, usualUnits } from './device';

/** What this device prefers. Kept on the device, changed at any time. */
export interface Settings {
  readonly units: UnitChoice;
  readonly theme: 'chalk' | 'shed';
  readonly painter: string;
  readonly device: string;
  /** Draft and fiberglass, or draught and GRP; null: as the units are. */
  readonly words: 'us' | 'uk' | null;
  /** How batches are measured here. */
  readonly measure: Measure;
  /** Single keys do something. */
  readonly keys: boolean;
}

const KEY = 'jack-plane/settings';
export const useSettings = create<Settings>(load);

/** What this device prefers, outside of what is drawn. */
export const settings = useSettings.getState;

function load(): Settings {
  const fresh: Settings = {
    units: { system: usualUnits() },
    theme: usualTheme(),
    painter: '',
    device: uuid(),
    words: null,
    measure: 'cup',
    keys: true,
  };
  try {
    const settings = { ...fresh, ...wellFormed(JSON.parse(localStorage.getItem(KEY) ?? 'null')) };
    localStorage.setItem(KEY, JSON.stringify(settings));
    return settings;
  } catch {
    return fresh;
  }
}

/** What can be used of settings as they were stored: another version, or a hand, may have written something else there. */
export function wellFormed(stored: unknown): Partial<Settings> {
  if (stored === null || typeof stored !== 'object') return {};
  const given = stored as Record<string, unknown>;
  const known: { [Key in keyof Settings]: (value: unknown) => boolean } = {
    units: isUnitChoice,
    theme: (v) => v === 'chalk' || v === 'shed',
    painter: (v) => typeof v === 'string',
    device: (v) => typeof v === 'string' && v !== '',
    words: (v) => v === 'us' || v === 'uk' || v === null,
    measure: (v) => (MEASURES as readonly unknown[]).includes(v),
    keys: (v) => typeof v === 'boolean',
  };
  return Object.fromEntries(
    Object.entries(known).flatMap(([key, fits]) => (fits(given[key]) ? [[key, given[key]]] : [])),
  );
}

// Declared, not assigned: what was stored is read before this line is reached.
function isSystem(value: unknown): boolean {
  return value === 'metric' || value === 'us';
}

function isUnitChoice(value: unknown): boolean {
  if (value === null || typeof value !== 'object') return false;
  const { system, except } = value as { system?: unknown; except?: unknown };
  if (!isSystem(system)) return false;
  if (except === undefined) return true;
  return (
    except !== null &&
    typeof except === 'object' &&
    Object.entries(except).every(([quantity, one]) => quantity in QUANTITIES && isSystem(one))
  );
}

export function changeSettings(change: Partial<Settings>): void {
  useSettings.setState(change);
  try {
    localStorage.setItem(KEY, JSON.stringify(settings()));
  } catch {
    // A device that keeps nothing still works until it is closed.
  }
}

/** Show one quantity in another system than the rest, or drop the exception. */
export function setQuantitySystem(quantity: QuantityName, system: UnitSystem | null): void {
  const { units } = settings();
  const except = { ...units.except };
  if (system === null || system === units.system) delete except[quantity];
  else except[quantity] = system;
  changeSettings({ units: { ...units, except } });
}

useSettings.subscribe(({ theme }) => {
  document.documentElement.dataset.theme = theme;
});

// Another tab may have changed them.
addEventListener('storage', (event) => {
  if (event.key === KEY) useSettings.setState(load());
});
