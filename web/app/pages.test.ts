import { expect, test } from 'vitest';
import * as v from 'valibot';
import { printSchema } from '#contract';
import { pageAt, PAGES } from './pages';

test.each([
  ['/', '/'],
  ['/prepare/day', '/prepare/day'],
  ['/runs/01a224df-01f8-7d10', '/runs/:runId'],
  ['/runs/01a224df-01f8-7d10/judge', '/runs/:runId/judge'],
  ['/runs/01a224df-01f8-7d10/', '/runs/:runId'],
])('%s leads to the page of %s, of no part of it', (address, path) => {
  expect(pageAt(address)?.[0]).toBe(path);
});

test.each(['/runs', '/bottles/1/label/2', '/nowhere'])('%s is no page', (address) => {
  expect(pageAt(address)).toBeUndefined();
});

test.each(PAGES.map(([path]) => path))('that %s was printed can be put on record', (path) => {
  const address = path
    .replace(':number', '0416-2')
    .replace(/:\w+/, '01a224df-01f8-7d10-8000-000000000417');
  expect(v.is(printSchema, { path: address })).toBe(true);
});
