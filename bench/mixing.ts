import { ratioLedger, strokes } from '#core';

const now = () => performance.now();

/** Least of some rounds of an average: what it costs here. */
function eachMs(one: (n: number) => unknown, count: number): number {
  let best = Infinity;
  for (let round = 0; round < 5; round += 1) {
    const start = now();
    for (let n = 0; n < count; n += 1) one(n);
    best = Math.min(best, (now() - start) / count);
  }
  return best;
}

/** Whole strokes of pumps that do not fit their ratio well, and a ledger of a season, beside the calibration loop. */
export function mixing(calibrationMs: () => number): void {
  const pumps = [28.5, 9.7, 4.3].map((mlPerStroke) => ({ mlPerStroke }));
  const ofStrokes = eachMs((n) => strokes({ pumps, ratio: [5, 1, 0.5], mixedL: 0.5 + (n % 40) / 10 }), 200);
  const batches = Array.from({ length: 500 }, (_, i) => ({
    id: `b${i}`,
    at: i * 10,
    partsL: [0.75 + (i % 7) / 100, 0.25 + (i % 7) / 300],
  }));
  const season = {
    ratio: [3, 1],
    kits: Array.from({ length: 60 }, (_, i) => ({ at: i * 80, partsL: [7.5, 2.5] })),
    batches,
    weighings: Array.from({ length: 50 }, (_, i) => ({ at: i * 100 + 5, leftL: [40 - (i % 9), 13 - (i % 9) / 3] })),
    toleranceShare: 0.05,
  };
  const ofLedger = eachMs(() => ratioLedger(season), 200);
  const calibration = calibrationMs();
  const share = (ms: number) => `${ms.toFixed(3)} ms, ${(ms / calibration).toFixed(4)} of the calibration loop`;
  console.log(`whole strokes of three pumps, 0.5 to 4.4 L: ${share(ofStrokes)} (${calibration.toFixed(1)} ms)`);
  console.log(`ratio ledger of 500 batches, 60 kits, 50 looks: ${share(ofLedger)}`);
}
