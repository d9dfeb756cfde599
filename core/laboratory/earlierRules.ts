/** Shapes that house rules had in the facts that hold them, and how they become the next. */

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

/** What nobody could choose before there were these rules, as it was done. */
const FURTHER_RULES = {
  inBurette: 'titrant',
  primaryTitrants: 'weighed',
  toleranceAs: 'as-registered',
  testedBy: 'concordance',
  certificateStates: 'uncertainty',
  statesNormality: false,
  paperUnits: 'litre',
};

interface WithRules {
  readonly rules: object;
}

/** The rules in a body, with those that came later. */
export function toMoreRules(body: unknown): WithRules {
  const { rules, ...rest } = body as WithRules;
  return { ...rest, rules: { ...FURTHER_RULES, ...rules } };
}

/** The rules in a body, with those that came after these. */
export function toRulesOfFlaskAndCurve(body: unknown): WithRules {
  const { rules, ...rest } = body as WithRules;
  const LATER_RULES = { titrantsMadeUpIn: 'cylinder', endPointOfCurve: 'second-derivative' };
  return { ...rest, rules: { ...LATER_RULES, ...rules } };
}
