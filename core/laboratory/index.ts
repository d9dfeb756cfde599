export type { HouseRules, PaperUnits, RuleOverrides } from './houseRules';
export {
  checkRules,
  DEFAULT_HOUSE_RULES,
  deviatingRules,
  paperUnitsOf,
  UNWRITTEN_RULES,
  withOverrides,
} from './houseRules';
export type { RuleText } from './ruleTexts';
export { describeDeviations, RULE_TEXTS, ruleWords } from './ruleTexts';
export type {
  Laboratory,
  LaboratoryFact,
  LaboratoryFactBodies,
  LaboratoryState,
} from './laboratory';
export { LABORATORY_RECORD, rulesAt } from './laboratory';
export type { FewRules } from './earlierRules';
export { toEarlierRules, toMoreRules, toRulesOfFlaskAndCurve } from './earlierRules';
export type { CalendarDuration, PlainDate } from './plainDate';
export { addToDate, daysBetween, isPlainDate, plainDateAt } from './plainDate';
export { checkTypedDate } from './typedDate';
