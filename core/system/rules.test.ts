import { describe, expect, it } from 'vitest';
import { topsides, hull, full, found } from './rules.fixture';
import { checkBuildUp } from '../index';
import { coat, sheets } from './sheets.fixture';
import { CASES } from './ruleCases.fixture';

describe('what may lie on what', () => {
  it.each(CASES)('%s', (_what, rule, severity, fires, silent) => {
    const finding = found(fires, rule);
    expect(finding, 'must speak').toMatchObject({ rule, severity });
    expect(finding?.reason).toMatch(/^[A-Z][^]*\.$/);
    expect(found(silent, rule), 'must not speak').toBeUndefined();
  });

  it('names the pair, down to the substrate and the old coating', () => {
    expect(found(hull([...full, coat('copper')]), 'antifoulingOnCuredEpoxy')).toMatchObject({ upper: 3, lower: 2 });
    expect(found(hull([coat('copper')], { substrate: 'aluminium' }), 'copperOnMetal')).toMatchObject({
      upper: 0,
      lower: 'substrate',
    });
    expect(found(topsides([coat('epoxyPrimer')], { existing: 'unknown' }), 'strongOverOnePack')).toMatchObject({
      upper: 0,
      lower: 'existing',
    });
  });

  it('puts stops first, then cautions, then notes', () => {
    const order = checkBuildUp(hull([coat('barrier'), coat('copper'), coat('copper')], { substrate: 'aluminium' })).map(
      (f) => f.severity,
    );
    expect(order).toEqual([...order].sort((a, b) => 'scn'.indexOf(a[0]!) - 'scn'.indexOf(b[0]!)));
    expect(order[0]).toBe('stop');
    expect(order.at(-1)).toBe('note');
  });

  it('takes the method of the whole where a coat has none, and stays silent without one', () => {
    const bare = { sheet: sheets.barrier, dftMicron: 150 };
    expect(found({ ...hull([bare]), method: 'roller' }, 'methodCannotBuild')).toBeDefined();
    expect(found(hull([bare]), 'methodCannotBuild')).toBeUndefined();
  });

  it('has nothing to say about no coats, nor about a sound build-up', () => {
    expect(checkBuildUp(hull([], { existing: 'unknown', openWork: true }))).toEqual([]);
    expect(
      checkBuildUp(
        hull([
          coat('barrier', { colourHex: '#aaaaaa', dftMicron: 80 }),
          coat('barrier', { dftMicron: 80 }),
          coat('barrier', { dftMicron: 80 }),
          coat('barrier', { dftMicron: 80 }),
          coat('tieCoat', { dftMicron: 50 }),
          coat('ablative', { colourHex: '#802020', dftMicron: 50 }),
          coat('ablative', { dftMicron: 50 }),
        ]),
      ),
    ).toEqual([]);
  });
});
