export { catalogueSchema } from './catalogue';
export {
  decimal,
  decimalUpTo,
  line,
  nonNegativeDecimal,
  plainDate,
  positiveDecimal,
  reason,
} from './fields';
export type {
  CertifyRequest,
  ListAnswer,
  ListKind,
  ListStates,
  LiveEvent,
  NewFact,
  PeopleAnswer,
  Person,
  ProposedFact,
  RunAnswer,
  SessionAnswer,
} from './messages';
export {
  certifyRequestSchema,
  demoSignInSchema,
  firstAccountSchema,
  newPersonSchema,
  printSchema,
  proposedFactSchema,
  signInSchema,
} from './messages';
export type { Route } from './routes';
export { ROUTES } from './routes';
export type { FieldProblem, Problem, ProblemCode } from './problem';
export { PROBLEM_STATUS } from './problem';
export type { ClientFactBody, ClientFactKind } from './records';
export {
  balanceSchema,
  bottleSchema,
  buretteSchema,
  DECISION_KINDS,
  glasswareSchema,
  lotSchema,
} from './records';
