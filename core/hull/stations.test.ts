import { describe, expect, it } from 'vitest';
import { evenStations, stationsProblem, straysOf } from './stations';

const taped = (girths: readonly (number | null)[], lengthM = 8) =>
  evenStations(girths.length, lengthM).map((s, i) => ({ ...s, halfGirthM: girths[i] ?? null }));

describe('stations of a zone that is taped', () => {
  it('are laid out evenly, to a tenth of a millimetre, and keep what was taped at their number', () => {
    expect(evenStations(9, 10).map((s) => s.xM)).toEqual([0, 1.25, 2.5, 3.75, 5, 6.25, 7.5, 8.75, 10]);
    expect(evenStations(4, 10)[1]?.xM).toBe(3.3333);
    const before = taped([1, 2, 3]);
    expect(evenStations(5, 12, before).map((s) => s.halfGirthM)).toEqual([1, 2, 3, null, null]);
    expect(evenStations(2, 12, before).map((s) => s.halfGirthM)).toEqual([1, 2]);
  });

  it('may lack figures, but not carry one that is not a length', () => {
    expect(stationsProblem(taped([1, null, 2]))).toBeNull();
    expect(stationsProblem(taped([1, Number.NaN, 2]))).toMatch(/cannot be read/);
    expect(stationsProblem(taped([1, -0.2, 2]))).toMatch(/less than zero/);
    expect(stationsProblem(taped([1, 2, 3]).map((s) => ({ ...s, halfBreadthM: Number.NaN })))).toMatch(
      /cannot be read/,
    );
  });

  it('lie in order, none twice, two or more', () => {
    const [a, b] = taped([1, 2]);
    expect(stationsProblem([b!, a!])).toMatch(/Put them in order/);
    expect(stationsProblem([a!, a!])).toMatch(/same place/);
    expect(stationsProblem([a!])).toMatch(/At least two/);
    expect(stationsProblem([a!, { ...b!, xM: Number.NaN }])).toMatch(/no position/);
  });

  it('show the girth that strays, and none of a record that cannot be kept', () => {
    // A parabola, and one girth misread by half a metre.
    const girths = [0.2, 1, 1.6, 2, 2.7, 2, 1.6, 1, 0.2];
    expect(straysOf(taped(girths)).map((s) => s.index)).toEqual([4]);
    expect(straysOf(taped([...girths.slice(0, 8), -1]))).toEqual([]);
  });
});
