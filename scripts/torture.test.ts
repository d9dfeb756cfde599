import { expect, test } from 'vitest';
import { torture } from './lib/torture.mjs';

test('kill -9 of app server, PostgreSQL and browser loses nothing that was acknowledged', async () => {
  const told: string[] = [];
  // A seed whose five rounds kill each of the three.
  const outcome = await torture({ rounds: 5, seed: 2, tell: (line) => told.push(line) });
  expect(told).toHaveLength(5);
  expect(Math.min(...Object.values(outcome.kills))).toBeGreaterThanOrEqual(1);
  expect(outcome.entered).toBeGreaterThan(0);
  expect(outcome.sent).toBeGreaterThan(6);
}, 300_000);
