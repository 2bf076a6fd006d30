import { describe, expect, it } from 'vitest';
import {
  areaFromDimensions,
  between,
  boatPlan,
  boatProfile,
  boatSection,
  bootTopAreaM2,
  breadthOf,
  deckAreaM2,
  dimensionProblems,
  linesFromOffsets,
  outlineAreaM2,
  topsidesAreaM2,
  underwaterAreaM2,
  zoneArea,
  type BoatDimensions,
} from '../index';

const sloop: BoatDimensions = { loaM: 9.6, lwlM: 8.1, beamM: 3.1, draftM: 1.2, freeboardM: 1.05, form: 'longKeel' };

describe('areas from principal dimensions [CP, printed in many paint guides]', () => {
  it('underwater by hand: 8.1 × (3.1 + 1.2) × 0.75', () => {
    expect(underwaterAreaM2(sloop)).toBeCloseTo(26.1225, 6);
    expect(underwaterAreaM2({ ...sloop, form: 'full' })).toBeCloseTo(34.83, 6);
    expect(underwaterAreaM2({ ...sloop, form: 'finKeel' })).toBeCloseTo(17.415, 6);
  });
  it('topsides, deck and boot-top by hand', () => {
    expect(topsidesAreaM2(sloop)).toBeCloseTo(26.67, 6);
    expect(deckAreaM2({ ...sloop, openingsM2: 2 })).toBeCloseTo(20.32, 6);
    expect(bootTopAreaM2({ ...sloop, bandM: 0.15 })).toBeCloseTo(2.895, 6);
  });
  it('lapped planking adds a tenth to bottom and topsides, and says so [from memory: 8 to 12 %]', () => {
    const of = (kind: 'underwater' | 'topsides' | 'deck', lapped: boolean) =>
      areaFromDimensions({ kind, boat: sloop, inputs: { lapped } });
    expect(of('underwater', true).areaM2).toBeCloseTo(26.1225 * 1.1, 6);
    expect(of('topsides', true).areaM2).toBeCloseTo(26.67 * 1.1, 6);
    expect(of('deck', true).areaM2).toBe(of('deck', false).areaM2);
    expect(of('underwater', true).working.inputs.map((i) => i.name)).toContain('laps of the planking');
  });
  it('tells its working, and whether keel and rudder are in it', () => {
    const whole = areaFromDimensions({ kind: 'underwater', boat: sloop });
    const canoe = areaFromDimensions({ kind: 'underwater', boat: sloop, inputs: { draftM: 0.5 } });
    expect(whole.share).toBe(0.15);
    expect(whole.working.what).toContain('keel and rudder included');
    expect(canoe.working.what).toContain('canoe body');
    expect(canoe.areaM2).toBeCloseTo(8.1 * 3.6 * 0.75, 6);
    for (const kind of ['topsides', 'deck', 'bootTop'] as const) {
      const zone = areaFromDimensions({ kind, boat: sloop });
      expect(zone.areaM2).toBeGreaterThan(1);
      expect(zone.working.inputs.length).toBeGreaterThan(1);
    }
  });
  it('uses the method in use and keeps the other one’s figures', () => {
    const area = { method: 'typed' as const, dimensions: { draftM: 0.5 }, typed: { areaM2: 7.4, share: 0.05 } };
    expect(zoneArea({ kind: 'underwater', boat: sloop, area })).toMatchObject({ areaM2: 7.4, share: 0.05 });
    expect(zoneArea({ kind: 'underwater', boat: sloop, area: { ...area, method: 'dimensions' } }).areaM2).toBeCloseTo(
      8.1 * 3.6 * 0.75,
      6,
    );
    expect(() => zoneArea({ kind: 'rudder', boat: sloop, area: { ...area, method: 'dimensions' } })).toThrow(
      /no rule of thumb/,
    );
    expect(() => zoneArea({ kind: 'rudder', boat: sloop, area: { ...area, typed: null } })).toThrow(/Type the area/);
  });
  it.each([
    [() => underwaterAreaM2({ ...sloop, lwlM: 0 }), /Waterline length must be more than zero/],
    [() => underwaterAreaM2({ ...sloop, draftM: Number.NaN }), /Draught must be a number/],
    [() => underwaterAreaM2({ ...sloop, form: 'raft' as never }), /Choose the hull form/],
    [() => topsidesAreaM2({ ...sloop, freeboardM: -1 }), /Freeboard/],
    [() => deckAreaM2({ ...sloop, openingsM2: 40 }), /openings are larger/],
    [() => bootTopAreaM2({ ...sloop, bandM: 0 }), /Band height/],
  ])('refuses impossible dimensions %#', (run, message) => {
    expect(run).toThrow(RangeError);
    expect(run).toThrow(message);
  });
  it('points at a 900 m boat and at lengths that were swapped', () => {
    expect(dimensionProblems({ ...sloop, loaM: 900 })[0]).toMatchObject({
      field: 'loaM',
      message: expect.stringContaining('between 1.5 and 60 m'),
    });
    expect(dimensionProblems({ ...sloop, loaM: 8.1, lwlM: 9.6 })[0]?.message).toContain('Swap');
    expect(dimensionProblems({ ...sloop, beamM: 12 })[0]?.field).toBe('beamM');
    expect(dimensionProblems(sloop)).toEqual([]);
  });
});

describe('the drawing', () => {
  it.each([
    [{ ...sloop, keels: 'twin' as const }],
    [{ ...sloop, keels: 'single' as const }],
    [{ ...sloop, form: 'finKeel' as const, keels: 'single' as const }],
    [{ ...sloop, form: 'full' as const, keels: 'none' as const, loaM: 7.2, lwlM: 6.6, draftM: 0.5 }],
  ])('keeps the boat’s own length, waterline, draught and freeboard', (boat) => {
    const profile = boatProfile(boat);
    const all = [...profile.hull, ...(profile.regions.keel ?? []).flat()];
    expect(Math.max(...profile.hull.map((p) => p.x))).toBeCloseTo(boat.loaM, 1);
    expect(profile.waterline[1] - profile.waterline[0]).toBeCloseTo(boat.lwlM, 9);
    expect(Math.min(...all.map((p) => p.z))).toBeCloseTo(-boat.draftM, 1);
    const sheer = profile.hull.slice(0, 41).map((p) => p.z);
    expect(sheer.reduce((a, b) => a + b, 0) / sheer.length).toBeCloseTo(boat.freeboardM, 0);
    expect(profile.hull.every((p) => Number.isFinite(p.x) && Number.isFinite(p.z))).toBe(true);
  });
  it('bands of the hull add up to the whole, cut exactly', () => {
    const { hull } = boatProfile({ ...sloop, keels: 'twin' });
    const bands = [between(hull, -Infinity, 0), between(hull, 0, 0.15), between(hull, 0.15, Infinity)];
    // Each band by counting strips of a tenth of a millimetre between the outline's crossings: no area is asked for.
    const byStrips = (from: number, to: number) => {
      const step = 0.001;
      let sum = 0;
      for (let z = from + step / 2; z < to; z += step) {
        const xs = hull
          .flatMap((p, i) => {
            const q = hull[(i + 1) % hull.length]!;
            return p.z > z !== q.z > z ? [p.x + ((q.x - p.x) * (z - p.z)) / (q.z - p.z)] : [];
          })
          .sort((a, b) => a - b);
        for (let k = 0; k + 1 < xs.length; k += 2) sum += (xs[k + 1]! - xs[k]!) * step;
      }
      return sum;
    };
    const [least, most] = [Math.min(...hull.map((p) => p.z)), Math.max(...hull.map((p) => p.z))];
    expect(outlineAreaM2(bands[0]!)).toBeCloseTo(byStrips(least, 0), 2);
    expect(outlineAreaM2(bands[1]!)).toBeCloseTo(byStrips(0, 0.15), 2);
    expect(outlineAreaM2(bands[2]!)).toBeCloseTo(byStrips(0.15, most), 2);
    const square = [
      { x: 0, z: 0 },
      { x: 2, z: 0 },
      { x: 2, z: 2 },
      { x: 0, z: 2 },
    ];
    expect(outlineAreaM2(between(square, 0.5, 1.25))).toBeCloseTo(1.5, 12);
  });
});

describe('the drawing from the best that is known', () => {
  const boat = { ...sloop, keels: 'twin' as const };
  const table = {
    stationsM: [0, 3, 6, 9.6],
    waterlinesM: [0, 0.6, 1.6],
    halfBreadthsM: [
      [0, 0.9, 1],
      [0.8, 1.3, 1.5],
      [0.8, 1.3, 1.5],
      [0, 0, 0.2],
    ],
    waterlineM: 0.6,
    fromBow: false,
  };
  it('offsets counted from the bow are the same boat turned round', () => {
    const turned = {
      ...table,
      fromBow: true,
      stationsM: table.stationsM.map((x) => 9.6 - x).reverse(),
      halfBreadthsM: [...table.halfBreadthsM].reverse(),
    };
    const [a, b] = [linesFromOffsets(table), linesFromOffsets(turned)];
    a.stationsM.forEach((x, i) => expect(b.stationsM[i]).toBeCloseTo(x, 9));
    expect(b.halfBreadthsM).toEqual(a.halfBreadthsM);
    expect(a.bottomM).toEqual([-0.6, -0.6, -0.6, 0]);
  });
  it('passes through the offsets, in profile, plan and section', () => {
    const lines = linesFromOffsets(table);
    expect(breadthOf(lines, 3, 0)).toBeCloseTo(1.3, 9);
    expect(breadthOf(lines, 4.5, -0.3)).toBeCloseTo((0.8 + 1.3) / 2, 9);
    expect(breadthOf(lines, 20, 0)).toBeNull();
    const profile = boatProfile(boat, { lines });
    expect(profile.known).toBe('offsets');
    expect(profile.lengthM).toBe(9.6);
    expect(Math.min(...profile.hull.map((p) => p.z))).toBeCloseTo(-0.6, 6);
    // The body is shallower than her draught: keels hang below it.
    expect(Math.min(...(profile.regions.keel ?? []).flat().map((p) => p.z))).toBeCloseTo(-1.2, 6);
    expect(boatPlan(boat, lines).halfBeamM).toBeCloseTo(1.5, 2);
    const section = boatSection(boat, { x: 5, lines });
    expect(section.halfBeamM).toBeCloseTo(1.5, 1);
    expect(section.keels).toHaveLength(2);
    expect(boatSection(boat, { x: 0.2, lines }).keels).toEqual([]);
  });
  it.each(['full', 'longKeel', 'finKeel'] as const)(
    'by dimensions alone (%s), plan and section keep the beam, both sides alike',
    (form) => {
      const drawn = { ...sloop, form, keels: 'single' as const };
      expect(boatPlan(drawn).halfBeamM).toBeCloseTo(sloop.beamM / 2, 2);
      const { outline, skin } = boatSection(drawn, { x: sloop.loaM / 2 });
      expect(Math.max(...outline.map((p) => p.x))).toBeCloseTo(-Math.min(...outline.map((p) => p.x)), 9);
      const [port, starboard] = skin.topsides ?? [];
      expect(port?.map((p) => p.x)).toEqual(starboard?.map((p) => -p.x));
      expect(outline.every((p) => Number.isFinite(p.x) && Number.isFinite(p.z))).toBe(true);
      for (const x of [0, sloop.loaM]) expect(boatSection(drawn, { x }).outline.length).toBeGreaterThan(1);
    },
  );
});
