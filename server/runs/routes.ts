import { Router } from 'express';
import type { RunAnswer } from '#contract';
import { certifyRequestSchema } from '#contract';
import { AppError } from '../http/appError';
import { idParameter, parseBody } from '../http/problems';
import { requirePerson } from '../http/session';
import { findRun } from '../ledger/references';
import type { Services } from '../services';
import { certifyRun } from './certify';

/** One run with what it rests on, and its certification. */
export function runRoutes(services: Services): Router {
  const router = Router();

  router.get('/runs/:runId', async (request, response) => {
    await requirePerson(services, request);
    const run = await findRun(services, idParameter(request, 'runId'));
    if (!run) throw new AppError('not-found', 'There is no such run.');
    const answer: RunAnswer = { facts: run.facts, references: run.references };
    response.json(answer);
  });

  router.post('/runs/:runId/certificate', async (request, response) => {
    const person = await requirePerson(services, request);
    const decision = parseBody(request, certifyRequestSchema);
    const runId = idParameter(request, 'runId');
    response.status(201).json(await certifyRun(services, person, runId, decision));
  });

  return router;
}
