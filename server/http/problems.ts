import type { ErrorRequestHandler, Request, RequestHandler } from 'express';
import * as v from 'valibot';
import type { Id } from '#core/grammar';
import type { Problem } from '#contract';
import { id } from '#contract';
import { AppError, toAppError } from './appError';

/** The one place where a failure becomes an answer: RFC 9457 problem details, logged once. */
export const answerProblem: ErrorRequestHandler = (thrown, request, response, next) => {
  const error = toAppError(thrown);
  if (error.status >= 500) request.log.error({ err: error.cause ?? error }, error.message);
  if (response.headersSent) {
    next(thrown);
    return;
  }
  const problem: Problem = {
    type: `urn:vine-measure:problem:${error.code}`,
    code: error.code,
    status: error.status,
    title: error.message,
    fields: error.fields,
    requestId: typeof request.id === 'string' ? request.id : '',
  };
  response.status(error.status).type('application/problem+json').json(problem);
};

/** What the API says to a path it does not have. */
export const answerNotFound: RequestHandler = (_request, _response, next) => {
  next(new AppError('not-found', 'There is nothing at this address.'));
};

/**
 * The request's body as the schema reads it.
 *
 * @param prepare what is done to it before
 * @throws AppError naming every field at fault
 */
export function parseBody<S extends v.GenericSchema>(
  request: Request,
  schema: S,
  prepare: (body: unknown) => unknown = (body) => body,
): v.InferOutput<S> {
  if (request.body === undefined) {
    throw new AppError('unsupported-media-type', 'The request must carry JSON.');
  }
  return parsed(schema, prepare(request.body), 'Something in this entry cannot be read.');
}

/** The request's query as the schema reads it. @throws AppError naming every parameter at fault */
export function parseQuery<S extends v.GenericSchema>(
  request: Request,
  schema: S,
): v.InferOutput<S> {
  return parsed(schema, request.query, 'Something in this address cannot be read.');
}

function parsed<S extends v.GenericSchema>(
  schema: S,
  given: unknown,
  sentence: string,
): v.InferOutput<S> {
  const read = v.safeParse(schema, given);
  if (read.success) return read.output;
  const fields = read.issues.map((issue) => ({
    field: v.getDotPath(issue) ?? '',
    message: issue.message,
  }));
  throw new AppError('invalid-request', sentence, fields);
}

/** A path parameter that must be an id. @throws AppError `not-found` for anything else. */
export function idParameter(request: Request, name: string): Id {
  const parsed = v.safeParse(id, request.params[name]);
  if (parsed.success) return parsed.output;
  throw new AppError('not-found', 'There is nothing at this address.');
}
