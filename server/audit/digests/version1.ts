import type { Id, Plain } from '#core/grammar';

/**
 * Frozen: what the entries of the first digest go over. They were written with it and are verified with it for ever; a
 * field or a right that comes later needs a version of its own.
 */

/** A row of `facts` with the kind of its record, as the driver gives it. */
export interface FactRow {
  readonly id: Id;
  readonly record_id: Id;
  readonly record_kind: string;
  readonly sequence: number;
  readonly kind: string;
  readonly schema_version: number;
  readonly body: unknown;
  readonly author_id: Id;
  readonly device_id: Id | null;
  readonly device_time: Date;
  /** A bigint comes as text. */
  readonly clock_offset_ms: string | null;
  readonly based_on: number | null;
  readonly recorded_at: Date;
}

/** A row of `people` without what nobody vouched for. */
export interface PersonRow {
  readonly id: string;
  readonly name: string;
  readonly may_certify: boolean;
  readonly may_manage: boolean;
  readonly is_demo: boolean;
}

/** What a fact says in the first digest. */
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

const HOURS_24 = 'T24:00:00.000Z';
const DAY_MS = 24 * 3_600_000;

/**
 * The other spellings of a fact that PostgreSQL gives back in its own: ids in capitals, and 24:00 of the day before. They
 * were once taken as they were sent, and the digest goes over that.
 *
 * @param entry the entry's own spelling of the ids that it names
 */
export function otherSpellings(
  row: FactRow,
  entry: { readonly factId: string; readonly recordId: string },
): readonly Plain<ReturnType<typeof factOf>>[] {
  const fact = factOf(row);
  const named = { ...fact, id: entry.factId, recordId: entry.recordId };
  const deviceIds = [fact.deviceId, fact.deviceId?.toUpperCase() ?? null];
  const midnight = row.device_time.getTime() % DAY_MS === 0;
  const dayBefore = new Date(row.device_time.getTime() - DAY_MS).toISOString().slice(0, 10);
  const times = midnight ? [fact.deviceTime, dayBefore + HOURS_24] : [fact.deviceTime];
  return deviceIds.flatMap((deviceId) =>
    times.map((deviceTime) => ({ ...named, deviceId, deviceTime })),
  );
}
