import type { DrawnAt } from '../model/log';
import type { FairingFound, PrepKind } from '../model/prep';
import type { PrepLog } from './prepLog';

export const FAIRING_STAGES = ['fill', 'guideCoat', 'block', 'inspect'] as const satisfies readonly PrepKind[];
export type FairingStage = (typeof FAIRING_STAGES)[number];

/** One round: filled, dusted with a guide coat, blocked, looked at. */
export interface FairingRound {
  readonly no: number;
  /** When each was done, epoch ms; null while it was not. */
  readonly at: Readonly<Record<FairingStage, number | null>>;
  /** What the look found; empty before it. */
  readonly found: readonly FairingFound[];
  /** Where, on the drawing. */
  readonly places: readonly DrawnAt[];
}

export interface Fairing {
  readonly rounds: readonly FairingRound[];
  /** What comes next; null where the last look found it fair and it is spot-primed, or where nothing was begun. */
  readonly next: FairingStage | 'spotPrime' | null;
}

/** Rounds to plan for. [CP] */
export const USUAL_ROUNDS = 2;

/**
 * Rounds of fairing of a zone as they were logged: fill → guide coat → block → look, as many as it takes, then spot
 * primer. A round begins with a filling; blocking that nobody filled for is a round too. [CP]
 * @param since only what was done after it: a coat, epoch ms
 * @example fairing(prepOf(entries, 'bottom')).next // → null
 */
export function fairing(log: Pick<PrepLog, 'done'>, since = -Infinity): Fairing {
  const rounds: { no: number; at: Record<FairingStage, number | null>; found: FairingFound[]; places: DrawnAt[] }[] =
    [];
  let primed = false;
  for (const d of log.done) {
    // A filling or a look of other open work is none of fairing.
    if (d.at <= since || d.workId !== undefined) continue;
    if (d.step === 'spotPrime') primed = true;
    const stage = FAIRING_STAGES.find((s) => s === d.step);
    if (!stage) continue;
    let round = rounds.at(-1);
    const over =
      round !== undefined && FAIRING_STAGES.slice(FAIRING_STAGES.indexOf(stage)).some((s) => round?.at[s] !== null);
    if (!round || (over && stage !== 'inspect' && (stage === 'fill' || round.at.inspect !== null))) {
      round = {
        no: rounds.length + 1,
        at: { fill: null, guideCoat: null, block: null, inspect: null },
        found: [],
        places: [],
      };
      rounds.push(round);
    }
    primed = false;
    round.at[stage] = d.at;
    if (d.found) round.found.push(...d.found);
    if (d.drawnAt) round.places.push(d.drawnAt);
  }
  const last = rounds.at(-1);
  if (!last) return { rounds, next: null };
  if (last.at.inspect !== null) return { rounds, next: isFair(last) ? (primed ? null : 'spotPrime') : 'fill' };
  return { rounds, next: last.at.block !== null ? 'inspect' : last.at.guideCoat !== null ? 'block' : 'guideCoat' };
}

/** Whether a round's look found nothing left to fill. */
export const isFair = (round: Pick<FairingRound, 'found'>): boolean => round.found.every((f) => f === 'fair');
