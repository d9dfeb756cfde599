import { Router } from 'express';
import type { ListKind } from '#contract';
import { isRecordKind } from '#core/ledger';
import { historyRequestSchema, listRequestSchema, proposedFactSchema } from '#contract';
import { AppError } from '../http/appError';
import { idParameter, parseBody, parseQuery } from '../http/problems';
import { requirePerson } from '../http/session';
import type { Services } from '../services';
import { Batch } from './batch';
import { readHistory } from './history';
import { readPage, readRecord, readStock } from './lists';
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
    const kind = kindOf(request.params.kind);
    response.json(await readPage(services, kind, parseQuery(request, listRequestSchema)));
  });

  router.get('/records/:kind/:recordId', async (request, response) => {
    await requirePerson(services, request);
    const kind = kindOf(request.params.kind);
    response.json(await readRecord(services, kind, idParameter(request, 'recordId')));
  });

  router.get('/history', async (request, response) => {
    await requirePerson(services, request);
    response.json(await readHistory(services, parseQuery(request, historyRequestSchema)));
  });

  router.get('/stock', async (request, response) => {
    await requirePerson(services, request);
    response.json(await readStock(services));
  });

  return router;
}

/** @throws AppError `not-found` */
function kindOf(text: string): ListKind {
  if (isRecordKind(text)) return text;
  throw new AppError('not-found', 'There are no records of this kind.');
}
