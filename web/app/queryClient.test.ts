import { QueryObserver } from '@tanstack/react-query';
import { expect, test } from 'vitest';
import { AwayError, ProblemError } from './api';
import { createQueryClient, failsThePage, SESSION } from './queryClient';

const signedOut = new ProblemError({
  type: 'urn:vine-measure:problem:not-signed-in',
  code: 'not-signed-in',
  status: 401,
  title: 'Sign in to go on.',
  fields: [],
  requestId: 'r1',
});

test('a page that is told to sign in asks who is signed in, and is not shown as broken', async () => {
  const client = createQueryClient();
  let asked = 0;
  const session = new QueryObserver(client, {
    queryKey: SESSION,
    queryFn: () => {
      asked += 1;
      return { kind: asked === 1 ? 'signed-in' : 'signed-out' };
    },
  });
  const leave = session.subscribe(() => undefined);
  await expect.poll(() => session.getCurrentResult().data).toEqual({ kind: 'signed-in' });
  const refused = { queryKey: ['records', 'lot'], queryFn: () => Promise.reject(signedOut) };
  await expect(client.query(refused)).rejects.toBe(signedOut);
  await expect.poll(() => session.getCurrentResult().data).toEqual({ kind: 'signed-out' });
  leave();
});

test('a page fails only where it has nothing to show and nobody else sees to it', () => {
  const query = (data: unknown) => ({ state: { data } });
  expect(failsThePage(new AwayError(), query(undefined))).toBe(true);
  expect(failsThePage(new AwayError(), query([]))).toBe(false);
  expect(failsThePage(signedOut, query(undefined))).toBe(false);
});
