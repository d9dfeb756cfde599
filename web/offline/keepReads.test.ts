import 'fake-indexeddb/auto';
import { QueryClient } from '@tanstack/react-query';
import { IDBFactory } from 'fake-indexeddb';
import { afterEach, beforeEach, expect, test, vi } from 'vitest';
import { keepReads } from './keepReads';
import { openReads } from './reads';

beforeEach(() => {
  globalThis.indexedDB = new IDBFactory();
  vi.stubGlobal('window', new EventTarget());
});
afterEach(() => {
  vi.unstubAllGlobals();
});

/** A page that reads, and is closed when what it read is written down. */
async function readAndClose(build: string, reads: readonly (readonly [string, unknown])[]) {
  const client = new QueryClient();
  await keepReads(client, build, openReads());
  for (const [key, data] of reads) client.setQueryData([key], data);
  window.dispatchEvent(new Event('pagehide'));
  await new Promise((resolve) => setTimeout(resolve, 200));
  return client;
}

async function reopen(build: string) {
  const client = new QueryClient();
  await keepReads(client, build, openReads());
  return client;
}

test('what was read is there after a reload, and is asked for again as soon as the server answers', async () => {
  await readAndClose('build 1', [['run', { facts: [1, 2] }]]);
  const client = await reopen('build 1');
  expect(client.getQueryData(['run'])).toEqual({ facts: [1, 2] });
  expect(client.getQueryState(['run'])?.isInvalidated).toBe(true);
});

test('what could not be read again, the server being away, is still kept', async () => {
  const client = new QueryClient();
  await keepReads(client, 'build 1', openReads());
  client.setQueryData(['run'], { facts: [1, 2] });
  const away = (): Promise<never> => Promise.reject(new Error('the server is away'));
  await client.query({ queryKey: ['run'], queryFn: away, retry: false }).catch(() => undefined);
  expect(client.getQueryState(['run'])?.status).toBe('error');
  window.dispatchEvent(new Event('pagehide'));
  await new Promise((resolve) => setTimeout(resolve, 200));
  expect((await reopen('build 1')).getQueryData(['run'])).toEqual({ facts: [1, 2] });
});

test('another build of the program does not take over what it may not understand', async () => {
  await readAndClose('build 1', [['run', { facts: [1, 2] }]]);
  expect((await reopen('build 2')).getQueryData(['run'])).toBeUndefined();
});

test('that nobody was signed in is not remembered; signing out forgets the rest', async () => {
  const first = await readAndClose('build 1', [
    ['session', { kind: 'signed-out' }],
    ['run', { facts: [] }],
  ]);
  const second = await reopen('build 1');
  expect(second.getQueryData(['session'])).toBeUndefined();
  expect(second.getQueryData(['run'])).toBeDefined();
  first.clear();
  window.dispatchEvent(new Event('pagehide'));
  await new Promise((resolve) => setTimeout(resolve, 200));
  expect((await reopen('build 1')).getQueryData(['run'])).toBeUndefined();
});
