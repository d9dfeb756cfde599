export type { DocumentContext } from './context';
export { certificateDocument } from './certificateDocument';
export { reportDocument } from './reportDocument';
export { resultsCsv } from './resultsCsv';
