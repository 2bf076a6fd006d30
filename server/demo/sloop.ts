import { windowState } from '#core/coat/zoneState';
import type { Layer } from '#core/model/layer';
import type { Boat, BuildUpRow, SurfaceDraft } from '#contracts/rows/boat';
import { hulls, namedBuildUps } from '../db/schema';
import { sloopGirths, sloopOffsets } from './hulls';

import { DAY_MS, demoId, HOUR_MS, type DemoYard } from './demoYard';
import { stint } from './stint';
import { FIRST_ON, GLOSS, TACK } from './usual';

const YARD_BOTTOM = demoId(14, 90);

export async function sloop(yard: DemoYard): Promise<void> {
  const boat = await yard.boat(
    1,
    {
      name: 'Pewit’s Errand',
      hullMaterial: 'grp',
      keels: 'twin',
      form: 'longKeel',
      loaM: 9.6,
      lwlM: 8.1,
      beamM: 3.1,
      draftM: 1.15,
      freeboardM: 1.05,
    },
    { out: -13, launch: 9, cost: 3200, headingDeg: 225 },
  );
  await yard.db.insert(namedBuildUps).values({
    id: YARD_BOTTOM,
    name: 'Yard bottom: barrier, tie coat, antifouling',
    substrates: ['gelcoat', 'laminate'],
    exposure: 'immersed',
    bond: 'chemical',
    note: 'What this yard puts under water, if the weather gives the windows.',
    targetMicron: 250,
    layers: bottomOf(yard),
    version: 1,
    deleted: false,
  });
  await yard.db
    .insert(hulls)
    .values({ id: demoId(11, 1), boatId: boat.id, offsets: sloopOffsets(), mesh: null, version: 1, deleted: false });
  const zones = await sloopZones(yard, boat);
  await sloopPatches(yard, boat, zones);
  await sloopCoats(yard, zones);
}

/** What this yard puts under water. */
const bottomOf = (yard: DemoYard): Layer[] => [
  ...yard.layers('barrier', ['grey', 'white', 'grey', 'white'], FIRST_ON, TACK),
  ...yard.layers('tieCoat', ['red oxide'], TACK),
  ...yard.layers('antifouling', ['red', 'dark blue']),
];

const yardBottom = { namedId: YARD_BOTTOM, targetMicron: 250 };

type SloopZones = Awaited<ReturnType<typeof sloopZones>>;

const mask = (n: number, thing: SurfaceDraft['maskList'][number]['thing'], count: number, note: string) => ({
  id: demoId(12, n),
  thing,
  count,
  note,
});

const adhesion = (yard: DemoYard, n: number, note: string): BuildUpRow['records'] => [
  { id: demoId(16, n), kind: 'adhesionTest', at: yard.now - 10 * DAY_MS, painter: 'Ines', note },
];

/** Her zones, and where they meet. */
async function sloopZones(yard: DemoYard, boat: Boat) {
  const bottom = () => bottomOf(yard);
  const hull = await yard.zone(
    boat,
    1,
    'Underwater hull',
    'underwater',
    'gelcoat',
    'bare',
    { method: 'dimensions', dimensions: { draftM: 0.55 }, typed: null, girths: sloopGirths() },
    bottom(),
    {
      notes: 'Dried out since March: 4 % at the keel stubs.',
      maskList: [
        mask(1, 'anode', 2, 'one each side of the skeg'),
        mask(2, 'transducer', 1, 'own coating, last day'),
        mask(3, 'logWheel', 1, ''),
      ],
    },
    yardBottom,
  );
  const keels = await yard.zone(
    boat,
    2,
    'Twin keels',
    'keel',
    'laminate',
    'bare',
    { areaM2: 6.4, share: 0.06 },
    bottom().map((l, i) => (i === 3 ? { ...l, dftMicron: 80 } : l)),
    {},
    yardBottom,
  );
  const rudder = await yard.zone(
    boat,
    3,
    'Rudder and skeg',
    'rudder',
    'laminate',
    'bare',
    { areaM2: 1.9, share: 0.06 },
    bottom(),
    {},
    yardBottom,
  );
  const bootTop = await yard.zone(
    boat,
    4,
    'Boot-top',
    'bootTop',
    'gelcoat',
    'twoPack',
    { bandM: 0.15 },
    yard.layers('topcoat', ['cream', 'cream'], GLOSS),
  );
  const topsides = await yard.zone(
    boat,
    5,
    'Topsides',
    'topsides',
    'gelcoat',
    'twoPack',
    {},
    yard.layers('topcoat', ['harbour blue', 'harbour blue', 'harbour blue'], GLOSS),
    {},
    { records: adhesion(yard, 1, 'Cross-cut class 1 amidships, both sides.') },
  );
  await yard.border(boat, 1, topsides, bootTop, {
    rule: 'butt',
    widthM: 0,
    note: 'One tape for both, pulled while the boot-top is wet.',
  });
  await yard.border(boat, 2, bootTop, hull, { rule: 'overlap', widthM: 0.02, note: '' });
  return { hull, keels, rudder };
}

/** Patches on her zones, and what is not painted yet. */
async function sloopPatches(yard: DemoYard, boat: Boat, { hull, keels }: SloopZones): Promise<void> {
  await yard.zone(
    boat,
    7,
    'Under the stands',
    'underwater',
    'gelcoat',
    'bare',
    {
      method: 'shapes',
      dimensions: {},
      typed: null,
      shapes: [
        {
          id: demoId(12, 4),
          name: 'pad',
          figure: { kind: 'rectangle', lengthM: 0.3, widthM: 0.25 },
          count: 4,
          deduct: false,
          share: 0.1,
          group: null,
        },
      ],
    },
    bottomOf(yard),
    {
      parentId: hull.row.id,
      patchKind: 'standPad',
      openWork: [
        {
          id: demoId(12, 5),
          kind: 'underStand',
          note: 'The yard moves the stands after the last barrier coat.',
          done: false,
        },
      ],
    },
    yardBottom,
  );
  await yard.zone(
    boat,
    8,
    'Keel toes',
    'keel',
    'laminate',
    'bare',
    { method: 'band', dimensions: {}, typed: null, band: { place: 'keelBottom', widthM: 0.3, lengthM: null } },
    yard.layers('antifouling', ['red']),
    { parentId: keels.row.id, patchKind: 'highWear' },
  );
  await yard.zone(boat, 6, 'Bilge under the sole', 'bilge', 'laminate', 'unknown', { areaM2: 3.2, share: 0.2 }, []);
}

/** What is on: the hull's window is open now, the keels' is about to close, the rudder is still wet. */
async function sloopCoats(yard: DemoYard, { hull, keels, rudder }: SloopZones): Promise<void> {
  const third = yard.startWhere(
    hull,
    2,
    (c) => windowState(c, yard.now) === 'bonds' && (c.window?.bondsUntil ?? 0) > yard.now + 5 * HOUR_MS,
  );
  const second = yard.startWhere(
    keels,
    1,
    (c) =>
      between(c.window?.bondsUntil, yard.now + 1.6 * HOUR_MS, yard.now + 2.4 * HOUR_MS) &&
      windowState(c, yard.now) === 'bonds',
  );
  await stint(yard, [hull, keels, rudder], 0, second - 2 * DAY_MS);
  await stint(yard, [hull], 1, third - DAY_MS);
  await stint(yard, [keels], 1, second, { micron: [138, 150, 145, 132, 151] });
  await stint(yard, [hull], 2, third, {
    micron: [150, 142, 138, 160, 147, 155],
    note: 'Port quarter a little thin under the counter, went over it again.',
  });
  await stint(yard, [rudder], 1, yard.now - 1.6 * HOUR_MS, { hours: 0.5 });
}

const between = (value: number | null | undefined, low: number, high: number) =>
  value !== null && value !== undefined && value >= low && value <= high;
