import { createHmac, randomBytes, timingSafeEqual } from 'node:crypto';
import type { Request, RequestHandler, Response } from 'express';
import type { ClientRateLimitInfo, Store } from 'express-rate-limit';
import { ipKeyGenerator, rateLimit } from 'express-rate-limit';
import { nameKey } from '#core/people';
import type { Services } from '../services';
import type { AppParts } from '../parts';
import { AppError } from './appError';
import { addAttempts, forgetAttempts, takeAttemptBack } from './queries';

const MINUTE_MS = 60_000;

/** Sign-ins are counted over this time. */
const SIGN_IN_WINDOW_MS = 15 * MINUTE_MS;

/** Wrong passwords for one name from one device or address, and wrong attempts of any kind from one address. */
const FAILURES_PER_NAME = 10;
const FAILURES_PER_ADDRESS = 60;

/** Attempts before somebody is slowed down, and by how much. */
const AT_FULL_SPEED = 3;
const FIRST_PAUSE_MS = 200;
const LONGEST_PAUSE_MS = 3_000;

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
    const one = { key: this.prefix + key, hits: 1, expiresAt };
    const [counted = one] = await addAttempts(this.#services.db, [one], now);
    return { totalHits: counted.hits, resetTime: counted.expiresAt };
  }

  async decrement(key: string): Promise<void> {
    await takeAttemptBack(this.#services.db, this.prefix + key);
  }

  async resetKey(key: string): Promise<void> {
    await forgetAttempts(this.#services.db, this.prefix + key);
  }
}

type LimitParts = Pick<AppParts, 'services' | 'sessionSigningKey' | 'isSecure' | 'pause'>;

/**
 * Slows down whoever guesses names, passwords or the first account's code, and then has them wait. Counted are failures for
 * a name from a device that signed in before, or from an address: what others fail at locks no known device.
 */
export function signInLimits(parts: LimitParts): RequestHandler[] {
  return attemptLimits(parts, (status) => status >= 400);
}

/** The same for whoever is signed in and gives their password to sign: counted are wrong passwords only. */
export function passwordLimits(parts: LimitParts): RequestHandler[] {
  return attemptLimits(parts, (status) => status === 401);
}

function attemptLimits(
  parts: LimitParts,
  isFailure: (status: number) => boolean,
): RequestHandler[] {
  const { services, pause } = parts;
  const common = {
    windowMs: SIGN_IN_WINDOW_MS,
    skipSuccessfulRequests: true,
    requestWasSuccessful: (_request: Request, { statusCode }: Response) => !isFailure(statusCode),
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
      skip: (request) => knownDevice(parts, request) !== null,
    }),
    rateLimit({
      ...common,
      limit: FAILURES_PER_NAME,
      store: new SharedCounter(services, 'name:'),
      keyGenerator: (request) =>
        `${knownDevice(parts, request) ?? addressOf(request)} ${whoseName(request)}`,
    }),
    (request, _response, next) => {
      const { rateLimit: limit } = request as Request & { rateLimit?: { used: number } };
      void pause(slowDownMs(limit?.used ?? 0)).then(() => {
        next();
      });
    },
  ];
}

/** How long an attempt waits after so many: not at all at first, then twice as long each time, ms. */
function slowDownMs(attempts: number): number {
  return attempts <= AT_FULL_SPEED
    ? 0
    : Math.min(LONGEST_PAUSE_MS, FIRST_PAUSE_MS * 2 ** (attempts - AT_FULL_SPEED - 1));
}

const DEVICE = 'vine.device';
const YEAR_MS = 365 * 24 * 60 * MINUTE_MS;

/** So many people may share a device and be known on it; who signed in last is known for longest. */
const KNOWN_AT_MOST = 8;

/** Marks a device as one on which somebody of this name has signed in. */
export function rememberDevice(
  { sessionSigningKey, isSecure }: Pick<LimitParts, 'sessionSigningKey' | 'isSecure'>,
  request: Request,
  response: Response,
  name: string,
): void {
  const { id = randomBytes(16).toString('hex'), marks = [] } = markedDevice(request) ?? {};
  const mark = markOf(sessionSigningKey, id, nameKey(name));
  const known = [mark, ...marks.filter((other) => other !== mark)].slice(0, KNOWN_AT_MOST);
  response.cookie(DEVICE, [id, ...known].join('.'), {
    httpOnly: true,
    sameSite: 'strict',
    secure: isSecure,
    maxAge: YEAR_MS,
    path: '/api',
  });
}

/** What a device says of itself; null for one that says nothing. */
function markedDevice(request: Request): { id: string; marks: readonly string[] } | null {
  const cookie = /(?:^|;\s*)vine\.device=([0-9a-f]{32})((?:\.[0-9a-f]{64})*)(?:;|$)/.exec(
    request.get('cookie') ?? '',
  );
  const [, id, marks = ''] = cookie ?? [];
  return id === undefined ? null : { id, marks: marks.split('.').slice(1) };
}

/** The device by its mark, where somebody of the typed name signed in before; null for any other. */
function knownDevice(
  { sessionSigningKey }: Pick<LimitParts, 'sessionSigningKey'>,
  request: Request,
): string | null {
  const device = markedDevice(request);
  if (!device) return null;
  const expected = Buffer.from(markOf(sessionSigningKey, device.id, whoseName(request)));
  const isKnown = device.marks.some((mark) => timingSafeEqual(Buffer.from(mark), expected));
  return isKnown ? `device ${device.id}` : null;
}

/** What says that somebody signed in on a device: nobody else can make it. */
function markOf(key: string, deviceId: string, name: string): string {
  return createHmac('sha256', key).update(`${DEVICE} ${deviceId} ${name}`).digest('hex');
}

/** How often app processes tell each other what they have counted, ms. */
const TELL_MS = 1_000;

interface Window {
  /** Of all processes, when they last told each other. */
  told: number;
  /** By this one since. */
  untold: number;
  expiresAt: Date;
}

/** Counts by itself and tells the other app processes once a second, so that counting costs no request a query. */
class ToldCounter implements Store {
  readonly prefix = 'requests:';
  readonly #services: Services;
  readonly #windows = new Map<string, Window>();
  #isToTell = false;

  constructor(services: Services) {
    this.#services = services;
  }

  increment(key: string): ClientRateLimitInfo {
    const window = this.#windowOf(this.prefix + key);
    window.untold += 1;
    this.#tellSoon();
    return { totalHits: window.told + window.untold, resetTime: window.expiresAt };
  }

  decrement(key: string): void {
    this.#windowOf(this.prefix + key).untold -= 1;
  }

  resetKey(key: string): void {
    this.#windows.delete(this.prefix + key);
  }

  #windowOf(key: string): Window {
    const now = this.#services.now();
    const known = this.#windows.get(key);
    if (known && known.expiresAt > now) return known;
    const fresh = { told: 0, untold: 0, expiresAt: new Date(now.getTime() + MINUTE_MS) };
    this.#windows.set(key, fresh);
    return fresh;
  }

  #tellSoon(): void {
    if (this.#isToTell) return;
    this.#isToTell = true;
    setTimeout(() => void this.#tell(), TELL_MS).unref();
  }

  async #tell(): Promise<void> {
    this.#isToTell = false;
    const now = this.#services.now();
    for (const [key, { expiresAt }] of this.#windows) {
      if (expiresAt <= now) this.#windows.delete(key);
    }
    const mine = [...this.#windows]
      .filter(([, { untold }]) => untold > 0)
      .map(([key, window]) => ({ key, hits: window.untold, expiresAt: window.expiresAt, window }));
    try {
      const sums = await addAttempts(this.#services.db, mine, now);
      for (const { key, hits, window } of mine) {
        const sum = sums.find((one) => one.key === key);
        if (sum) Object.assign(window, { told: sum.hits, expiresAt: sum.expiresAt });
        window.untold -= hits;
      }
    } catch {
      // Without the database this process counts alone; it tells when it counts again.
    }
  }
}

/** Keeps one browser from taking the whole server. */
export function requestLimit(services: Services, requestsPerMinute: number): RequestHandler {
  return rateLimit({
    windowMs: MINUTE_MS,
    limit: requestsPerMinute,
    standardHeaders: 'draft-8',
    legacyHeaders: false,
    store: new ToldCounter(services),
    keyGenerator: (request) => request.session.personId ?? addressOf(request),
    handler: refuse('Too many requests within a minute. What you entered stays on this device.'),
  });
}

function addressOf(request: Request): string {
  return ipKeyGenerator(request.ip ?? '');
}

/** Whose password is tried: one's own, or that of the name that was typed, in whatever spelling. */
function whoseName(request: Request): string {
  const { personId } = request.session;
  const name = (request.body as { name?: unknown } | undefined)?.name;
  return personId ?? (typeof name === 'string' ? nameKey(name.slice(0, 120)) : '');
}

function refuse(title: string): RequestHandler {
  return (_request, _response, next) => {
    next(new AppError('too-many-requests', title));
  };
}
