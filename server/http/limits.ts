import type { Request, RequestHandler } from 'express';
import type { ClientRateLimitInfo, Store } from 'express-rate-limit';
import { ipKeyGenerator, rateLimit } from 'express-rate-limit';
import type { Services } from '../services';
import { AppError } from './appError';

const MINUTE_MS = 60_000;

/** Sign-ins are counted over this time. */
const SIGN_IN_WINDOW_MS = 15 * MINUTE_MS;

/** Wrong passwords for one name from one address, and wrong attempts of any kind from one address. */
const FAILURES_PER_NAME = 10;
const FAILURES_PER_ADDRESS = 60;

/** Counts in PostgreSQL, so that every app process counts together and a restart forgives nothing. */
class SharedCounter implements Store {
  readonly prefix: string;
  readonly #services: Services;

  constructor(services: Services, prefix: string) {
    this.#services = services;
    this.prefix = prefix;
  }

  async increment(key: string): Promise<ClientRateLimitInfo> {
    const now = this.#services.now();
    const expiresAt = new Date(now.getTime() + SIGN_IN_WINDOW_MS);
    const { rows } = await this.#services.db.raw<{ rows: { hits: number; expires_at: Date }[] }>(
      `INSERT INTO attempts AS known (key, hits, expires_at) VALUES (:key, 1, :expiresAt)
       ON CONFLICT (key) DO UPDATE SET
         hits = CASE WHEN known.expires_at <= :now THEN 1 ELSE known.hits + 1 END,
         expires_at = CASE WHEN known.expires_at <= :now THEN EXCLUDED.expires_at ELSE known.expires_at END
       RETURNING hits, expires_at`,
      { key: this.prefix + key, now, expiresAt },
    );
    return { totalHits: rows[0]?.hits ?? 1, resetTime: rows[0]?.expires_at };
  }

  async decrement(key: string): Promise<void> {
    await this.#services
      .db('attempts')
      .where({ key: this.prefix + key })
      .decrement('hits', 1);
  }

  async resetKey(key: string): Promise<void> {
    await this.#services
      .db('attempts')
      .where({ key: this.prefix + key })
      .delete();
  }
}

/** Slows down whoever guesses names, passwords or the first account's code. */
export function signInLimits(services: Services): RequestHandler[] {
  const common = {
    windowMs: SIGN_IN_WINDOW_MS,
    skipSuccessfulRequests: true,
    standardHeaders: 'draft-8',
    legacyHeaders: false,
    handler: refuse('Too many attempts that failed. Wait a quarter of an hour, then try again.'),
  } as const;
  return [
    rateLimit({
      ...common,
      limit: FAILURES_PER_ADDRESS,
      store: new SharedCounter(services, 'address:'),
      keyGenerator: addressOf,
    }),
    rateLimit({
      ...common,
      limit: FAILURES_PER_NAME,
      store: new SharedCounter(services, 'name:'),
      keyGenerator: (request) => `${addressOf(request)} ${typedName(request)}`,
    }),
  ];
}

/** Keeps one browser from taking the whole server; counted by this process alone, it costs no query. */
export function requestLimit(requestsPerMinute: number): RequestHandler {
  return rateLimit({
    windowMs: MINUTE_MS,
    limit: requestsPerMinute,
    standardHeaders: 'draft-8',
    legacyHeaders: false,
    keyGenerator: (request) => request.session.personId ?? addressOf(request),
    handler: refuse('Too many requests within a minute. What you entered stays on this device.'),
  });
}

function addressOf(request: Request): string {
  return ipKeyGenerator(request.ip ?? '');
}

function typedName(request: Request): string {
  const name = (request.body as { name?: unknown } | undefined)?.name;
  return typeof name === 'string' ? name.slice(0, 120) : '';
}

function refuse(title: string): RequestHandler {
  return (_request, _response, next) => {
    next(new AppError('too-many-requests', title));
  };
}
