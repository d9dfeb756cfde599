import { Router } from 'express';
import { isMigrated } from '../database/migrate';
import type { Services } from '../services';

/** `/healthz`: the process answers. `/readyz`: it can do its work, with the database it was made for. */
export function healthRoutes({ db }: Services): Router {
  const router = Router();
  router.get('/healthz', (_request, response) => {
    response.type('text/plain').send('ok\n');
  });
  router.get('/readyz', async (request, response) => {
    const isReady = await isMigrated(db).catch((error: unknown) => {
      request.log.warn({ err: error }, 'not ready');
      return false;
    });
    response
      .status(isReady ? 200 : 503)
      .type('text/plain')
      .send(isReady ? 'ready\n' : 'not ready\n');
  });
  return router;
}
