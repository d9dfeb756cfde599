export { checkRunFact } from './checks';
export { checkWithdrawing } from './course';
export type { RunFact, RunFactBodies } from './facts';
export { RUN_RECORD } from './facts';
export { foldRun } from './fold';
export { restedOnBy } from './rested';
export type { AroundRun } from './start';
export { adviceAgainst, checkRunStart } from './startChecks';
export { checkAnswering, checkReturning } from './signing';
