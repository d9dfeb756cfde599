import { Router } from 'express';
import { setTimeout as sleep } from 'node:timers/promises';
import { isMigrated } from '../database/migrate';
import type { AppParts } from '../parts';

/** Who asks whether a server is ready turns to another one soon. */
const READY_MS = 2_000;

/** `/healthz`: the process answers. `/readyz`: it can do its work, with the database it was made for. */
export function healthRoutes({ services, pulse }: Pick<AppParts, 'services' | 'pulse'>): Router {
  const router = Router();
  router.get('/healthz', (_request, response) => {
    response.type('text/plain').send('ok\n');
  });
  router.get('/readyz', async (request, response) => {
    const migrated = isMigrated(services.db).catch((error: unknown) => {
      request.log.warn({ err: error }, 'not ready');
      return false;
    });
    const isReady =
      pulse.isBeating && (await Promise.race([migrated, sleep(READY_MS, false, { ref: false })]));
    response
      .status(isReady ? 200 : 503)
      .type('text/plain')
      .send(isReady ? 'ready\n' : 'not ready\n');
  });
  return router;
}
