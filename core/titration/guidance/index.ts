export { buretteChecks } from './buretteCheck';
export { cooledToC, lossPerMinute, minutesUntil } from './cooling';
export type { NextStep } from './next';
export { blankStep, nextStep, portionStep, refillStep, titrateStep } from './next';
export { planRun, planSeries, plannedTitrations, suggestAliquots, titrantNeed } from './plan';
