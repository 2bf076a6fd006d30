/**
 * Everything the tests need, then all of them: Vitest on core and server, Playwright on the built
 * interface in Debian's Chromium. Closes with one line of true totals of both.
 */
import { spawnSync } from 'node:child_process';
import { existsSync, mkdirSync, readFileSync, rmSync } from 'node:fs';

const run = (command, args) =>
  spawnSync(command, args, { stdio: 'inherit', shell: process.platform === 'win32' }).status ?? 1;
const chromium = process.env.CHROMIUM ?? '/usr/bin/chromium';

if (!existsSync('node_modules/vitest') && run('npm', ['ci', '--no-audit', '--no-fund']) !== 0) process.exit(1);
if (!existsSync(chromium)) {
  const root = process.getuid?.() === 0;
  const done =
    root && run('apt-get', ['update', '-qq']) === 0 && run('apt-get', ['install', '-y', '-qq', 'chromium']) === 0;
  if (!done) {
    console.error(
      'The tests drive Chromium. Install it first: apt-get update && apt-get install -y chromium (or set CHROMIUM to its path).',
    );
    process.exit(1);
  }
}

rmSync('test-results', { recursive: true, force: true });
mkdirSync('test-results', { recursive: true });
const unit = run('npx', [
  'vitest',
  'run',
  '--reporter=default',
  '--reporter=json',
  '--outputFile.json=test-results/unit.json',
]);
const build = run('npm', ['run', '--silent', 'build']);
const e2e = build === 0 ? run('npx', ['playwright', 'test']) : 1;

const read = (file) => {
  try {
    return JSON.parse(readFileSync(file, 'utf8'));
  } catch {
    return null;
  }
};
const v = read('test-results/unit.json');
const e2eReport = read('test-results/e2e.json');
const p = e2eReport?.stats;
const failedUnits = (report) =>
  (report?.testResults ?? []).flatMap((file) =>
    file.assertionResults.filter((t) => t.status === 'failed').map((t) => t.fullName),
  );
const failedPages = (suite) => [
  ...(suite?.specs ?? [])
    .filter((spec) => !spec.ok || spec.tests.some((t) => t.status === 'flaky'))
    .map((spec) => spec.title),
  ...(suite?.suites ?? []).flatMap(failedPages),
];
// A runner that left no report ran nothing that may be counted as passed.
const passed = (v?.numPassedTests ?? 0) + (p ? p.expected : 0);
const failed = (v ? v.numFailedTests : 1) + (p ? p.unexpected + p.flaky : 1);
const skipped = (v ? v.numPendingTests + v.numTodoTests : 0) + (p?.skipped ?? 0);
// Named last, where whoever sees only the end of a long log finds them.
for (const name of [...failedUnits(v), ...failedPages(e2eReport)]) console.log(`failed: ${name}`);
console.log(`${passed} passed, ${failed} failed${skipped > 0 ? `, ${skipped} skipped` : ''}`);
process.exit(unit === 0 && e2e === 0 && failed === 0 ? 0 : 1);
