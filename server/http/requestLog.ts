import { randomUUID } from 'node:crypto';
import type { RequestHandler } from 'express';
import type { Logger } from 'pino';
import { pinoHttp } from 'pino-http';
import { loggedError } from './logger';

/** One line of JSON for each request, with an id that the answer carries too; no body, cookie or token. */
export function requestLog(logger: Logger): RequestHandler {
  return pinoHttp({
    logger,
    genReqId: (_request, response) => {
      const id = randomUUID();
      response.setHeader('x-request-id', id);
      return id;
    },
    // Of the raw request, answer and error.
    wrapSerializers: false,
    serializers: {
      err: loggedError,
      req: ({ id, method, url }: { id: string; method: string; url: string }) => ({
        id,
        method,
        url,
      }),
      res: ({ statusCode }: { statusCode: number }) => ({ statusCode }),
    },
    customLogLevel: (_request, response) => (response.statusCode >= 500 ? 'warn' : 'info'),
  });
}
