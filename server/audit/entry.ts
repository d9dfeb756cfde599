import type { Plain } from '#core/grammar';
import type { Fact } from '#core/record';
import type { DigestVersion, PersonRow } from './digests';
import { DIGEST_VERSION, DIGESTS } from './digests';
import { canonicalText, digestOf } from './text';

/** Something that must be traceable later. `at` is the server's clock, `by` a person's id. */
export type AuditEntry =
  | {
      readonly kind: 'fact';
      readonly at: string;
      readonly by: string;
      readonly factId: string;
      readonly factKind: string;
      readonly recordId: string;
      readonly recordKind: string;
      /** The version that the record has with this fact. */
      readonly version: number;
      /** SHA-256 of what `DIGESTS` says of the fact, in canonical JSON. */
      readonly digest: string;
      /** Absent for the first. */
      readonly digestVersion?: DigestVersion;
    }
  | {
      readonly kind: 'signed-in';
      readonly at: string;
      readonly by: string;
      readonly way: 'password' | 'demo' | 'first-account';
      /** SHA-256 of the id of the session that began; entries of before sessions were known have none. */
      readonly session?: string;
    }
  | {
      readonly kind: 'password-set';
      readonly at: string;
      /** Null for the first account, the demo's, and passwords of before there were such entries. */
      readonly by: string | null;
      readonly personId: string;
      /** SHA-256 of the password's hash; the newest entry counts. */
      readonly digest: string;
    }
  | { readonly kind: 'sessions-ended'; readonly at: string; readonly by: string }
  | { readonly kind: 'signed-out'; readonly at: string; readonly by: string }
  | {
      readonly kind: 'sign-in-failed';
      readonly at: string;
      /** The account that somebody tried to enter; null when there is none of that name. */
      readonly personId: string | null;
    }
  | {
      readonly kind: 'account-made';
      readonly at: string;
      /** Null for the first account and the demo's. */
      readonly by: string | null;
      readonly personId: string;
      /** SHA-256 of what `DIGESTS` says of the account, in canonical JSON. */
      readonly digest: string;
      /** Absent for the first. */
      readonly digestVersion?: DigestVersion;
    }
  | {
      /** Somebody has looked into a break of the log and restored it all the same. */
      readonly kind: 'break-accepted';
      readonly at: string;
      /** Who did so, as they called themselves at the command line. */
      readonly by: string;
      readonly reason: string;
      /** Number of the entry that is broken; 0 for what stands outside the log. */
      readonly sequence: number;
      /** What was found there, as a verification tells it: another break at the same place is not accepted. */
      readonly found: string;
    }
  | {
      readonly kind: 'printed';
      readonly at: string;
      readonly by: string;
      /** Address of the page that was printed. */
      readonly path: string;
    }
  | { readonly kind: 'backed-up' | 'restored' | 'rebuilt'; readonly at: string };

/** A break as it is named at the command line and accepted: `12:3f…`. */
export function nameOfBreak(broken: { readonly sequence: number; readonly found: string }): string {
  return `${String(broken.sequence)}:${broken.found}`;
}

/** The entry of an account that is made, by whom; null for the first one and the demo's. */
export function auditEntryOfAccount(row: PersonRow, by: string | null, at: string): AuditEntry {
  const digest = digestOf(DIGESTS[DIGEST_VERSION].accountOf(row));
  return {
    ...{ kind: 'account-made', at, by, personId: row.id },
    ...{ digest, digestVersion: DIGEST_VERSION },
  };
}

/**
 * The entry of a fact that is on record, in canonical JSON.
 *
 * @param fact all that the digest of this version goes over
 * @throws RangeError when it has no sequence yet
 */
export function auditEntryOfFact(
  fact: Plain<Fact>,
  digestVersion: DigestVersion = DIGEST_VERSION,
): string {
  if (fact.sequence === null || fact.recordedAt === null) {
    throw new RangeError(`fact ${fact.id} is not on record yet`);
  }
  const entry: AuditEntry = {
    kind: 'fact',
    at: fact.recordedAt,
    by: fact.authorId,
    factId: fact.id,
    factKind: fact.kind,
    recordId: fact.recordId,
    recordKind: fact.recordKind,
    version: fact.sequence,
    digest: digestOf(fact),
    ...(digestVersion === 1 ? {} : { digestVersion }),
  };
  return canonicalText(entry);
}
