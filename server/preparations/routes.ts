import { Router } from 'express';
import { bottlingSchema } from '#contract';
import { idParameter, parseBody } from '../http/problems';
import { requirePerson } from '../http/session';
import type { Services } from '../services';
import { bottlePreparation } from './bottle';

/** What comes of a guided preparation. */
export function preparationRoutes(services: Services): Router {
  const router = Router();

  router.post('/preparations/:preparationId/bottle', async (request, response) => {
    const person = await requirePerson(services, request);
    const decision = parseBody(request, bottlingSchema);
    const preparationId = idParameter(request, 'preparationId');
    const bottle = await bottlePreparation(services, person, preparationId, decision);
    response.status(201).json(bottle);
  });

  return router;
}
