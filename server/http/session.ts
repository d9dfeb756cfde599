import { createHash, randomBytes, timingSafeEqual } from 'node:crypto';
import connectPgSimple from 'connect-pg-simple';
import type { Request, RequestHandler } from 'express';
import type { SessionData } from 'express-session';
import session from 'express-session';
import type pg from 'pg';
import type { PersonState } from '#core/people';
import { isHereNow } from '../people/here';
import { findPerson } from '../people/queries';
import type { Services } from '../services';
import { AppError } from './appError';
import { findSession } from './queries';

declare module 'express-session' {
  interface SessionData {
    personId: string;
    /** As they were when the request came in; never kept with the session. */
    person?: PersonState;
    csrfToken: string;
    /** Quarter of an hour in which it was last used. */
    lastSeen: number;
  }
}

const TWELVE_HOURS_MS = 12 * 60 * 60 * 1000;
const QUARTER_HOUR_MS = 15 * 60 * 1000;

/** Sessions, each read together with the person that it is of. */
class PersonalStore extends connectPgSimple(session) {
  readonly #pool: pg.Pool;

  constructor(pool: pg.Pool) {
    // A session is written when it changes only: a write for every request would cost more than the request.
    super({ pool, tableName: 'sessions', pruneSessionInterval: false, disableTouch: true });
    this.#pool = pool;
  }

  override get(sid: string, done: (error: unknown, found?: SessionData | null) => void): void {
    findSession(this.#pool, sid).then((found) => {
      done(null, found);
    }, done);
  }

  override set(sid: string, { person: _, ...kept }: SessionData, done?: () => void): void {
    super.set(sid, kept, done);
  }
}

/** Sessions in PostgreSQL behind an HttpOnly, SameSite cookie. */
export function sessions(
  services: Services,
  pool: pg.Pool,
  { signingKey, isSecure }: { signingKey: string; isSecure: boolean },
): RequestHandler[] {
  return [
    session({
      name: 'vine.session',
      secret: signingKey,
      store: new PersonalStore(pool),
      resave: false,
      saveUninitialized: false,
      cookie: {
        httpOnly: true,
        sameSite: 'strict',
        secure: isSecure,
        maxAge: TWELVE_HOURS_MS,
        path: '/',
      },
    }),
    (request, _response, next) => {
      const quarter = Math.floor(services.now().getTime() / QUARTER_HOUR_MS);
      const isOld = request.session.lastSeen !== quarter;
      if (request.session.personId !== undefined && isOld) request.session.lastSeen = quarter;
      next();
    },
  ];
}

/**
 * Signs a person in under a session id that nobody knew before.
 *
 * @param record puts the sign-in on record, before the session works
 */
export async function beginSession(
  request: Request,
  personId: string,
  record: (sessionId: string) => Promise<void>,
): Promise<void> {
  await new Promise<void>((resolve, reject) => {
    request.session.regenerate((error: Error | null | undefined) => {
      if (error) reject(error);
      else resolve();
    });
  });
  await record(request.sessionID);
  request.session.personId = personId;
  request.session.csrfToken = randomBytes(24).toString('base64url');
  await new Promise<void>((resolve, reject) => {
    request.session.save((error: Error | null | undefined) => {
      if (error) reject(error);
      else resolve();
    });
  });
}

/** Ends the session on the server. */
export async function endSession(request: Request): Promise<void> {
  await new Promise<void>((resolve, reject) => {
    request.session.destroy((error: Error | null | undefined) => {
      if (error) reject(error);
      else resolve();
    });
  });
}

/** The person who is signed in, or null; nobody who has left, nor an auditor whose last day is over. */
export async function currentPerson(
  services: Services,
  request: Request,
): Promise<PersonState | null> {
  const { personId } = request.session;
  const person =
    request.session.person ??
    (personId === undefined ? null : await findPerson(services.db, personId));
  return person && (await isHereNow(services, person)) ? person : null;
}

/** The person who is signed in. @throws AppError `not-signed-in` */
export async function requirePerson(services: Services, request: Request): Promise<PersonState> {
  const person = await currentPerson(services, request);
  if (person) return person;
  throw new AppError('not-signed-in', 'Sign in to go on. What you entered stays on this device.');
}

const READING_METHODS = new Set(['GET', 'HEAD', 'OPTIONS']);

/** Refuses changes that another site's page asks for. @param publicUrl the address behind a proxy, if there is one */
export function sameOriginOnly(publicUrl: string | null): RequestHandler {
  const publicOrigin = publicUrl === null ? null : new URL(publicUrl).origin;
  return (request, _response, next) => {
    if (READING_METHODS.has(request.method)) {
      next();
      return;
    }
    const ownOrigin = `${request.protocol}://${request.get('host') ?? ''}`;
    const origin = request.get('origin');
    const site = request.get('sec-fetch-site');
    const isForeign =
      origin === undefined
        ? site !== undefined && site !== 'same-origin'
        : origin !== publicOrigin && origin !== ownOrigin;
    next(
      isForeign ? new AppError('wrong-origin', 'This request came from another site.') : undefined,
    );
  };
}

/** Of one length, whatever was sent: letters beyond ASCII take more bytes than they count. */
function digest(text: string): Buffer {
  return createHash('sha256').update(text).digest();
}

/** Requires the session's token on every change, so that a cookie alone is not enough. */
export const csrfProtection: RequestHandler = (request, _response, next) => {
  const expected = request.session.csrfToken;
  const given = request.get('x-csrf-token') ?? '';
  const isSafe =
    READING_METHODS.has(request.method) ||
    expected === undefined ||
    timingSafeEqual(digest(given), digest(expected));
  next(
    isSafe
      ? undefined
      : new AppError(
          'wrong-origin',
          'This page has outlived its session. Reload it and try again.',
        ),
  );
};
