import { describe, expect, it } from 'vitest';
import { checkBuildUp } from '#core/system/checkBuildUp';
import { sheetProblems } from '#core/sheet/problems';
import { CHEMISTRIES, SHEET_KINDS } from '#core/model/sheet';
import { sheetContent } from '#contracts/schemas/sheet';
import { LIBRARY_SHEETS, LIBRARY_STARTERS } from './index';

const bodies = LIBRARY_SHEETS.map((s) => s.body);
const byRevision = new Map(LIBRARY_SHEETS.map((s) => [s.revisionId, s.body]));

describe('the shipped library', () => {
  it('covers every kind and chemistry with at least 24 sheets, each by another name', () => {
    expect(bodies.length).toBeGreaterThanOrEqual(24);
    expect(new Set(bodies.map((b) => b.name)).size).toBe(bodies.length);
    expect([...new Set(bodies.map((b) => b.kind))].sort()).toEqual([...SHEET_KINDS].sort());
    expect([...new Set(bodies.flatMap((b) => b.chemistry ?? []))].sort()).toEqual([...CHEMISTRIES].sort());
  });
  it.each(LIBRARY_SHEETS.map((s) => [s.body.name, s.body] as const))(
    '%s keeps the contract and contradicts itself nowhere',
    (_name, body) => {
      const { error } = sheetContent.validate(body, { abortEarly: false });
      expect(error?.message).toBeUndefined();
      expect(sheetProblems(body)).toEqual([]);
    },
  );
  it('has starters for every substrate and exposure that is painted, in both schools', () => {
    expect(new Set(LIBRARY_STARTERS.flatMap((s) => s.substrates)).size).toBeGreaterThanOrEqual(7);
    expect(new Set(LIBRARY_STARTERS.map((s) => s.exposure))).toEqual(
      new Set(['immersed', 'splash', 'weather', 'bilge', 'tank']),
    );
    expect(new Set(LIBRARY_STARTERS.map((s) => s.bond))).toEqual(new Set(['chemical', 'mechanical']));
  });
  it.each(LIBRARY_STARTERS.map((s) => [s.name, s] as const))(
    '%s breaks no rule on any of its substrates',
    (_name, starter) => {
      for (const substrate of starter.substrates) {
        const layers = starter.layers.map((l) => ({ ...l, sheet: byRevision.get(l.sheetRevisionId)! }));
        const found = checkBuildUp({
          substrate,
          exposure: starter.exposure,
          layers,
          targetMicron: starter.targetMicron,
          existing: starter.name.startsWith('Boot-top') ? 'twoPack' : 'bare',
          records: ['adhesionTest'],
        });
        expect(
          found.filter((f) => f.severity !== 'note').map((f) => `${f.rule}: ${f.reason}`),
          substrate,
        ).toEqual([]);
      }
    },
  );
});
