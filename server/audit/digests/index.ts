import { accountOf as firstAccountOf, factOf } from './version1';
import { accountOf as secondAccountOf } from './version2';
import { accountOf } from './version3';

export type { FactRow } from './version1';
export { otherSpellings } from './version1';
export type { PersonRow as EarlierPersonRow } from './version2';
export type { PersonRow } from './version3';

/**
 * What the digest of each version goes over, from the raw row. Versions are added, never changed: an entry is verified by
 * the one that it was written with.
 */
export const DIGESTS = {
  1: { factOf, accountOf: firstAccountOf },
  2: { factOf, accountOf: secondAccountOf },
  3: { factOf, accountOf },
} as const;

export type DigestVersion = keyof typeof DIGESTS;

/** The version that new entries are written with. */
export const DIGEST_VERSION = 3;

/** The version of an entry's digest. Entries of before there were versions name none. */
export function digestVersionOf(entry: { readonly digestVersion?: DigestVersion }): DigestVersion {
  return entry.digestVersion ?? 1;
}
