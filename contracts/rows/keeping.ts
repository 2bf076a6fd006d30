/** One automatic backup in the data folder. */
export interface KeptBackup {
  name: string;
  at: number;
  /** Number of the last change in it. */
  change: number;
  why: 'first' | 'daily' | 'demo' | 'before-restore' | 'before-update' | 'restored' | 'recovered' | 'gap';
  bytes: number;
}

/** How well the yard is kept: shown in Settings. */
export interface Keeping {
  /** The data folder on the server; null for a yard in memory. */
  dataDir: string | null;
  /** Newest first. */
  backups: KeptBackup[];
  backupProblem: string | null;
  journal: { changes: number; onDisk: number; problem: string | null };
  /** Anybody on the network may write here. */
  open: boolean;
  /** What was put right at the last start; null when there was nothing. */
  putRight: string | null;
  /** What a person has to know of how the yard was kept, and has not said to have read; newest first. */
  notices: KeepingNotice[];
  /** What runs, or ran last. */
  work: LongWorkState | null;
}

/** Something of what was saved that is lacking, or could not be looked over. */
export interface KeepingNotice {
  at: number;
  text: string;
}

/** A backup by hand, one that makes itself, a restore. */
export type LongWorkKind = 'backup' | 'automatic' | 'restore';

/** Work that takes longer than anybody waits for an answer. */
export interface LongWorkState {
  id: string;
  kind: LongWorkKind;
  step: 'begun' | 'checking' | 'keepingBefore' | 'puttingInPlace' | 'ended';
  /** How much of the step is done, 0–1; null where nobody knows. */
  share: number | null;
  startedAt: number;
  endedAt: number | null;
  restored: Restored | null;
  problem: string | null;
}

/** What a restore did. */
export interface Restored {
  rows: number;
  files: number;
  /** Name of the automatic backup of what was here before. */
  before: string | null;
}

/** That the server is there, and what it is. */
export interface Health {
  ok: boolean;
  now: number;
  frozen: boolean;
  demo: boolean;
  open: boolean;
}
