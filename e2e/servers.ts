import { prepareDatabase, runBuilt, startAppServer } from '../scripts/lib/app.mjs';
import { freePort } from '../scripts/lib/cluster.mjs';
import { ROOT } from '../scripts/lib/place.mjs';
import { run } from '../scripts/lib/run.mjs';

/**
 * Serves two laboratories to the journeys, the demo's and an empty one, from databases of their own in the
 * cluster that the test command runs. Gives the function that ends them.
 */
export default async function servers(): Promise<() => Promise<void>> {
  const cluster = process.env.TEST_DATABASE_URL;
  if (!cluster) throw new Error('Run the browser tests with npm test -- browser.');
  const demo = await serve(cluster, 'journey_demo', true);
  const empty = await serve(cluster, 'journey_empty', false);
  process.env.DEMO_URL = demo.url;
  process.env.DEMO_DATABASE_URL = demo.databaseUrl;
  process.env.EMPTY_URL = empty.url;
  process.env.FIRST_ACCOUNT_CODE = empty.code;
  return async () => {
    await Promise.all([demo.stop(), empty.stop()]);
  };
}

async function serve(cluster: string, database: string, isDemo: boolean) {
  for (const sql of [`DROP DATABASE IF EXISTS ${database}`, `CREATE DATABASE ${database}`]) {
    const outcome = await run('psql', ['-XAtq', '-c', sql, cluster]);
    if (outcome.code !== 0) throw new Error(outcome.output);
  }
  const url = cluster.replace(/\/[^/]*$/, `/${database}`);
  const env = { DATABASE_URL: url, DATABASE_OWNER_URL: url };
  const { code } = await prepareDatabase(ROOT, env, { issueCode: !isDemo });
  if (isDemo) await runBuilt(ROOT, 'Loading the demo laboratory', ['demo'], env);
  const port = String(await freePort());
  const server = await startAppServer(ROOT, { ...env, PORT: port, LOG_LEVEL: 'warn' });
  return { databaseUrl: url, url: `http://127.0.0.1:${port}`, code: code ?? '', stop: server.stop };
}
