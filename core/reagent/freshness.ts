import { keepingOf } from '../chemistry';
import type { PlainDate } from '../laboratory';
import { addToDate, daysBetween } from '../laboratory';
import type { BottleState, CertifiedMolarity } from './bottle';

/** The last day on which a standardization made on a date holds; null when the catalogue has no interval. */
export function suggestValidUntil(substanceId: string, certifiedOn: PlainDate): PlainDate | null {
  const keeping = keepingOf(substanceId);
  return keeping && addToDate(certifiedOn, keeping.interval);
}

/** Days before the end of validity from which a bottle counts as due soon. */
const DUE_SOON_DAYS = 7;

/** Where a bottle stands on a given day. Only `certified` and `due-soon` bottles may be used. */
export type Freshness =
  | { readonly kind: 'not-standardized' }
  | {
      readonly kind: 'certified' | 'due-soon' | 'overdue';
      readonly certified: CertifiedMolarity;
      /** Negative once overdue. */
      readonly daysLeft: number;
      /** What is left of the time from certification to the last day, 0 to 1. */
      readonly remaining: number;
    };

/** Freshness of a bottle on a plain date. The last day of validity still counts. */
export function freshnessOf(bottle: BottleState, today: PlainDate): Freshness {
  const certified = bottle.certified.at(-1);
  if (!certified) return { kind: 'not-standardized' };
  const daysLeft = daysBetween(today, certified.validUntil);
  const lifetime = Math.max(1, daysBetween(certified.certifiedOn, certified.validUntil));
  const kind = daysLeft < 0 ? 'overdue' : daysLeft <= DUE_SOON_DAYS ? 'due-soon' : 'certified';
  return {
    kind,
    certified,
    daysLeft,
    remaining: Math.min(1, Math.max(0, daysLeft / lifetime)),
  };
}
