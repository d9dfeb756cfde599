import { Router } from 'express';
import { certifiedFigures, judgeRun } from '#core/titration/judging';
import type { CertificateFile, RunAnswer } from '#contract';
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

  router.get('/runs/:runId/certificate', async (request, response) => {
    await requirePerson(services, request);
    const run = await findRun(services, idParameter(request, 'runId'));
    const certificate = run?.state.certificate;
    if (!run || !certificate) throw new AppError('not-found', 'There is no such certificate.');
    const file: CertificateFile = {
      format: 'vine-measure-certificate',
      formatVersion: 1,
      certificate,
      figures: certifiedFigures(run.state, judgeRun(run.state)),
      source: { facts: run.facts, references: run.references },
    };
    response.attachment(`${certificate.number}.json`).json(file);
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
