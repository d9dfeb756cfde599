import type { FieldProblem, ProblemCode } from '#contract';
import { PROBLEM_STATUS } from '#contract';

/** An expected failure that the client is told about. */
export class AppError extends Error {
  readonly code: ProblemCode;
  readonly fields: readonly FieldProblem[];

  /** @param title one sentence that the user can act on */
  constructor(
    code: ProblemCode,
    title: string,
    fields: readonly FieldProblem[] = [],
    options?: ErrorOptions,
  ) {
    super(title, options);
    this.code = code;
    this.fields = fields;
  }

  get status(): number {
    return PROBLEM_STATUS[this.code];
  }
}

/** An id under which something else is on record. */
export function factIdReused(): AppError {
  const message = 'Another entry already has this id with other content; nothing was stored.';
  return new AppError('fact-id-reused', message);
}

/** A name that somebody has already, in whatever spelling. */
export function nameTaken(): AppError {
  return new AppError('already-exists', 'Somebody of that name has an account already.', [
    { field: 'name', message: 'This name is taken.' },
  ]);
}

/** What each unique constraint means to a user. */
const CONSTRAINTS: Readonly<Record<string, () => AppError>> = {
  facts_pkey: factIdReused,
  people_name_unique: nameTaken,
  bottle_code_unique: () =>
    new AppError('already-exists', 'Another bottle carries this code.', [
      { field: 'body.code', message: 'Another bottle carries this code: choose the next one.' },
    ]),
  sample_code_unique: () =>
    new AppError('already-exists', 'Another sample carries this code.', [
      { field: 'body.code', message: 'Another sample carries this code.' },
    ]),
  laboratory_only_one: () =>
    new AppError('already-exists', 'The laboratory has been founded already.'),
};

/** What the server's body parser and router call their failures. */
const HTTP_FAILURES: Readonly<Record<number, () => AppError>> = {
  400: () => new AppError('invalid-request', 'The request could not be read; nothing was stored.'),
  413: () => new AppError('too-large', 'The request is too large; nothing was stored.'),
  415: () =>
    new AppError(
      'unsupported-media-type',
      'The request must be JSON in UTF-8; nothing was stored.',
    ),
};

/** PostgreSQL finds no room. */
const DISK_FULL = /^53100$|^ENOSPC$|^EDQUOT$/;

/** PostgreSQL is gone, going or full: classes 08, 53 and 57, and failures to reach it at all. */
const UNAVAILABLE = /^(08|53|57)|^ECONN|^ETIMEDOUT|^EPIPE$/;

/** Turns anything thrown into an AppError; what nobody expected becomes `internal`. */
export function toAppError(thrown: unknown): AppError {
  if (thrown instanceof AppError) return thrown;
  const known = constraintError(thrown) ?? httpFailure(thrown) ?? unavailable(thrown);
  if (known) return known;
  return new AppError(
    'internal',
    'The server failed; what you entered is still on this device. Try again.',
    [],
    { cause: thrown },
  );
}

function constraintError(thrown: unknown): AppError | null {
  const name = textProperty(thrown, 'constraint');
  return name === null ? null : (CONSTRAINTS[name]?.() ?? null);
}

function httpFailure(thrown: unknown): AppError | null {
  const status = (thrown as { status?: unknown } | null)?.status;
  return typeof status === 'number' ? (HTTP_FAILURES[status]?.() ?? null) : null;
}

function unavailable(thrown: unknown): AppError | null {
  const code = textProperty(thrown, 'code') ?? '';
  const message = thrown instanceof Error ? thrown.message : '';
  const isLost =
    /Connection terminated|[Tt]imeout (acquiring a connection|exceeded when trying to connect)|timeout expired/.test(
      message,
    );
  if (DISK_FULL.test(code) || message.includes('No space left on device')) return diskFull(thrown);
  return UNAVAILABLE.test(code) || isLost ? databaseAway(thrown) : null;
}

/** What is asked of a database that does not answer; a commit under way may have come through, or not. */
export function databaseAway(cause?: unknown): AppError {
  const message =
    'The database does not answer at the moment. What you entered stays on this device and is sent again.';
  return new AppError('unavailable', message, [], { cause });
}

function diskFull(cause: unknown): AppError {
  const message =
    'The disk of the server is full. What you enter stays on this device until there is room; tell whoever runs the server.';
  return new AppError('disk-full', message, [], { cause });
}

function textProperty(thrown: unknown, key: string): string | null {
  const value = (thrown as Record<string, unknown> | null)?.[key];
  return typeof value === 'string' ? value : null;
}
