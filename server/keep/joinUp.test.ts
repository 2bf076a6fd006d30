import { cpSync, existsSync, readdirSync, readFileSync, rmSync, truncateSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { describe, expect, it } from 'vitest';
import { boatFields, NOW, testApp, uuid } from '../app.fixture';
import { folder } from './folder.fixture';
import { lackWords, lacking } from './joins';
import { listBackups } from './backups';
import { segmentFiles } from './journal';
import { Gap, rebuild } from './rebuild';

/** What a folder is found as, and what is made of it: nothing that was saved goes without a word. */
const MINUTE = 60_000;

interface Used {
  readonly dir: string;
  readonly ids: string[];
  /** The database as it was after so many boats. */
  readonly older: string;
}

const made = new Map<number, Promise<Used>>();

/** A yard of so many boats, saved one after the other, with a backup after each fourth. Closed in order. A copy of its own. */
async function used(boats = 10): Promise<Used> {
  if (!made.has(boats)) made.set(boats, makeUsed(boats));
  const { dir, ids, older } = await (made.get(boats) as Promise<Used>);
  const own = folder();
  cpSync(dir, own, { recursive: true });
  return { dir: own, ids: [...ids], older };
}

async function makeUsed(boats: number): Promise<Used> {
  const [dir, older] = [folder('file'), folder('file')];
  const t = await testApp(dir);
  const ids: string[] = [];
  for (let n = 0; n < boats; n += 1) {
    t.clock.at = NOW + n * MINUTE;
    ids.push(uuid());
    await t.agent
      .put(`/api/boats/${ids[n]}`)
      .send({ ...boatFields, name: `Boat ${n + 1}` })
      .expect(200);
    if (n % 4 === 3) await t.yard.backups!.make('daily');
    if (n === 1) {
      // A database may be copied while it stands still.
      cpSync(join(dir, 'pg'), join(older, 'pg'), { recursive: true });
    }
  }
  await t.close();
  return { dir, ids, older };
}

/** As a power cut leaves it: not closed, and another run of the system. */
function powerCut(dir: string): void {
  const state = JSON.parse(readFileSync(join(dir, 'state.json'), 'utf8')) as object;
  writeFileSync(join(dir, 'state.json'), JSON.stringify({ ...state, boot: 'the run before', clean: false }));
}
const backupsOf = (dir: string) => listBackups(dir).map((b) => b.name);
const segment = (dir: string, at: number) => segmentFiles(join(dir, 'journal')).at(at) as string;
const flip = (file: string, at: number) => {
  const content = readFileSync(file);
  content[at] = (content[at] as number) ^ 0x55;
  content[at + 1] = (content[at + 1] as number) ^ 0x55;
  writeFileSync(file, content);
};
/** How many of the boats the yard shows, and what a person is told. */
async function opened(dir: string) {
  const t = await testApp(dir);
  const { boats, keptNotice } = (await t.agent.get('/api/yard').expect(200)).body as {
    boats: { boat: { id: string } }[];
    keptNotice: string | null;
  };
  const told = { there: boats.map((b) => b.boat.id), notice: keptNotice, putRight: t.yard.putRight };
  return { ...told, t };
}

/** Harms to a folder, and whether everything that was saved must be there afterwards with or without a notice. */
const HARMS: readonly [string, (used: Used) => void, { notice: RegExp | null; putRight?: RegExp }][] = [
  ['nothing else', () => undefined, { notice: null, putRight: /nothing that was saved is missing/ }],
  ['no database', ({ dir }) => rmSync(join(dir, 'pg'), { recursive: true }), { notice: null, putRight: /nothing/ }],
  [
    'an older database folder',
    ({ dir, older }) => {
      rmSync(join(dir, 'pg'), { recursive: true });
      cpSync(join(older, 'pg'), join(dir, 'pg'), { recursive: true });
    },
    { notice: null, putRight: /nothing that was saved is missing/ },
  ],
  [
    'no backups, the whole journal',
    ({ dir }) => rmSync(join(dir, 'backups'), { recursive: true }),
    { notice: null, putRight: /nothing that was saved is missing/ },
  ],
  [
    'no backups, the journal as far back as they went',
    ({ dir }) => {
      rmSync(join(dir, 'backups'), { recursive: true });
      rmSync(segment(dir, 0));
    },
    { notice: /taken as the computer left it.*changes 1 to 4/ },
  ],
  [
    'every backup damaged, the journal as far back as they went',
    ({ dir }) => {
      for (const name of backupsOf(dir)) flip(join(dir, 'backups', name), 200);
      rmSync(segment(dir, 0));
    },
    { notice: /cannot be used/ },
  ],
  [
    'the newest backup without its last kilobyte',
    ({ dir }) => {
      const path = join(dir, 'backups', backupsOf(dir).at(-1) as string);
      truncateSync(path, Math.max(100, readFileSync(path).length - 1024));
    },
    { notice: null, putRight: /nothing that was saved is missing.*cannot be used/ },
  ],
  [
    'two bytes of the journal flipped since the last backup',
    ({ dir }) => flip(segment(dir, -1), readFileSync(segment(dir, -1)).length - 300),
    { notice: /change/ },
  ],
  ['the journal cut at its last backup', ({ dir }) => rmSync(segment(dir, -1)), { notice: /changes 9 to 10/ }],
  ['the first line of the last segment flipped', ({ dir }) => flip(segment(dir, -1), 40), { notice: /cannot be read/ }],
];

describe('after a power cut', () => {
  for (const [name, harm, expected] of HARMS) {
    it(`${name}: every boat is there, and what cannot be vouched for is named`, async () => {
      const yard = await used();
      powerCut(yard.dir);
      harm(yard);
      const first = await opened(yard.dir);
      expect([...first.there].sort()).toEqual([...yard.ids].sort());
      if (expected.notice === null) expect(first.notice).toBeNull();
      else expect(first.notice).toMatch(expected.notice);
      if (expected.putRight) expect(first.putRight).toMatch(expected.putRight);
      else expect(first.putRight ?? '').not.toMatch(/nothing that was saved is missing/);
      // Saving goes on, and the next power cut finds backup and journal joined.
      const more = uuid();
      await first.t.agent.put(`/api/boats/${more}`).send(boatFields).expect(200);
      await first.t.close();
      powerCut(yard.dir);
      rmSync(join(yard.dir, 'pg'), { recursive: true });
      const second = await opened(yard.dir);
      expect([...second.there].sort()).toEqual([...yard.ids, more].sort());
      expect(second.putRight).toMatch(/nothing that was saved is missing/);
      // It stays until somebody says to have read it.
      expect(second.notice === null).toBe(expected.notice === null);
      await second.t.agent.post('/api/keeping/read').expect(200);
      expect((await second.t.agent.get('/api/yard')).body.keptNotice).toBeNull();
      await second.t.close();
    });
  }
});

describe('at a start in order', () => {
  it('a journal that was cut in half is seen: a backup at once, and one more save is safe too', async () => {
    const { dir, ids } = await used(10);
    const content = readFileSync(segment(dir, -1));
    writeFileSync(segment(dir, -1), content.subarray(0, content.indexOf(10, content.indexOf(10) + 1) + 1));
    const { t, there, notice } = await opened(dir);
    expect(there).toHaveLength(10);
    expect(notice).toMatch(/lacks change 10.*The database has them.*backed up at once/);
    expect(listBackups(dir).at(-1)).toMatchObject({ why: 'gap', change: 10 });
    const more = uuid();
    await t.agent.put(`/api/boats/${more}`).send(boatFields).expect(200);
    await t.close();
    powerCut(dir);
    rmSync(join(dir, 'pg'), { recursive: true });
    const again = await opened(dir);
    expect([...again.there].sort()).toEqual([...ids, more].sort());
    await again.t.close();
  });

  it('without its journal: the database is taken, a new journal begun, and numbers go on', async () => {
    const { dir } = await used(6);
    rmSync(join(dir, 'journal'), { recursive: true });
    const { t, there, notice } = await opened(dir);
    expect(there).toHaveLength(6);
    expect(notice).toMatch(/no journal .* any more/);
    await t.agent.put(`/api/boats/${uuid()}`).send(boatFields).expect(200);
    expect(t.store.journal.n).toBe(7);
    await t.close();
    const again = await opened(dir);
    expect(again.there).toHaveLength(7);
    await again.t.close();
  });

  it('a segment that began a history of its own and is gone is told of, and saving goes on', async () => {
    const { dir } = await used(6);
    truncateSync(segment(dir, -1), 5);
    // The first time a history of its own begins; then that one loses its beginning.
    for (const round of [1, 2]) {
      const { t, there, notice } = await opened(dir);
      expect(there).toHaveLength(5 + round);
      expect(notice).toMatch(round === 1 ? /changes 5 to 6/ : /last part of the journal .* is not there any more/);
      await t.agent.put(`/api/boats/${uuid()}`).send(boatFields).expect(200);
      await t.close();
      truncateSync(segment(dir, -1), 5);
    }
    powerCut(dir);
    const { t, there, notice } = await opened(dir);
    expect(there).toHaveLength(8);
    expect(notice).toMatch(/taken as the computer left it.*last part of the journal/);
    await t.close();
  });

  it('two folders mixed are refused, and nothing of either is touched', async () => {
    const [one, other] = [await used(4), await used(5)];
    rmSync(join(one.dir, 'pg'), { recursive: true });
    cpSync(join(other.dir, 'pg'), join(one.dir, 'pg'), { recursive: true });
    const before = readdirSync(join(one.dir, 'journal'));
    await expect(testApp(one.dir)).rejects.toThrow(/Two folders were mixed.*Nothing was touched.*Put the folders/);
    expect(readdirSync(join(one.dir, 'journal'))).toEqual(before);
    rmSync(join(one.dir, 'pg'), { recursive: true });
    const { t, there } = await opened(one.dir);
    expect([...there].sort()).toEqual([...one.ids].sort());
    await t.close();
  });

  it('a database that is behind gets what it lacks; one that is behind a gap is put together again', async () => {
    const { dir, ids, older } = await used(10);
    rmSync(join(dir, 'pg'), { recursive: true });
    cpSync(join(older, 'pg'), join(dir, 'pg'), { recursive: true });
    const { t, there, putRight } = await opened(dir);
    expect([...there].sort()).toEqual([...ids].sort());
    expect(putRight).toMatch(/had not reached the database/);
    await t.close();
    rmSync(join(dir, 'pg'), { recursive: true });
    cpSync(join(older, 'pg'), join(dir, 'pg'), { recursive: true });
    rmSync(segment(dir, 0));
    const again = await opened(dir);
    expect([...again.there].sort()).toEqual([...ids].sort());
    expect(again.putRight).toMatch(/older than the journal/);
    await again.t.close();
  });

  it('a folder that was copied while the program ran is whole, or says what it is not', async () => {
    const dir = folder();
    const t = await testApp(dir);
    const ids = Array.from({ length: 6 }, () => uuid());
    for (const id of ids) await t.agent.put(`/api/boats/${id}`).send(boatFields).expect(200);
    const copy = folder();
    cpSync(dir, copy, { recursive: true, filter: (path) => !path.endsWith('/lock') });
    await t.close();
    const { t: other, there } = await opened(copy);
    expect([...there].sort()).toEqual([...ids].sort());
    await other.close();
  });
});

describe('putting together by hand', () => {
  it('refuses what does not join up, by number and time, and touches nothing', async () => {
    const { dir } = await used(10);
    const at = segment(dir, -1);
    const lines = readFileSync(at, 'utf8').split('\n');
    writeFileSync(at, [lines[0], ...lines.slice(2)].join('\n'));
    const error = await rebuild(dir, { until: null }).catch((e: unknown) => e as Error);
    expect(error).toBeInstanceOf(Gap);
    expect((error as Error).message).toMatch(
      /Neither a backup nor the journal has change 9, made between .* and .*up to change 8: npm run recover -- --until \d{4}-/,
    );
    expect(existsSync(join(dir, 'pg'))).toBe(true);
    expect(readdirSync(dir).some((name) => name.startsWith('pg-aside'))).toBe(false);
  });

  it('refuses a moment before anything that is kept, with the earliest that can be had', async () => {
    const { dir } = await used(10);
    for (const name of backupsOf(dir).slice(0, 1)) rmSync(join(dir, 'backups', name));
    rmSync(segment(dir, 0));
    await expect(rebuild(dir, { until: NOW + MINUTE })).rejects.toThrow(/goes back to 14 May 2026/);
  });

  it('takes changes in their order where a clock was wrong meanwhile, and says so', async () => {
    const dir = folder();
    const t = await testApp(dir);
    const DAY = 24 * 60 * MINUTE;
    for (const [n, at] of [0, 1, 400, 401, 3, 4].entries()) {
      t.clock.at = NOW + at * DAY;
      await t.agent
        .put(`/api/boats/${uuid()}`)
        .send({ ...boatFields, name: `Boat ${n}` })
        .expect(200);
    }
    await t.close();
    const built = await rebuild(dir, { until: NOW + 3.5 * DAY });
    expect(built.upTo?.n).toBe(5);
    expect(built.notes.join(' ')).toMatch(/2 changes in it bear a later time: the clock was changed meanwhile/);
  });
});

describe('what is lacking', () => {
  it('is told by its numbers and the times around it', () => {
    const seen = new Map([
      [1, NOW],
      [4, NOW + MINUTE],
    ]);
    expect(lacking(seen, 1, 5)).toEqual([
      { from: 2, to: 3, after: NOW, before: NOW + MINUTE },
      { from: 5, to: 5, after: NOW + MINUTE, before: null },
    ]);
    expect(lackWords({ from: 2, to: 3, after: null, before: null })).toBe('changes 2 to 3');
    expect(lacking(seen, 2, 1)).toEqual([]);
  });
});
