import { beforeAll, describe, expect, it } from 'vitest';
import type { BuildUpRow } from '#contracts/rows/boat';
import { applyChange, inverseOf, type Change } from './';
import { fetchAreaMethods } from './areas';
import { bundle, zone, entry, build, knew, ids } from './changes.fixture';

beforeAll(fetchAreaMethods);

describe('undo', () => {
  it('writes the row as it was, at the version the change made', () => {
    const change: Change = { kind: 'surface', row: { ...zone, name: 'Renamed' } };
    const inverse = inverseOf(change, knew(bundle), ids);
    expect(inverse).toMatchObject({ kind: 'surface', row: { name: 'Bottom', version: 2 } });
    expect(applyChange(applyChange(bundle, change), inverse!).surfaces[0]).toMatchObject({
      name: 'Bottom',
      version: 3,
    });
  });
  it('brings a removed row back and removes one that was new', () => {
    expect(inverseOf({ kind: 'surface', row: { ...zone, deleted: true } }, knew(bundle), ids)).toMatchObject({
      row: { deleted: false, version: 2 },
    });
    expect(inverseOf({ kind: 'surface', row: { ...zone, id: 'y', version: 0 } }, knew(bundle), ids)).toMatchObject({
      row: { id: 'y', deleted: true, version: 1 },
    });
  });
  it('empties a build-up that was new instead of removing it, so that the zone can be built up again', () => {
    const layers = [{ id: 'l' }] as unknown as BuildUpRow['layers'];
    expect(
      inverseOf({ kind: 'buildUp', row: { ...build, id: 'v', version: 0, layers } }, knew(bundle), ids),
    ).toMatchObject({ row: { layers: [], deleted: false, version: 1 } });
  });
  it('withdraws an entry and never a withdrawal', () => {
    expect(
      inverseOf({ kind: 'entry', entry: entry('e', 'finished', 'c', { litresOn: null }) }, knew(bundle), ids),
    ).toMatchObject({ entry: { id: 'new', kind: 'withdrawn', supersedes: 'e', occurredAt: 1000, painter: 'Ada' } });
    expect(inverseOf({ kind: 'entry', entry: entry('e', 'withdrawn', 'c', {}) }, knew(bundle), ids)).toBeNull();
  });
});
