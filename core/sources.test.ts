import { readdirSync, readFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { expect, it } from 'vitest';

const read = (path: string) => readFileSync(fileURLToPath(new URL(path, import.meta.url)), 'utf8');

it('every file with a figure of common practice or from memory is in docs/sources.md with a way to check it', () => {
  const sources = read('../docs/sources.md');
  const labelled = readdirSync(fileURLToPath(new URL('.', import.meta.url)), { recursive: true, encoding: 'utf8' })
    .filter((name) => /\.ts$/.test(name) && !/\.(test|fixture)\.ts$/.test(name))
    .filter((name) => /\[[^\]\n]*\b(CP|M)\b[^\]\n]*\]/.test(read(`./${name}`).replace(/\[Math[^\]]*\]/g, '')));
  expect(labelled.length).toBeGreaterThan(20);
  expect(labelled.filter((name) => !sources.includes(`\`${name}\``))).toEqual([]);
});
