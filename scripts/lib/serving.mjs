import { tail } from './run.mjs';
import { StepError } from './say.mjs';

/**
 * Waits until a start command serves, looks at its first page, and ends it.
 * @param {import('node:child_process').ChildProcess} child with its output piped
 * @param {string} port on loopback
 * @throws StepError with what it printed, when it does not serve our page
 */
export async function seeFirstPage(child, port) {
  let output = '';
  /** @type {Promise<void>} */
  const ended = new Promise((resolve) => child.once('exit', () => resolve()));
  /** @type {Promise<void>} */
  const serves = new Promise((resolve) => {
    for (const stream of [child.stdout, child.stderr]) {
      stream?.on('data', (chunk) => {
        output += chunk;
        if (output.includes('serves on')) resolve();
      });
    }
  });
  await Promise.race([serves, ended]);
  const page = await fetch(`http://127.0.0.1:${port}/`).then(
    (answer) => answer.text(),
    () => '',
  );
  child.kill('SIGTERM');
  await ended;
  if (page.includes('<title>Vine Measure</title>')) return;
  throw new StepError('npm start', tail(output, 30), 'see above.');
}
