export type { CalendarDuration, PlainDate } from './plainDate';
export { addToDate, daysBetween, isPlainDate, plainDateAt } from './plainDate';
