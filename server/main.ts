import { fileURLToPath } from 'node:url';
import { pino } from 'pino';
import { connectAsApplication, sessionPool } from './database/connection';
import { createApp } from './http/app';
import { findSecret } from './people/queries';
import { requireEnvironment } from './environment';

const logger = pino({ name: 'vine-measure', level: process.env.LOG_LEVEL ?? 'info' });
const databaseUrl = requireEnvironment('DATABASE_URL');
const port = Number(process.env.PORT ?? 4680);
const host = process.env.HOST ?? '127.0.0.1';

const db = connectAsApplication(databaseUrl);
const pool = sessionPool(databaseUrl);
const sessionSigningKey = await findSecret(db, 'session-signing-key');
if (sessionSigningKey === null)
  throw new Error('The database has not been prepared: run npm start.');

const app = createApp({
  services: { db, now: () => new Date() },
  sessionPool: pool,
  sessionSigningKey,
  logger,
  webFolder: fileURLToPath(new URL('../web', import.meta.url)),
});
const server = app.listen(port, host, (error?: Error) => {
  if (error) {
    process.send?.({ kind: 'failed', why: error.message });
    process.exitCode = 1;
    if (process.connected) process.disconnect();
    void closeDatabase();
    return;
  }
  process.send?.({ kind: 'ready' });
});

async function closeDatabase(): Promise<void> {
  await Promise.allSettled([db.destroy(), pool.end()]);
}

/** Answers what is under way, then leaves. */
function stop(): void {
  server.close(() => void closeDatabase());
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
