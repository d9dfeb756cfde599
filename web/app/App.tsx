import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { useState } from 'react';
import { RouterProvider } from 'react-router';
import { OutboxProvider } from '../outbox/useOutbox';
import { AwayError } from './api';
import { router } from './router';

/** The application. */
export function App() {
  const [client] = useState(
    () =>
      new QueryClient({
        defaultOptions: {
          queries: {
            staleTime: 10_000,
            retry: (failures, error) => error instanceof AwayError && failures < 3,
          },
          // A form says at once that the server is away; its text stays where it is.
          mutations: { retry: false, networkMode: 'always' },
        },
      }),
  );
  return (
    <QueryClientProvider client={client}>
      <OutboxProvider>
        <RouterProvider router={router} />
      </OutboxProvider>
    </QueryClientProvider>
  );
}
