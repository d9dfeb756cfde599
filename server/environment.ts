import { CONNECTIONS } from './database/connection';

/** A variable that the start command sets. @throws Error naming it when it is missing. */
export function requireEnvironment(name: string): string {
  const value = process.env[name];
  if (value === undefined || value === '') {
    throw new Error(`${name} is not set. Start the application with npm start.`);
  }
  return value;
}

/** How the app server runs, as the environment says. */
export interface ServerSettings {
  readonly databaseUrl: string;
  /** Connections to the database that this process may hold. */
  readonly databaseConnections: number;
  readonly host: string;
  readonly port: number;
  readonly publicUrl: string | null;
  readonly tls: { readonly certificateFile: string; readonly keyFile: string } | null;
  readonly isSecure: boolean;
  /** Nobody but who sits at this machine can reach it: the demo's people are offered for one click. */
  readonly isOfThisMachine: boolean;
  /** File in which the end of the audit log is noted; null for nowhere. */
  readonly auditHeadsFile: string | null;
  readonly requestsPerMinute: number;
  /** All attached files together may take so many bytes. */
  readonly fileQuotaBytes: number;
  readonly logLevel: string;
}

const LOOPBACK = /^(127\.[\d.]+|localhost|::1)$/;

/** Room for a few thousand photographs and certificates. */
const FILES_MB = 2_048;

/** Fewer would let requests wait for each other. */
const FEWEST_CONNECTIONS = 5;

/** A busy bench makes a few requests a second; this is fifty. */
const REQUESTS_PER_MINUTE = 3_000;

/** Whether a text is an address that browsers can be sent to, with nothing after the name: the pages lie at its root. */
function isSiteAddress(text: string): boolean {
  if (!URL.canParse(text)) return false;
  const { protocol, pathname, search, hash, username } = new URL(text);
  return (
    /^https?:$/.test(protocol) &&
    pathname === '/' &&
    search === '' &&
    hash === '' &&
    username === ''
  );
}

/**
 * Reads the settings of the app server.
 *
 * @throws Error with a sentence on what to set, also when it would send passwords over a network in the clear.
 */
export function readServerSettings(env: NodeJS.ProcessEnv): ServerSettings {
  /** What is set to nothing counts as not set. */
  const given = (name: string): string | null => {
    const value = env[name];
    return value === undefined || value === '' ? null : value;
  };
  const databaseUrl = given('DATABASE_URL');
  if (databaseUrl === null) throw new Error('DATABASE_URL is not set. Start with npm start.');
  const host = given('HOST') ?? '127.0.0.1';
  const publicUrl = given('PUBLIC_URL');
  if (publicUrl !== null && !isSiteAddress(publicUrl)) {
    throw new Error(
      'PUBLIC_URL is not the address of a site, such as https://laboratory.example, without anything after the name.',
    );
  }
  const certificateFile = given('TLS_CERT');
  const keyFile = given('TLS_KEY');
  const tls = certificateFile !== null && keyFile !== null ? { certificateFile, keyFile } : null;
  if (!LOOPBACK.test(host) && !tls) {
    throw new Error(
      `HOST=${host} is open to the network: set TLS_CERT and TLS_KEY to a certificate and its key, or stay on loopback behind a proxy.`,
    );
  }
  const databaseConnections = Math.min(
    CONNECTIONS,
    Number(given('PROCESS_CONNECTIONS') ?? CONNECTIONS),
  );
  if (!(databaseConnections >= FEWEST_CONNECTIONS)) {
    throw new Error(
      `DATABASE_CONNECTIONS leaves fewer than ${String(FEWEST_CONNECTIONS)} to each app process: allow more, or start fewer processes.`,
    );
  }
  return {
    databaseUrl,
    databaseConnections,
    host,
    port: Number(given('PORT') ?? 4680),
    publicUrl,
    tls,
    isSecure: tls !== null || publicUrl?.startsWith('https:') === true,
    isOfThisMachine: publicUrl === null && LOOPBACK.test(host),
    fileQuotaBytes: Number(given('FILES_MB') ?? FILES_MB) * 1024 * 1024,
    auditHeadsFile: given('AUDIT_HEADS'),
    requestsPerMinute: Number(given('REQUESTS_PER_MINUTE') ?? REQUESTS_PER_MINUTE),
    logLevel: given('LOG_LEVEL') ?? 'info',
  };
}
