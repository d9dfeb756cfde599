export * from './figures';
export * from './guidance';
export * from './judging';
export * from './record';
export * from './run';
export * from './setUp';
export { namedRecords as partsOf } from './setUp';
