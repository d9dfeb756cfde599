export type { Action, Author, Right } from './may';
export { describeRight, may, RIGHTS, whyNot } from './may';
