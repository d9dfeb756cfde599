export type { CertificateFile } from './certificateFile';
export { certificateFileSchema } from './certificateFile';
export type { ReportFile } from './reportFile';
export { reportFileSchema } from './reportFile';
export { catalogueSchema, methodSchema, ownEntrySchema } from './catalogue';
export { sampleSchema } from './samples';
export { houseRulesSchema, settingsSchema } from './houseRules';
export {
  decimal,
  decimalUpTo,
  id,
  line,
  nonNegativeDecimal,
  NOT_FILLED_IN,
  plainDate,
  positiveDecimal,
  reason,
} from './fields';
export type {
  BottlingRequest,
  CertifyRequest,
  ReportRequest,
  HistoryAnswer,
  HistoryLine,
  HistoryRequest,
  SignRequest,
  WithdrawReportRequest,
  WithdrawRequest,
  ListAnswer,
  ListKind,
  ListOrder,
  ListRequest,
  LabelsRequest,
  LiveEvent,
  NewFact,
  PreparationAnswer,
  ProposedFact,
  RecordAnswer,
  RunAnswer,
  SessionAnswer,
  StockAnswer,
} from './messages';
export {
  bottlingSchema,
  certifyRequestSchema,
  reportRequestSchema,
  withdrawReportRequestSchema,
  historyRequestSchema,
  withdrawRequestSchema,
  DEMO_PASSWORD,
  signRequestSchema,
  changePasswordSchema,
  demoSignInSchema,
  firstAccountSchema,
  labelsSchema,
  LIST_ORDERS,
  listRequestSchema,
  newPersonSchema,
  printSchema,
  proposedFactSchema,
  signInSchema,
} from './messages';
export {
  auditVerdictAnswer,
  descriptionAnswer,
  historyAnswer,
  LIST_ANSWERS,
  liveEvent,
  preparationAnswer,
  RECORD_ANSWERS,
  runAnswer,
  sessionAnswer,
  sessionsEnded,
  stockAnswer,
} from './answers';
export { exactly, tolerantly } from './shape';
export type { ListStates } from './states';
export { newId } from './newId';
export { factSchema } from './states';
export type { Route } from './routes';
export { ROUTES } from './routes';
export type { FieldProblem, Problem, ProblemCode } from './problem';
export { PROBLEM_STATUS } from './problem';
export type { ClientFactBody } from './records';
export {
  balanceSchema,
  bottleCode,
  bottleSchema,
  buretteSchema,
  calibrationSchema,
  correctedBottleSchema,
  glasswareSchema,
  heaterSchema,
  letterheadSchema,
  lotSchema,
  thermometerSchema,
} from './records';
