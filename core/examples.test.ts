import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import ts from 'typescript';
import { describe, expect, it } from 'vitest';
import * as core from './index';
import * as given from './examples.fixture';

/**
 * Examples in the comments of the core are run: `expression // → value`, or `// → throws Sentence.` Numbers are held to
 * the digits that stand there. Names are those of the core and of `examples.fixture.ts`.
 */
const root = fileURLToPath(new URL('..', import.meta.url));
const isSource = (name: string) => /\.tsx?$/.test(name) && !/\.(test|spec|fixture|d)\.tsx?$/.test(name);
const sources = (folder: string) =>
  readdirSync(join(root, folder), { recursive: true, encoding: 'utf8' })
    .filter(isSource)
    .map((name) => ({ path: `${folder}/${name}`, text: readFileSync(join(root, folder, name), 'utf8') }));

interface Documented {
  readonly path: string;
  readonly name: string;
  readonly examples: readonly string[];
}

/** Every exported function of a file, with the examples in its comment. */
function documented({ path, text }: { path: string; text: string }): Documented[] {
  const file = ts.createSourceFile(path, text, ts.ScriptTarget.Latest, true);
  return file.statements.flatMap((statement) => {
    if (!ts.canHaveModifiers(statement)) return [];
    if (!ts.getModifiers(statement)?.some((m) => m.kind === ts.SyntaxKind.ExportKeyword)) return [];
    const examples = ts
      .getJSDocTags(statement)
      .filter((tag) => tag.tagName.text === 'example')
      .map((tag) => ts.getTextOfJSDocComment(tag.comment) ?? '');
    if (ts.isFunctionDeclaration(statement)) return [{ path, name: statement.name?.text ?? '', examples }];
    if (!ts.isVariableStatement(statement)) return [];
    return statement.declarationList.declarations
      .filter((d) => d.initializer && ts.isArrowFunction(d.initializer))
      .map((d) => ({ path, name: d.name.getText(file), examples }));
  });
}

const functions = sources('core').flatMap(documented);
/** What the rest of the program imports of the core, as `path name`. */
const imported = new Set(
  ['web', 'server', 'contracts']
    .flatMap(sources)
    .flatMap(({ text }) =>
      [...text.matchAll(/import (?:type )?\{([^}]*)\} from '#(core\/[^']+)'/g)].flatMap(([, names, path]) =>
        names!.split(',').map((name) => `${path}.ts ${name.replace(/^\s*type /, '').trim()}`),
      ),
    ),
);

function evaluated(expression: string): unknown {
  const scope = { ...core, ...given };
  return (new Function(...Object.keys(scope), `return (${expression}\n)`) as (...values: unknown[]) => unknown)(
    ...Object.values(scope),
  );
}

/** Numbers to the digits of the ones they are held against. */
function asWritten(found: unknown, written: unknown, text: string): unknown {
  if (typeof found === 'number' && typeof written === 'number') {
    const digits = Math.max(0, ...[...text.matchAll(/-?\d+(?:\.(\d+))?/g)].map((m) => m[1]?.length ?? 0));
    return Number(found.toFixed(digits));
  }
  if (Array.isArray(found) && Array.isArray(written)) return found.map((f, i) => asWritten(f, written[i], text));
  if (found !== null && written !== null && typeof found === 'object' && typeof written === 'object')
    return Object.fromEntries(
      Object.entries(found).map(([key, f]) => [key, asWritten(f, (written as Record<string, unknown>)[key], text)]),
    );
  return found;
}

describe('examples of the core', () => {
  it('every function that the rest of the program uses has one', () => {
    const without = functions.filter((f) => imported.has(`${f.path} ${f.name}`) && f.examples.length === 0);
    expect(without.map((f) => `${f.path} ${f.name}`)).toEqual([]);
    expect(functions.filter((f) => imported.has(`${f.path} ${f.name}`)).length).toBeGreaterThan(100);
  });

  const examples = functions.flatMap((f) => f.examples.map((example) => [`${f.path} ${f.name}`, example] as const));
  it.each(examples)('%s', (_name, example) => {
    const [expression, written] = example.split('// →').map((part) => part.trim());
    expect(written, 'an example ends with "// →" and what comes out').toBeTruthy();
    if (written!.startsWith('throws ')) {
      expect(() => evaluated(expression!)).toThrow(written!.slice('throws '.length));
      return;
    }
    const expected = evaluated(written!);
    expect(asWritten(evaluated(expression!), expected, written!)).toEqual(expected);
  });
});
