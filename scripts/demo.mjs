/** From a fresh clone to a running demo: installs if needed, builds, makes the demo yard, serves, prints the address. */
import { spawn, spawnSync } from 'node:child_process';
import { existsSync } from 'node:fs';

const must = (command, args) => {
  const { status } = spawnSync(command, args, { stdio: 'inherit', shell: process.platform === 'win32' });
  if (status !== 0) process.exit(status ?? 1);
};
if (!existsSync('node_modules/vite')) must('npm', ['ci', '--no-audit', '--no-fund']);
must('npm', ['run', '--silent', 'build']);

const server = spawn(process.execPath, ['dist-server/main.js'], {
  env: { ...process.env, JACKPLANE_DEMO: '1', LOG_LEVEL: process.env.LOG_LEVEL ?? 'info' },
  stdio: ['inherit', 'pipe', 'inherit'],
});
server.stdout.on('data', (chunk) => {
  for (const line of chunk.toString().split('\n')) {
    const ready = /ready at (http:\S+)/.exec(line);
    if (/open to the network/.test(line) && !line.startsWith('{')) console.log(`  ${line}`);
    if (ready) console.log(`\n  Jack Plane, demo yard: ${ready[1]}\n  Stop it with Ctrl C.\n`);
    else if (/"level":[456]0/.test(line)) console.error(line);
  }
});
for (const signal of ['SIGINT', 'SIGTERM']) process.on(signal, () => server.kill(signal));
server.on('exit', (code) => process.exit(code ?? 0));
