import type { Id } from '../grammar';

/** What a person may be given beyond reading and entering. Stored in facts: never renamed. */
export const RIGHTS = ['certify', 'register', 'manage'] as const;
export type Right = (typeof RIGHTS)[number];

/** What is not open to everybody. */
export type Action =
  /** Lots and equipment: writing them down, calibrating, correcting and returning them to use. */
  | 'register'
  | 'certify'
  /** House rules, methods and people. */
  | 'manage'
  /** Beginning a run that does not follow the house rules. */
  | 'deviate'
  /** Giving up a run that somebody else began. */
  | 'abandon-anothers-run';

/** Who enters something. */
export interface Author {
  readonly id: Id;
  readonly rights: readonly Right[];
}

/** The right that each action takes, and what is said to whoever has not got it. */
const ACTIONS: Readonly<Record<Action, { readonly right: Right; readonly why: string }>> = {
  register: {
    right: 'register',
    why: 'Lots and equipment are registered, calibrated and returned by those who may register them.',
  },
  certify: {
    right: 'certify',
    why: 'You may titrate and judge, but not certify. Ask somebody who may.',
  },
  manage: {
    right: 'manage',
    why: 'House rules, methods and people are set by those who may manage the laboratory.',
  },
  deviate: {
    right: 'manage',
    why: 'Only those who may manage the laboratory can begin such a run.',
  },
  'abandon-anothers-run': {
    right: 'manage',
    why: 'Somebody else began this run: ask them, or those who may manage the laboratory.',
  },
};

/** What a right is called, and what comes with it. */
export const RIGHT_TEXTS: Readonly<
  Record<Right, { readonly name: string; readonly means: string }>
> = {
  certify: { name: 'certify', means: 'Signs certificates of molarities.' },
  register: {
    name: 'register',
    means: 'Registers lots and equipment, calibrates, corrects and returns them to use.',
  },
  manage: {
    name: 'manage',
    means: 'People, house rules and methods; a run by other rules than those in force.',
  },
};

/**
 * Whether somebody may do something: the one table that the server enforces and the screens ask.
 *
 * @param state what it is done to, where that matters: who began the run
 */
export function may(
  { id, rights }: Author,
  action: Action,
  state?: { readonly startedBy: string },
): boolean {
  if (action === 'abandon-anothers-run' && state?.startedBy === id) return true;
  return rights.includes(ACTIONS[action].right);
}

/** What is said to whoever may not. */
export function whyNot(action: Action): string {
  return ACTIONS[action].why;
}
