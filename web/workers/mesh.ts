import { expose, transfer } from 'comlink';
import { meshDefectSteps, type MeshDefects } from '#core/hull/defects';
import { linesFromMesh, type MeshLines } from '#core/hull/lines';
import { meshAreaSteps, type Plane } from '#core/hull/mesh';
import { parseObj } from '#core/hull/obj';
import { guessPlacement, placeMesh, type MeshSize, type Placement } from '#core/hull/placement';
import { previewMesh } from '#core/hull/preview';
import { MESH_MAX_BYTES, parseStl } from '#core/hull/stl';
import { runSteps } from '#core/steps';
import { tooLarge } from './limits';
import { Impossible } from '#core/impossible';

export interface CutMesh {
  readonly areas: { belowM2: number; bandM2: number; aboveM2: number; volumeBelowM3: number; cutShare: number };
  readonly lines: MeshLines;
}
type Progress = (share: number) => void;

/** Progress is told this often, ms; between, the worker does nothing but work. */
const TELL_MS = 60;
const PREVIEW_TRIANGLES = 30_000;

let raw: Float32Array | null = null;
let placed: { positions: Float32Array; placement: Placement; size: MeshSize } | null = null;

/** Walk a stepping computation to its end, telling how far it is. */
function walk<T>(steps: Generator<number, T>, progress: Progress): T {
  let reported = 0;
  return runSteps(steps, (share) => {
    const at = performance.now();
    if (at - reported < TELL_MS) return;
    reported = at;
    progress(share);
  });
}

const mesh = () => {
  if (!placed) throw new Impossible('Choose a mesh first.');
  return placed;
};

/** Everything heavy about a mesh: it is read, placed and cut here, never where the page is drawn. */
const worker = {
  /** Read a file; its kind is told by its content, its ending only decides where that is in doubt. */
  async open(
    file: Blob,
    name: string,
    boat: { loaM: number; beamM: number; depthM: number },
  ): Promise<{ triangles: number; placement: Placement }> {
    if (file.size > MESH_MAX_BYTES) throw new Impossible(tooLarge(file.size));
    const bytes = new Uint8Array(await file.arrayBuffer());
    raw = isObj(bytes, name) ? parseObj(new TextDecoder().decode(bytes)) : parseStl(bytes);
    placed = null;
    return { triangles: raw.length / 9, placement: guessPlacement({ positions: raw, ...boat }) };
  },

  /** Lay the mesh along the boat. */
  place(placement: Placement): MeshSize {
    if (!raw) throw new Impossible('Choose a mesh first.');
    const positions = raw.slice();
    const size = placeMesh(positions, placement);
    placed = { positions, placement, size };
    return size;
  },

  cut(waterline: Plane, bandM: number, progress: Progress): CutMesh {
    const { positions, placement, size } = mesh();
    const { mirror } = placement;
    const found = walk(
      meshAreaSteps({ positions, planes: [waterline, { ...waterline, heightM: waterline.heightM + bandM }], mirror }),
      progress,
    );
    const [belowM2 = 0, bandM2 = 0, aboveM2 = 0] = found.bandsM2;
    return {
      areas: { belowM2, bandM2, aboveM2, volumeBelowM3: found.volumeBelowM3, cutShare: found.cutShare },
      lines: linesFromMesh({ positions, waterline, ...size, mirror }),
    };
  },

  defects(progress: Progress): MeshDefects {
    const { positions, placement } = mesh();
    return walk(meshDefectSteps({ positions, mirror: placement.mirror }), progress);
  },

  /** A coarser mesh to look at, in the boat's own frame. */
  preview(): Float32Array {
    const positions = previewMesh({ positions: mesh().positions, most: PREVIEW_TRIANGLES });
    return transfer(positions, [positions.buffer]);
  },
};

function isObj(bytes: Uint8Array, name: string): boolean {
  if (/\.obj$/i.test(name)) return true;
  if (/\.stl$/i.test(name)) return false;
  const head = new TextDecoder().decode(bytes.subarray(0, 2048));
  return !head.includes('\u0000') && /^\s*(#|v |o |g |mtllib )/m.test(head) && !/^\s*solid\b/i.test(head);
}

export type MeshWorker = typeof worker;
expose(worker);
