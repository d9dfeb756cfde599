import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { createContext, use } from 'react';
import type { SessionAnswer } from '#contract';
import { sessionAnswer } from '#contract';
import { ask, tell } from './api';
import { measureClock } from './device';
import { SESSION, signedIn } from './queryClient';

type SignedIn = Extract<SessionAnswer, { kind: 'signed-in' }>;

/** The session that the page below works under. */
export const SessionContext = createContext<SignedIn | null>(null);

/** Who is signed in. Only below the gate that asked for a sign-in. */
export function useSession(): SignedIn {
  const session = use(SessionContext);
  if (!session) throw new Error('nobody is signed in here');
  return session;
}

/** Asks for a session and notes what it says of the clock and of the token for changes. */
async function askForSession(
  method: 'GET' | 'POST',
  path: string,
  body?: object,
): Promise<SessionAnswer> {
  const asked = Date.now();
  const isPages = isFirst;
  isFirst = false;
  const session = await ask(sessionAnswer, method, path, body);
  const [askedMs, answeredMs] = (isPages ? askedByPage() : null) ?? [asked, Date.now()];
  if (session.kind === 'signed-in') measureClock(session.now, askedMs, answeredMs);
  return session;
}

/** The page itself has asked before the program's first question, which finds that answer waiting. */
let isFirst = true;

/** When the page itself asked for the session and had its answer; null where it had none. */
function askedByPage(): readonly [askedMs: number, answeredMs: number] | null {
  const [timing] = performance.getEntriesByType('resource').filter(
    (entry): entry is PerformanceResourceTiming =>
      entry.name.endsWith('/api/session') &&
      // A question by the page, not by the program.
      (entry as PerformanceResourceTiming).initiatorType === 'link',
  );
  // Without an answer the program has asked on its own.
  if (!timing || timing.responseStart === 0) return null;
  // By this device's clock as it is now: it may have been set since the page began.
  const beganMs = Date.now() - performance.now();
  return [beganMs + timing.requestStart, beganMs + timing.responseEnd];
}

/** Asks the server who is signed in. */
export function useSessionQuery() {
  return useQuery({
    queryKey: SESSION,
    queryFn: () => askForSession('GET', '/session'),
    staleTime: 5 * 60_000,
  });
}

/** Signs in by one of the ways that the server offers: the path says which, the body carries what it needs. */
export function useSignIn(path: '/session' | '/session/demo' | '/first-account') {
  const client = useQueryClient();
  return useMutation({
    mutationFn: (body: object) => askForSession('POST', path, body),
    onSuccess: (session) => signedIn(client, session),
  });
}

/** Signs out and forgets what this page has read. */
export function useSignOut() {
  const client = useQueryClient();
  return useMutation({
    mutationFn: () => tell('DELETE', '/session'),
    onSuccess: async () => {
      client.removeQueries({ predicate: (query) => query.queryKey[0] !== SESSION[0] });
      await client.resetQueries({ queryKey: SESSION });
    },
  });
}
