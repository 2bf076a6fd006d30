import { useSyncExternalStore } from 'react';

export interface Toast {
  id: number;
  text: string;
  action?: { label: string; run: () => void };
}

let list: readonly Toast[] = [];
let serial = 0;
const listeners = new Set<() => void>();
const SHOWN_MS = 8000;

function set(next: readonly Toast[]): void {
  list = next;
  listeners.forEach((tell) => tell());
}

export function dismiss(id: number): void {
  set(list.filter((t) => t.id !== id));
}

/** Say something in passing; the newest three stay for a while. */
export function toast(text: string, action?: Toast['action']): void {
  serial += 1;
  const id = serial;
  set([...list, { id, text, ...(action ? { action } : {}) }].slice(-3));
  setTimeout(() => dismiss(id), SHOWN_MS);
}

export function useToasts(): readonly Toast[] {
  return useSyncExternalStore(
    (tell) => {
      listeners.add(tell);
      return () => listeners.delete(tell);
    },
    () => list,
  );
}
