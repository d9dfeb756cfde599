import { QueryClient } from '@tanstack/react-query';
import { AwayError } from './api';

/** What the pages have read of the server. */
export function createQueryClient(): QueryClient {
  return new QueryClient({
    defaultOptions: {
      queries: {
        staleTime: 10_000,
        // Kept for work without the server, longer than a page looks at it.
        gcTime: 24 * 3_600_000,
        retry: (failures, error) => error instanceof AwayError && failures < 2,
        // What the browser thinks of the network says nothing about our server.
        networkMode: 'always',
      },
      // A form says at once that the server is away; its text stays where it is.
      mutations: { retry: false, networkMode: 'always' },
    },
  });
}
