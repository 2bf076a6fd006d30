/** Server and interface with live reload, on the data of `.data/yard` (or JACKPLANE_DATA). */
import { spawn } from 'node:child_process';

const port = process.env.PORT ?? '4620';
const children = [
  spawn(
    process.execPath,
    ['--watch-path=server', '--watch-path=core', '--watch-path=contracts', '--import', 'tsx', 'server/main.ts'],
    {
      stdio: 'inherit',
      env: {
        ...process.env,
        PORT: port,
        JACKPLANE_HOSTS: `127.0.0.1:4621,localhost:4621,${process.env.JACKPLANE_HOSTS ?? ''}`,
      },
    },
  ),
  spawn(process.execPath, ['node_modules/vite/bin/vite.js'], {
    stdio: 'inherit',
    env: { ...process.env, API_PORT: port },
  }),
];
const stop = () => children.forEach((child) => child.kill('SIGTERM'));
process.on('SIGINT', stop);
process.on('SIGTERM', stop);
for (const child of children) child.on('exit', stop);
