import { Router } from 'express';
import type { RunAnswer } from '#contract';
import { certifyRequestSchema, signRequestSchema } from '#contract';
import type { AppParts } from '../parts';
import { AppError } from '../http/appError';
import { passwordLimits } from '../http/limits';
import { idParameter, parseBody } from '../http/problems';
import { requirePerson } from '../http/session';
import { findRun } from '../ledger/references';
import { certifyRun } from './certify';
import { signRun } from './sign';

type RunParts = Pick<AppParts, 'services' | 'isSecure' | 'sessionSigningKey' | 'pause'>;

/** One run with what it rests on, its signatures and its certification. */
export function runRoutes(parts: RunParts): Router {
  const { services } = parts;
  const router = Router();
  const limits = passwordLimits(parts);

  router.get('/runs/:runId', async (request, response) => {
    await requirePerson(services, request);
    const run = await findRun(services, idParameter(request, 'runId'));
    if (!run) throw new AppError('not-found', 'There is no such run.');
    const answer: RunAnswer = { facts: run.facts, references: run.references };
    response.json(answer);
  });

  router.post('/runs/:runId/signatures', ...limits, async (request, response) => {
    const person = await requirePerson(services, request);
    const wanted = parseBody(request, signRequestSchema);
    await signRun(services, person, idParameter(request, 'runId'), wanted);
    response.status(204).end();
  });

  router.post('/runs/:runId/certificate', ...limits, async (request, response) => {
    const person = await requirePerson(services, request);
    const decision = parseBody(request, certifyRequestSchema);
    const runId = idParameter(request, 'runId');
    response.status(201).json(await certifyRun(services, person, runId, decision));
  });

  return router;
}
