import * as v from 'valibot';
import type { Problem } from '#contract';
import { tolerantly } from '#contract';
import type { Reach } from './reachability';
import { noteReach } from './reachability';
import { Refusal } from '../ui/refusal';

/** An answer of the server that says why not. */
export class ProblemError extends Refusal {
  readonly problem: Problem;

  constructor(problem: Problem) {
    super(problem.title, problem.fields);
    this.problem = problem;
  }
}

/** The server cannot be reached, or cannot reach its database. */
export class AwayError extends Error {
  constructor() {
    super('The server cannot be reached at the moment.');
  }
}

function away(reach: Exclude<Reach, 'reached'> = 'away'): AwayError {
  noteReach(reach);
  return new AwayError();
}

/** A server that has not answered by then is away; files take longer on their way, ms. */
const ANSWER_MS = 20_000;
export const FILE_MS = 180_000;

let csrfToken = '';

/** The token of the present session, sent with every change. */
export function rememberCsrfToken(token: string): void {
  csrfToken = token;
}

type Method = 'GET' | 'POST' | 'DELETE';

/**
 * Tells the server something whose answer says no more than that it was taken.
 *
 * @param longestMs where the server makes a file of it first
 * @throws as `ask`
 */
export async function tell(
  method: Method,
  path: string,
  body?: unknown,
  longestMs = ANSWER_MS,
): Promise<void> {
  await request(method, path, asJson(body), longestMs);
}

/**
 * Asks the server.
 *
 * @param schema of the answer; what a newer server has put into it besides is let pass
 * @throws ProblemError when it refuses, AwayError when it is not there, Error when its answer cannot be read.
 */
export async function ask<T>(
  schema: v.GenericSchema<unknown, T>,
  method: Method,
  path: string,
  body?: unknown,
): Promise<T> {
  const response = await request(method, path, asJson(body));
  return readAnswer(schema, await response.json());
}

/** What the server has sent, as a page may use it. @throws Error when it cannot be read */
export function readAnswer<T>(schema: v.GenericSchema<unknown, T>, sent: unknown): T {
  const read = v.safeParse(tolerantly(schema), sent);
  if (read.success) return read.output;
  const [issue] = read.issues;
  console.error('an answer that cannot be read:', v.getDotPath(issue), issue.message);
  throw new Error('The server answers in a way that this page cannot read. Load the page again.');
}

function asJson(body: unknown): { readonly type?: string; readonly body?: string } {
  return body === undefined ? {} : { type: 'application/json', body: JSON.stringify(body) };
}

/** Asks the server for a file. @throws as `ask` */
export async function askForFile(
  method: 'GET' | 'POST',
  path: string,
  body?: unknown,
): Promise<Blob> {
  return (await request(method, path, asJson(body), FILE_MS)).blob();
}

/** Sends a file as it is, with its name. @throws as `ask` */
export async function sendFile(path: string, file: File): Promise<void> {
  const type = file.type === '' ? 'application/octet-stream' : file.type;
  const named = `${path}?name=${encodeURIComponent(file.name)}`;
  await request('POST', named, { type, body: file }, FILE_MS);
}

/** An answer that is no refusal. */
async function request(
  method: Method,
  path: string,
  { type, body }: { readonly type?: string; readonly body?: BodyInit },
  longestMs = ANSWER_MS,
): Promise<Response> {
  let response: Response;
  try {
    response = await fetch(`/api${path}`, {
      method,
      headers: {
        ...(type === undefined ? {} : { 'content-type': type }),
        ...(method === 'GET' ? {} : { 'x-csrf-token': csrfToken }),
      },
      ...(body === undefined ? {} : { body }),
      signal: AbortSignal.timeout(longestMs),
    });
  } catch {
    throw away();
  }
  if (response.ok) {
    noteReach('reached');
    return response;
  }
  if (!response.headers.get('content-type')?.includes('problem+json')) throw away();
  const problem = (await response.json()) as Problem;
  // A server that fails at one thing is there for the others.
  if (problem.status >= 500 && problem.code !== 'internal') {
    throw away(problem.code === 'disk-full' ? 'disk-full' : 'away');
  }
  noteReach('reached');
  throw new ProblemError(problem);
}
