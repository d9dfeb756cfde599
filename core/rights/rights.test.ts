import { expect, test } from 'vitest';
import { idOf } from '../test-support/stored';
import type { Action, Role } from './index';
import { may, ROLES, rolesOfRights, whyNot } from './index';

/** Who may do each thing. */
const OPEN_TO: Readonly<Record<Action, readonly Role[]>> = {
  enter: ['trainee', 'analyst', 'storekeeper', 'technical-manager'],
  register: ['storekeeper', 'technical-manager'],
  perform: ['trainee', 'analyst'],
  check: ['reviewer'],
  authorize: ['authorized-signatory'],
  manage: ['technical-manager'],
  'manage-people': ['technical-manager', 'quality-manager'],
  deviate: ['technical-manager'],
  'abandon-anothers-run': ['technical-manager'],
  'verify-log': ['technical-manager', 'quality-manager', 'auditor'],
};

test.each(Object.entries(OPEN_TO) as [Action, readonly Role[]][])(
  '%s is open to %j, alone and beside other roles',
  (action, roles) => {
    const run = { startedBy: 'somebody else' };
    const mayWith = (given: readonly Role[]) =>
      may({ id: idOf('ines'), roles: given }, action, run);
    expect(ROLES.filter((role) => mayWith([role]))).toEqual(roles);
    expect(mayWith(ROLES.filter((role) => !roles.includes(role)))).toBe(false);
    expect(mayWith(ROLES)).toBe(true);
    expect(whyNot(action)).toMatch(/\.$/);
  },
);

test('one’s own run is given up in any role', () => {
  const ines = { id: idOf('ines'), roles: [] };
  expect(may(ines, 'abandon-anothers-run', { startedBy: 'ines' })).toBe(true);
  expect(may(ines, 'abandon-anothers-run', { startedBy: 'tobin' })).toBe(false);
});

test('the rights of before become roles that may the same', () => {
  expect(rolesOfRights([])).toEqual(['analyst']);
  expect(rolesOfRights(['manage', 'certify', 'register'])).toEqual([
    'analyst',
    'storekeeper',
    'authorized-signatory',
    'technical-manager',
  ]);
});
