import { afterEach, beforeEach, expect, test, vi } from 'vitest';
import { noteReach } from '../app/reachability';
import { renewWithNextPage } from './renewal';

let built: unknown;
let open: (pathname: string) => void;
const reload = vi.fn();

beforeEach(() => {
  vi.useFakeTimers();
  reload.mockClear();
  const document = Object.assign(new EventTarget(), { visibilityState: 'visible' });
  vi.stubGlobal('document', document);
  vi.stubGlobal('fetch', () => Promise.resolve(Response.json(built)));
  let tell: (state: { location: { pathname: string } }) => void = () => undefined;
  open = (pathname) => {
    tell({ location: { pathname } });
  };
  const pages = {
    state: { location: { pathname: '/' } },
    subscribe: (onChange: typeof tell) => {
      tell = onChange;
      return () => undefined;
    },
  };
  renewWithNextPage(pages, '/assets/index-1.js', reload);
});
afterEach(() => {
  vi.useRealTimers();
  vi.unstubAllGlobals();
});

/** The server ends and is there again. */
async function restart(): Promise<void> {
  noteReach('away');
  noteReach('reached');
  await vi.advanceTimersByTimeAsync(0);
}

/** Somebody looks at the page again. */
async function look(): Promise<void> {
  document.dispatchEvent(new Event('visibilitychange'));
  await vi.advanceTimersByTimeAsync(0);
}

test('with another build on the server the next page, and no question of this one, loads the program again', async () => {
  built = ['/', '/assets/index-2.js'];
  await restart();
  open('/');
  expect(reload).not.toHaveBeenCalled();
  open('/judge');
  expect(reload).toHaveBeenCalledOnce();
});

test.each([
  ['the same build', ['/', '/assets/index-1.js']],
  ['no list of files', { title: 'not found' }],
])('with %s nothing is loaded again', async (_name, files) => {
  built = files;
  await restart();
  open('/judge');
  expect(reload).not.toHaveBeenCalled();
});

test('a page that is looked at again asks, once a minute at most', async () => {
  built = ['/', '/assets/index-1.js'];
  await look();
  built = ['/', '/assets/index-2.js'];
  await vi.advanceTimersByTimeAsync(59_999);
  await look();
  open('/judge');
  expect(reload).not.toHaveBeenCalled();
  await vi.advanceTimersByTimeAsync(1);
  await look();
  open('/lots');
  expect(reload).toHaveBeenCalledOnce();
});
