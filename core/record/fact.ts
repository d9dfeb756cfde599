import type { Id } from '../grammar';

/**
 * One thing that somebody entered. Facts are appended and never edited; whatever a screen shows is
 * computed from them.
 */
export interface Fact<K extends string = string, B = unknown> {
  /** UUIDv7, made by the client, so that sending a fact twice stores it once. */
  readonly id: Id;
  readonly recordId: Id;
  /** A kind of record of the registry. */
  readonly recordKind: string;
  readonly kind: K;
  readonly schemaVersion: number;
  readonly body: B;
  readonly authorId: Id;
  /** The device that it was entered on; null when the server made it. */
  readonly deviceId: Id | null;
  /** The entering device's clock, ISO 8601 in UTC. */
  readonly deviceTime: string;
  /** Server's clock minus the device's, in ms, as measured at their last contact; null when there was none. */
  readonly clockOffsetMs: number | null;
  /** The version of the record that its author saw; null when the server made it or nobody said. */
  readonly basedOn: number | null;
  /** Gapless within the record from 1; null while the fact waits to be acknowledged. */
  readonly sequence: number | null;
  /** The server's clock, ISO 8601 in UTC; null while the fact waits to be acknowledged. */
  readonly recordedAt: string | null;
}

/** A closed union of facts from a table of bodies by kind. */
export type FactOf<Bodies> = {
  [K in keyof Bodies & string]: Fact<K, Bodies[K]>;
}[keyof Bodies & string];

/** Who put a fact on record, and when. */
export interface Provenance {
  readonly factId: Id;
  readonly by: Id;
  readonly at: string;
}

/** Who and when of a fact. */
export function provenance(fact: Fact): Provenance {
  return { factId: fact.id, by: fact.authorId, at: enteredAt(fact) };
}

/** A device's clock is believed so far before its entry came on record, and after, ms: an hour is set back, a day is wrong. */
const BELIEVED_BACK_MS = 30 * 24 * 3_600_000;
const BELIEVED_AHEAD_MS = 24 * 3_600_000;

type Timed = Pick<Fact, 'deviceTime' | 'clockOffsetMs' | 'recordedAt'>;

/**
 * Whether a fact's time cannot be right: the device's clock, set right by what it was off, is more than 30 days before the
 * fact came on record, or more than a day after it. The entry counts all the same.
 */
export function isTimeDoubtful({ deviceTime, clockOffsetMs, recordedAt }: Timed): boolean {
  if (recordedAt === null) return false;
  const lateMs = Date.parse(recordedAt) - (Date.parse(deviceTime) + (clockOffsetMs ?? 0));
  return lateMs > BELIEVED_BACK_MS || lateMs < -BELIEVED_AHEAD_MS;
}

/**
 * When a fact was entered, by the server's clock: the device's time set right by what its clock was off. An entry
 * made away from the network is older than its record; none is younger. Where the device's time is doubtful, it is the time of
 * the record. ISO 8601 in UTC.
 */
export function enteredAt(fact: Timed): string {
  const { deviceTime, clockOffsetMs, recordedAt } = fact;
  if (clockOffsetMs === null || isTimeDoubtful(fact)) return recordedAt ?? deviceTime;
  const setRight = new Date(Date.parse(deviceTime) + clockOffsetMs).toISOString();
  return recordedAt !== null && setRight > recordedAt ? recordedAt : setRight;
}
