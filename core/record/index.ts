export type { Around, AroundStock } from './around';
export type { Correction } from './correction';
export { corrected } from './correction';
export type {
  FactDefinition,
  RecordHead,
  RecordVersion,
  Reference,
  UpcastStep,
  Whose,
} from './definition';
export { defineRecord } from './definition';
export type { Fact, FactOf, Provenance } from './fact';
export { enteredAt, isTimeDoubtful, provenance } from './fact';
export type { Finding } from './finding';
export { digestOf } from './digest';
export { checkMay, impossible, objections, restedOn, unlikely } from './finding';
export type { Listing, Standing } from './listing';
export {
  atHand,
  lasting,
  MOST_WARNING_DAYS,
  searchedText,
  searchTerms,
  standingOn,
  WARNING_DAYS,
} from './listing';
export { sameValue } from './sameValue';
export { factsSeenBy } from './seen';
export type { Counted, Taken } from './stock';
export { upcastBy } from './upcast';
export type { Withdrawable, Withdrawal, WithdrawalBody } from './withdrawal';
export { RETURNED, takes, WITHDRAWN } from './withdrawal';
export type { StoredFile } from './storedFile';
