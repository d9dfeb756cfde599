export type { Action, Author, Right } from './may';
export { may, RIGHT_TEXTS, RIGHTS, whyNot } from './may';
