import { QueryObserver } from '@tanstack/react-query';
import { expect, test } from 'vitest';
import { AwayError, ProblemError } from './api';
import type { SessionAnswer } from '#contract';
import { createQueryClient, failsThePage, SESSION, signedIn } from './queryClient';

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

test('who signs in stays signed in, though an earlier question is answered later', async () => {
  const client = createQueryClient();
  let answer: (session: object) => void = () => undefined;
  const session = new QueryObserver(client, {
    queryKey: SESSION,
    queryFn: () => new Promise<object>((resolve) => (answer = resolve)),
  });
  const leave = session.subscribe(() => undefined);
  await signedIn(client, { kind: 'signed-in' } as SessionAnswer);
  answer({ kind: 'signed-out' });
  await new Promise((resolve) => setTimeout(resolve, 10));
  expect(session.getCurrentResult().data).toEqual({ kind: 'signed-in' });
  leave();
});
