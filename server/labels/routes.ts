import { Router } from 'express';
import { labelsSchema } from '#contract';
import type { AppParts } from '../http/app';
import { parseBody } from '../http/problems';
import { requirePerson } from '../http/session';
import { makeLabels } from './labels';

/** Labels for bottles. */
export function labelRoutes({ services, publicUrl }: Pick<AppParts, 'services' | 'publicUrl'>) {
  const router = Router();

  router.post('/labels', async (request, response) => {
    const person = await requirePerson(services, request);
    const asked = parseBody(request, labelsSchema);
    const host = request.get('host') ?? 'localhost';
    const baseUrl = (publicUrl ?? `${request.protocol}://${host}`).replace(/\/$/, '');
    const pdf = await makeLabels(services, person, asked, baseUrl);
    response.type('application/pdf').send(pdf);
  });

  return router;
}
