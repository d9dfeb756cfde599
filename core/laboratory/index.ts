export type { HouseRules, PaperUnits, RuleOverrides } from './houseRules';
export { checkRules, DEFAULT_HOUSE_RULES, paperUnitsOf, withOverrides } from './houseRules';
export type { RuleText } from './ruleTexts';
export { RULE_TEXTS } from './ruleTexts';
export type { Laboratory, LaboratoryFactBodies, LaboratoryState } from './laboratory';
export { foldLaboratory } from './laboratory';
export type { CalendarDuration, PlainDate } from './plainDate';
export { addToDate, daysBetween, isPlainDate, plainDateAt } from './plainDate';
