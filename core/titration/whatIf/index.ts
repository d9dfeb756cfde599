export { inOrder } from './inOrder';
export { leavingOut } from './leavingOut';
export { otherSchools } from './otherSchools';
export { smallerU } from './smallerU';
