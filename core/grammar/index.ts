export type { CalendarDuration, PlainDate } from './plainDate';
export { addToDate, daysBetween, isPlainDate, plainDate, plainDateAt } from './plainDate';
export type { Id, Plain, Stored } from './stored';
