import type { PlainDate } from '../grammar';
import type { Around, Finding, Provenance, RecordHead } from '../record';
import { checkMay, defineRecord, impossible, lasting, provenance } from '../record';
import type { Author, EarlierRight, Role } from '../rights';
import { may, ROLE_TABLE, rolesOfRights } from '../rights';
import { nameKey } from './nameKey';

/** What somebody is given. */
export interface Given {
  readonly roles: readonly Role[];
  /** The last day on which an auditor reads; null for everybody else. */
  readonly auditsUntil: PlainDate | null;
}

/** A person as they joined. */
interface Joined extends Given {
  readonly name: string;
  /** One of the made-up people of the demo. */
  readonly isDemo: boolean;
}

export interface PersonFactBodies {
  'person.joined': Joined;
  'person.renamed': { readonly name: string; readonly reason: string };
  'person.rights-changed': Given & { readonly reason: string };
  /** Their account is closed: they sign nothing more, and stay in the history. */
  'person.left': { readonly reason: string };
  'person.returned': { readonly reason: string };
}

/** A person of the laboratory. */
export interface PersonState extends RecordHead, Author, Given {
  readonly name: string;
  /** By what the name is compared. */
  readonly nameKey: string;
  readonly isDemo: boolean;
  readonly joined: Provenance;
  /** Null while they work here. */
  readonly left: (Provenance & { readonly reason: string }) | null;
}

/** What is around a fact of a person. */
export interface AroundPerson extends Pick<Around, 'author'> {
  /** The person who has a name, in whatever spelling; null when nobody has. */
  readonly personNamed: (name: string) => string | null;
}

/** A person: joined, renamed, given and taken rights, left and come back. */
export const PERSON_RECORD = defineRecord<
  'person',
  PersonFactBodies,
  PersonState,
  AroundPerson,
  'person.joined'
>({
  kind: 'person',
  first: 'person.joined',
  begin: (fact) =>
    fact.kind === 'person.joined'
      ? {
          ...fact.body,
          nameKey: nameKey(fact.body.name),
          joined: provenance(fact),
          left: null,
        }
      : null,
  listed: ({ name, left }) => ({
    name,
    words: [],
    aboutId: null,
    standing: lasting(left ? 'left' : 'here'),
    // Whoever has left stays in the history.
    atHandUntil: null,
  }),
  facts: {
    'person.joined': {
      nature: 'decision',
      needsServer: true,
      earlier: [toRoles],
      check: ({ body }, _state, { author }) => [
        ...checkMay(author, 'manage-people'),
        ...checkGiven(body),
      ],
      apply: () => ({}),
      sentence: ({ name }) => `${name} joined.`,
    },
    'person.renamed': {
      nature: 'decision',
      asks: 'name',
      check: ({ body: { name } }, { id }, { author, personNamed }) => {
        const other = personNamed(name);
        const isTaken = other !== null && other !== id;
        return [
          ...checkMay(author, 'manage-people'),
          ...(isTaken ? [impossible('name-taken', 'name')] : []),
        ];
      },
      apply: (_state, { body: { name } }) => ({ name, nameKey: nameKey(name) }),
      sentence: ({ name, reason }) => `now called ${name}: ${reason}.`,
    },
    'person.rights-changed': {
      nature: 'decision',
      earlier: [toRoles],
      check: ({ body }, state, { author }) => [
        ...checkMay(author, 'manage-people'),
        ...checkGiven(body),
        ...(may({ id: state.id, roles: body.roles }, 'manage-people')
          ? []
          : notOneself(author, state, 'take-right')),
      ],
      apply: (_state, { body: { roles, auditsUntil } }) => ({ roles, auditsUntil }),
      sentence: ({ roles, reason }) =>
        `now ${roles.length === 0 ? 'without a role' : roles.map((role) => ROLE_TABLE[role].name).join(', ')}: ${reason}.`,
    },
    'person.left': {
      nature: 'decision',
      check: (_fact, state, { author }) => [
        ...checkMay(author, 'manage-people'),
        ...notOneself(author, state, 'close-account'),
        ...(state.left ? [impossible('left-already', 'reason')] : []),
      ],
      apply: (_state, fact) => ({ left: { ...provenance(fact), reason: fact.body.reason } }),
      sentence: ({ reason }) => `left: ${reason}.`,
    },
    'person.returned': {
      nature: 'decision',
      check: (_fact, { left }, { author }) => [
        ...checkMay(author, 'manage-people'),
        ...(left ? [] : [impossible('not-left', 'reason')]),
      ],
      apply: () => ({ left: null }),
      sentence: ({ reason }) => `came back: ${reason}.`,
    },
  },
});

/** Nobody shuts themselves out: a laboratory always has somebody who manages it. */
function notOneself(
  author: Author,
  { id }: PersonState,
  what: 'take-right' | 'close-account',
): readonly Finding[] {
  return author.id === id ? [impossible('oneself', 'rights', { what })] : [];
}

/** An auditor does nothing else here, and has a last day. */
function checkGiven({ roles, auditsUntil }: Given): readonly Finding[] {
  const audits = roles.includes('auditor');
  if (audits && roles.length > 1) return [impossible('auditor-alone', 'roles')];
  return audits === (auditsUntil !== null) ? [] : [impossible('auditor-until', 'auditsUntil')];
}

/** Before there were roles, somebody was given rights; whoever had none prepared and titrated. */
function toRoles(body: unknown): unknown {
  const { rights, ...rest } = body as { readonly rights: readonly EarlierRight[] };
  return { ...rest, roles: rolesOfRights(rights), auditsUntil: null } satisfies Given;
}

/** Whether somebody may sign in and read on a day. */
export function isHere({ left, auditsUntil }: PersonState, today: PlainDate): boolean {
  return left === null && (auditsUntil === null || today <= auditsUntil);
}

/** Somebody as they enter a fact: who has left may nothing any more. */
export function authorOf({ id, roles, left }: Pick<PersonState, 'id' | 'roles' | 'left'>): Author {
  return { id, roles: left ? [] : roles };
}
