import type { Container } from '../chemistry';
import type { FactOf, Provenance } from '../record';
import { provenance } from '../record';
import type { PlainDate } from '../laboratory';
import type { DecimalText } from '../measurement';

/** A titrant as it was made up. */
export interface PreparedBottle {
  /** What is written on the bottle: `0417`. */
  readonly code: string;
  readonly substanceId: string;
  readonly nominalMolarity: DecimalText;
  readonly volumeMl: DecimalText;
  readonly lotId: string;
  readonly preparedOn: PlainDate;
  readonly preparedBy: string;
  readonly container: Container;
  readonly note: string;
}

/** What a standardization found, as the bottle's label states it. */
export interface CertifiedMolarity {
  readonly runId: string;
  readonly certificateNumber: string;
  readonly molarity: DecimalText;
  readonly expandedUncertainty: DecimalText;
  readonly coverageFactor: DecimalText;
  readonly certifiedOn: PlainDate;
  readonly validUntil: PlainDate;
}

interface BottleFactBodies {
  'bottle.prepared': PreparedBottle;
  'bottle.certified': CertifiedMolarity;
}
type BottleFact = FactOf<BottleFactBodies>;

export interface BottleState extends PreparedBottle {
  readonly id: string;
  readonly version: number;
  readonly prepared: Provenance;
  /** Newest last; the last one is in force. */
  readonly certified: readonly CertifiedMolarity[];
}

/** Folds the facts of one bottle; null before the first. */
export function foldBottle(facts: readonly BottleFact[]): BottleState | null {
  const prepared = facts.find((fact) => fact.kind === 'bottle.prepared');
  if (!prepared) return null;
  return {
    ...prepared.body,
    id: prepared.recordId,
    version: facts.length,
    prepared: provenance(prepared),
    certified: facts.flatMap((fact) => (fact.kind === 'bottle.certified' ? [fact.body] : [])),
  };
}
