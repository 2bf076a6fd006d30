import type { PreparedBody } from '#core/model/prep';
import type { Boat } from '#contracts/rows/boat';
import { hulls } from '../db/schema';
import { launchOffsets } from './hulls';

import { DAY_MS, demoId, HOUR_MS, type DemoYard, type Zone } from './demoYard';
import { logOf, stint } from './stint';
import { FIRST_ON, GLOSS, TACK } from './usual';

/** A small steel launch: part blasted and part rusty, her sides faired in their second round, her line half marked. */
export async function launch(yard: DemoYard): Promise<void> {
  const boat = await yard.boat(
    4,
    {
      name: 'Umber Tern',
      hullMaterial: 'steel',
      keels: 'none',
      form: 'full',
      loaM: 8.4,
      lwlM: 7.6,
      beamM: 2.7,
      draftM: 0.65,
      freeboardM: 0.95,
    },
    { out: -11, launch: 20, cost: 1700 },
  );
  await yard.db.insert(hulls).values({
    id: demoId(11, 4),
    boatId: boat.id,
    offsets: launchOffsets(),
    mesh: null,
    version: 1,
    deleted: false,
  });
  const zones = await launchZones(yard, boat);
  await stint(yard, [zones.sides], 0, yard.atLocal(-5, 9));
  await gotReady(yard, boat.id, zones);
  await masked(yard, boat.id, zones.aft.row.id, yard.now - 1.1 * HOUR_MS);
  await waterline(yard, boat.id);
}

/** Her zones, their build-ups and edges. */
async function launchZones(yard: DemoYard, boat: Boat) {
  const bottomUp = () => [
    ...yard.layers('epoxyPrimer', ['red oxide'], { ...FIRST_ON, stripe: true, deadVolumeLPerM2: 0.05 }),
    ...yard.layers('barrier', ['grey', 'white', 'grey'], TACK),
    ...yard.layers('tieCoat', ['grey'], TACK),
    ...yard.layers('antifouling', ['oxide red', 'oxide red'], TACK),
  ];
  const aft = await yard.zone(
    boat,
    31,
    'Bottom, aft half',
    'underwater',
    'steel',
    'bare',
    { areaM2: 10.5, share: 0.06 },
    bottomUp(),
    {
      maskList: [
        { id: demoId(12, 31), thing: 'anode', count: 4, note: 'welded studs, two each side' },
        { id: demoId(12, 32), thing: 'propeller', count: 1, note: 'and 20 cm of shaft' },
      ],
    },
  );
  const fore = await yard.zone(
    boat,
    32,
    'Bottom, forward half',
    'underwater',
    'steel',
    'bare',
    { areaM2: 9.5, share: 0.06 },
    bottomUp(),
    {
      maskList: [{ id: demoId(12, 33), thing: 'transducer', count: 1, note: 'its own coating, last day' }],
      openWork: [{ id: demoId(14, 31), kind: 'hotWork', note: 'Doubler at the stem, frame 2', done: false }],
    },
  );
  const sides = await yard.zone(
    boat,
    33,
    'Topsides',
    'topsides',
    'steel',
    'bare',
    {},
    [
      ...yard.layers('epoxyPrimer', ['grey'], { ...FIRST_ON, stripe: true }),
      ...yard.layers('epoxyPrimer', ['red oxide'], { prep: 'abrade', abradeFor: 'level', grit: 220, mask: true }),
      ...yard.layers('topcoat', ['harbour blue', 'harbour blue'], GLOSS),
    ],
    { openWork: [{ id: demoId(14, 32), kind: 'fairing', note: 'Dents along the rubbing strake', done: false }] },
  );
  const bilge = await yard.zone(
    boat,
    34,
    'Bilge under the sole',
    'bilge',
    'steel',
    'unknown',
    { areaM2: 6.5, share: 0.15 },
    yard.layers('bilge', ['white', 'white']),
  );
  await yard.border(boat, 3, sides, aft, { rule: 'butt', widthM: 0, note: 'One line round the stern.' });
  await yard.border(boat, 4, sides, fore, { rule: 'butt', widthM: 0, note: '' });
  return { aft, fore, sides, bilge };
}

/** The tape at the stern is on, and so is what covers the anodes. */
async function masked(yard: DemoYard, boatId: string, aftId: string, at: number): Promise<void> {
  const log = logOf(yard, boatId);
  for (const [job, text] of [
    [`edge:${demoId(17, 3)}`, 'Topsides / Bottom, aft half'],
    [`thing:${demoId(12, 31)}`, '4 × Anode'],
    [`thing:${demoId(12, 32)}`, 'Propeller and shaft'],
  ])
    await log('zone', aftId, 'masked', Math.floor(at), { job, lifeDays: 3, pull: 'touchDry', text });
}

/** How she stands, what tells of the old line, and marks of the after half on one side: one of them a slip. */
async function waterline(yard: DemoYard, boatId: string): Promise<void> {
  const log = logOf(yard, boatId);
  const at = (ago: number) => Math.floor(yard.now - ago * HOUR_MS);
  await log('boat', boatId, 'stood', at(50), {
    points: [
      { name: 'Quarter, port', xM: 0.2, yM: 1.1, onBoatM: 0.55, aboveGroundM: 1.53 },
      { name: 'Quarter, starboard', xM: 0.2, yM: -1.1, onBoatM: 0.55, aboveGroundM: 1.49 },
      { name: 'Stem head', xM: 8.3, yM: 0, onBoatM: 1.05, aboveGroundM: 2.13 },
      { name: 'Rubbing strake, port', xM: 4.2, yM: 1.35, onBoatM: 0.6, aboveGroundM: 1.634 },
    ],
  });
  const lineId = demoId(18, 1);
  const line = { noiseM: null, raiseM: 0, bandM: 0.08, bandMode: 'height', chosen: true };
  await log('boat', boatId, 'lineSet', at(49), { ...line, lineId, name: 'Old line, found', levelM: null });
  await log('boat', boatId, 'lineSet', at(49), {
    ...line,
    lineId: demoId(18, 2),
    name: 'As drawn',
    levelM: 0,
    bandM: 0,
    chosen: false,
  });
  const found = [1.045, 1.058, 1.061, 1.07, 1.071, 1.083, 1.19, 1.094, 1.103];
  for (const [i, valueM] of found.entries())
    await log('boat', boatId, 'marked', at(48) + i * 60_000, {
      lineId,
      xM: i * 0.5,
      side: 'port',
      by: 'level',
      from: 'ground',
      valueM,
      no: i + 1,
    });
  await log('boat', boatId, 'evidence', at(47), {
    what: 'stain',
    xM: 6.4,
    heightM: 0.075,
    plusMinusM: 0.02,
    text: 'Rust line under the old boot-top',
  });
  await log('boat', boatId, 'evidence', at(47), {
    what: 'fitting',
    xM: 2.1,
    heightM: 0.02,
    plusMinusM: 0.01,
    text: 'Lower edge of the cooling inlet was under',
  });
  await log('boat', boatId, 'weights', at(46), {
    items: [
      { name: 'New engine, heavier than the old', kg: 90, xM: 3.1, yM: 0 },
      { name: 'Water tank, full', kg: 120, xM: 5.6, yM: 0.3 },
    ],
    water: 'sea',
    displacementKg: 3900,
    coefficient: null,
  });
}

type LaunchZones = Awaited<ReturnType<typeof launchZones>>;

const preparing = (yard: DemoYard, boatId: string) => {
  const log = logOf(yard, boatId);
  return (zone: Zone, ago: number, body: PreparedBody) =>
    log('zone', zone.row.id, 'prepared', Math.floor(yard.now - ago), { ...body });
};

async function gotReady(yard: DemoYard, boatId: string, { aft, fore, sides, bilge }: LaunchZones): Promise<void> {
  const prepared = preparing(yard, boatId);
  // Aft: blasted this morning, its clock is running.
  await prepared(aft, 26 * HOUR_MS, { step: 'lookOver' });
  await prepared(aft, 25 * HOUR_MS, { step: 'degrease', waterL: 21, concentrateL: 0.42 });
  await prepared(aft, 2.2 * HOUR_MS, { step: 'blast', profileMicron: 72 });
  await prepared(aft, 1.6 * HOUR_MS, { step: 'vacuum' });

  // Bilge: rinsed, drying with a fan.
  await prepared(bilge, 21 * HOUR_MS, { step: 'lookOver' });
  await prepared(bilge, 20 * HOUR_MS, { step: 'degrease', waterL: 13, concentrateL: 0.26 });
  await prepared(bilge, 19 * HOUR_MS, { step: 'rinse', waterL: 26 });
  await byHand(yard, boatId, fore);
  await faired(yard, boatId, sides);
}

/** Forward: by hand, with a converter that has not taken everywhere. */
async function byHand(yard: DemoYard, boatId: string, fore: Zone): Promise<void> {
  const log = logOf(yard, boatId);
  const prepared = preparing(yard, boatId);
  await log('zone', fore.row.id, 'prepPlanned', yard.now - 3 * DAY_MS, {
    way: 'steelByHand',
    added: [{ key: 'tap-frames', kind: 'other', text: 'Tap the frames from inside' }],
    leftOut: [],
    order: [],
  });
  await prepared(fore, 2.9 * DAY_MS, { step: 'lookOver', text: 'Pits along the garboard seam' });
  await prepared(fore, 2.8 * DAY_MS, { step: 'degrease', waterL: 19, concentrateL: 0.38 });
  await prepared(fore, 2.1 * DAY_MS, { step: 'needleGun' });
  await prepared(fore, 2 * DAY_MS, { step: 'wireBrush' });
  await prepared(fore, 30 * HOUR_MS, { step: 'convert', text: 'One coat, Tarn rust converter' });
  await log('zone', fore.row.id, 'rustLooked', Math.floor(yard.now - 5 * HOUR_MS), {
    convertedShare: 0.75,
    next: 'again',
    pitMm: 0.8,
    thicknessMm: 4.4,
    originalMm: 5,
    drawnAt: { surfaceId: fore.row.id, x: 0.3, y: 0.35 },
  });
  await log('zone', fore.row.id, 'foundWork', yard.now - 4 * HOUR_MS, {
    workId: demoId(14, 31),
    work: 'hotWork',
    text: 'Doubler at the stem, frame 2',
    drawnAt: { surfaceId: fore.row.id, x: 0.9, y: 0.5 },
  });
}

/** Sides: second round of fairing, the guide coat is on. */
async function faired(yard: DemoYard, boatId: string, sides: Zone): Promise<void> {
  const prepared = preparing(yard, boatId);
  const fair = (ago: number, step: PreparedBody['step'], more: Partial<PreparedBody> = {}) =>
    prepared(sides, ago, { step, ...more });
  const spot = (x: number, y: number) => ({ drawnAt: { surfaceId: sides.row.id, x, y } });
  await fair(3.2 * DAY_MS, 'fill', spot(0.3, 0.7));
  await fair(3 * DAY_MS, 'guideCoat');
  await fair(2.9 * DAY_MS, 'block', { grit: 120, abradeFor: 'level' });
  await fair(2.8 * DAY_MS, 'inspect', { found: ['lows', 'pinholes'], ...spot(0.68, 0.6) });
  await fair(28 * HOUR_MS, 'fill', spot(0.68, 0.6));
  await fair(1.2 * HOUR_MS, 'guideCoat');
}
