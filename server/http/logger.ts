import { writeSync } from 'node:fs';
import type { Logger } from 'pino';
import { pino } from 'pino';

/** What of an error is written down. */
interface LoggedError {
  readonly type: string;
  readonly message?: string;
  readonly [detail: string]: unknown;
}

/**
 * An error for the log. What PostgreSQL says of a refused row may quote the row, a hash of a password among it: of that
 * only names are kept.
 */
export function loggedError(error: unknown): LoggedError {
  if (!(error instanceof Error)) return { type: typeof error };
  const given = error as Error & Readonly<Record<string, unknown>>;
  const frames = (error.stack ?? '').split('\n').filter((line) => /^\s+at /.test(line));
  const shared = { type: error.name, code: given.code, stack: frames.join('\n') };
  if (given.severity === undefined) return { ...shared, message: error.message };
  const { severity, constraint, table, column, routine } = given;
  return { ...shared, severity, constraint, table, column, routine };
}

/**
 * The log of the server, a line of JSON each on standard output. A line that cannot be written, as when the disk is
 * full, is lost; the server goes on.
 */
export function makeLogger(level: string, write: (line: string) => void = writeLine): Logger {
  return pino({ name: 'vine-measure', level, serializers: { err: loggedError } }, { write });
}

function writeLine(line: string): void {
  try {
    writeSync(1, line);
  } catch {
    // Nowhere is left to tell it.
  }
}
