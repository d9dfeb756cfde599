import type { Request } from 'express';
import { Router } from 'express';
import { plainDateAt } from '#core/grammar';
import type { SessionAnswer } from '#contract';
import {
  changePasswordSchema,
  demoSignInSchema,
  firstAccountSchema,
  newPersonSchema,
  signInSchema,
} from '#contract';
import { getAuditHead } from '../audit/queries';
import { AppError } from '../http/appError';
import { rememberDevice, signInLimits } from '../http/limits';
import { parseBody } from '../http/problems';
import { beginSession, currentPerson, endSession, requirePerson } from '../http/session';
import { findLaboratory } from '../ledger/queries';
import type { AppParts } from '../parts';
import {
  addPerson,
  changePassword,
  endOtherSessions,
  makeFirstAccount,
  recordSignIn,
  recordSignOut,
  signInWithPassword,
} from './accounts';
import { hasPeople, listDemoPeople } from './queries';

type PeopleParts = Pick<
  AppParts,
  'services' | 'isOfThisMachine' | 'publicUrl' | 'isSecure' | 'sessionSigningKey' | 'pause'
>;

/** Signing in and out, the first account, and the people of the laboratory. */
export function peopleRoutes(parts: PeopleParts): Router {
  const { services } = parts;
  const router = Router();
  const limits = signInLimits(parts);
  const begin = (
    request: Request,
    personId: string,
    way: Parameters<typeof recordSignIn>[2],
  ): Promise<void> =>
    beginSession(request, personId, (id) => recordSignIn(services, personId, way, id));

  router.get('/session', async (request, response) => {
    response.json(await describeSession(parts, request));
  });

  router.post('/session', ...limits, async (request, response) => {
    requireForwardedProto(parts, request);
    const { name, password } = parseBody(request, signInSchema);
    const personId = await signInWithPassword(services, name, password);
    await begin(request, personId, 'password');
    rememberDevice(parts, request, response, name);
    response.status(201).json(await describeSession(parts, request));
  });

  router.post('/session/demo', async (request, response) => {
    const { personId } = parseBody(request, demoSignInSchema);
    const offered = await offeredDemoPeople(parts, request);
    if (!offered.some((person) => person.id === personId)) {
      throw new AppError(
        'not-allowed',
        'Only the made-up people of the demo can be chosen like this.',
      );
    }
    await begin(request, personId, 'demo');
    response.status(201).json(await describeSession(parts, request));
  });

  router.delete('/session', async (request, response) => {
    const { personId } = request.session;
    if (personId !== undefined) await recordSignOut(services, personId);
    await endSession(request);
    response.status(204).end();
  });

  router.post('/first-account', ...limits, async (request, response) => {
    const person = await makeFirstAccount(services, parseBody(request, firstAccountSchema));
    await begin(request, person.id, 'first-account');
    rememberDevice(parts, request, response, person.name);
    response.status(201).json(await describeSession(parts, request));
  });

  router.post('/account/password', ...limits, async (request, response) => {
    const { id } = await requirePerson(services, request);
    await changePassword(services, id, request.sessionID, parseBody(request, changePasswordSchema));
    response.status(204).end();
  });

  router.delete('/account/sessions', async (request, response) => {
    const { id } = await requirePerson(services, request);
    const answer = { ended: await endOtherSessions(services, id, request.sessionID) };
    response.json(answer);
  });

  router.post('/people', async (request, response) => {
    const by = await requirePerson(services, request);
    const details = parseBody(request, newPersonSchema);
    response.status(201).json(await addPerson(services, by, details));
  });

  return router;
}

async function describeSession(parts: PeopleParts, request: Request): Promise<SessionAnswer> {
  const { services } = parts;
  // Taken before anything is read, so that no event falls between this answer and the stream.
  const { sequence: liveAfter } = await getAuditHead(services.db);
  const person = await currentPerson(services, request);
  const laboratory = await findLaboratory(services.db);
  const csrfToken = request.session.csrfToken;
  if (person && laboratory && csrfToken !== undefined) {
    const now = services.now().toISOString();
    const today = plainDateAt(now, laboratory.timeZone);
    return { kind: 'signed-in', person, csrfToken, laboratory, today, now, liveAfter };
  }
  const demoPeople = await offeredDemoPeople(parts, request);
  return {
    kind: 'signed-out',
    needsFirstAccount: !(await hasPeople(services.db)),
    demoPeople: demoPeople.map(({ id, name, roles }) => ({ id, name, roles })),
    laboratoryName: laboratory?.name ?? null,
  };
}

/** The demo's people, to whoever sits at this very machine; nobody, to the rest of the network. */
async function offeredDemoPeople({ services, isOfThisMachine }: PeopleParts, request: Request) {
  return isOfThisMachine && isFromThisMachine(request) ? listDemoPeople(services.db) : [];
}

/** What proxies and their like say of those they speak for. */
const HANDED_ON = /^(x-forwarded|forwarded|via|x-real-ip|x-client-ip|x-original|true-client|cf-)/;

/** Over loopback, under a loopback name, and not handed on by anything that speaks for somebody else. */
function isFromThisMachine(request: Request): boolean {
  return (
    /^(127\.|::1$|::ffff:127\.)/.test(request.socket.remoteAddress ?? '') &&
    /^(localhost|127\.[\d.]+|\[::1\])$/.test(request.hostname) &&
    !Object.keys(request.headers).some((name) => HANDED_ON.test(name))
  );
}

/** A cookie for TLS only does not reach a browser whose proxy hides that it speaks TLS. @throws AppError that says so */
function requireForwardedProto({ isSecure, publicUrl }: PeopleParts, request: Request): void {
  if (!isSecure || publicUrl === null || request.secure) return;
  throw new AppError(
    'invalid-request',
    'The proxy before this server does not say that browsers reach it over HTTPS: it must set X-Forwarded-Proto. Tell whoever runs it.',
  );
}
