export type { HouseRule, HouseRules, RuleKey } from './rules';
export { HOUSE_RULES, RULE_GROUPS } from './rules';
export type { CorrectionRules, PaperUnits, RuleOverrides } from './houseRules';
export {
  checkRules,
  CORRECTION_PRESETS,
  correctionRulesOf,
  DEFAULT_HOUSE_RULES,
  describeDeviations,
  deviatingRules,
  isCorrectionUnsaid,
  paperUnitsOf,
  ruleWords,
  UNWRITTEN_RULES,
  withOverrides,
} from './houseRules';
export type {
  Laboratory,
  LaboratoryFact,
  LaboratoryFactBodies,
  LaboratoryState,
} from './laboratory';
export { LABORATORY_RECORD, rulesAt } from './laboratory';
export type { FewRules } from './earlierRules';
export { LATEST_RULES, rulesFromLot, rulesOfLot, toEarlierRules } from './earlierRules';
export type { OwnKeeping, Setting, SettingKey, Settings } from './settings';
export {
  checkSettings,
  decimalMarkOf,
  DEFAULT_SETTINGS,
  ownKeepingDays,
  SETTING_GROUPS,
  SETTINGS,
} from './settings';
export { checkTypedDate } from './typedDate';
