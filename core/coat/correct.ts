import { foldLog } from './fold';
import type { LogEntry, LogEntryOf, MixedBody } from '../model/log';

/** A correction that goes with another one. */
export interface FollowUp {
  readonly of: LogEntry;
  readonly body: LogEntryOf<'batchOn', { batchId: string; litres: number }>['body'];
}

/**
 * What is to be corrected too when a batch was another one than was logged: coats that took all of it took all of that.
 * @param options.was the entry of the batch as it stood
 * @param options.totalL what it comes to now, L
 * @example batchFollows({ entries, was: { ...entries[0], streamId: 'pot', body: { totalL: 1 } }, totalL: 2 }) // → []
 */
export function batchFollows(options: {
  entries: readonly LogEntry[];
  was: LogEntryOf<'mixed', MixedBody>;
  totalL: number;
}): FollowUp[] {
  const { entries, was, totalL } = options;
  return foldLog(entries).coats.flatMap((coat) =>
    coat.entries.flatMap((of): FollowUp[] =>
      of.kind === 'batchOn' && of.body.batchId === was.streamId && Math.abs(of.body.litres - was.body.totalL) < 1e-9
        ? [{ of, body: { ...of.body, litres: totalL } }]
        : [],
    ),
  );
}

/**
 * A batch's body with other litres: what a part weighs and what its tins gave follow, and the whole is their sum.
 * @example
 *   pouredBody(
 *     { parts: [{ name: 'Base', volumeL: 1, massKg: 1.5 }], thinnerL: 0, totalL: 1 },
 *     { partsL: [2], thinnerL: 0.1 },
 *   ) // → { parts: [{ name: 'Base', volumeL: 2, massKg: 3 }], thinnerL: 0.1, totalL: 2.1 }
 */
export function pouredBody<
  Body extends Pick<MixedBody, 'parts' | 'thinnerL' | 'totalL'> & Pick<MixedBody, 'from' | 'additives'>,
>(body: Body, { partsL, thinnerL }: { partsL: readonly number[]; thinnerL: number }): Body {
  const parts = body.parts.map((part, i) => {
    const volumeL = partsL[i] ?? part.volumeL;
    return {
      ...part,
      volumeL,
      massKg: part.massKg === null || part.volumeL <= 0 ? part.massKg : (part.massKg * volumeL) / part.volumeL,
    };
  });
  const additivesL = (body.additives ?? []).reduce((sum, a) => sum + a.litres, 0);
  // The tins gave as much more or less as went in; of what is no part, that is thinner.
  const times = (name: string) => {
    const i = body.parts.findIndex((p) => p.name === name);
    const [was, is] = i < 0 ? [body.thinnerL, thinnerL] : [body.parts[i]?.volumeL ?? 0, parts[i]?.volumeL ?? 0];
    return was > 0 ? is / was : 1;
  };
  return {
    ...body,
    parts,
    thinnerL,
    totalL: parts.reduce((sum, p) => sum + p.volumeL, thinnerL + additivesL),
    ...(body.from ? { from: body.from.map((f) => ({ ...f, litres: f.litres * times(f.part) })) } : {}),
  };
}
