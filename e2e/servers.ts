import { prepareDatabase, runBuilt, startAppServer } from '../scripts/lib/app.mjs';
import { freePort } from '../scripts/lib/cluster.mjs';
import { growLaboratory, LARGE } from '../scripts/lib/largeLaboratory.mjs';
import { ROOT } from '../scripts/lib/place.mjs';
import { run } from '../scripts/lib/run.mjs';

/** What a laboratory of the journeys begins with: the records of the demo, those of many years, or nothing but a code. */
export type Beginning = 'demo' | 'large' | 'empty';

export interface Laboratory {
  readonly url: string;
  readonly databaseUrl: string;
  /** For the first account; empty where there are people. */
  readonly code: string;
  readonly stop: () => Promise<void>;
}

const TEMPLATE = 'journeys_template';

/** As many bottles as the bench has, and a tenth of the rest, which takes longer to make. */
const MANY_BOTTLES = { ...LARGE, run: 2_000, preparation: 500 };

/** Makes the demo laboratory once; those of the journeys are copies of its database. */
export default async function makeTemplate(): Promise<void> {
  await createDatabase(TEMPLATE);
  await prepareDatabase(ROOT, addressOf(TEMPLATE));
  await runBuilt(ROOT, 'Loading the demo laboratory', ['demo'], addressOf(TEMPLATE));
}

/** Serves a laboratory from a database of this name in the cluster that the test command runs. */
export async function serveLaboratory(database: string, beginsAs: Beginning): Promise<Laboratory> {
  const isEmpty = beginsAs === 'empty';
  await createDatabase(database, isEmpty ? undefined : TEMPLATE);
  const env = addressOf(database);
  const code = isEmpty ? (await prepareDatabase(ROOT, env, { issueCode: true })).code : null;
  if (beginsAs === 'large') {
    await growLaboratory(env.DATABASE_OWNER_URL, MANY_BOTTLES);
    await runBuilt(ROOT, 'Remaking the lists', ['rebuild'], env);
  }
  const port = String(await freePort());
  const server = await startAppServer(ROOT, { ...env, PORT: port, LOG_LEVEL: 'warn' });
  return {
    url: `http://127.0.0.1:${port}`,
    databaseUrl: env.DATABASE_URL,
    code: code ?? '',
    stop: server.stop,
  };
}

function clusterUrl(): string {
  const url = process.env.TEST_DATABASE_URL;
  if (!url) throw new Error('Run the browser tests with npm test -- browser.');
  return url;
}

function addressOf(database: string) {
  const url = clusterUrl().replace(/\/[^/]*$/, `/${database}`);
  return { DATABASE_URL: url, DATABASE_OWNER_URL: url };
}

async function createDatabase(database: string, template = 'template1'): Promise<void> {
  const statements = [
    `DROP DATABASE IF EXISTS ${database}`,
    `CREATE DATABASE ${database} TEMPLATE ${template}`,
  ];
  for (const sql of statements) {
    const outcome = await run('psql', ['-XAtq', '-c', sql, clusterUrl()]);
    if (outcome.code !== 0) throw new Error(outcome.output);
  }
}
