import type { Keeping, Own } from '../chemistry';
import { keepingOf } from '../chemistry';
import type { CalendarDuration, PlainDate } from '../grammar';
import { addToDate, daysBetween } from '../grammar';
import type { DecimalText } from '../measurement';
import type { Standing } from '../record';
import { lasting, standingOn } from '../record';
import type { BottleState, CertifiedMolarity, UnroundedMolarity } from './bottle';

/** What a solution is, and when it was made: on which its keeping depends. */
export interface MadeUp {
  readonly substanceId: string;
  readonly own?: Own;
  readonly nominalMolarity: DecimalText | null;
  readonly preparedOn: PlainDate;
}

/** The last day on which a solution may still be certified to hold, since it was made; null where standardizing renews it. */
export function lastsUntil({ substanceId, own, preparedOn }: MadeUp): PlainDate | null {
  const lastsFor = keepingOf(substanceId, own)?.lastsFor ?? null;
  return lastsFor && addToDate(preparedOn, lastsFor);
}

/**
 * The last day on which a solution made or standardized on a date holds; null when nobody has an interval.
 *
 * @param ownDays how long the laboratory says that it keeps, whatever its strength; null where it follows the catalogue
 */
export function suggestValidUntil(
  made: MadeUp,
  since: PlainDate,
  ownDays: number | null = null,
): PlainDate | null {
  const keeping = keepingOf(made.substanceId, made.own);
  const last = lastsUntil(made);
  const atMost = (until: PlainDate): PlainDate => (last !== null && last < until ? last : until);
  if (ownDays !== null) return atMost(addToDate(since, { days: ownDays }));
  if (!keeping) return null;
  return atMost(addToDate(since, intervalOf(keeping, made.nominalMolarity)));
}

/** How long a solution of a strength keeps by the catalogue: less where it is dilute. */
export function intervalOf(
  { dilute, interval }: Pick<Keeping, 'dilute' | 'interval'>,
  nominalMolarity: DecimalText | null,
): CalendarDuration {
  const isDilute = dilute !== null && Number(nominalMolarity ?? Infinity) < dilute.belowMolPerL;
  return isDilute ? dilute.interval : interval;
}

/** From which day a solution that was made here is clear; null for one that need not settle. */
export function readyFrom({
  substanceId,
  own,
  nominalMolarity,
  preparedOn,
  preparationId,
}: MadeUp & Pick<BottleState, 'preparationId'>): PlainDate | null {
  const settles = keepingOf(substanceId, own)?.settles ?? null;
  if (!settles || preparationId === null) return null;
  if (Number(nominalMolarity ?? 0) < settles.fromMolPerL) return null;
  return addToDate(preparedOn, settles.interval);
}

/** The molarity in force, and for how long. */
export interface KnownMolarity {
  readonly molarity: DecimalText;
  readonly expandedUncertainty: DecimalText;
  readonly coverageFactor: DecimalText;
  readonly unrounded: UnroundedMolarity | null;
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

/**
 * The certificate that holds; null before the first, and once it was withdrawn: one of before does not come back, for it was older
 * than what has shown to be wrong.
 */
export function certificateInForce({
  certified,
  certificatesWithdrawn,
}: Pick<BottleState, 'certified' | 'certificatesWithdrawn'>): CertifiedMolarity | null {
  const last = certified.at(-1);
  const isWithdrawn = certificatesWithdrawn.some(
    ({ certificateNumber }) => certificateNumber === last?.certificateNumber,
  );
  return last && !isWithdrawn ? last : null;
}

/** The molarity that holds: of the certificate in force, else from how it was made; null while it is nominal. */
export function knownMolarity(bottle: BottleState): KnownMolarity | null {
  const certified = certificateInForce(bottle);
  if (certified) {
    const { certifiedOn: since, validUntil: until } = certified;
    return { ...certified, since, until };
  }
  const { made, preparedOn, useBy } = bottle;
  return made && { ...made, since: preparedOn, until: useBy, certificateNumber: null };
}

/** The molarity as it is known, else as the label has it; null for what has none. */
export function labelledMolarity(bottle: BottleState): DecimalText | null {
  return knownMolarity(bottle)?.molarity ?? bottle.nominalMolarity;
}

/**
 * Whether the last label that was made of a bottle states what holds no longer: a certificate has been withdrawn since. One that is
 * renewed in time says its own last day, so that nobody is misled by it.
 */
export function isLabelOld({
  labels,
  certificatesWithdrawn,
}: Pick<BottleState, 'labels' | 'certificatesWithdrawn'>): boolean {
  const labelledAt = labels.at(-1)?.at ?? '';
  return certificatesWithdrawn.some(({ at }) => at > labelledAt);
}

/** Days from the beginning of a validity to its end, at least one. */
function lifetimeDays({ since, until }: Pick<KnownMolarity, 'since' | 'until'>): number | null {
  return until && Math.max(1, daysBetween(since, until));
}

/** Where a bottle stands while it is not withdrawn, by the day. The last day of validity still counts. */
export function bottleStanding(bottle: BottleState): Standing<Freshness['kind']> {
  const { useBy, purpose } = bottle;
  const known = knownMolarity(bottle);
  if (!known) {
    const now = purpose === 'auxiliary' ? 'auxiliary' : 'not-standardized';
    return { now, lastDay: useBy, after: 'expired', warningDays: null };
  }
  const lifetime = lifetimeDays(known);
  if (lifetime === null) return lasting('certified');
  // What is kept for a day or two is not due from its first hour on.
  const warningDays = Math.floor(lifetime / 2);
  return { now: 'certified', lastDay: known.until, after: 'overdue', warningDays };
}

/** Freshness of a bottle on a plain date; due soon as many days before as the laboratory has set. */
export function freshnessOf(
  bottle: BottleState,
  today: PlainDate,
  warningDays?: number,
): Freshness {
  const { withdrawn, useBy } = bottle;
  if (withdrawn) return { kind: 'withdrawn', reason: withdrawn.reason };
  const kind = standingOn(bottleStanding(bottle), today, warningDays);
  const known = knownMolarity(bottle);
  switch (kind) {
    case 'certified':
    case 'due-soon':
    case 'overdue': {
      if (!known) return { kind: 'not-standardized' };
      const daysLeft = known.until && daysBetween(today, known.until);
      const remaining = (daysLeft ?? 1) / (lifetimeDays(known) ?? 1);
      return { kind, known, daysLeft, remaining: Math.min(1, Math.max(0, remaining)) };
    }
    case 'auxiliary':
    case 'expired':
      return { kind, useBy };
    case 'not-standardized':
    case 'withdrawn':
      return { kind: 'not-standardized' };
  }
}

/** Whether a bottle may be taken from: in date, not withdrawn. A nominal titrant may, to be diluted or standardized. */
export function mayBeUsed(freshness: Freshness): boolean {
  return !['withdrawn', 'overdue', 'expired'].includes(freshness.kind);
}
