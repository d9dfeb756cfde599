import { readFileSync } from 'node:fs';
import { createServer as createHttpServer } from 'node:http';
import { createServer as createHttpsServer } from 'node:https';
import { fileURLToPath } from 'node:url';
import { pino } from 'pino';
import { connectAsApplication, sessionPool } from './database/connection';
import { readServerSettings } from './environment';
import { createApp } from './http/app';
import { Feed } from './live/feed';
import { findSecret } from './people/queries';

/** A request must have come in within this time; answering has the database's own limits. */
const REQUEST_TIMEOUT_MS = 30_000;
const HEADERS_TIMEOUT_MS = 10_000;

const settings = readServerSettings(process.env);
const logger = pino({ name: 'vine-measure', level: settings.logLevel });
const db = connectAsApplication(settings.databaseUrl);
const pool = sessionPool(settings.databaseUrl);
const feed = new Feed(db, settings.databaseUrl, logger);
const sessionSigningKey = await findSecret(db, 'session-signing-key');
if (sessionSigningKey === null)
  throw new Error('The database has not been prepared: run npm start.');
await feed.start();

const app = createApp({
  services: { db, now: () => new Date() },
  feed,
  sessionPool: pool,
  sessionSigningKey,
  logger,
  webFolder: fileURLToPath(new URL('../web', import.meta.url)),
  publicUrl: settings.publicUrl,
  isSecure: settings.isSecure,
  requestsPerMinute: settings.requestsPerMinute,
});
const limits = { requestTimeout: REQUEST_TIMEOUT_MS, headersTimeout: HEADERS_TIMEOUT_MS };
const server = settings.tls
  ? createHttpsServer(
      {
        ...limits,
        cert: readFileSync(settings.tls.certificateFile),
        key: readFileSync(settings.tls.keyFile),
      },
      app,
    )
  : createHttpServer(limits, app);

server.once('error', (error) => {
  process.send?.({ kind: 'failed', why: error.message });
  process.exitCode = 1;
  if (process.connected) process.disconnect();
  void closeDatabase();
});
server.listen(settings.port, settings.host, () => {
  process.send?.({ kind: 'ready' });
});

async function closeDatabase(): Promise<void> {
  await feed.stop();
  await Promise.allSettled([db.destroy(), pool.end()]);
}

/** Answers what is under way, then leaves. */
function stop(): void {
  server.close(() => void closeDatabase());
  // Streams of events never end by themselves.
  void feed.stop();
  server.closeIdleConnections();
  setTimeout(() => {
    server.closeAllConnections();
  }, 3_000).unref();
  if (process.connected) process.disconnect();
}

process.once('SIGTERM', stop);
// Ctrl-C reaches the whole terminal group; the start command, which heard it too, says when to leave.
process.on('SIGINT', () => undefined);
process.once('disconnect', stop);
