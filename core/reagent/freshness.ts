import { keepingOf } from '../chemistry';
import type { PlainDate } from '../grammar';
import { addToDate, daysBetween } from '../grammar';
import type { DecimalText } from '../measurement';
import type { BottleState } from './bottle';

/** The last day on which a solution made or standardized on a date holds; null when the catalogue has no interval. */
export function suggestValidUntil(substanceId: string, since: PlainDate): PlainDate | null {
  const keeping = keepingOf(substanceId);
  return keeping && addToDate(since, keeping.interval);
}

/** Days before the end of validity from which a bottle counts as due soon. */
const DUE_SOON_DAYS = 7;

/** The molarity in force, and for how long. */
export interface KnownMolarity {
  readonly molarity: DecimalText;
  readonly expandedUncertainty: DecimalText;
  readonly coverageFactor: DecimalText;
  readonly since: PlainDate;
  /** Null when it has no last day. */
  readonly until: PlainDate | null;
  /** Null for a standard, whose molarity follows from how it was made. */
  readonly certificateNumber: string | null;
}

/** Where a bottle stands on a given day. Measure with `certified` and `due-soon` only. */
export type Freshness =
  | { readonly kind: 'withdrawn'; readonly reason: string }
  | { readonly kind: 'not-standardized' }
  | { readonly kind: 'auxiliary' | 'expired'; readonly useBy: PlainDate | null }
  | {
      readonly kind: 'certified' | 'due-soon' | 'overdue';
      readonly known: KnownMolarity;
      /** Negative once overdue; null without a last day. */
      readonly daysLeft: number | null;
      /** What is left of the time from certification to the last day, 0 to 1. */
      readonly remaining: number;
    };

/** The molarity that holds: of the last certificate, else from how it was made; null while it is nominal. */
export function knownMolarity(bottle: BottleState): KnownMolarity | null {
  const certified = bottle.certified.at(-1);
  if (certified) {
    const { certifiedOn: since, validUntil: until } = certified;
    return { ...certified, since, until };
  }
  const { made, preparedOn, useBy } = bottle;
  return made && { ...made, since: preparedOn, until: useBy, certificateNumber: null };
}

/** Freshness of a bottle on a plain date. The last day of validity still counts. */
export function freshnessOf(bottle: BottleState, today: PlainDate): Freshness {
  const { withdrawn, useBy, purpose } = bottle;
  if (withdrawn) return { kind: 'withdrawn', reason: withdrawn.reason };
  const known = knownMolarity(bottle);
  if (!known && (purpose === 'auxiliary' || (useBy !== null && useBy < today))) {
    return { kind: useBy !== null && useBy < today ? 'expired' : 'auxiliary', useBy };
  }
  if (!known) return { kind: 'not-standardized' };
  const { since, until } = known;
  if (until === null) return { kind: 'certified', known, daysLeft: null, remaining: 1 };
  const daysLeft = daysBetween(today, until);
  const lifetime = Math.max(1, daysBetween(since, until));
  // What is kept for a day or two is not due from its first hour on.
  const dueSoon = Math.min(DUE_SOON_DAYS, lifetime / 2);
  const kind = daysLeft < 0 ? 'overdue' : daysLeft <= dueSoon ? 'due-soon' : 'certified';
  return { kind, known, daysLeft, remaining: Math.min(1, Math.max(0, daysLeft / lifetime)) };
}

/** Whether a bottle may be taken from: in date, not withdrawn. A nominal titrant may, to be diluted or standardized. */
export function mayBeUsed(freshness: Freshness): boolean {
  return !['withdrawn', 'overdue', 'expired'].includes(freshness.kind);
}
