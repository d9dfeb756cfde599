import { expect, test } from 'vitest';
import { idOf } from '../test-support/stored';
import type { Action, Right } from './index';
import { may, RIGHTS, whyNot } from './index';

/** The right that each action takes. */
const TAKES: Readonly<Record<Action, Right>> = {
  register: 'register',
  certify: 'certify',
  manage: 'manage',
  deviate: 'manage',
  'abandon-anothers-run': 'manage',
};

test.each(Object.entries(TAKES) as [Action, Right][])(
  '%s takes the right to %s',
  (action, right) => {
    const run = { startedBy: 'somebody else' };
    const others = RIGHTS.filter((one) => one !== right);
    expect(may({ id: idOf('ines'), rights: [right] }, action, run)).toBe(true);
    expect(may({ id: idOf('ines'), rights: others }, action, run)).toBe(false);
    expect(whyNot(action)).toMatch(/\.$/);
  },
);

test('one’s own run is given up without any right', () => {
  const ines = { id: idOf('ines'), rights: [] };
  expect(may(ines, 'abandon-anothers-run', { startedBy: 'ines' })).toBe(true);
  expect(may(ines, 'abandon-anothers-run', { startedBy: 'tobin' })).toBe(false);
});
