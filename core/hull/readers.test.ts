import { readFileSync } from 'node:fs';
import { OBJLoader } from 'three/examples/jsm/loaders/OBJLoader.js';
import { STLLoader } from 'three/examples/jsm/loaders/STLLoader.js';
import type { BufferGeometry, Mesh } from 'three';
import { describe, expect, it } from 'vitest';
import { meshAreas, meshDefects, parseObj, parseStl } from '../index';
import { binaryStl, box, ellipsoid } from './solids.fixture';

const fixture = (name: string) => new Uint8Array(readFileSync(new URL(`./fixtures/${name}`, import.meta.url)));
const text = (s: string) => new TextEncoder().encode(s);
const positionsOf = (geometry: BufferGeometry) => Array.from(geometry.getAttribute('position').array);
const byThreeStl = (bytes: Uint8Array) => positionsOf(new STLLoader().parse(bytes.slice().buffer));
const byThreeObj = (source: string) =>
  new OBJLoader().parse(source).children.flatMap((c) => positionsOf((c as Mesh).geometry));

describe('STL against three.js’s STLLoader [reference: three, from the registry]', () => {
  it.each(['punt-binary.stl', 'punt-ascii.stl', 'buoy-binary.stl'])(
    '%s, made by OpenSCAD 2021.01: positions equal',
    (name) => {
      const bytes = fixture(name);
      const mine = Array.from(parseStl(bytes));
      expect(mine.length).toBeGreaterThan(9 * 20);
      expect(mine).toEqual(byThreeStl(bytes));
    },
  );
  it('a ball written by the test: positions equal, from an odd place in memory too', () => {
    const bytes = binaryStl(ellipsoid(1, 2, 3, 20));
    const moved = new Uint8Array(bytes.length + 1);
    moved.set(bytes, 1);
    expect(Array.from(parseStl(bytes))).toEqual(byThreeStl(bytes));
    expect(parseStl(moved.subarray(1))).toEqual(parseStl(bytes));
  });
  it('binary that begins with "solid" is read as binary', () => {
    const bytes = binaryStl(box(1, 2, 3), 'solid made by a program that knew no better');
    expect(Array.from(parseStl(bytes))).toEqual(Array.from(box(1, 2, 3)));
  });
  it('the two files of the punt hold the same hull; its size by hand', () => {
    const [a, b] = ['punt-binary.stl', 'punt-ascii.stl'].map((n) =>
      meshAreas({ positions: parseStl(fixture(n)).map((v) => v / 1000), planes: [] }),
    );
    expect(a?.totalM2).toBeCloseTo(b?.totalM2 as number, 4);
    // Deck of the punt, from the drawing: 3.5 × 1.4 and a trapezium to the stem, 0.5 long.
    expect(a?.totalM2).toBeGreaterThan(2 * (3.5 * 1.4));
    expect(meshDefects({ positions: parseStl(fixture('punt-binary.stl')) })).toEqual({
      openEdges: 0,
      degenerate: 0,
      inverted: 0,
    });
  });
  it('takes ASCII as people’s programs write it: exponents, CRLF, capitals, several solids', () => {
    const facet = (x: string) =>
      `FACET NORMAL 0 0 1\r\n OUTER LOOP\r\n  VERTEX ${x} 0 0\r\n  VERTEX 1.0e0 0. .0\r\n\tVERTEX 0 +1E+00 -0.0\r\n ENDLOOP\r\nENDFACET\r\n`;
    const file = `solid a b c\r\n${facet('-1e-3')}endsolid a b c\r\nsolid\r\n${facet('2')}endsolid\r\n`;
    expect(Array.from(parseStl(text(file)))).toEqual([
      Math.fround(-0.001),
      0,
      0,
      1,
      0,
      0,
      0,
      1,
      -0,
      2,
      0,
      0,
      1,
      0,
      0,
      0,
      1,
      -0,
    ]);
  });
  const whole = binaryStl(box(1, 1, 1));
  const ascii = new TextDecoder().decode(fixture('punt-ascii.stl'));
  it.each<[string, Uint8Array, RegExp]>([
    ['nothing', new Uint8Array(0), /is empty/],
    ['a short note', text('hello'), /too short to be one/],
    ['a picture', Uint8Array.from({ length: 4000 }, (_, i) => (i * 97) % 256), /not an STL file/],
    [
      'a text that begins with solid',
      text(`solid advice: ${'paint in the shade. '.repeat(20)}`),
      /though it begins like one/,
    ],
    ['binary cut off', whole.slice(0, 300), /speaks of 12 triangles and holds 4\. It was cut off/],
    [
      'ASCII cut off between triangles',
      text(ascii.slice(0, ascii.indexOf('endfacet') + 9)),
      /stops after 1 triangles without its end/,
    ],
    ['ASCII cut off in a triangle', text(ascii.slice(0, ascii.indexOf('endfacet') - 40)), /without its end/],
    ['no triangles, binary', binaryStl(new Float32Array(0)), /not one triangle/],
    ['no triangles, ASCII', text('solid void\nendsolid void\n'), /not one triangle/],
    [
      'NaN in ASCII',
      text(
        'solid\nfacet normal 0 0 1\nouter loop\nvertex nan 0 0\nvertex 1 0 0\nvertex 0 1 0\nendloop\nendfacet\nendsolid',
      ),
      /triangle 1 is not a number/,
    ],
    [
      'a vertex that cannot be read',
      text(
        'solid\nfacet normal 0 0 1\nouter loop\nvertex 1,5 0 0\nvertex 1 0 0\nvertex 0 1 0\nendloop\nendfacet\nendsolid',
      ),
      /three corners that can be read/,
    ],
  ])('refuses %s in a sentence', (_, bytes, message) => {
    expect(() => parseStl(bytes)).toThrow(RangeError);
    expect(() => parseStl(bytes)).toThrow(message);
  });
});

describe('OBJ against three.js’s OBJLoader [reference: three, from the registry]', () => {
  const cube = `# a box\nmtllib none.mtl\no box\nv 0 0 0\nv 1 0 0\nv 1 1 0\nv 0 1 0\nv 0 0 1\nv 1 0 1\nv 1 1 1\nv 0 1 1\nvt 0 0\nvn 0 0 1\ng sides\nusemtl paint\ns off\nf 4 3 2 1\nf 5/1 6/1 7/1 8/1\nf 1//1 2//1 6//1 5//1\nf 2/1/1 3/1/1 7/1/1 6/1/1\nf 3 4 8 7\nf 4 1 5 8\n`;
  it('quads with every kind of index: positions equal', () => {
    expect(Array.from(parseObj(cube))).toEqual(byThreeObj(cube));
    expect(meshAreas({ positions: parseObj(cube), planes: [] }).totalM2).toBeCloseTo(6, 9);
  });
  it('n-gons, negative indices and CRLF: positions equal', () => {
    const ring = Array.from(
      { length: 7 },
      (_, i) => `v ${Math.cos((2 * Math.PI * i) / 7)} ${Math.sin((2 * Math.PI * i) / 7)} 0`,
    );
    const file = [...ring, 'f -7 -6 -5 -4 -3 -2 -1', 'v 0 0 2', 'f 1 2 -1'].join('\r\n');
    expect(Array.from(parseObj(file))).toEqual(byThreeObj(file));
    expect(parseObj(file).length).toBe(9 * 6);
  });
  it('a face that is not convex keeps its area', () => {
    // An L of five unit squares out of nine, by hand: area 5.
    const corners = [
      [0, 0],
      [3, 0],
      [3, 1],
      [1, 1],
      [1, 3],
      [0, 3],
    ];
    for (let turn = 0; turn < 6; turn += 1) {
      const order = corners.map((_, i) => ((i + turn) % 6) + 1);
      const file = `${corners.map(([x, y]) => `v ${x} 0 ${y}`).join('\n')}\nf ${order.join(' ')}`;
      expect(meshAreas({ positions: parseObj(file), planes: [] }).totalM2).toBeCloseTo(5, 6);
    }
  });
  it('lines continued with a backslash', () => {
    expect(parseObj('v 0 0 0\nv 1 0 0\nv 0 1 0\nf 1 \\\n2 3')).toHaveLength(9);
  });
  it.each([
    ['a letter', 'Dear yard,\nthe boat is ready.', /neither vertex nor face/],
    ['vertices alone', 'v 0 0 0\nv 1 0 0\nv 0 1 0', /not one face/],
    ['an index beyond the list', 'v 0 0 0\nv 1 0 0\nv 0 1 0\nf 1 2 9', /Line 4: there is no vertex 9/],
    ['index zero', 'v 0 0 0\nv 1 0 0\nv 0 1 0\nf 0 1 2', /no vertex 0/],
    ['a face of two', 'v 0 0 0\nv 1 0 0\nf 1 2', /needs three corners/],
    ['NaN', 'v 0 nan 0\n', /Line 1: the vertex does not have three numbers/],
    ['decimal commas', 'v 0,5 1,5 0\nv 1 0 0\nv 0 1 0\nf 1 2 3', /Line 1/],
  ])('refuses %s in a sentence', (_, file, message) => {
    expect(() => parseObj(file)).toThrow(RangeError);
    expect(() => parseObj(file)).toThrow(message);
  });
});
