import type { Request } from 'express';
import { Router } from 'express';
import * as v from 'valibot';
import { AppError } from '../http/appError';
import { isSessionAlive } from '../http/queries';
import { requirePerson } from '../http/session';
import type { AppParts } from '../parts';
import { streamEvents } from './stream';

/** The tabs of a browser share one stream; a few more are left from before a reload. */
const STREAMS_AT_MOST = 8;

const position = v.pipe(v.string(), v.regex(/^\d{1,15}$/), v.transform(Number));

/** `GET /api/events`: what changes, as server-sent events. */
export function liveRoutes({ services, feed, sessionPool }: AppParts): Router {
  const router = Router();
  /** Streams that each session has open in this process. */
  const open = new Map<string, number>();
  const count = (session: string, change: number): void => {
    const now = (open.get(session) ?? 0) + change;
    if (now > 0) open.set(session, now);
    else open.delete(session);
  };
  router.get('/events', async (request, response) => {
    await requirePerson(services, request);
    const { sessionID } = request;
    // Who left while the session was looked up would never be counted off again.
    if (response.closed || response.destroyed) return;
    if ((open.get(sessionID) ?? 0) >= STREAMS_AT_MOST) {
      throw new AppError('too-many-requests', 'Too many pages of this session follow the changes.');
    }
    count(sessionID, 1);
    response.once('close', () => {
      count(sessionID, -1);
    });
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
