export { nameKey } from './nameKey';
export type { AroundPerson, PersonFactBodies, PersonState } from './person';
export { authorOf, PERSON_RECORD } from './person';
