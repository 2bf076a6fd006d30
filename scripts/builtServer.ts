import { execFileSync } from 'node:child_process';

/** Before the tests: the server as it is now, built, and an empty database to start from. */
export default function buildServer(): void {
  execFileSync('npm', ['run', '--silent', 'build:server'], {
    stdio: ['ignore', 'ignore', 'inherit'],
    shell: process.platform === 'win32',
  });
}
