import { Router } from 'express';
import { labelsSchema } from '#contract';
import type { AppParts } from '../parts';
import { AppError } from '../http/appError';
import { parseBody } from '../http/problems';
import { requirePerson } from '../http/session';
import { makeLabels } from './labels';

/** What a label's code can hold beside the address of its bottle. */
const HOST = /^[\w.:[\]-]{1,200}$/;

/** Labels for bottles. */
export function labelRoutes(parts: Pick<AppParts, 'services' | 'printer' | 'publicUrl'>): Router {
  const { services, publicUrl } = parts;
  const router = Router();

  router.post('/labels', async (request, response) => {
    const person = await requirePerson(services, request);
    const asked = parseBody(request, labelsSchema);
    const host = request.get('host') ?? 'localhost';
    if (!HOST.test(host)) throw new AppError('invalid-request', 'The request names no host.');
    const baseUrl = (publicUrl ?? `${request.protocol}://${host}`).replace(/\/$/, '');
    const pdf = await makeLabels(parts, person, asked, baseUrl);
    response.type('application/pdf').send(pdf);
  });

  return router;
}
