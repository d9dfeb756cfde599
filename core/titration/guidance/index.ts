export { proposeDilution } from './dilution';
export { cooledToC, lossPerMinute, minutesUntil } from './cooling';
export type { NextStep } from './next';
export { blankStep, nextStep, portionStep, refillStep, titrateStep } from './next';
export {
  blanksAsked,
  plannedTitrations,
  planRun,
  planSeries,
  suggestAliquots,
  titrantNeed,
} from './plan';
export { flaskColour } from './flaskColour';
export { whyExpected, whyPortion } from './why';
export { workedOn } from './workedOn';
