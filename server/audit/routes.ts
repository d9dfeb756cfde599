import { Router } from 'express';
import { authorOf } from '#core/people';
import { may, whyNot } from '#core/rights';
import { printSchema } from '#contract';
import { durably } from '../database/durably';
import { AppError } from '../http/appError';
import { parseBody } from '../http/problems';
import { requirePerson } from '../http/session';
import type { AppParts } from '../parts';
import { readHeadNotes } from './heads';
import { appendAudit } from './queries';
import { verifyAudit } from './verify';

/** What the pages put on record beside facts, and whether all that is on record holds. */
export function auditRoutes({
  services,
  auditHeadsFile,
}: Pick<AppParts, 'services' | 'auditHeadsFile'>): Router {
  const router = Router();
  let isVerifying = false;

  router.post('/prints', async (request, response) => {
    const { id } = await requirePerson(services, request);
    const { path } = parseBody(request, printSchema);
    const at = services.now().toISOString();
    await durably(services.db, (tx) => appendAudit(tx, { kind: 'printed', at, by: id, path }));
    response.status(204).end();
  });

  router.post('/audit/verification', async (request, response) => {
    const person = await requirePerson(services, request);
    if (!may(authorOf(person), 'verify-log')) {
      throw new AppError('not-allowed', whyNot('verify-log'));
    }
    // It reads everything that there is: one at a time.
    if (isVerifying) {
      throw new AppError('too-many-requests', 'The log is being verified already. Wait for that.');
    }
    isVerifying = true;
    try {
      const noted = auditHeadsFile === null ? [] : await readHeadNotes(auditHeadsFile);
      response.json(await verifyAudit(services.db, null, noted));
    } finally {
      isVerifying = false;
    }
  });

  return router;
}
