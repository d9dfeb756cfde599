import { subscribeReachable } from '../app/reachability';

/** What it takes of a router to know that another page has been opened. */
interface Pages {
  readonly state: Shown;
  readonly subscribe: (onChange: (state: Shown) => void) => () => void;
}

interface Shown {
  readonly location: { readonly pathname: string };
}

/** A page that is looked at again asks no more often. */
const ASK_AGAIN_MS = 60_000;

/**
 * Loads the program again when the server has another build of it: with the next page that is opened, because there nothing is typed
 * yet. Until then the parts of this build come from where the server keeps them.
 *
 * @param ownFile address of the script that this page began with; its name changes with every build
 */
export function renewWithNextPage(pages: Pages, ownFile: string, reload: () => void): void {
  let isOld = false;
  let askedAt = -Infinity;
  const ask = async (): Promise<void> => {
    askedAt = Date.now();
    const files = await filesOfServer();
    isOld = files !== null && !files.includes(ownFile);
  };
  // An upgrade ends the server for a moment.
  subscribeReachable((isReachable) => {
    if (isReachable) void ask();
  });
  document.addEventListener('visibilitychange', () => {
    const isDue = Date.now() - askedAt >= ASK_AGAIN_MS;
    if (document.visibilityState === 'visible' && isDue) void ask();
  });
  let { pathname } = pages.state.location;
  pages.subscribe(({ location }) => {
    if (location.pathname === pathname) return;
    pathname = location.pathname;
    if (isOld) reload();
  });
}

/** The list of the files that the server's build is made of; null when it cannot be had. */
async function filesOfServer(): Promise<readonly unknown[] | null> {
  try {
    const answer = await fetch('/files.json', { cache: 'no-store' });
    const files: unknown = answer.ok ? await answer.json() : null;
    return Array.isArray(files) ? files : null;
  } catch {
    return null;
  }
}
