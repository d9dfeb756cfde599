import express, { Router } from 'express';
import * as v from 'valibot';
import { line } from '#contract';
import { AppError } from '../http/appError';
import { idParameter } from '../http/problems';
import { requirePerson } from '../http/session';
import type { Services } from '../services';
import {
  attachCertificate,
  attachPhotograph,
  CERTIFICATE_TYPES,
  FILE_BYTES,
  findFile,
  PICTURE_TYPES,
} from './files';

/** Certificates of lots and photographs of flasks, kept in the database. */
export function fileRoutes(services: Services): Router {
  const router = Router();

  router.post(
    '/lots/:lotId/certificates',
    express.raw({ type: [...CERTIFICATE_TYPES], limit: FILE_BYTES }),
    async (request, response) => {
      const person = await requirePerson(services, request);
      const lotId = idParameter(request, 'lotId');
      const name = v.safeParse(line, request.query.name);
      if (!name.success) throw new AppError('invalid-request', 'Give the file a name.');
      if (!Buffer.isBuffer(request.body)) {
        const message = 'A certificate is a PDF, or a picture as PNG or JPEG; nothing was stored.';
        throw new AppError('unsupported-media-type', message);
      }
      const file = await attachCertificate(services, person, lotId, name.output, request.body);
      response.status(201).json(file);
    },
  );

  router.post(
    '/runs/:runId/flasks/:flask/photographs',
    express.raw({ type: [...PICTURE_TYPES], limit: FILE_BYTES }),
    async (request, response) => {
      const person = await requirePerson(services, request);
      const runId = idParameter(request, 'runId');
      const flask = Number(request.params.flask);
      const name = v.safeParse(line, request.query.name);
      if (!name.success) throw new AppError('invalid-request', 'Give the file a name.');
      if (!Buffer.isBuffer(request.body)) {
        const message = 'A photograph is a picture as PNG or JPEG; nothing was stored.';
        throw new AppError('unsupported-media-type', message);
      }
      const file = await attachPhotograph(
        services,
        person,
        runId,
        flask,
        name.output,
        request.body,
      );
      response.status(201).json(file);
    },
  );

  router.get('/files/:fileId', async (request, response) => {
    await requirePerson(services, request);
    const file = await findFile(services.db, idParameter(request, 'fileId'));
    if (!file) throw new AppError('not-found', 'There is no such file.');
    // Saved, never shown as a page of ours, whatever it holds.
    response.attachment(file.name).type(file.type).send(file.content);
  });

  return router;
}
