import { describe, expect, it } from 'vitest';
import type { AreaRecord } from '#core/model/area';
import { cleanArea } from './cleanArea';

const whole: AreaRecord = {
  method: 'typed',
  dimensions: { draftM: 0.5 },
  typed: { areaM2: 20, share: 0.1 },
  denny: { displacedM3: 4.2, draftM: null },
  girths: {
    even: true,
    stations: [
      { xM: 0, halfGirthM: 1, halfBreadthM: null },
      { xM: 1, halfGirthM: null, halfBreadthM: null },
    ],
  },
  calibrated: { coatId: null, litres: 3, wetFilmMicron: 150, thinner: 0, readings: 5 },
  band: { place: 'stem', widthM: 0.3, lengthM: null },
};
const with_ = (change: object): AreaRecord => ({ ...whole, ...change });

describe('what a form holds of an area', () => {
  it('is kept whole where its figures are, whichever method is in use', () => {
    expect(cleanArea(whole)).toEqual(whole);
    expect(cleanArea(with_({ method: 'girths' }))).toMatchObject({
      typed: whole.typed,
      denny: whole.denny,
      band: whole.band,
      girths: whole.girths,
    });
  });
  it('leaves out optional figures that are empty or cannot be read', () => {
    expect(cleanArea(with_({ dimensions: { draftM: null, bandM: Number.NaN, openingsM2: 2 } })).dimensions).toEqual({
      openingsM2: 2,
    });
  });
  it.each([
    ['typed', { typed: { areaM2: null, share: 0.1 } }],
    ['denny', { denny: { displacedM3: null, draftM: 0.4 } }],
    ['calibrated', { calibrated: { coatId: null, litres: 2, wetFilmMicron: null, thinner: 0, readings: 5 } }],
    ['band', { band: { place: 'stem', widthM: Number.NaN, lengthM: null } }],
  ] as const)('%s begun and never finished is none, unless it is being filled in', (method, change) => {
    expect(cleanArea(with_(change))[method]).toBeNull();
    expect(cleanArea(with_(change), method)[method]).not.toBeNull();
  });
});
