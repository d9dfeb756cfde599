export { budgetByEffect } from './budget';
export type { Component, Distribution } from './component';
export { combineComponents, componentUncertainty } from './component';
export type { DecimalText } from './decimal';
export {
  addDecimals,
  decimalOf,
  decimalPlaces,
  fractionOfPercent,
  percentOfFraction,
  decimalText,
  parseDecimal,
  roundHalfEven,
  subtractDecimals,
  sumDecimals,
  ZERO,
} from './decimal';
export { correlationsIn, originsOf } from './dependence';
export { Chance } from './draw';
export { coherentValue, evaluate } from './evaluate';
export type { Expression, Input, Origin, Term } from './expression';
export {
  apply,
  commonInput,
  define,
  exact,
  input,
  mean,
  minus,
  plus,
  power,
  product,
  quotient,
  sum,
} from './expression';
export type { DecimalMark } from './figureText';
export { decimalMark, figureText, signedText, withFigures, writeFiguresWith } from './figureText';
export type { KragtenEstimate } from './kragten';
export { kragten } from './kragten';
export type { BudgetLine, Correlation, Evaluation, EvaluationOptions } from './propagate';
export { COVERAGE_PROBABILITY, coverageFactorFor, keptFreedom, propagate } from './propagate';
export type { RoundedResult } from './round';
export { roundSignificant, roundToUncertainty } from './round';
export type { Simulation, SimulationOptions } from './simulate';
export { runSimulation, simulate } from './simulate';
export { parseTypedEquation } from './typedEquation';
export type { Unit } from './unit';
export { inSi, plainUnit, scaled, UNITS } from './unit';
export type { Validation } from './validate';
export { validate } from './validate';
export type { Formula, WorkingStep } from './working';
export { working } from './working';
