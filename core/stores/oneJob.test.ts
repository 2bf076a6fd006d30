import { describe, expect, it } from 'vitest';
import { layer, barrier, copper, zone, sheetOf, revision, revisionById } from './needs.fixture';
import { airAsked, followers, ledger, onProduct, type Layer } from '../index';
import { sheet } from '../sheet/example.fixture';

describe('a job at a glance', () => {
  const layers = [layer(barrier), layer(copper)];
  const run = (dftMicron: number) =>
    ledger({
      zones: [
        {
          surface: zone('hull'),
          layers: [{ ...(layers[0] as Layer), dftMicron }, layers[1] as Layer],
          targetMicron: 250,
          records: [],
        },
      ],
      coats: [],
      revisionById,
      waters: null,
      sheetOf,
      onHandOf: () => [],
      chance: 0.9,
    });

  it('findings, litres and packs follow a film together', () => {
    const [thin, thick] = [run(60), run(190)];
    expect(thin.zones[0]?.findings.some((f) => f.rule === 'totalBelowTarget')).toBe(true);
    expect(thick.zones[0]?.findings.some((f) => f.rule === 'totalBelowTarget')).toBe(false);
    expect(thick.zones[0]?.perM2?.total.dftMicron).toBe(290);
    expect(thick.products[0]?.wantL).toBeGreaterThan(thin.products[0]?.wantL as number);
  });
  it('keeps its findings where a coat’s figures cannot be', () => {
    const broken = ledger({
      zones: [{ surface: zone('hull'), layers: [layer(barrier, { loss: 1 })], targetMicron: null, records: [] }],
      coats: [],
      revisionById,
      waters: null,
      sheetOf,
      onHandOf: () => [],
      chance: 0.9,
    });
    expect(broken.zones[0]).toMatchObject({ perM2: null });
    expect(broken.without).toEqual(['hull, coat 1']);
  });
});

describe('another product, other zones, other air', () => {
  it('a coat takes the new product’s film and colour, and a method its sheet allows', () => {
    const to = revision('sprayed', {
      ...sheet,
      dftMicron: 80,
      methods: [{ method: 'spray', dftMicron: 150 }],
      colours: [{ name: 'red', hex: '#aa0000' }],
    });
    expect(
      onProduct(layer(barrier, { thinnerShare: 0.05, thinnerFamily: 'epoxy', prep: 'abrade', grit: 120 }), to),
    ).toMatchObject({
      sheetRevisionId: to.id,
      dftMicron: 150,
      method: 'spray',
      loss: 0.25,
      thinnerShare: 0,
      thinnerFamily: undefined,
      colour: 'red',
      prep: 'abrade',
      grit: 120,
    });
    expect(onProduct(layer(barrier, { loss: 0.3 }), to).loss).toBe(0.3);
  });
  it('tells zones that follow from those that departed', () => {
    const named = [layer(barrier), layer(copper)];
    const copies = (change: Partial<Layer>) => named.map((l) => ({ ...l, id: `x${l.id}`, ...change }));
    const { follow, departed } = followers({
      named,
      zones: [
        { id: 1, layers: copies({}) },
        { id: 2, layers: copies({ dftMicron: 120 }) },
      ],
      sheetOf: (id) => id,
    });
    expect(follow.map((z) => z.id)).toEqual([1]);
    expect(departed.map((d) => [d.zone.id, d.differences])).toEqual([[2, ['coat 1 is thicker', 'coat 2 is thicker']]]);
  });
  it('asks for the strictest air of all its sheets', () => {
    const warm = { ...sheet, limits: { ...sheet.limits, airMinC: 12, rhMax: 0.8 }, touchDry: null };
    expect(airAsked({ layers: [{ sheet }, { sheet: warm }], tempC: 20 })).toEqual({
      airMinC: 12,
      airMaxC: 35,
      rhMax: 0.8,
      spreadMinC: 3,
      touchDryH: expect.closeTo(3, 9),
    });
    expect(airAsked({ layers: [], tempC: 20 })).toEqual({
      airMinC: null,
      airMaxC: null,
      rhMax: null,
      spreadMinC: null,
      touchDryH: null,
    });
  });
});
