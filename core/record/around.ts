import type { PlainDate } from '../grammar';
import type { Author } from '../rights';
import type { RecordVersion } from './definition';

/** What a check may look up beside its own record: the server in its database, a browser in what it has read. */
export interface Around<States = unknown> {
  /** Today in the laboratory, a plain date. */
  readonly today: PlainDate;
  /** Who enters it. */
  readonly author: Author;
  /** Another record as it is now; null when there is none. */
  readonly now: <K extends keyof States & string>(kind: K, id: string) => States[K] | null;
  /** Another record at a version; null when it never had that. */
  readonly at: <K extends keyof States & string>(
    kind: K,
    version: RecordVersion,
  ) => States[K] | null;
  /** How many facts a record had at a time (ISO 8601, UTC). */
  readonly versionAt: (id: string, time: string) => number;
  /** Whether another record rests on one: a browser does not know and takes it that none does. */
  readonly isUsed: (id: string) => boolean;
  /** What is left of a lot (g, mL) or a bottle (mL); undefined when nobody counts. */
  readonly left: (id: string) => number | undefined;
}

/** What the checks of lots and equipment ask for. */
export type AroundStock = Pick<Around, 'today' | 'author' | 'isUsed'>;
