import { Router } from 'express';
import { foldRecord } from '#core/ledger';
import { recordsOf } from '#core/preparation';
import type { PreparationAnswer } from '#contract';
import { bottlingSchema } from '#contract';
import { AppError } from '../http/appError';
import { idParameter, parseBody } from '../http/problems';
import { requirePerson } from '../http/session';
import { aroundOf } from '../ledger/around';
import { openRecords, recordOf } from '../ledger/references';
import type { Services } from '../services';
import { bottlePreparation } from './bottle';

/** What comes of a guided preparation. */
export function preparationRoutes(services: Services): Router {
  const router = Router();

  router.get('/preparations/:preparationId', async (request, response) => {
    await requirePerson(services, request);
    const id = idParameter(request, 'preparationId');
    const { records, surroundings } = await openRecords(services, [{ id, kind: 'preparation' }]);
    const preparation = foldRecord('preparation', recordOf(records, id).facts);
    if (!preparation) throw new AppError('not-found', 'There is no such preparation.');
    const around = aroundOf(services, surroundings);
    const answer: PreparationAnswer = { records: recordsOf(preparation, around) };
    response.json(answer);
  });

  router.post('/preparations/:preparationId/bottle', async (request, response) => {
    const person = await requirePerson(services, request);
    const decision = parseBody(request, bottlingSchema);
    const preparationId = idParameter(request, 'preparationId');
    const bottle = await bottlePreparation(services, person, preparationId, decision);
    response.status(201).json(bottle);
  });

  return router;
}
