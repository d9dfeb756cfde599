import { Router } from 'express';
import { printSchema } from '#contract';
import { durably } from '../database/durably';
import { parseBody } from '../http/problems';
import { requirePerson } from '../http/session';
import type { Services } from '../services';
import { appendAudit } from './queries';

/** What the pages put on record beside facts. */
export function auditRoutes(services: Services): Router {
  const router = Router();
  router.post('/prints', async (request, response) => {
    const { id } = await requirePerson(services, request);
    const { path } = parseBody(request, printSchema);
    const at = services.now().toISOString();
    await durably(services.db, (tx) => appendAudit(tx, { kind: 'printed', at, by: id, path }));
    response.status(204).end();
  });
  return router;
}
