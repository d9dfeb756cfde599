// npm run dev: the pages as they are being written, on the server that `npm start` runs. Pages follow every change at once; what
// changes on the server takes a new start.
import { spawn } from 'node:child_process';
import { createServer } from 'vite';
import { ROOT } from './lib/place.mjs';
import { say } from './lib/say.mjs';

const serverPort = process.env['PORT'] || '4680';
const pagesPort = Number(process.env['DEV_PORT'] || '4690');
const target = `http://127.0.0.1:${serverPort}`;

async function answers() {
  return fetch(`${target}/readyz`).then(
    ({ ok }) => ok,
    () => false,
  );
}

/** @type {import('node:child_process').ChildProcess | null} */
let server = null;
if (!(await answers())) {
  server = spawn(process.execPath, ['scripts/start.mjs', ...process.argv.slice(2)], {
    cwd: ROOT,
    stdio: 'inherit',
  });
  while (!(await answers())) {
    if (server.exitCode !== null) process.exit(server.exitCode);
    await new Promise((resolve) => setTimeout(resolve, 300));
  }
}

const pages = await createServer({
  root: `${ROOT}/web`,
  configFile: `${ROOT}/vite.config.ts`,
  server: {
    host: '127.0.0.1',
    port: pagesPort,
    strictPort: true,
    // The server takes a change only from pages of the host that it was asked under, and believes no header on who asks.
    proxy: { '/api': { target, changeOrigin: false, xfwd: false } },
  },
});
await pages.listen();
say(`The pages as they are being written: http://127.0.0.1:${pagesPort}`);

const stop = async () => {
  await pages.close();
  server?.kill('SIGTERM');
};
process.once('SIGINT', () => void stop());
process.once('SIGTERM', () => void stop());
