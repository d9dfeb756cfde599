import { expect, test } from 'vitest';
import { torture } from './lib/torture.mjs';

const ROUNDS = 6;
const SEED = 1;

test('kills, a frozen database and a full disk lose nothing that was acknowledged; the servers come back by themselves', async () => {
  const told: string[] = [];
  const outcome = await torture({ rounds: ROUNDS, seed: SEED, tell: (line) => told.push(line) });
  expect(told).toHaveLength(ROUNDS);
  expect(Math.min(...Object.values(outcome.blows))).toBeGreaterThanOrEqual(1);
  expect(outcome.entered).toBeGreaterThan(0);
  expect(outcome.sent).toBeGreaterThan(6);
}, 300_000);
