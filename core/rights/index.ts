export type { Action, Author, EarlierRight, Role } from './roles';
export { ALL_WORK, may, ROLE_TABLE, ROLES, rolesOfRights, whyNot } from './roles';
