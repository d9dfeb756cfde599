export type { Fact, FactOf, Provenance, RecordKind } from './fact';
export { enteredAt, isTimeDoubtful, provenance } from './fact';
export type { Finding } from './finding';
export { impossible, unlikely } from './finding';
export { currentSchemaVersion, upcast } from './upcast';
export type { Withdrawal, WithdrawalBody } from './withdrawal';
export { withdrawalOf } from './withdrawal';
export type { StoredFile } from './storedFile';
