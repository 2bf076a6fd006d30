import { pouredBody } from '#core/coat/correct';
import type { BatchToMix, MixWish } from '#core/mix/batchToMix';
import { mendPour, pourSteps, type PourMend, type PourStep } from '#core/mix/pouring';
import type { Batch } from '#core/mix/splitBatch';
import { strokes, type Strokes } from '#core/mix/strokes';
import type { Kit } from '#core/model/kit';
import type { FromTin, Measure, MixedBody } from '#core/model/log';
import type { SheetBody } from '#core/model/sheet';
import { batchRatio, forUse, type BatchRatio } from '#core/sheet/useRatio';
import { tinsFor, type LotState } from '#core/stores/lots';
import { attempt } from '../../parts/attempt';
import { NO_TIN, type Typed } from './typed';

/** Two minutes by hand or with a paddle. [CP] */
const STIR_MIN = 2;

/** A batch as it is being poured. */
export interface Pouring {
  readonly steps: readonly PourStep[];
  /** Whole strokes of the pumps that are chosen for it; null where it is not pumped. */
  readonly strokes: Strokes | null;
  /** Why it cannot be pumped. */
  readonly strokesProblem: string | null;
  readonly from: readonly FromTin[];
  readonly ratio: BatchRatio;
  readonly mend: PourMend | null;
  /** A reason is wanted, and none is written yet. */
  readonly reasonWanted: boolean;
  readonly body: Omit<MixedBody, 'sheetRevisionId' | 'on'>;
}

interface Of {
  readonly sheet: SheetBody;
  readonly made: BatchToMix;
  readonly typed: Typed;
  readonly wish: MixWish;
  readonly measure: Measure;
  readonly kit: Kit;
  readonly tins: readonly LotState[] | null;
  readonly sheetId: string;
}

/** What goes into the pot, what really went in, and what is logged of it. */
export function pouredOf(of: Of): Pouring {
  const { sheet, made, typed, wish } = of;
  const { strokes: pumped, problem: strokesProblem } = pumpedOf(of);
  const thinner = sheet.thinner?.name || 'thinner';
  const batch = inStrokes(made.batch as Batch, pumped);
  const steps = pourSteps({ batch, thinner, additives: made.additives, poured: typed.poured ?? {} });
  const went = (s: PourStep) => s.pouredL ?? s.litres;
  const { parts } = pouredBody(batch, {
    partsL: batch.parts.map((_p, i) => went(steps[i] as PourStep)),
    thinnerL: batch.thinnerL,
  });
  const litresOf = (kind: PourStep['kind']) => steps.filter((s) => s.kind === kind);
  const ratio = batchRatio({ sheet, batch: { parts, ...(wish.use ? { use: wish.use } : {}) } });
  const reason = typed.reason?.trim() ?? '';
  const from = fromTins(of, steps);
  return {
    steps,
    strokes: pumped,
    strokesProblem,
    from,
    ratio,
    mend: mendPour({ steps, wanted: ratio.wanted, toleranceShare: ratio.toleranceShare, limitL: made.limitL }),
    reasonWanted: !ratio.withinTolerance && reason.length < 3,
    body: {
      parts,
      thinnerL: litresOf('thinner').reduce((sum, s) => sum + went(s), 0),
      totalL: steps.reduce((sum, s) => sum + went(s), 0),
      standMin: sheet.inductionMin ?? 0,
      potLifeH: made.pot?.hours ?? null,
      potTempC: wish.potC,
      ...(sheet.parts.length > 1 ? { stirMin: STIR_MIN } : {}),
      ...(wish.use ? { use: wish.use } : {}),
      ...(ratio.withinTolerance || reason.length < 3 ? {} : { ratioReason: reason }),
      ...(from.length > 0 ? { from } : {}),
      ...(made.additives.length > 0
        ? {
            additives: made.additives.map((a) => ({
              ...a,
              litres: went(steps.find((s) => s.kind === 'additive' && s.name === a.name) as PourStep),
            })),
          }
        : {}),
      measuredBy: of.measure,
    },
  };
}

/** A batch in whole strokes: they are what goes in. */
function inStrokes(batch: Batch, pumped: Strokes | null): Batch {
  if (!pumped) return batch;
  const mixedL = batch.parts.reduce((sum, p) => sum + p.volumeL, 0);
  const litres = pumped.volumesL.reduce((a, b) => a + b, 0);
  const thinnerL = mixedL > 0 ? (batch.thinnerL * litres) / mixedL : 0;
  return pouredBody(batch, { partsL: pumped.volumesL, thinnerL });
}

/** Whole strokes, where every part has its pump. */
function pumpedOf({ sheet, made, typed, wish, measure, kit }: Of): { strokes: Strokes | null; problem: string | null } {
  if (measure !== 'pump') return { strokes: null, problem: null };
  const { parts } = forUse(sheet, wish.use);
  const pumps = parts.map((p) => kit.pumps.find((k) => k.id === typed.pumps?.[p.name]));
  const { wanted } = batchRatio({
    sheet,
    batch: { parts: parts.map(() => ({ volumeL: 1 })), ...(wish.use ? { use: wish.use } : {}) },
  });
  if (pumps.some((p) => !p) || wanted.length === 0 || made.mixedL <= 0) return { strokes: null, problem: null };
  const { value, problem } = attempt(() =>
    strokes({
      pumps: pumps as { mlPerStroke: number }[],
      ratio: wanted,
      mixedL: made.mixedL,
      ...(sheet.ratioTolerance === undefined ? {} : { toleranceShare: sheet.ratioTolerance }),
    }),
  );
  return { strokes: value, problem };
}

/** The tins that it is poured from: those chosen, else those suggested. */
function fromTins({ sheet, tins, typed, sheetId }: Of, steps: readonly PourStep[]): FromTin[] {
  if (!tins) return [];
  return steps.flatMap((step): FromTin[] => {
    if (step.kind === 'additive') return [];
    const thinner = step.kind === 'thinner';
    const wantL = step.pouredL ?? step.litres;
    const part = thinner ? (sheet.thinner?.name ?? '') : step.name;
    if (typed.tins?.[step.name] === NO_TIN) return [];
    const chosen = tins.find((t) => t.id === typed.tins?.[step.name]);
    if (chosen) return [{ part, lotId: chosen.id, litres: wantL }];
    return tinsFor({ states: tins, of: { sheetId, part, thinner }, wantL });
  });
}
