export { asPlanned } from './asPlanned';
export { inOrder } from './inOrder';
export { leavingOut, withoutFlask } from './leavingOut';
export { otherSchools } from './otherSchools';
export { smallerU } from './smallerU';
