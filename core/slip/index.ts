export { suspectForm } from './form';
export type { ReadingContext, SuspectedSlip, WeighingContext } from './reading';
export { isNetOf, readingSlips, suspectReading, suspectWeighing } from './reading';
