import * as v from 'valibot';
import type { HouseRules } from '#core/laboratory';
import { count, nonNegativeDecimal, positiveDecimal } from './fields';

/** The conventions of a laboratory. */
export const houseRulesSchema = v.strictObject({
  concordanceRangeMl: positiveDecimal,
  weighedConcordance: v.picklist(['relative-range', 'rsd', 'none']),
  concordanceRelativeRangePercent: positiveDecimal,
  concordanceRsdPercent: positiveDecimal,
  agreeAtLeast: count(1, 10),
  titrationsAtMost: count(1, 20),
  firstIsRough: v.boolean(),
  standardBy: v.picklist(['weighed', 'aliquot']),
  weighing: v.picklist(['tared', 'by-difference']),
  startOfTitration: v.picklist(['carry-on', 'refill']),
  readingResolutionMl: v.picklist(['0.1', '0.05', '0.02', '0.01']),
  darkMeniscus: v.picklist(['top', 'bottom']),
  persistenceS: count(1, 600),
  indicatorDrops: count(1, 50),
  overshotCounts: v.picklist(['within-a-drop', 'always', 'never']),
  oxalateHeating: v.picklist(['to-75-80', 'until-steaming', 'after-most']),
  rinses: count(0, 10),
  rinseMl: nonNegativeDecimal,
  washDown: v.picklist(['distilled', 'tap']),
  carbonDioxide: v.picklist(['boiled', 'fresh', 'nothing']),
  outlierTest: v.picklist(['grubbs', 'dixon', 'none']),
  coverage: v.picklist(['effective-degrees', 'two']),
  farFromNominalAskPercent: positiveDecimal,
  farFromNominalReasonPercent: positiveDecimal,
  nominalTolerancePercent: positiveDecimal,
  cleaning: v.picklist(['detergent', 'water']),
  waste: v.picklist(['container', 'sink']),
}) satisfies v.GenericSchema<unknown, HouseRules>;
