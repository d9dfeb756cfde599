import { createHash } from 'node:crypto';
import canonicalize from 'canonicalize';

/**
 * Frozen: what migrations 002 to 008 call, as it was when they were written. They run on databases of their time, so
 * nothing here follows the program.
 */

/** A row of `facts` with the kind of its record. */
export interface FactRow {
  readonly id: string;
  readonly record_id: string;
  readonly record_kind: string;
  readonly sequence: number;
  readonly kind: string;
  readonly schema_version: number;
  readonly body: unknown;
  readonly author_id: string;
  readonly device_id: string | null;
  readonly device_time: Date;
  readonly clock_offset_ms: string | null;
  readonly based_on: number | null;
  readonly recorded_at: Date;
}

/** A row of `people`. */
export interface PersonRow {
  readonly id: string;
  readonly name: string;
  readonly may_certify: boolean;
  readonly may_manage: boolean;
  readonly is_demo: boolean;
}

/** What a fact says in the first two digests. */
export function factOf(row: FactRow) {
  return {
    id: row.id,
    recordId: row.record_id,
    recordKind: row.record_kind,
    kind: row.kind,
    schemaVersion: row.schema_version,
    body: row.body,
    authorId: row.author_id,
    deviceId: row.device_id,
    deviceTime: row.device_time.toISOString(),
    clockOffsetMs: row.clock_offset_ms === null ? null : Number(row.clock_offset_ms),
    basedOn: row.based_on,
    sequence: row.sequence,
    recordedAt: row.recorded_at.toISOString(),
  };
}

/** What an account says in the first digest. */
export function accountOf(row: PersonRow) {
  return {
    id: row.id,
    name: row.name,
    mayCertify: row.may_certify,
    mayManage: row.may_manage,
    isDemo: row.is_demo,
  };
}

/** The text of RFC 8785. */
export function canonicalText(value: object): string {
  return canonicalize(value) ?? '';
}

/** SHA-256 in hexadecimal. */
export function sha256(text: string): string {
  return createHash('sha256').update(text, 'utf8').digest('hex');
}

/** SHA-256 of a value's canonical JSON. */
export function digestOf(value: object): string {
  return sha256(canonicalText(value));
}
