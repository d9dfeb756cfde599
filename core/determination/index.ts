export { solve } from './balance';
export type {
  Blank,
  Content,
  Determination,
  Dilution,
  Excess,
  Known,
  KnownSolution,
  WeighedStandard,
} from './determination';
export { balanceOf, MOLARITY, nominalDilutions, ratioOf, solutionOf } from './determination';
export type { EndOnBurette } from './endOnBurette';
export { endOnBurette } from './endOnBurette';
export type { ExpectedEnd, ForecastBasis } from './expectedEnd';
export { expectedEnd } from './expectedEnd';
export { PlainDetermination } from './plainDetermination';
export type {
  ConcordanceRule,
  DeterminationResult,
  PlainPortion,
  ReplicateOutcome,
  TitrationReplicate,
} from './replicates';
export { determine } from './replicates';
