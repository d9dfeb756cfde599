import type { Query } from '@tanstack/react-query';
import { QueryCache, QueryClient } from '@tanstack/react-query';
import type { SessionAnswer } from '#contract';
import { AwayError, ProblemError } from './api';

/** The query that says who is signed in. */
export const SESSION = ['session'] as const;

/** Notes who has just signed in; an earlier question that is answered later would say that nobody has. */
export async function signedIn(client: QueryClient, session: SessionAnswer): Promise<void> {
  await client.cancelQueries({ queryKey: SESSION });
  client.setQueryData(SESSION, session);
}

/** What the pages have read of the server. */
export function createQueryClient(): QueryClient {
  const client = new QueryClient({
    queryCache: new QueryCache({
      onError: (error) => {
        // The session is over, here or on the server: the gate asks again and offers the sign-in.
        if (isSignedOut(error)) void client.invalidateQueries({ queryKey: SESSION });
      },
    }),
    defaultOptions: {
      queries: {
        staleTime: 10_000,
        // Kept for work without the server, longer than a page looks at it.
        gcTime: 24 * 3_600_000,
        retry: mayPass,
        // What the browser thinks of the network says nothing about our server.
        networkMode: 'always',
      },
      // A form says at once that the server is away; its text stays where it is.
      mutations: { retry: false, networkMode: 'always' },
    },
  });
  return client;
}

/**
 * Whether a page cannot go on because of a failed query: not while it has what was read before, and not when nobody is signed
 * in any more, which the gate sees to.
 */
export function failsThePage(
  error: Error,
  query: { readonly state: Pick<Query['state'], 'data'> },
): boolean {
  return query.state.data === undefined && !isSignedOut(error);
}

/** Whether asking again may help. */
function mayPass(failures: number, error: Error): boolean {
  const isPassing =
    error instanceof AwayError ||
    (error instanceof ProblemError && error.problem.code === 'internal');
  return isPassing && failures < 2;
}

function isSignedOut(error: Error): boolean {
  return error instanceof ProblemError && error.problem.code === 'not-signed-in';
}
