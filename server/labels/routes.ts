import { Router } from 'express';
import { labelsSchema } from '#contract';
import type { AppParts } from '../parts';
import { baseUrlOf } from '../http/baseUrl';
import { parseBody } from '../http/problems';
import { requirePerson } from '../http/session';
import { makeLabels } from './labels';

/** Labels for bottles. */
export function labelRoutes(parts: Pick<AppParts, 'services' | 'printer' | 'publicUrl'>): Router {
  const { services, publicUrl } = parts;
  const router = Router();

  router.post('/labels', async (request, response) => {
    const person = await requirePerson(services, request);
    const asked = parseBody(request, labelsSchema);
    const pdf = await makeLabels(parts, person, asked, baseUrlOf(request, publicUrl));
    response.type('application/pdf').send(pdf);
  });

  return router;
}
