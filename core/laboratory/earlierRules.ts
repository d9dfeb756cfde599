/** Shapes that house rules had in the facts that hold them, and how they become the next. */

import type { UpcastStep } from '../record';
import { HOUSE_RULES } from './rules';

export interface FewRules {
  readonly readingDecimals: number;
}

/** What was left to the analyst, as the bench then did it. */
export function toEarlierRules({ readingDecimals, ...rules }: FewRules): object {
  return {
    concordanceRangeMl: '0.10',
    weighedConcordance: 'relative-range',
    concordanceRsdPercent: '0.1',
    standardBy: 'weighed',
    weighing: 'tared',
    startOfTitration: 'carry-on',
    readingResolutionMl: readingDecimals === 1 ? '0.1' : '0.01',
    darkMeniscus: 'top',
    persistenceS: 30,
    indicatorDrops: 2,
    overshotCounts: 'within-a-drop',
    oxalateHeating: 'to-75-80',
    washDown: 'distilled',
    carbonDioxide: 'boiled',
    outlierTest: 'none',
    coverage: 'effective-degrees',
    cleaning: 'detergent',
    waste: 'container',
    ...rules,
  };
}

interface WithRules {
  readonly rules: object;
}

/** Adds to the rules in a body those that came in one lot, as it was done before they could be set. */
export function rulesOfLot(lot: number): (body: unknown) => WithRules {
  const added = Object.fromEntries(
    HOUSE_RULES.filter(({ since }) => since === lot).map(({ key, before }) => [key, before]),
  );
  return (body) => {
    const { rules, ...rest } = body as WithRules;
    return { ...rest, rules: { ...added, ...rules } };
  };
}

/** The last lot of rules that came. */
export const LATEST_RULES = Math.max(...HOUSE_RULES.map(({ since }) => since));

/**
 * A step for each lot of rules from one on. It stands last in a list of earlier shapes: a shape that changes otherwise comes
 * after `rulesOfLot` of the lots so far.
 */
export function rulesFromLot(lot: number): readonly UpcastStep[] {
  const lots = Array.from({ length: LATEST_RULES - lot + 1 }, (_, index) => lot + index);
  return lots.map(rulesOfLot);
}
