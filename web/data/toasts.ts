import { create } from 'zustand';

export interface Toast {
  id: number;
  text: string;
  action?: { label: string; run: () => void };
}

export const useToasts = create<readonly Toast[]>(() => []);

let serial = 0;
const SHOWN_MS = 8000;

const set = (change: (list: readonly Toast[]) => readonly Toast[]) => useToasts.setState(change, true);

export function dismiss(id: number): void {
  set((list) => list.filter((t) => t.id !== id));
}

/** Say something in passing; the newest three stay for a while. @returns what takes it away sooner */
export function toast(text: string, action?: Toast['action']): () => void {
  serial += 1;
  const id = serial;
  set((list) => [...list, { id, text, ...(action ? { action } : {}) }].slice(-3));
  setTimeout(() => dismiss(id), SHOWN_MS);
  return () => dismiss(id);
}
