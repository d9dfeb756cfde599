import { expect, test } from 'vitest';
import { pageAt } from './pages';

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
