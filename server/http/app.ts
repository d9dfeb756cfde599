import { join } from 'node:path';
import type { Express } from 'express';
import compression from 'compression';
import express from 'express';
import expressStaticGzip from 'express-static-gzip';
import helmet from 'helmet';
import { auditRoutes } from '../audit/routes';
import { fileRoutes } from '../files/routes';
import { labelRoutes } from '../labels/routes';
import { ledgerRoutes } from '../ledger/routes';
import { liveRoutes } from '../live/routes';
import { peopleRoutes } from '../people/routes';
import type { AppParts } from '../parts';
import { preparationRoutes } from '../preparations/routes';
import { runRoutes } from '../runs/routes';
import { databaseAway } from './appError';
import { healthRoutes } from './health';
import { requestLimit } from './limits';
import { openApiDocument } from './openApi';
import { answerNotFound, answerProblem } from './problems';
import { requestLog } from './requestLog';
import { csrfProtection, sameOriginOnly, sessions } from './session';

/** The parts of the work, each with its routes. */
const PARTS = [ledgerRoutes, preparationRoutes];

/** The whole HTTP application. It keeps nothing between requests; all state is in PostgreSQL. */
export function createApp(parts: AppParts): Express {
  const app = express();
  app.disable('x-powered-by');
  app.set('query parser', 'simple');
  // A proxy on this machine speaks for its clients; nobody else does.
  app.set('trust proxy', parts.publicUrl === null ? false : 'loopback');
  app.use(requestLog(parts.logger));
  app.use(securityHeaders(parts.isSecure));
  app.use(healthRoutes(parts));
  app.use('/api', api(parts));
  if (parts.webFolder !== null) app.use(webClient(parts.webFolder));
  app.use(answerNotFound);
  app.use(answerProblem);
  return app;
}

function api(parts: AppParts): express.Router {
  const router = express.Router();
  const { services, sessionPool, sessionSigningKey, isSecure } = parts;
  router.use((_request, response, next) => {
    response.setHeader('Cache-Control', 'no-store');
    next();
  });
  router.use(compressedAnswers);
  router.use(sameOriginOnly(parts.publicUrl));
  router.use((_request, _response, next) => {
    next(parts.pulse.isBeating ? undefined : databaseAway());
  });
  router.use(express.json({ limit: '64kb', strict: true }));
  router.use(sessions(services, sessionPool, { signingKey: sessionSigningKey, isSecure }));
  router.use(requestLimit(services, parts.requestsPerMinute));
  router.use(csrfProtection);
  router.use(peopleRoutes(parts));
  for (const routes of PARTS) router.use(routes(services));
  router.use(auditRoutes(parts));
  router.use(runRoutes(parts));
  router.use(fileRoutes(parts));
  router.use(labelRoutes(parts));
  router.use(liveRoutes(parts));
  router.get('/openapi.json', (_request, response) => {
    response.json(openApiDocument());
  });
  router.use(answerNotFound);
  return router;
}

/** Answers as they are asked for; a stream of events goes out as it comes. */
const compressedAnswers = compression({
  filter: (request, response) =>
    request.path !== '/events' && compression.filter(request, response),
});

/** Only our own origin may serve anything to our pages. */
function securityHeaders(isSecure: boolean): express.RequestHandler {
  return helmet({
    contentSecurityPolicy: {
      useDefaults: false,
      directives: {
        defaultSrc: ["'self'"],
        scriptSrc: ["'self'"],
        workerSrc: ["'self'"],
        // Radix places the style of its scroll lock in the page itself; it fetches nothing.
        styleSrc: ["'self'", "'unsafe-inline'"],
        imgSrc: ["'self'", 'data:'],
        objectSrc: ["'none'"],
        baseUri: ["'none'"],
        formAction: ["'self'"],
        frameAncestors: ["'none'"],
      },
    },
    // Loopback serves plain HTTP, which no browser may be told to avoid.
    strictTransportSecurity: isSecure,
    referrerPolicy: { policy: 'same-origin' },
  });
}

/** The built client: hashed files for ever, its page for every other address. */
function webClient(folder: string): express.Router {
  const router = express.Router();
  const compressed = { enableBrotli: true, orderPreference: ['br', 'gz'], index: false };
  router.use(
    '/assets',
    expressStaticGzip(join(folder, 'assets'), {
      ...compressed,
      serveStatic: { immutable: true, maxAge: '1y' },
    }),
  );
  router.use('/assets', answerNotFound);
  router.use(expressStaticGzip(folder, compressed));
  router.get('/{*path}', (_request, response) => {
    response.setHeader('Cache-Control', 'no-cache');
    response.sendFile('index.html', { root: folder });
  });
  return router;
}
