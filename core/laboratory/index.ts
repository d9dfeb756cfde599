export type { HouseRules } from './houseRules';
export { DEFAULT_HOUSE_RULES } from './houseRules';
export type { Laboratory, LaboratoryState } from './laboratory';
export { foldLaboratory } from './laboratory';
export type { CalendarDuration, PlainDate } from './plainDate';
export { addToDate, daysBetween, isPlainDate, plainDateAt } from './plainDate';
