import { linksOf, type Change } from './changes';

/** Why a waiting change was not taken. */
export interface Failure {
  status: number;
  code: string;
  message: string;
  field: string | null;
  current: unknown;
  /** Id of the parked change that this one waits behind, where it was not sent at all. */
  behind?: string;
}

/** A change on its way to the server. */
export interface Waiting {
  seq?: number;
  id: string;
  change: Change;
  label: string;
  /** Refused, or waiting behind one that was: stays here with its text until a person decides. */
  parked: Failure | null;
  /** What is sent before it and gives it its name: a picture. */
  file?: Blob;
  /** Written down on the device. Where there was no room it is only in this tab, and not yet to be relied on. */
  kept: boolean;
}

/** What became of a change; of several, which one was refused. */
export type Outcome = { ok: true } | { ok: false; failure: Failure; refused?: Change };

/** The parked change that one written later stands on; undefined where it may be sent. */
export function blockerOf(list: readonly Waiting[], waiting: Waiting): Waiting | undefined {
  const { touches, needs } = linksOf(waiting.change);
  const before = list.slice(
    0,
    list.findIndex((w) => w.id === waiting.id),
  );
  return before.find(
    (w) => w.parked !== null && linksOf(w.change).touches.some((id) => touches.includes(id) || needs.includes(id)),
  );
}
