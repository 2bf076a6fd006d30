import { describe, expect, it } from 'vitest';
import { overcoatFor, sheetProblems, sheetThinnerOfMixed } from '../index';
import { sheet } from './example.fixture';

const any = sheet.overcoat[0]!;

describe('a data sheet', () => {
  it('has its own overcoat times for a following kind, else those for any', () => {
    const forAntifouling = { ...any, after: 'antifouling' as const };
    const both = { ...sheet, overcoat: [any, forAntifouling] };
    expect(overcoatFor(both, 'antifouling')).toBe(forAntifouling);
    expect(overcoatFor(both, 'barrier')).toBe(any);
    expect(overcoatFor({ ...sheet, overcoat: [forAntifouling] }, 'topcoat')).toBeNull();
  });
  it('tells thinner of the mix from thinner of the base', () => {
    expect(sheetThinnerOfMixed(sheet, 0.08)).toBe(0.08);
    expect(sheetThinnerOfMixed({ ...sheet, thinner: { name: 'T', maxShare: 0.1, of: 'base' } }, 0.08)).toBeCloseTo(
      0.06,
      12,
    );
  });
  it('is silent about a good one', () => {
    expect(sheetProblems(sheet)).toEqual([]);
  });
  it('warns of a table that runs the wrong way, naming both cells', () => {
    const [problem] = sheetProblems({
      ...sheet,
      touchDry: [
        { tempC: 10, hours: 3 },
        { tempC: 20, hours: 6 },
      ],
    });
    expect(problem).toMatchObject({ field: 'touchDry', severity: 'warn' });
    expect(problem?.message).toContain('6 h at 20 °C is longer than 3 h at 10 °C');
  });
  it('stops a maximum below its minimum, an empty table, swapped films and doubled rows', () => {
    const swapped = { ...any, tackLimit: [{ tempC: 20, hours: 2 }] };
    expect(sheetProblems({ ...sheet, overcoat: [swapped] }).map((p) => p.severity)).toEqual(['stop']);
    expect(sheetProblems({ ...sheet, potLife: [] })[0]?.message).toContain('Pot life: The time table is empty');
    expect(sheetProblems({ ...sheet, dftMaxMicron: 50 })[0]?.field).toBe('dftMaxMicron');
    expect(sheetProblems({ ...sheet, overcoat: [any, any] })[0]?.field).toBe('overcoat');
  });
  it('warns of a ratio by mass with a density missing', () => {
    const parts = sheet.parts.map((p) => ({ ...p, densityKgPerL: null }));
    expect(sheetProblems({ ...sheet, ratioBasis: 'mass', parts })[0]?.message).toContain('density is missing');
  });
});
