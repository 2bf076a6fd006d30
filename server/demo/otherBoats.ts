import { windowState } from '#core/coat/zoneState';
import { hulls } from '../db/schema';
import { workboatMesh } from './hulls';

import { demoId, HOUR_MS, type DemoYard } from './demoYard';
import { stint } from './stint';
import { FIRST_ON, GLOSS, TACK } from './usual';

export async function workboat(yard: DemoYard): Promise<void> {
  const boat = await yard.boat(
    2,
    {
      name: 'Grey Wether',
      hullMaterial: 'aluminium',
      keels: 'none',
      form: 'full',
      loaM: 7.2,
      lwlM: 6.6,
      beamM: 2.5,
      draftM: 0.55,
      freeboardM: 0.85,
    },
    { out: -6, launch: 5, cost: 2600, movedIn: 2 },
  );
  await yard.db.insert(hulls).values({
    id: demoId(11, 2),
    boatId: boat.id,
    offsets: null,
    mesh: await workboatMesh(boat, yard.files),
    version: 1,
    deleted: false,
  });
  const bottom = await yard.zone(
    boat,
    11,
    'Underwater hull',
    'underwater',
    'aluminium',
    'bare',
    { method: 'mesh', dimensions: {}, typed: null, mesh: { part: 'below' } },
    [
      ...yard.layers('lightMetalPrimer', ['green'], { ...FIRST_ON, stripe: true }),
      ...yard.layers('barrier', ['grey', 'white'], TACK),
      ...yard.layers('copperFree', ['black', 'black'], TACK, {}),
    ],
    {},
    { targetMicron: 250 },
  );
  const sides = await yard.zone(
    boat,
    12,
    'Topsides',
    'topsides',
    'aluminium',
    'twoPack',
    {},
    yard.layers('topcoat', ['harbour blue', 'harbour blue'], GLOSS),
  );
  await yard.zone(
    boat,
    14,
    'Wheelhouse front',
    'coachroof',
    'aluminium',
    'unknown',
    { areaM2: 3.1, share: 0.08 },
    yard.layers('topcoat', ['cream', 'cream'], GLOSS),
  );
  await yard.zone(boat, 13, 'Deck', 'deck', 'aluminium', 'unknown', { openingsM2: 1.5 }, []);
  const past = yard.startWhere(
    bottom,
    0,
    (c) => windowState(c, yard.now) === 'abrade' && yard.now - (c.window?.bondsUntil ?? 0) < 20 * HOUR_MS,
  );
  await stint(yard, [bottom], 0, past);
  await stint(yard, [sides], 0, yard.now - 25 * 60_000, { open: true });
}

export async function gig(yard: DemoYard): Promise<void> {
  const boat = await yard.boat(
    3,
    {
      name: 'Sallow Lass',
      hullMaterial: 'timber',
      keels: 'none',
      form: 'longKeel',
      loaM: 6.1,
      lwlM: 5.6,
      beamM: 1.5,
      draftM: 0.3,
      freeboardM: 0.5,
    },
    { out: -9, launch: 14, cost: 900 },
  );
  const outside = await yard.zone(boat, 21, 'Outside, to the gunwale', 'topsides', 'timber', 'bare', {}, [
    ...yard.layers('sealer', ['clear amber', 'clear amber'], { absorption: 0.25 }, TACK),
    ...yard.layers('enamel', ['oxide red', 'oxide red'], GLOSS),
  ]);
  const inside = await yard.zone(
    boat,
    22,
    'Bottom boards and bilge',
    'bilge',
    'timber',
    'onePack',
    { areaM2: 4.5, share: 0.15 },
    yard.layers('bilge', ['white']),
  );
  await stint(yard, [outside], 0, yard.atLocal(-3, 9));
  await stint(yard, [outside], 1, yard.atLocal(-2, 9.5));
  await stint(yard, [outside], 2, yard.atLocal(-1, 10));
  await stint(yard, [inside], 0, yard.atLocal(-2, 14));
}
