import { ledger, packsToBuy, type Layer, type Surface } from '#core';
import { highsCover } from '#core/stores/solver.fixture';
import { LIBRARY_SHEETS } from '../server/library';

const FRAME_MS = 1000 / 60;
const ROUNDS = 7;

/** The best of some rounds: what disturbs one round disturbs all of it. */
function bestMs(work: () => void, times: number): number {
  let best = Infinity;
  for (let round = 0; round < ROUNDS; round += 1) {
    const start = performance.now();
    for (let n = 0; n < times; n += 1) work();
    best = Math.min(best, (performance.now() - start) / times);
  }
  return best;
}

/** Eight coats on twelve zones: findings, litres and packs anew, as at every frame while a film is dragged. */
export function dragging(calibrationMs: () => number): void {
  const revisionById = new Map(
    LIBRARY_SHEETS.map((s) => [
      s.revisionId,
      { id: s.revisionId, sheetId: s.id, revision: 1, body: s.body, createdAt: 0 },
    ]),
  );
  const bodies = new Map(LIBRARY_SHEETS.map((s) => [s.id, s.body]));
  const of = (name: string) => LIBRARY_SHEETS.find((s) => s.body.name.includes(name))!.revisionId;
  const products = [
    of('epoxy primer'),
    of('45 barrier'),
    of('45 barrier'),
    of('45 barrier'),
    of('45 barrier'),
    of('tie coat'),
    of('hard antifouling'),
    of('hard antifouling'),
  ];
  const layers = (dftMicron: number): Layer[] =>
    products.map((sheetRevisionId, i) => ({
      id: `${i}`,
      sheetRevisionId,
      dftMicron: i === 2 ? dftMicron : 70,
      method: 'roller',
      thinnerShare: 0,
      loss: 0.1,
      deadVolumeLPerM2: 0,
      colour: '',
      colourHex: '#888888',
      prep: i === 0 ? 'abrade' : 'tackWindow',
      grit: i === 0 ? 120 : undefined,
    }));
  const zones = Array.from({ length: 12 }, (_, i): Surface => ({
    id: `z${i}`,
    name: `zone ${i}`,
    kind: 'underwater',
    substrate: 'steel',
    exposure: 'immersed',
    existing: 'bare',
    areaM2: 3 + i * 2.3,
    areaShare: 0.12,
  }));
  let film = 40;
  const frame = () => {
    film = film > 150 ? 40 : film + 1;
    ledger({
      zones: zones.map((surface) => ({ surface, layers: layers(film), targetMicron: 300, records: [] })),
      coats: [],
      revisionById,
      waters: 'salt',
      sheetOf: (id) => bodies.get(id),
      onHandOf: () => [1.2, 0.4],
      chance: 0.9,
    });
  };
  for (let n = 0; n < 50; n += 1) frame();
  const ms = bestMs(frame, 60);
  const calibration = calibrationMs();
  console.log(
    `a film dragged over 8 coats on 12 zones: ${ms.toFixed(2)} ms a frame, ${((ms / FRAME_MS) * 100).toFixed(0)} % of it; ${(ms / calibration).toFixed(2)} of the calibration loop (${calibration.toFixed(1)} ms)`,
  );
}

/** Six sizes and 200 L, against HiGHS on the same instances. */
export async function packs(): Promise<void> {
  const sizes = [0.25, 0.75, 1, 2.5, 5, 20];
  const instances = Array.from({ length: 12 }, (_, n) => ({
    needL: 200 - n * 1.37,
    onHandL: 0,
    packs: sizes.map((sizeL, i) => ({ sizeL, priceMinor: Math.round(sizeL * (3400 - i * 230) + 260 + n * 7) })),
  }));
  const reference = await highsCover();
  for (const i of instances) {
    if (packsToBuy(i).costMinor !== reference(i).costMinor) throw new Error('the two do not agree');
  }
  const ours = bestMs(() => instances.forEach((i) => packsToBuy(i)), 3) / instances.length;
  const theirs = bestMs(() => instances.forEach((i) => reference(i)), 1) / instances.length;
  console.log(
    `packs for 200 L in 6 sizes: ${ours.toFixed(3)} ms, HiGHS ${theirs.toFixed(2)} ms: ratio 1/${(theirs / ours).toFixed(0)} (limit 1/20)`,
  );
}
