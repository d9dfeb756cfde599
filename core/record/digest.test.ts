import { createHash } from 'node:crypto';
import { expect, test } from 'vitest';
import { digestOf } from './digest';

test('the digest is that of the canonical text, whatever the order of the fields', () => {
  const canonical = '{"a":{"c":null,"d":"0,10 µ"},"b":[1,0.000001]}';
  const expected = createHash('sha256').update(canonical).digest('hex');
  expect(digestOf({ b: [1, 0.000001], a: { d: '0,10 µ', c: null } })).toBe(expected);
  expect(digestOf({ b: [0.000001, 1], a: { d: '0,10 µ', c: null } })).not.toBe(expected);
});
