import { Router } from 'express';
import type { RunAnswer } from '#contract';
import {
  certifyRequestSchema,
  reportRequestSchema,
  signRequestSchema,
  withdrawReportRequestSchema,
  withdrawRequestSchema,
} from '#contract';
import type { AppParts } from '../parts';
import { findFile } from '../files/queries';
import { AppError } from '../http/appError';
import { baseUrlOf } from '../http/baseUrl';
import { passwordLimits } from '../http/limits';
import { idParameter, parseBody } from '../http/problems';
import { requirePerson } from '../http/session';
import { findRun } from '../ledger/references';
import { CERTIFICATE } from './certify';
import { asIssued, certificateFileOf } from './documents';
import { issue } from './issue';
import { openRun } from './openRun';
import { REPORT } from './report';
import { signRun } from './sign';
import { OF_CERTIFICATE, OF_REPORT, withdraw } from './withdraw';

type RunParts = Pick<
  AppParts,
  'services' | 'printer' | 'publicUrl' | 'isSecure' | 'sessionSigningKey' | 'pause'
>;

/** One run with what it rests on, its signatures and its certification. */
export function runRoutes(parts: RunParts): Router {
  const { services, printer, publicUrl } = parts;
  const router = Router();
  const limits = passwordLimits(parts);

  router.get('/runs/:runId', async (request, response) => {
    await requirePerson(services, request);
    const run = await findRun(services, idParameter(request, 'runId'));
    if (!run) throw new AppError('not-found', 'There is no such run.');
    const answer: RunAnswer = { facts: run.facts, references: run.references };
    response.json(answer);
  });

  router.get('/runs/:runId/certificates/:number', async (request, response) => {
    await requirePerson(services, request);
    const run = await openRun(services, idParameter(request, 'runId'));
    const issued = run?.state.certificates.find(
      ({ certificate }) => certificate.number === request.params.number,
    );
    if (!run || !issued) throw new AppError('not-found', 'There is no such certificate.');
    const { certificate, documents } = issued;
    const kept = documents.find(({ type }) => type === 'application/json');
    const file = kept && (await findFile(services.db, kept.fileId));
    response.attachment(`${certificate.number}.json`).type('application/json');
    const made = () =>
      certificateFileOf(services, asIssued(services, run, certificate), certificate, null);
    response.send(file?.content ?? JSON.stringify(await made()));
  });

  router.post('/runs/:runId/signatures', ...limits, async (request, response) => {
    const person = await requirePerson(services, request);
    const wanted = parseBody(request, signRequestSchema);
    // What is signed is issued next.
    printer.getReady();
    await signRun(services, person, idParameter(request, 'runId'), wanted);
    response.status(204).end();
  });

  router.post('/runs/:runId/withdrawal', ...limits, async (request, response) => {
    const person = await requirePerson(services, request);
    const wanted = parseBody(request, withdrawRequestSchema);
    await withdraw(OF_CERTIFICATE, services, person, idParameter(request, 'runId'), wanted);
    response.status(204).end();
  });

  router.post('/runs/:runId/certificate', ...limits, async (request, response) => {
    const person = await requirePerson(services, request);
    const decision = parseBody(request, certifyRequestSchema);
    const runId = idParameter(request, 'runId');
    const issuing = { services, printer, baseUrl: baseUrlOf(request, publicUrl) };
    response.status(201).json(await issue(CERTIFICATE, issuing, person, runId, decision));
  });

  router.post('/runs/:runId/report', ...limits, async (request, response) => {
    const person = await requirePerson(services, request);
    const decision = parseBody(request, reportRequestSchema);
    const runId = idParameter(request, 'runId');
    const issuing = { services, printer, baseUrl: baseUrlOf(request, publicUrl) };
    response.status(201).json(await issue(REPORT, issuing, person, runId, decision));
  });

  router.post('/runs/:runId/report-withdrawal', ...limits, async (request, response) => {
    const person = await requirePerson(services, request);
    const wanted = parseBody(request, withdrawReportRequestSchema);
    await withdraw(OF_REPORT, services, person, idParameter(request, 'runId'), wanted);
    response.status(204).end();
  });

  router.get('/runs/:runId/reports/:number', async (request, response) => {
    await requirePerson(services, request);
    const run = await openRun(services, idParameter(request, 'runId'));
    const issued = run?.state.reports.find(({ report }) => report.number === request.params.number);
    const kept = issued?.documents.find(({ type }) => type === 'application/json');
    const file = kept && (await findFile(services.db, kept.fileId));
    if (!file) throw new AppError('not-found', 'There is no such report.');
    response.attachment(file.name).type('application/json').send(file.content);
  });

  return router;
}
