import { expect, test } from 'vitest';
import { attack } from './lib/attack.mjs';

test('800 hostile requests bring no 5xx, give nothing away and leave the audit whole', async () => {
  const told: string[] = [];
  const outcome = await attack({ requests: 800, seed: 417, tell: (line) => told.push(line) });
  expect(outcome.sent).toBeGreaterThanOrEqual(800);
  // Some are taken, and many are refused for what they are.
  for (const status of [200, 201, 400, 403, 404, 422]) {
    expect(outcome.byStatus[status] ?? 0, String(status)).toBeGreaterThan(0);
  }
  expect(told.join('\n')).toContain('The audit log is whole');
}, 300_000);
