import { randomUUID } from 'node:crypto';
import { join } from 'node:path';
import type { Express } from 'express';
import express from 'express';
import helmet from 'helmet';
import type pg from 'pg';
import type { Logger } from 'pino';
import { pinoHttp } from 'pino-http';
import { ledgerRoutes } from '../ledger/routes';
import { peopleRoutes } from '../people/routes';
import { runRoutes } from '../runs/routes';
import type { Services } from '../services';
import { answerNotFound, answerProblem } from './problems';
import { csrfProtection, sameOriginOnly, sessions } from './session';

/** The parts of the work, each with its routes. */
const PARTS = [peopleRoutes, ledgerRoutes, runRoutes];

/** What the application is put together from. */
export interface AppParts {
  readonly services: Services;
  readonly sessionPool: pg.Pool;
  readonly sessionSigningKey: string;
  readonly logger: Logger;
  /** Folder of the built web client; null for the API alone. */
  readonly webFolder: string | null;
}

/** The whole HTTP application. It keeps nothing between requests; all state is in PostgreSQL. */
export function createApp(parts: AppParts): Express {
  const app = express();
  app.disable('x-powered-by');
  app.set('query parser', 'simple');
  app.use(
    pinoHttp({
      logger: parts.logger,
      genReqId: () => randomUUID(),
      autoLogging: false,
      redact: ['req.headers.cookie', 'req.headers["x-csrf-token"]'],
    }),
  );
  app.use(securityHeaders());
  app.use('/api', api(parts));
  if (parts.webFolder !== null) app.use(webClient(parts.webFolder));
  app.use(answerNotFound);
  app.use(answerProblem);
  return app;
}

function api(parts: AppParts): express.Router {
  const router = express.Router();
  router.use((_request, response, next) => {
    response.setHeader('Cache-Control', 'no-store');
    next();
  });
  router.use(sameOriginOnly);
  router.use(express.json({ limit: '64kb', strict: true }));
  router.use(sessions(parts.sessionPool, parts.sessionSigningKey));
  router.use(csrfProtection);
  for (const routes of PARTS) router.use(routes(parts.services));
  router.use(answerNotFound);
  return router;
}

/** Only our own origin may serve anything to our pages. */
function securityHeaders(): express.RequestHandler {
  return helmet({
    contentSecurityPolicy: {
      useDefaults: false,
      directives: {
        defaultSrc: ["'self'"],
        scriptSrc: ["'self'"],
        // Radix places the style of its scroll lock in the page itself; it fetches nothing.
        styleSrc: ["'self'", "'unsafe-inline'"],
        imgSrc: ["'self'", 'data:'],
        objectSrc: ["'none'"],
        baseUri: ["'none'"],
        formAction: ["'self'"],
        frameAncestors: ["'none'"],
      },
    },
    // Loopback serves plain HTTP; a proxy that ends TLS adds its own.
    strictTransportSecurity: false,
    referrerPolicy: { policy: 'same-origin' },
  });
}

/** The built client: hashed files for ever, its page for every other address. */
function webClient(folder: string): express.Router {
  const router = express.Router();
  router.use('/assets', express.static(join(folder, 'assets'), { immutable: true, maxAge: '1y' }));
  router.use('/assets', answerNotFound);
  router.use(express.static(folder, { index: false }));
  router.get('/{*path}', (_request, response) => {
    response.setHeader('Cache-Control', 'no-cache');
    response.sendFile('index.html', { root: folder });
  });
  return router;
}
