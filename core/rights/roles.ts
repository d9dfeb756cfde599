import type { Id } from '../grammar';

/** What is not open to everybody; to read is. */
export type Action =
  /** Preparing, titrating, measuring: whatever is entered at the bench and on the shelf. */
  | 'enter'
  /** Lots and equipment: writing them down, calibrating, correcting and returning them to use. */
  | 'register'
  /** Signing what was done as done by oneself. */
  | 'perform'
  /** Signing that what somebody else did was looked through. */
  | 'check'
  /** Signing a certificate, which issues it. */
  | 'authorize'
  /** House rules, methods and own entries of the catalogue. */
  | 'manage'
  /** Accounts, names and roles. */
  | 'manage-people'
  /** Beginning a run that does not follow the house rules. */
  | 'deviate'
  /** Giving up a run that somebody else began. */
  | 'abandon-anothers-run'
  /** Having the log of everything verified. */
  | 'verify-log';

interface RoleEntry {
  readonly name: string;
  /** What comes with it, for whoever gives it. */
  readonly means: string;
  readonly may: readonly Action[];
}

/** Every role with what it may: the one table that the server enforces and the screens ask. Its keys stand in facts. */
const TABLE = {
  trainee: {
    name: 'trainee',
    means: 'Prepares and titrates. What a trainee has done somebody else checks.',
    may: ['enter', 'perform'],
  },
  analyst: {
    name: 'analyst',
    means: 'Prepares, titrates, and signs for what they have done.',
    may: ['enter', 'perform'],
  },
  storekeeper: {
    name: 'storekeeper',
    means: 'Registers lots and equipment, calibrates, corrects and returns them to use.',
    may: ['enter', 'register'],
  },
  reviewer: {
    name: 'reviewer',
    means: 'Looks through what others have done, and signs for that or returns it.',
    may: ['check'],
  },
  'authorized-signatory': {
    name: 'authorized signatory',
    means: 'Signs certificates, which issues them.',
    may: ['authorize'],
  },
  'technical-manager': {
    name: 'technical manager',
    means: 'House rules, methods, lots, equipment and people; a run by other rules.',
    may: [
      'enter',
      'register',
      'manage',
      'manage-people',
      'deviate',
      'abandon-anothers-run',
      'verify-log',
    ],
  },
  'quality-manager': {
    name: 'quality manager',
    means: 'Sees everything, verifies the log and keeps the roles of people; changes no result.',
    may: ['manage-people', 'verify-log'],
  },
  auditor: {
    name: 'auditor',
    means: 'Reads everything, verifies the log and changes nothing, until a date.',
    may: ['verify-log'],
  },
} as const satisfies Readonly<Record<string, RoleEntry>>;

export type Role = keyof typeof TABLE;

/** A role with its name. */
export const ROLE_TABLE: Readonly<Record<Role, RoleEntry>> = TABLE;

export const ROLES = Object.keys(TABLE) as readonly Role[];

/** What whoever does everything in a laboratory of one needs. */
export const ALL_WORK: readonly Role[] = ROLES.filter(
  (role) => role !== 'trainee' && role !== 'auditor',
);

/** Who enters something. */
export interface Author {
  readonly id: Id;
  readonly roles: readonly Role[];
}

/** What is said to whoever may not. */
const WHY_NOT: Readonly<Record<Action, string>> = {
  enter: 'You may read everything here, and enter nothing.',
  register:
    'Lots and equipment are registered, calibrated and returned by storekeepers and technical managers.',
  perform: 'Analysts sign for what they have done.',
  check: 'You may not check what others have done. Ask a reviewer.',
  authorize: 'You may titrate and judge, but not certify. Ask an authorized signatory.',
  manage: 'House rules, methods and entries of the catalogue are set by a technical manager.',
  'manage-people': 'People and their roles are kept by a technical or a quality manager.',
  deviate: 'Only a technical manager can begin such a run.',
  'verify-log': 'The log is verified by a technical manager, a quality manager or an auditor.',
  'abandon-anothers-run': 'Somebody else began this run: ask them, or a technical manager.',
};

/**
 * Whether somebody may do something.
 *
 * @param state what it is done to, where that matters: who began the run
 */
export function may(
  { id, roles }: Author,
  action: Action,
  state?: { readonly startedBy: string },
): boolean {
  if (action === 'abandon-anothers-run' && state?.startedBy === id) return true;
  return roles.some((role) => ROLE_TABLE[role].may.includes(action));
}

/** What is said to whoever may not. */
export function whyNot(action: Action): string {
  return WHY_NOT[action];
}

/** The rights that people were given before there were roles. */
export type EarlierRight = 'certify' | 'register' | 'manage';

const ROLES_OF: Readonly<Record<EarlierRight, Role>> = {
  certify: 'authorized-signatory',
  register: 'storekeeper',
  manage: 'technical-manager',
};

/** The roles that let somebody do what those rights did: everybody could prepare and titrate. */
export function rolesOfRights(rights: readonly EarlierRight[]): readonly Role[] {
  const given = new Set<Role>(['analyst', ...rights.map((right) => ROLES_OF[right])]);
  return ROLES.filter((role) => given.has(role));
}
