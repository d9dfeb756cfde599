import { createHash } from 'node:crypto';
import canonicalize from 'canonicalize';
import type { Fact } from '#core/record';

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
      /** SHA-256 of the fact in canonical JSON. */
      readonly digest: string;
    }
  | {
      readonly kind: 'signed-in';
      readonly at: string;
      readonly by: string;
      readonly way: 'password' | 'demo' | 'first-account';
    }
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
      /** SHA-256 of name and rights in canonical JSON. */
      readonly digest: string;
    }
  | {
      readonly kind: 'printed';
      readonly at: string;
      readonly by: string;
      /** Address of the page that was printed. */
      readonly path: string;
    }
  | { readonly kind: 'backed-up' | 'restored' | 'rebuilt'; readonly at: string };

/** The text of RFC 8785: one value has one text, whatever the order of its keys. */
export function canonicalText(value: object): string {
  const text = canonicalize(value);
  if (text === undefined) throw new RangeError('only JSON has a canonical text');
  return text;
}

/** SHA-256 in hexadecimal. */
export function sha256(text: string): string {
  return createHash('sha256').update(text, 'utf8').digest('hex');
}

/** SHA-256 of a value's canonical JSON. */
export function digestOf(value: object): string {
  return sha256(canonicalText(value));
}

/** The entry of a fact as it is stored, in canonical JSON. @throws RangeError when it has no sequence yet */
export function auditEntryOfFact(fact: Fact): string {
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
  };
  return canonicalText(entry);
}
