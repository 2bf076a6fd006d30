import { sheet } from '#core/sheet/example.fixture';
import { USUAL_RULES, YARD_RULES_ID } from '#contracts/rows/stores';
import { boatFields, entryFields, layerFields, NOW, startBody, uuid, zoneFields } from './app.fixture';

/** Tests and soak only: hostile requests over every route, the same ones for the same seed. */
export interface HostileRequest {
  readonly method: string;
  readonly path: string;
  readonly headers: Record<string, string>;
  readonly body: string | Buffer | null;
}

export interface Known {
  readonly boat: string;
  readonly zone: string;
  readonly sheet: string;
  readonly revision: string;
  readonly buildUp: string;
  readonly layers: readonly { id: string }[];
}

export function hostile(r: () => number, known: Known, others: Known): HostileRequest {
  const pick = <T>(list: readonly T[]): T => list[Math.floor(r() * list.length)] as T;
  const anId = () =>
    pick([
      uuid(),
      known.boat,
      known.zone,
      known.sheet,
      known.revision,
      known.buildUp,
      others.boat,
      others.zone,
      others.revision,
      known.zone.toUpperCase(),
      'x',
      '00000000-0000-0000-0000-000000000000',
      "'; drop table boats; --",
      '%00',
      '..%2f..%2fetc%2fpasswd',
      'ü'.repeat(300),
      '%ff',
      '',
    ]);
  const text = () =>
    pick([
      '',
      ' ',
      'a\u0000b',
      'half \ud83d',
      '\udc00',
      'x'.repeat(20_000),
      '\u202e\u200b',
      '=cmd()',
      '<script>',
      '2026-02-30',
      '2026-13-01',
      '0000-00-00',
      '1e999',
      'null',
      '__proto__',
      '💧',
    ]);
  const number = () => pick([0, -0, -1, 1e308, 2 ** 31, 2 ** 53, 2 ** 63, 0.1, Number.MIN_VALUE, -5e9, 8.64e15]);
  const odd = (): unknown =>
    pick([
      text,
      number,
      () => null,
      () => [],
      () => ({}),
      () => true,
      () => [[[]]],
      () => ({ __proto__x: 1 }),
      () => Array(50).fill(null),
      () => anId(),
    ])();

  const target = { ...known, ...(r() < 0.2 ? { boat: others.boat } : {}) };
  const layer = layerFields(known.revision);
  const bodies: [string, () => unknown][] = [
    ['/boats/:id', () => boatFields],
    [
      '/jobs/:id',
      () => ({
        boatId: target.boat,
        outOn: '2026-05-01',
        inOn: null,
        yardCostPerDayMinor: null,
        currency: 'EUR',
        version: 0,
      }),
    ],
    [
      '/surfaces/:id',
      () => ({
        ...zoneFields(target.boat),
        deleted: r() < 0.3,
        parentId: r() < 0.3 ? anId() : null,
        patchKind: r() < 0.3 ? 'standPad' : null,
      }),
    ],
    [
      '/hulls/:id',
      () => ({
        boatId: target.boat,
        offsets: {
          stationsM: [0, 4, 8],
          waterlinesM: [0, 1],
          halfBreadthsM: [
            [1, 1],
            [1, 1],
            [1, 1],
          ],
          waterlineM: 1,
          fromBow: false,
          includeBottom: false,
        },
        mesh: null,
        deleted: r() < 0.3,
        version: 0,
      }),
    ],
    [
      '/build-ups/:id',
      () => ({
        boatId: target.boat,
        surfaceId: r() < 0.5 ? target.zone : anId(),
        layers: [layer],
        deleted: r() < 0.3,
        version: pick([0, 1]),
      }),
    ],
    [
      '/boats/:id/build-ups',
      () => ({
        rows: [
          { id: anId(), boatId: target.boat, surfaceId: target.zone, layers: [layer], version: 0 },
          { id: uuid(), boatId: target.boat, surfaceId: anId(), layers: [], version: 0 },
        ],
      }),
    ],
    [
      '/borders/:id',
      () => ({
        boatId: target.boat,
        upperId: target.zone,
        lowerId: anId(),
        rule: 'butt',
        widthM: 0,
        epoxyRunsOn: true,
        handStripM: 0,
        note: '',
        deleted: r() < 0.5,
        version: 0,
      }),
    ],
    [
      '/boats/:id/typed-weather/:id',
      () => ({
        days: [
          {
            date: pick(['2026-05-15', '2026-02-30', '9999-12-31', '2026-05-16']),
            lowC: 9,
            highC: 19,
            rh: 0.6,
            dewC: null,
            rainFrom: null,
            rainTo: null,
            windMs: null,
          },
        ],
        ...(r() < 0.3 ? { hours: [{ at: pick([NOW, 0, 9e15]), airC: pick([9, 900]), rh: pick([0.6, 6]) }] } : {}),
      }),
    ],
    ['/sheets/:id', () => ({ revisionId: anId(), body: sheet, deleted: r() < 0.3, version: pick([0, 1, 2]) })],
    ['/sheet-imports/:id', () => ({ taken: r() < 0.7, sheets: [{ id: anId(), revisionId: anId(), body: sheet }] })],
    [
      '/lots/:id',
      () => ({
        sheetId: anId(),
        part: 'Base',
        sizeL: 5,
        batchNumber: '',
        supplier: '',
        boughtOn: null,
        openedOn: null,
        expiresOn: null,
        leftL: 5,
        measuredAt: NOW,
        weighed: null,
        note: '',
        deleted: r() < 0.4,
        version: 0,
      }),
    ],
    [
      `/yard-rules/${YARD_RULES_ID}`,
      () => ({ chance: 0.9, consumables: USUAL_RULES.consumables, version: pick([0, 1]) }),
    ],
    [
      '/named-build-ups/:id',
      () => ({
        name: 'x',
        substrates: ['gelcoat'],
        exposure: 'immersed',
        bond: 'chemical',
        note: '',
        targetMicron: null,
        layers: [layer],
        version: 0,
      }),
    ],
    [
      '/entries/:id',
      () =>
        startBody(
          { ...target, layers: [...target.layers] },
          pick([uuid(), uuid().toUpperCase()]),
          NOW - Math.floor(r() * 1e7),
        ),
    ],
    [
      '/entries/:id',
      () =>
        entryFields(
          target.boat,
          anId(),
          pick(['finished', 'note', 'wetFilm', 'withdrawn', 'handTest', 'reading', 'emptied']),
          NOW,
          pick<object>([
            { litresOn: null },
            { text: 'x' },
            { micron: [100] },
            { reason: '' },
            { test: 'thumb', passed: true },
            { airC: 1, rh: 0.5, surfaceC: 1 },
          ]),
          r() < 0.3 ? anId() : null,
        ),
    ],
  ];
  const gets = [
    '/health',
    '/yard',
    '/stores',
    '/sheets',
    '/library',
    '/named-build-ups',
    '/keeping',
    '/boats/:id',
    '/sheets/:id',
    '/files/:id',
    '/boats/:id/coat-sheets.csv',
    '/nowhere',
    '/backups/:id/restore',
    '/../../etc/passwd',
  ];

  const filled = (path: string) => path.replace(/:id/g, () => anId());
  const headers: Record<string, string> = { 'X-Jack-Plane': '1' };
  if (r() < 0.25) {
    const query = pick(['', '', '?x=1', '?id[]=1', '?__proto__[x]=1', '?%00']);
    return {
      method: pick(['GET', 'GET', 'HEAD', 'POST', 'DELETE', 'PATCH']),
      path: filled(pick(gets)) + query,
      headers,
      body: null,
    };
  }
  const [path, make] = pick(bodies);
  // An id that can be is what most of the checks lie behind.
  const where =
    r() < 0.6
      ? path.replace(/:id/g, () => pick([uuid(), known.boat, known.zone, known.buildUp, known.sheet]))
      : filled(path);
  let body: unknown = structuredClone(make());
  for (let k = 0; k < Math.floor(r() * 3); k += 1) body = spoilt(body, r, odd, pick);
  headers['Content-Type'] =
    r() < 0.95 ? 'application/json' : pick(['text/plain', 'application/json; charset=utf-16', 'multipart/form-data']);
  const json = (JSON.stringify(body) as string | undefined) ?? '';
  return {
    method: 'PUT',
    path: where,
    headers,
    body:
      r() < 0.04
        ? pick([
            json.slice(0, -3),
            '[',
            '"',
            '',
            '{"a":1e999}',
            `${'['.repeat(5000)}${']'.repeat(5000)}`,
            '\ufeff{}',
            '{"__proto__":{"x":1}}',
          ])
        : json,
  };
}

/** One thing in it is another. */
function spoilt(value: unknown, r: () => number, odd: () => unknown, pick: <T>(list: readonly T[]) => T): unknown {
  if (value === null || typeof value !== 'object' || r() < 0.08) return odd();
  const keys = Object.keys(value);
  if (keys.length === 0 || r() < 0.08)
    return { ...value, [pick(['extra', '__proto__', 'constructor', 'id', 'version', 'a\u0000'])]: odd() };
  const key = pick(keys);
  if (Array.isArray(value)) return value.map((v, i) => (String(i) === key ? spoilt(v, r, odd, pick) : (v as unknown)));
  if (r() < 0.15) return Object.fromEntries(Object.entries(value).filter(([k]) => k !== key));
  return { ...value, [key]: spoilt((value as Record<string, unknown>)[key], r, odd, pick) };
}
