export { nameKey } from './nameKey';
export type { AroundPerson, Given, PersonState } from './person';
export { authorOf, isHere, PERSON_RECORD } from './person';
