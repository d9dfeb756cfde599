import type { PersonRow as FirstPersonRow } from './version1';
import { accountOf as firstAccountOf } from './version1';

/**
 * Frozen: what the entries of the second digest go over. A fact says in it what it said in the first; an account also
 * says when it was made.
 */

/** A row of `people` without the hash of the password, for which there are entries of their own. */
export interface PersonRow extends FirstPersonRow {
  readonly created_at: Date;
}

/** What an account says in the second digest. */
export function accountOf(row: PersonRow) {
  return { ...firstAccountOf(row), createdAt: row.created_at.toISOString() };
}
