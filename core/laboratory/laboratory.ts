import type { FactOf } from '../record';

/** The laboratory itself. */
export interface Laboratory {
  readonly name: string;
  /** IANA name, such as `Europe/Vienna`: due dates are plain dates there. */
  readonly timeZone: string;
}

interface LaboratoryFactBodies {
  'laboratory.founded': Laboratory;
}
type LaboratoryFact = FactOf<LaboratoryFactBodies>;

export interface LaboratoryState extends Laboratory {
  readonly id: string;
  readonly version: number;
}

/** Folds the facts of the laboratory; null before the first. */
export function foldLaboratory(facts: readonly LaboratoryFact[]): LaboratoryState | null {
  const [first] = facts;
  return first ? { id: first.recordId, version: facts.length, ...first.body } : null;
}
