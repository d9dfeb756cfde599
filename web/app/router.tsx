import type { RouteObject } from 'react-router';
import { createBrowserRouter } from 'react-router';
import { Loading } from './Loading';
import type { PageOf } from './pages';
import { PAGES } from './pages';
import { NotFound, RouteError } from './RouteError';
import { Shell } from './Shell';

/** A page that is fetched when it is first shown, with an error boundary of its own. */
function routeOf([path, load]: PageOf): RouteObject {
  return {
    path,
    lazy: async () => ({ Component: await load() }),
    ErrorBoundary: RouteError,
    HydrateFallback: Loading,
  };
}

export const router = createBrowserRouter([
  routeOf(['/interface', async () => (await import('../interface/InterfacePage')).InterfacePage]),
  {
    Component: Shell,
    ErrorBoundary: RouteError,
    HydrateFallback: Loading,
    children: [...PAGES.map(routeOf), { path: '*', Component: NotFound }],
  },
]);
