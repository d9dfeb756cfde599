import type { QueryClient } from '@tanstack/react-query';
import { QueryClientProvider } from '@tanstack/react-query';
import { RouterProvider } from 'react-router';
import { OutboxProvider } from '../outbox/useOutbox';
import { router } from './router';

/** The application. */
export function App({ client }: { readonly client: QueryClient }) {
  return (
    <QueryClientProvider client={client}>
      <OutboxProvider>
        <RouterProvider router={router} />
      </OutboxProvider>
    </QueryClientProvider>
  );
}
