export { acceptedResults } from './acceptability';
export type { FTest, StatedResult, WeightedMean, WelchTest } from './agreement';
export { fTest, normalizedError, weightedMean, welch } from './agreement';
export type { AnalysisOfVariance } from './anova';
export { oneWayAnova } from './anova';
export type { Concordance, ConcordanceLimit } from './concordance';
export { largestConcordantSet } from './concordance';
export type { ControlChart, ControlVerdict, SigmaSource } from './control';
export { controlChart, controlVerdict, RANGE_LIMIT_D4 } from './control';
export { normalQuantile, studentTCdf, studentTQuantile, twoSidedT } from './distributions';
export type { DixonConfidence, DixonTest, GrubbsTest } from './outliers';
export {
  DIXON_UP_TO,
  dixonCritical,
  dixonCriticalByIntegration,
  dixonQ,
  grubbs,
  grubbsCritical,
} from './outliers';
export type { KnownScatter, PooledScatter } from './pooling';
export { poolScatter } from './pooling';
export type { Line, Regression } from './regression';
export { fitLine, regress } from './regression';
export type { Summary } from './summary';
export { isConstant, meanOf, squaredDeviations, summarize } from './summary';
