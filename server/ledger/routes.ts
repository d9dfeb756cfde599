import { Router } from 'express';
import type { ListAnswer, ListKind } from '#contract';
import { isRecordKind } from '#core/ledger';
import { proposedFactSchema } from '#contract';
import { AppError } from '../http/appError';
import { parseBody } from '../http/problems';
import { requirePerson } from '../http/session';
import type { Services } from '../services';
import { Batch } from './batch';
import { listProjections } from './queries';
import { inTodaysShape } from './sent';

/** Adding facts, and the lists of what they have come to. */
export function ledgerRoutes(services: Services): Router {
  const router = Router();
  const batch = new Batch(services);

  router.post('/facts', async (request, response) => {
    const author = await requirePerson(services, request);
    const proposed = parseBody(request, proposedFactSchema, inTodaysShape);
    const { fact, isNew } = await batch.append(author, proposed);
    response.status(isNew ? 201 : 200).json(fact);
  });

  router.get('/records/:kind', async (request, response) => {
    await requirePerson(services, request);
    const { kind } = request.params;
    if (!isRecordKind(kind)) throw new AppError('not-found', 'There are no records of this kind.');
    const answer: ListAnswer<ListKind> = { records: await listProjections(services.db, kind) };
    response.json(answer);
  });

  return router;
}
