import type { FactOf } from '../record';
import type { HouseRules } from './houseRules';
import { UNWRITTEN_RULES } from './houseRules';

/** The laboratory itself. */
export interface Laboratory {
  readonly name: string;
  /** IANA name, such as `Europe/Vienna`: due dates are plain dates there. */
  readonly timeZone: string;
}

export interface LaboratoryFactBodies {
  'laboratory.founded': Laboratory;
  'laboratory.rules-set': { readonly rules: HouseRules; readonly reason: string };
}
export type LaboratoryFact = FactOf<LaboratoryFactBodies>;

export interface LaboratoryState extends Laboratory {
  readonly id: string;
  readonly version: number;
  /** Those in force. */
  readonly rules: HouseRules;
}

/** Folds the facts of the laboratory; null before the first. */
export function foldLaboratory(facts: readonly LaboratoryFact[]): LaboratoryState | null {
  const founded = facts.find((fact) => fact.kind === 'laboratory.founded');
  if (!founded) return null;
  const set = facts.findLast((fact) => fact.kind === 'laboratory.rules-set');
  const rules = set?.body.rules ?? UNWRITTEN_RULES;
  return { id: founded.recordId, version: facts.length, ...founded.body, rules };
}

/** The house rules in force at a time (ISO 8601, UTC): the last that had come on record by then. */
export function rulesAt(facts: readonly LaboratoryFact[], at: string): HouseRules {
  const set = facts
    .filter((fact) => fact.kind === 'laboratory.rules-set')
    .findLast(({ recordedAt }) => (recordedAt ?? at) <= at);
  return set?.body.rules ?? UNWRITTEN_RULES;
}
