export { nameKey } from './nameKey';
export type { AroundPerson, PersonState } from './person';
export { authorOf, PERSON_RECORD } from './person';
