import { describe, expect, it } from 'vitest';
import { sheet } from '#core/sheet/example.fixture';
import type { SheetRevision } from '#core/model/sheet';
import { bandsOf, layoutOf, pitchFor, rowY, snapped, TOP } from './section/layout';
import type { SectionCoat } from './section/coat';
import { coatRuns } from './coatRuns';

const coat = (name: string, dftMicron: number, colour: string, more: Partial<SectionCoat> = {}): SectionCoat => ({
  name,
  layer: {
    id: name + colour + dftMicron,
    sheetRevisionId: name,
    dftMicron,
    method: 'roller',
    thinnerShare: 0,
    loss: 0.1,
    deadVolumeLPerM2: 0,
    colour,
    colourHex: '#888888',
  },
  on: false,
  measuredMicron: null,
  keptMicron: dftMicron,
  takes: null,
  ...more,
});
const sheetById = new Map<string, SheetRevision>([
  ['Barrier', { id: 'Barrier', sheetId: 's', revision: 1, body: sheet, createdAt: 0 }],
]);

const DENSE = pitchFor({
  narrow: false,
  rowRoom: 400,
  stripRoom: 300,
  rem: 16,
  rows: ['Primer'],
  strips: ['on steel'],
});
const ROOMY = pitchFor({ narrow: true, rowRoom: 150, stripRoom: 90, rem: 16, rows: ['Primer'], strips: ['on steel'] });

describe('the section to scale', () => {
  it('fits what must be seen, and stacks films from the substrate up', () => {
    const layout = layoutOf({ coats: 4, micron: 400, pitch: DENSE });
    expect(layout.groundY).toBe(TOP + 4 * (DENSE.row + DENSE.strip));
    const bands = bandsOf([100, 50, 250], layout);
    expect(bands.map((b) => Math.round((layout.groundY - b.y) / layout.scale))).toEqual([100, 150, 400]);
    expect(bands[2]?.y).toBeCloseTo(TOP, 9);
    expect((bands[0]?.h ?? 0) / (bands[1]?.h ?? 1)).toBeCloseTo(2, 9);
    expect((bands[0]?.y ?? 0) + (bands[0]?.h ?? 0)).toBe(layout.groundY);
  });
  it('does not blow a single thin coat up to the whole page, nor squeeze it', () => {
    expect(layoutOf({ coats: 1, micron: 25, pitch: ROOMY }).scale).toBeCloseTo(240 / 120, 9);
    expect(rowY(1, ROOMY) - rowY(0, ROOMY)).toBe(ROOMY.row + ROOMY.strip);
  });
  it('a dragged film snaps to round figures of the unit that is shown', () => {
    expect(snapped(83, 70, false)).toBe(85);
    expect(snapped(13.4, 8, false)).toBe(13);
    expect(snapped(-20, 70, false)).toBe(5);
    // Tenths of a mil: 25.4 µm · 0.1.
    expect(snapped(100, 70, true) / 2.54).toBeCloseTo(39, 2);
  });
});

describe('the same build-up told for two schools', () => {
  const coats = [
    coat('Barrier', 70, 'grey'),
    coat('Barrier', 70, 'white', { keptMicron: 62.5 }),
    coat('Antifouling', 50, 'red'),
  ];
  it('in coats, with their colours, and in film: what is left of it after abrading', () => {
    expect(coatRuns(coats, sheetById)).toEqual({
      runs: [
        { name: 'Barrier', coats: 2, colours: ['grey', 'white'], keptMicron: 132.5 },
        { name: 'Antifouling', coats: 1, colours: [], keptMicron: 50 },
      ],
      barrierMicron: null,
    });
  });
  it('coats of one product with another between them are told apart, and the barrier film added up', () => {
    const [grey, white, red] = coats as [SectionCoat, SectionCoat, SectionCoat];
    expect(coatRuns([grey, red, white], sheetById).runs.map((r) => [r.name, r.coats])).toEqual([
      ['Barrier', 1],
      ['Antifouling', 1],
      ['Barrier', 1],
    ]);
    expect(coatRuns([grey, red, white], sheetById).barrierMicron).toBe(132.5);
    expect(coatRuns([], sheetById)).toEqual({ runs: [], barrierMicron: null });
  });
});
