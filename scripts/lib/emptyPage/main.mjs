/* global document */
// The least page of the same stack: React, a router, one question to the server, one heading. For `npm run bench`.
import { QueryClient, QueryClientProvider, useQuery } from '@tanstack/react-query';
import { createElement } from 'react';
import { createRoot } from 'react-dom/client';
import { createBrowserRouter, RouterProvider } from 'react-router';

function Empty() {
  const { data } = useQuery({
    queryKey: ['session'],
    queryFn: async () => (await fetch('/api/session')).json(),
  });
  return data ? createElement('main', null, createElement('h1', null, 'Empty')) : null;
}

const root = document.getElementById('root');
if (!root) throw new Error('index.html has no #root');
createRoot(root).render(
  createElement(
    QueryClientProvider,
    { client: new QueryClient() },
    createElement(RouterProvider, {
      router: createBrowserRouter([{ path: '*', element: createElement(Empty) }]),
    }),
  ),
);
