import type { Request, RequestHandler } from 'express';
import express, { Router } from 'express';
import * as v from 'valibot';
import { line } from '#contract';
import { AppError } from '../http/appError';
import { idParameter } from '../http/problems';
import { requirePerson } from '../http/session';
import type { AppParts } from '../parts';
import type { Accepted, Sent } from './files';
import {
  attachCertificate,
  attachLogo,
  attachPhotograph,
  CERTIFICATE,
  FILE_BYTES,
  LOGO,
  LOGO_BYTES,
  PHOTOGRAPH,
} from './files';
import { findFile } from './queries';

/** Certificates of lots, photographs of flasks and the logo, kept in the database. */
export function fileRoutes(
  parts: Pick<AppParts, 'services' | 'printer' | 'fileQuotaBytes'>,
): Router {
  const { services } = parts;
  const router = Router();
  // Eight megabytes are read of those only who may send them.
  const signedIn: RequestHandler = async (request, _response, next) => {
    await requirePerson(services, request);
    next();
  };

  router.post(
    '/lots/:lotId/certificates',
    signedIn,
    rawFile(CERTIFICATE),
    async (request, response) => {
      const person = await requirePerson(services, request);
      const lotId = idParameter(request, 'lotId');
      const sent = sentFile(request, CERTIFICATE);
      response.status(201).json(await attachCertificate(parts, person, lotId, sent));
    },
  );

  router.post(
    '/runs/:runId/flasks/:flask/photographs',
    signedIn,
    rawFile(PHOTOGRAPH),
    async (request, response) => {
      const person = await requirePerson(services, request);
      const runId = idParameter(request, 'runId');
      const flask = Number(request.params.flask);
      if (!Number.isInteger(flask)) throw new AppError('not-found', 'There is no such flask.');
      const sent = sentFile(request, PHOTOGRAPH);
      response.status(201).json(await attachPhotograph(parts, person, runId, flask, sent));
    },
  );

  router.post(
    '/laboratory/logo',
    signedIn,
    rawFile(LOGO, LOGO_BYTES),
    async (request, response) => {
      const person = await requirePerson(services, request);
      response.status(201).json(await attachLogo(parts, person, sentFile(request, LOGO)));
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

function rawFile({ types }: Accepted, limit = FILE_BYTES): RequestHandler {
  return express.raw({ type: [...types], limit });
}

/** @throws AppError for a file without a name, and for one that `rawFile` left unread because of its type. */
function sentFile(request: Request, { wanted }: Accepted): Sent {
  const name = v.safeParse(line, request.query.name);
  if (!name.success) throw new AppError('invalid-request', 'Give the file a name.');
  const content: unknown = request.body;
  if (!Buffer.isBuffer(content)) throw new AppError('unsupported-media-type', wanted);
  return { name: name.output, content };
}
