import type { Request } from 'express';
import { Router } from 'express';
import * as v from 'valibot';
import { isSessionAlive, requirePerson } from '../http/session';
import type { AppParts } from '../http/app';
import { streamEvents } from './stream';

const position = v.pipe(v.string(), v.regex(/^\d{1,15}$/), v.transform(Number));

/** `GET /api/events`: what changes, as server-sent events. */
export function liveRoutes({ services, feed, sessionPool }: AppParts): Router {
  const router = Router();
  router.get('/events', async (request, response) => {
    await requirePerson(services, request);
    const { sessionID } = request;
    await streamEvents({
      db: services.db,
      feed,
      response,
      after: positionOf(request),
      isAllowed: () => isSessionAlive(sessionPool, sessionID),
      onDropped: (unreadBytes) => {
        request.log.warn({ unreadBytes }, 'a slow reader of the live feed was dropped');
      },
    });
  });
  return router;
}

/** Where a reader goes on: what its browser remembers after a reconnection, else what the page asked for. */
function positionOf(request: Request): number {
  for (const given of [request.get('last-event-id'), request.query.after]) {
    const parsed = v.safeParse(position, given);
    if (parsed.success) return parsed.output;
  }
  return 0;
}
