import { describe, expect, it } from 'vitest';
import { blank, boat } from './hull.fixture';
import {
  areaBy,
  isMeasured,
  methodsFor,
  netAreas,
  NO_MODEL,
  totalArea,
  wearBand,
  wearLengthM,
  type AreaOwner,
  type AreaRecord,
} from '../index';

describe('bands of high wear', () => {
  it('the waterline by its length and width: 2·(8.1 + 1.55)·0.3', () => {
    expect(wearBand({ band: { place: 'waterline', widthM: 0.3, lengthM: null }, boat }).areaM2).toBeCloseTo(5.79, 9);
    expect(
      wearBand({ band: { place: 'waterline', widthM: 0.3, lengthM: null }, boat, waterlineGirthM: 18 }),
    ).toMatchObject({ areaM2: expect.closeTo(5.4, 9), share: 0.06 });
  });
  it('edges come off the drawing: a taped length overrides; twin keels have two', () => {
    const one = wearLengthM({ place: 'keelLeadingEdge', boat: { ...boat, keels: 'single', form: 'finKeel' } });
    expect(one).toBeGreaterThan(0.5);
    expect(one).toBeLessThan(boat.draftM * 1.2);
    expect(wearLengthM({ place: 'keelBottom', boat })).toBeGreaterThan(2 * 0.5);
    expect(wearLengthM({ place: 'stem', boat })).toBeGreaterThan(0.5);
    expect(wearLengthM({ place: 'rudderEdges', boat })).toBeGreaterThan(1);
    expect(wearBand({ band: { place: 'stem', widthM: 0.2, lengthM: 2.5 }, boat }).areaM2).toBeCloseTo(0.5, 9);
    expect(() => wearLengthM({ place: 'keelBottom', boat: { ...boat, keels: 'none' } })).toThrow(/no keel to wear/);
  });
});

describe('zones and their patches', () => {
  const zone = (id: string, method: AreaRecord['method'], more: Partial<AreaOwner> = {}): AreaOwner => ({
    id,
    name: id,
    kind: 'underwater',
    area: { ...blank, method, typed: { areaM2: 20, share: 0.1 } },
    ...more,
  });
  const patch = (id: string, patchKind: NonNullable<AreaOwner['patchKind']>, areaM2: number): AreaOwner =>
    zone(id, 'typed', {
      parentId: 'bottom',
      patchKind,
      area: { ...blank, method: 'typed', typed: { areaM2, share: 0.2 } },
    });
  it('stand pads and bonding strips come out of the zone, high-wear bands and touch-ups do not', () => {
    const surfaces = [
      zone('bottom', 'typed'),
      patch('pads', 'standPad', 1.2),
      patch('strip', 'bondingStrip', 0.8),
      patch('edge', 'highWear', 2),
      patch('scratch', 'touchUp', 0.3),
    ];
    const net = netAreas({ boat, hull: NO_MODEL, surfaces });
    expect(net.get('bottom')).toMatchObject({ areaM2: expect.closeTo(18, 9), grossM2: 20 });
    // By hand: ±2, ±0.24 and ±0.16 m² in quadrature over 18 m².
    expect(net.get('bottom')?.share).toBeCloseTo(Math.hypot(2, 0.24, 0.16) / 18, 9);
    expect(net.get('edge')).toMatchObject({ areaM2: 2, share: 0.2 });
  });
  it('an area found by its own paint already lacks what was carved out', () => {
    const bottom = zone('bottom', 'calibrated', {
      area: {
        ...blank,
        method: 'calibrated',
        calibrated: { coatId: null, litres: 4, wetFilmMicron: 200, thinner: 0, readings: 9 },
      },
    });
    expect(
      netAreas({ boat, hull: NO_MODEL, surfaces: [bottom, patch('pads', 'standPad', 1)] }).get('bottom')?.areaM2,
    ).toBeCloseTo(20, 9);
  });
  it('patches larger than their zone are refused by its name', () => {
    expect(() =>
      netAreas({ boat, hull: NO_MODEL, surfaces: [zone('bottom', 'typed'), patch('pads', 'standPad', 21)] }),
    ).toThrow(/cut out of bottom are larger/);
  });
  it('the whole skin: zones by the boat’s dimensions are wrong together, typed ones are not', () => {
    const row = (method: AreaRecord['method'], grossM2: number, areaShare: number) => ({
      ...zone(`${method}${grossM2}`, method),
      grossM2,
      areaShare,
    });
    expect(totalArea([row('dimensions', 20, 0.15), row('dimensions', 30, 0.15)]).share).toBeCloseTo(0.15, 9);
    expect(
      totalArea([row('typed', 20, 0.1), row('typed', 20, 0.1), { ...row('typed', 5, 0.1), parentId: 'x' }]),
    ).toMatchObject({ areaM2: 40, share: expect.closeTo(0.1 / Math.SQRT2, 9) });
  });
  it('each kind of zone has its methods, each method says what it lacks', () => {
    expect(methodsFor('underwater')).toEqual([
      'dimensions',
      'denny',
      'girths',
      'offsets',
      'mesh',
      'shapes',
      'typed',
      'calibrated',
    ]);
    expect(methodsFor('rudder')).toEqual(['shapes', 'typed', 'calibrated']);
    expect(methodsFor('underwater', 'highWear')).toContain('band');
    const question = { kind: 'underwater' as const, boat, area: blank };
    for (const method of ['denny', 'girths', 'offsets', 'mesh', 'shapes', 'typed', 'calibrated', 'band'] as const) {
      expect(isMeasured(question, method)).toBe(false);
      expect(() => areaBy(question, method)).toThrow(RangeError);
    }
    expect(isMeasured(question, 'dimensions')).toBe(true);
  });
});
