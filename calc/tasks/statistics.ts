import * as v from 'valibot';
import type { DixonConfidence } from '#core/statistics';
import {
  controlChart,
  dixonCritical,
  dixonCriticalByIntegration,
  dixonQ,
  fTest,
  grubbs,
  grubbsCritical,
  normalizedError,
  oneWayAnova,
  regress,
  studentTQuantile,
  twoSidedT,
  weightedMean,
  welch,
} from '#core/statistics';
import { byKey, confidencePercent, confidencesPercent, number, numbers, task } from './task';

const counts = v.array(v.pipe(number, v.integer()));
const DIXON_CONFIDENCES = [90, 95, 99] as const;

export const STATISTICS_TASKS = [
  task(
    't-quantile',
    {
      confidences_percent: confidencesPercent,
      degrees_of_freedom: v.array(v.pipe(number, v.gtValue(0))),
      sided: v.optional(v.picklist(['two', 'one']), 'two'),
    },
    ({ confidences_percent, degrees_of_freedom, sided }) => ({
      t: byKey(confidences_percent, (percent) =>
        degrees_of_freedom.map((freedom) =>
          sided === 'two'
            ? twoSidedT(percent / 100, freedom)
            : studentTQuantile(percent / 100, freedom),
        ),
      ),
    }),
  ),
  task(
    'dixon-critical',
    { n: counts, confidences_percent: v.array(v.picklist(DIXON_CONFIDENCES)) },
    ({ n, confidences_percent }) => ({
      critical: byKey(confidences_percent, (percent) =>
        n.map((size) => dixonCritical(size, percent as DixonConfidence)),
      ),
      exact_critical: byKey(confidences_percent, (percent) =>
        n.map((size) => dixonCriticalByIntegration(size, percent)),
      ),
    }),
  ),
  task('grubbs-critical', { n: counts, confidences_percent: confidencesPercent }, (given) => ({
    critical: byKey(given.confidences_percent, (percent) =>
      given.n.map((size) => grubbsCritical(size, percent / 100)),
    ),
  })),
  task('dixon-q', { values: numbers }, ({ values }) => {
    const test = dixonQ(values);
    const critical = (percent: number): number => dixonCritical(test.n, percent as DixonConfidence);
    return {
      n: test.n,
      q_low: test.qLow,
      q_high: test.qHigh,
      q: test.q,
      suspect_index: test.suspectIndex,
      critical: byKey(DIXON_CONFIDENCES, critical),
      outlier: byKey(DIXON_CONFIDENCES, (percent) => test.q > critical(percent)),
    };
  }),
  task('grubbs', { values: numbers, confidence_percent: confidencePercent }, (given) => {
    const test = grubbs(given.values, given.confidence_percent / 100);
    return {
      n: test.n,
      mean: test.mean,
      sample_sd: test.sampleSd,
      g: test.g,
      suspect_index: test.suspectIndex,
      critical: test.critical,
      outlier: test.isOutlier,
    };
  }),
  task('welch-t', { a: numbers, b: numbers, confidence_percent: confidencePercent }, (given) => {
    const test = welch(given.a, given.b, given.confidence_percent / 100);
    return {
      difference: test.difference,
      standard_error: test.standardError,
      t: test.t,
      degrees_of_freedom: test.degreesOfFreedom,
      p_two_sided: test.probability,
      critical_t: test.criticalT,
      ci_difference: test.interval,
      significant: test.isSignificant,
    };
  }),
  task('f-test', { a: numbers, b: numbers, confidence_percent: confidencePercent }, (given) => {
    const test = fTest(given.a, given.b, given.confidence_percent / 100);
    return {
      f: test.f,
      numerator_degrees_of_freedom: test.numeratorDegreesOfFreedom,
      denominator_degrees_of_freedom: test.denominatorDegreesOfFreedom,
      p_two_sided: test.probability,
      critical_f: test.criticalF,
      significant: test.isSignificant,
    };
  }),
  task(
    'anova-one-way',
    { groups: v.array(numbers), confidence_percent: confidencePercent },
    (given) => {
      const anova = oneWayAnova(given.groups, given.confidence_percent / 100);
      return {
        grand_mean: anova.grandMean,
        group_means: anova.groupMeans,
        ms_between: anova.meanSquareBetween,
        ms_within: anova.meanSquareWithin,
        df_between: anova.degreesOfFreedomBetween,
        df_within: anova.degreesOfFreedomWithin,
        n0: anova.n0,
        repeatability_sd: anova.repeatabilitySd,
        between_sd: anova.betweenSd,
        intermediate_precision_sd: anova.intermediatePrecisionSd,
        f: anova.f,
        p: anova.probability,
        critical_f: anova.criticalF,
        significant: anova.isSignificant,
      };
    },
  ),
  task(
    'linear-regression',
    { x_days: numbers, y_mol_per_L: numbers, confidence_percent: confidencePercent },
    (given) => {
      const line = regress(given.x_days, given.y_mol_per_L, given.confidence_percent / 100);
      return {
        n: line.n,
        slope: line.slope,
        intercept: line.intercept,
        residual_sd: line.residualSd,
        slope_standard_error: line.slopeStandardError,
        intercept_standard_error: line.interceptStandardError,
        slope_ci: line.slopeInterval,
        p_slope: line.slopeProbability,
        significant: line.isSlopeSignificant,
      };
    },
  ),
  task(
    'control-limits',
    {
      baseline_mol_per_L: numbers,
      values_mol_per_L: numbers,
      sigma_from: v.optional(v.picklist(['sample-sd', 'moving-range']), 'sample-sd'),
    },
    (given) => {
      const chart = controlChart(
        given.baseline_mol_per_L,
        given.values_mol_per_L,
        given.sigma_from,
      );
      return {
        centre: chart.centre,
        sigma: chart.sigma,
        warning_limits: chart.warningLimits,
        action_limits: chart.actionLimits,
        beyond_warning_indices: chart.beyondWarning,
        beyond_action_indices: chart.beyondAction,
        longest_run_one_side: chart.longestRunOneSide,
      };
    },
  ),
  task(
    'normalized-error',
    {
      a: v.object({ value: number, expanded_uncertainty: number }),
      b: v.object({ value: number, expanded_uncertainty: number }),
    },
    ({ a, b }) => {
      const en = normalizedError(
        { value: a.value, expandedUncertainty: a.expanded_uncertainty },
        { value: b.value, expandedUncertainty: b.expanded_uncertainty },
      );
      return { normalized_error: en, agree: en <= 1 };
    },
  ),
  task(
    'weighted-mean',
    { results: v.array(v.object({ value: number, standard_uncertainty: number })) },
    ({ results }) => {
      const found = weightedMean(
        results.map((one) => ({ value: one.value, standardUncertainty: one.standard_uncertainty })),
      );
      return {
        mean: found.mean,
        standard_uncertainty: found.standardUncertainty,
        birge_ratio: found.birgeRatio,
      };
    },
  ),
];
