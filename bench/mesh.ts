import { STLLoader } from 'three/examples/jsm/loaders/STLLoader.js';
import { meshDefects } from '#core/hull/defects';
import { meshAreas } from '#core/hull/mesh';
import { parseStl } from '#core/hull/stl';
import { binaryStl, ellipsoid } from '../core/hull/solids.fixture';

const ROUNDS = 9;

/**
 * A million triangles: reading and cutting them, and looking for defects, against three.js's loader merely reading
 * the same bytes. The three take turns, and the best of each counts: what disturbs one round disturbs all of it.
 */
export function meshes(): void {
  const positions = ellipsoid(6, 2, 1, 500);
  const bytes = binaryStl(positions);
  const planes = [0, 0.15].map((heightM) => ({ heightM, heelDeg: 0, trimDeg: 1 }));
  const contestants = {
    three: () => new STLLoader().parse(bytes.buffer),
    ours: () => meshAreas({ positions: parseStl(bytes), planes }),
    defects: () => meshDefects({ positions }),
  };
  const best = { three: Infinity, ours: Infinity, defects: Infinity };
  for (let round = 0; round < ROUNDS; round += 1) {
    for (const [name, work] of Object.entries(contestants) as [keyof typeof best, () => unknown][]) {
      const start = performance.now();
      work();
      best[name] = Math.min(best[name], performance.now() - start);
    }
  }
  console.log(
    `STL of ${positions.length / 9} triangles: parse and areas ${best.ours.toFixed(0)} ms, three.js parse alone ${best.three.toFixed(0)} ms: ratio ${(best.ours / best.three).toFixed(2)} (limit 1.0)`,
  );
  console.log(`  defects ${best.defects.toFixed(0)} ms: ratio ${(best.defects / best.three).toFixed(2)} (limit 6)`);
}
