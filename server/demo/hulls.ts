import { Readable } from 'node:stream';
import { meshDefects } from '#core/hull/defects';
import { linesFromMesh } from '#core/hull/lines';
import { meshAreas } from '#core/hull/mesh';
import { guessPlacement, placeMesh } from '#core/hull/placement';
import { parseStl } from '#core/hull/stl';
import type { GirthRecord, MeshRecord, OffsetRecord } from '#core/model/area';
import type { Boat } from '#contracts/rows/boat';
import type { FileStore } from '../keep/files';

/** Shapes of the demo's made-up boats, from a formula of our own. */
interface Form {
  readonly loaM: number;
  readonly beamM: number;
  /** Depth of the body without keels. */
  readonly bodyM: number;
  readonly freeboardM: number;
  /** Breadth of the transom over the beam. */
  readonly stern: number;
  /** Small: full sections; one: a wedge. */
  readonly deadrise: number;
}
const SLOOP: Form = { loaM: 9.6, beamM: 3.1, bodyM: 0.55, freeboardM: 1.05, stern: 0.62, deadrise: 0.2 };
const WORKBOAT: Form = { loaM: 7.2, beamM: 2.5, bodyM: 0.55, freeboardM: 0.85, stern: 0.9, deadrise: 0.16 };

const LAUNCH: Form = { loaM: 8.4, beamM: 2.7, bodyM: 0.65, freeboardM: 0.95, stern: 0.78, deadrise: 0.3 };

/** Along the length, 0 at the transom to 1 at the stem: half-breadth at the rail, bottom and rail heights. */
function station(form: Form, t: number): { half: number; bottom: number; rail: number } {
  const half =
    (form.beamM / 2) *
    (t < 0.5 ? form.stern + (1 - form.stern) * Math.sin((Math.PI * t) / 1) : Math.max(0, 1 - ((t - 0.5) / 0.5) ** 2.4));
  const aft = t < 0.45 ? ((0.45 - t) / 0.45) ** 2 * (1.25 - form.stern) : 0;
  const fore = t > 0.55 ? ((t - 0.55) / 0.45) ** 3 : 0;
  const rail = form.freeboardM * (0.94 + 0.5 * (t - 0.4) ** 2);
  return {
    half,
    bottom: Math.min(rail - 0.02, -form.bodyM + aft * form.bodyM + fore * (form.bodyM + rail) * 0.98),
    rail,
  };
}

function halfBreadth(form: Form, t: number, z: number): number | null {
  const { half, bottom, rail } = station(form, t);
  // A rail reached by adding up may lie a hair above itself.
  if (z > rail + 1e-9) return null;
  if (z <= bottom) return 0;
  return half * Math.min(1, (z - bottom) / (rail - bottom)) ** form.deadrise;
}

const mm = (value: number) => Math.round(value * 1000) / 1000;

/** A table of offsets; waterlines count from the bottom of the body. */
function offsetsOf(form: Form, intervals: number, waterlinesM: readonly number[]): OffsetRecord {
  const stationsM = Array.from({ length: intervals + 1 }, (_, i) => mm((form.loaM * i) / intervals));
  return {
    stationsM,
    waterlinesM,
    halfBreadthsM: stationsM.map((x) =>
      waterlinesM.map((w) => {
        const y = halfBreadth(form, x / form.loaM, w - form.bodyM);
        return y === null ? null : mm(y);
      }),
    ),
    waterlineM: form.bodyM,
    fromBow: false,
    includeBottom: true,
  };
}

/** The sloop's table of offsets, as it might lie in a drawer. */
export function sloopOffsets(): OffsetRecord {
  return offsetsOf(SLOOP, 12, [0, 0.12, 0.24, 0.36, 0.48, 0.6, 0.8, 1.0, 1.2, 1.4, 1.6]);
}

/** The launch's lines, taken off by the yard at every 70 cm. */
export function launchOffsets(): OffsetRecord {
  return offsetsOf(LAUNCH, 12, [0, 0.15, 0.3, 0.45, 0.6, 0.75, 0.95, 1.15, 1.35, 1.55]);
}

/** Her half-girths below the waterline, half of them taped so far. */
export function sloopGirths(): GirthRecord {
  const [from, to] = [0.11, 0.96];
  const stations = Array.from({ length: 9 }, (_, i) => {
    const t = from + ((to - from) * i) / 8;
    const { bottom } = station(SLOOP, t);
    let girth = 0;
    for (let k = 0; k < 60 && bottom < 0; k += 1) {
      const [z0, z1] = [(bottom * (60 - k)) / 60, (bottom * (59 - k)) / 60];
      girth += Math.hypot(z1 - z0, (halfBreadth(SLOOP, t, z1) ?? 0) - (halfBreadth(SLOOP, t, z0) ?? 0));
    }
    const taped = i !== 2 && i !== 4;
    // A tape is read to the centimetre.
    return {
      xM: mm((to - from) * SLOOP.loaM * (i / 8)),
      halfGirthM: taped ? Math.round(Math.max(0, girth) * 100) / 100 : null,
      halfBreadthM: taped ? Math.round((halfBreadth(SLOOP, t, 0) ?? 0) * 100) / 100 : null,
    };
  });
  return { even: true, stations };
}

/** One side of the workboat's hull and her transom as a binary STL in millimetres, as a boatbuilder's program would give it. */
function workboatStl(): Buffer {
  type P = readonly [number, number, number];
  const at = (i: number, k: number): P => {
    const t = i / 90;
    const { bottom, rail } = station(WORKBOAT, t);
    const z = bottom + (rail - bottom) * (k / 24) ** 1.6;
    return [WORKBOAT.loaM * t * 1000, (halfBreadth(WORKBOAT, t, z) ?? 0) * 1000, z * 1000];
  };
  const centre = (k: number): P => [at(0, k)[0], 0, at(0, k)[2]];
  const triangles: (readonly [P, P, P])[] = [];
  for (let k = 0; k < 24; k += 1) {
    for (let i = 0; i < 90; i += 1)
      triangles.push([at(i, k), at(i + 1, k), at(i + 1, k + 1)], [at(i, k), at(i + 1, k + 1), at(i, k + 1)]);
    triangles.push([centre(k), at(0, k), at(0, k + 1)], [centre(k), at(0, k + 1), centre(k + 1)]);
  }
  // Facing outwards, to port and aft; what the stem draws to a line is left out.
  const skin = triangles
    .map(([a, b, c]) => [a, c, b] as const)
    .filter(([a, b, c]) => Math.hypot(...cross(minus(b, a), minus(c, a))) > 1);
  const file = Buffer.alloc(84 + skin.length * 50);
  file.write('Made-up workboat, one side, millimetres');
  file.writeUInt32LE(skin.length, 80);
  skin.forEach((triangle, t) =>
    triangle.flat().forEach((value, n) => file.writeFloatLE(value, 84 + t * 50 + 12 + n * 4)),
  );
  return file;
}

const minus = (a: readonly number[], b: readonly number[]) => a.map((v, i) => v - (b[i] as number));
const cross = (a: readonly number[], b: readonly number[]) =>
  [0, 1, 2].map(
    (i) =>
      (a[(i + 1) % 3] as number) * (b[(i + 2) % 3] as number) - (a[(i + 2) % 3] as number) * (b[(i + 1) % 3] as number),
  );

/** The workboat's mesh, brought in as a person would bring it in. */
export async function workboatMesh(boat: Boat, files: FileStore): Promise<MeshRecord> {
  const file = workboatStl();
  const stored = await files.put(Readable.from([file]));
  const positions = parseStl(file);
  const depthM = boat.draftM + boat.freeboardM;
  const placement = guessPlacement({ positions, loaM: boat.loaM, beamM: boat.beamM, depthM });
  const size = placeMesh(positions, placement);
  const waterline = { heightM: boat.draftM, heelDeg: 0, trimDeg: 0 };
  const bandM = 0.15;
  const { bandsM2, volumeBelowM3, cutShare } = meshAreas({
    positions,
    planes: [waterline, { ...waterline, heightM: waterline.heightM + bandM }],
    mirror: placement.mirror,
  });
  const { lines, waterlineGirthM } = linesFromMesh({ positions, waterline, ...size, mirror: placement.mirror });
  const [belowM2 = 0, bandM2 = 0, aboveM2 = 0] = bandsM2;
  return {
    fileHash: stored.hash,
    fileName: 'grey wether, one side.stl',
    bytes: stored.bytes,
    triangles: positions.length / 9,
    placement,
    waterline,
    bandM,
    size,
    areas: { belowM2, bandM2, aboveM2, volumeBelowM3, cutShare },
    defects: meshDefects({ positions, mirror: placement.mirror }),
    waterlineGirthM,
    lines,
  };
}
