import type pg from 'pg';
import type { Logger } from 'pino';
import type { Pulse } from './database/pulse';
import type { Printer } from './print/printer';
import type { Feed } from './live/feed';
import type { Services } from './services';

/** What the application is put together from. */
export interface AppParts {
  readonly services: Services;
  readonly feed: Feed;
  readonly printer: Printer;
  /** Whether the database answers. */
  readonly pulse: Pick<Pulse, 'isBeating'>;
  readonly sessionPool: pg.Pool;
  readonly sessionSigningKey: string;
  readonly logger: Logger;
  /** Folder of the built web client; null for the API alone. */
  readonly webFolder: string | null;
  /** The address under which a proxy serves this; null without one. */
  readonly publicUrl: string | null;
  /** Whether browsers reach it over TLS, ended here or by the proxy. */
  readonly isSecure: boolean;
  /** Whether the demo's people may be offered for one click. */
  readonly isOfThisMachine: boolean;
  /** File in which the end of the audit log is noted; null for nowhere. */
  readonly auditHeadsFile: string | null;
  /** All attached files together may take so many bytes. */
  readonly fileQuotaBytes: number;
  /** Waits so many milliseconds: whoever guesses is slowed down. */
  readonly pause: (ms: number) => Promise<unknown>;
  /** Requests that one person, or one address without a session, may make in a minute. */
  readonly requestsPerMinute: number;
}
