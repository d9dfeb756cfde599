import cluster from 'node:cluster';
import { readFileSync } from 'node:fs';
import { createServer as createHttpServer } from 'node:http';
import { setTimeout as sleep } from 'node:timers/promises';
import { createServer as createHttpsServer } from 'node:https';
import { fileURLToPath } from 'node:url';
import type { Express } from 'express';
import type { Knex } from 'knex';
import type { Logger } from 'pino';
import { HeadNotes } from './audit/heads';
import { failureText } from './commands/command';
import {
  connectAsApplication,
  OpenConnections,
  poolSizes,
  sessionPool,
} from './database/connection';
import { Pulse } from './database/pulse';
import type { ServerSettings } from './environment';
import { readServerSettings } from './environment';
import { createApp } from './http/app';
import { makeLogger } from './http/logger';
import { Printer } from './print/printer';
import { Feed } from './live/feed';
import { findSecret, prune } from './people/queries';

/** A request must have come in within this time; answering has the database's own limits. */
const REQUEST_TIMEOUT_MS = 30_000;
const HEADERS_TIMEOUT_MS = 10_000;

/** How often sessions and attempts that have run out are forgotten. */
const PRUNE_MS = 15 * 60_000;

/** What is under way when the server is told to stop has this long. */
const FAREWELL_MS = 3_000;

/** Serves until it is told to stop. @throws Error that says what is wrong */
async function serve(): Promise<void> {
  const settings = readServerSettings(process.env);
  const logger = makeLogger(settings.logLevel);
  const connections = new OpenConnections();
  const sizes = poolSizes(settings.databaseConnections);
  const db = connectAsApplication(settings.databaseUrl, connections, sizes);
  const pool = sessionPool(settings.databaseUrl, connections, sizes);
  const pulse = new Pulse(settings.databaseUrl, connections, logger);
  const feed = new Feed(db, settings.databaseUrl, logger);
  const printer = new Printer(fileURLToPath(new URL('./printWorker.js', import.meta.url)));
  const heads = settings.auditHeadsFile ? new HeadNotes(db, settings.auditHeadsFile, logger) : null;
  const closeDatabase = async (): Promise<void> => {
    await Promise.all([feed.stop(), pulse.stop(), heads?.stop()]);
    await Promise.allSettled([db.destroy(), pool.end(), printer.close()]);
  };
  try {
    const sessionSigningKey = await findSecret(db, 'session-signing-key');
    if (sessionSigningKey === null) throw new Error('the database has not been prepared');
    await feed.start();
    pulse.start();
    heads?.start();
    const app = createApp({
      ...settings,
      services: { db, now: () => new Date() },
      feed,
      printer,
      pulse,
      sessionPool: pool,
      sessionSigningKey,
      pause: sleep,
      logger,
      webFolder: fileURLToPath(new URL('../web', import.meta.url)),
    });
    const server = createServer(app, settings);
    await new Promise<void>((resolve, reject) => {
      server.once('error', reject);
      server.listen(settings.port, settings.host, resolve);
    });
    const pruning = setInterval(() => void pruneQuietly(db, logger), PRUNE_MS);
    stopWhenTold(() => {
      clearInterval(pruning);
      server.close(() => void closeDatabase());
      // Streams of events never end by themselves.
      void feed.stop();
      server.closeIdleConnections();
      setTimeout(() => {
        server.closeAllConnections();
      }, FAREWELL_MS).unref();
    });
  } catch (error) {
    await closeDatabase();
    throw error;
  }
}

/** Forgets what has run out; a database that is away is asked again next time. */
async function pruneQuietly(db: Knex, logger: Logger): Promise<void> {
  await prune(db, new Date()).catch((error: unknown) => {
    logger.warn({ err: error }, 'what has run out could not be forgotten');
  });
}

function createServer(app: Express, { tls }: ServerSettings) {
  const limits = { requestTimeout: REQUEST_TIMEOUT_MS, headersTimeout: HEADERS_TIMEOUT_MS };
  if (!tls) return createHttpServer(limits, app);
  const cert = readFileSync(tls.certificateFile);
  const key = readFileSync(tls.keyFile);
  return createHttpsServer({ ...limits, cert, key }, app);
}

/** The start command says when to leave. */
function stopWhenTold(stop: () => void): void {
  process.once('SIGTERM', () => {
    stop();
    // Said to the start command, which would take a silent end for a failure. When that is gone, so is this at once.
    cluster.worker?.disconnect();
  });
  // Ctrl-C reaches the whole terminal group; the start command, which heard it too, says when to leave.
  process.on('SIGINT', () => undefined);
}

try {
  await serve();
  process.send?.({ kind: 'ready' });
} catch (error) {
  const why = failureText(error);
  if (process.send) process.send({ kind: 'failed', why });
  else console.error(why);
  process.exitCode = 1;
  cluster.worker?.disconnect();
}
