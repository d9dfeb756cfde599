export { buretteChecks } from './buretteCheck';
export { cooledToC, lossPerMinute, minutesUntil } from './cooling';
export type { NextStep } from './next';
export { blankStep, nextStep, portionStep, refillStep, titrateStep } from './next';
export { plannedTitrations, planRun, planSeries, suggestAliquots, titrantNeed } from './plan';
