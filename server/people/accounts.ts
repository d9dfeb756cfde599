import { randomInt } from 'node:crypto';
import { hash, verify } from '@node-rs/argon2';
import { DEMO_PASSWORD, newId } from '#contract';
import type { Laboratory } from '#core/laboratory';
import type { PersonState } from '#core/people';
import { authorOf } from '#core/people';
import type { PlainDate } from '#core/grammar';
import type { Role } from '#core/rights';
import { ALL_WORK, ROLES } from '#core/rights';
import { auditEntryOfAccount } from '../audit/entry';
import { appendAudit } from '../audit/queries';
import { sha256 } from '../audit/text';
import { durably } from '../database/durably';
import { AppError, nameTaken } from '../http/appError';
import { foundLaboratory, lockAndOpen, makeServerFact, storeNext } from '../ledger/append';
import type { Services } from '../services';
import { isHereNow } from './here';
import {
  deleteSessions,
  findCredentials,
  findNamed,
  findPerson,
  findPasswordHash,
  hasPeople,
  insertPassword,
  insertPerson,
  replaceSecret,
  takeSecret,
} from './queries';

/** Argon2id with the library's defaults: 19 MiB, two passes (OWASP's minimum). */
function hashPassword(password: string): Promise<string> {
  return hash(password);
}

/** A hash that no password matches: an unknown name takes as long to refuse as a wrong password. */
const NOBODY = hashPassword('nobody has this password');

/**
 * The id of the person who has this name and password. A failure is put on record without the name that was typed:
 * people type passwords there.
 *
 * @throws AppError `wrong-credentials`, also for an account that is closed, which says so
 */
export async function signInWithPassword(
  services: Services,
  name: string,
  password: string,
): Promise<string> {
  const found = await findCredentials(services.db, name);
  const isRight = await verify(found?.passwordHash ?? (await NOBODY), password);
  const isClosed = found !== null && !(await isHereNow(services, found.person));
  if (found && isRight && !isClosed) return found.person.id;
  await durably(services.db, (tx) =>
    appendAudit(tx, {
      kind: 'sign-in-failed',
      at: at(services),
      personId: found?.person.id ?? null,
    }),
  );
  throw new AppError(
    'wrong-credentials',
    isRight && isClosed
      ? 'This account is closed. Ask those who manage the laboratory.'
      : 'The name or the password is wrong.',
  );
}

/**
 * Has somebody who is signed in confirm with their password that it is they who sign. A failure is put on record.
 *
 * @throws AppError `wrong-credentials`
 */
export async function confirmSigner(
  services: Services,
  { id, isDemo }: PersonState,
  password: string,
): Promise<void> {
  const known = await findPasswordHash(services.db, id);
  const isRight = await verify(known ?? (await NOBODY), password);
  if (isRight || (isDemo && password === DEMO_PASSWORD)) return;
  await durably(services.db, (tx) =>
    appendAudit(tx, { kind: 'sign-in-failed', at: at(services), personId: id }),
  );
  const title = 'This is not your password, so nothing is signed.';
  throw new AppError('wrong-credentials', title, [{ field: 'password', message: title }]);
}

/** Puts a sign-in on record, with the digest of the session that it begins: the log knows of every one. */
export async function recordSignIn(
  services: Services,
  by: string,
  way: 'password' | 'demo' | 'first-account',
  sessionId: string,
): Promise<void> {
  const session = sha256(sessionId);
  await durably(services.db, (tx) =>
    appendAudit(tx, { kind: 'signed-in', at: at(services), by, way, session }),
  );
}

/** Puts a sign-out on record. */
export async function recordSignOut(services: Services, by: string): Promise<void> {
  await durably(services.db, (tx) => appendAudit(tx, { kind: 'signed-out', at: at(services), by }));
}

/**
 * Changes somebody's own password and ends their other sessions, whoever holds them.
 *
 * @throws AppError `wrong-credentials` unless the present one is given
 */
export async function changePassword(
  services: Services,
  personId: string,
  sessionId: string,
  { current, password }: { readonly current: string; readonly password: string },
): Promise<void> {
  const known = await findPasswordHash(services.db, personId);
  if (!(await verify(known ?? (await NOBODY), current))) {
    throw new AppError('wrong-credentials', 'This is not your present password.', [
      { field: 'current', message: 'This is not your present password.' },
    ]);
  }
  const hashed = await hashPassword(password);
  await durably(services.db, async (tx) => {
    await setPassword({ ...services, db: tx }, personId, personId, hashed);
    await deleteSessions(tx, personId, sessionId);
  });
}

/** Ends somebody's other sessions; gives how many there were. */
export async function endOtherSessions(
  services: Services,
  personId: string,
  sessionId: string,
): Promise<number> {
  return durably(services.db, async (tx) => {
    const ended = await deleteSessions(tx, personId, sessionId);
    await appendAudit(tx, { kind: 'sessions-ended', at: at(services), by: personId });
    return ended;
  });
}

/** Writes a password down, with its entry in the log. */
async function setPassword(
  services: Services,
  by: string | null,
  personId: string,
  hashed: string,
): Promise<void> {
  await insertPassword(services.db, {
    person_id: personId,
    hash: hashed,
    set_at: services.now(),
  });
  const entry = { kind: 'password-set', at: at(services), by, personId } as const;
  await appendAudit(services.db, { ...entry, digest: sha256(hashed) });
}

function at(services: Services): string {
  return services.now().toISOString();
}

/** What an account is made from. */
export interface AccountDetails {
  readonly name: string;
  readonly roles: readonly Role[];
  /** The last day of an auditor. */
  readonly auditsUntil?: PlainDate | null;
  readonly password: string;
}

/**
 * Adds a person with an account, in a transaction of the caller's or of its own. Their row comes before their first fact, of which
 * the first person of all is the author.
 *
 * @param by who adds it; null for the first account and the demo's
 * @throws AppError `already-exists` for a name that is taken.
 */
export async function addPerson(
  services: Services,
  by: PersonState | null,
  { name, roles, auditsUntil = null, password }: AccountDetails,
  isDemo = false,
): Promise<PersonState> {
  const row = { id: newId(), created_at: services.now() };
  const passwordHash = await hashPassword(password);
  return durably(services.db, async (tx) => {
    const inside = { ...services, db: tx };
    if ((await findNamed(tx, name)) !== null) throw nameTaken();
    await insertPerson(tx, row);
    await appendAudit(tx, auditEntryOfAccount(row, by?.id ?? null, at(services)));
    const opened = await lockAndOpen(inside, [{ id: row.id, kind: 'person' }]);
    const joined = makeServerFact(services, by?.id ?? row.id, {
      ...{ recordId: row.id, recordKind: 'person', kind: 'person.joined' },
      body: { name, roles, auditsUntil, isDemo },
    });
    // Whoever comes first adds themselves.
    const author = by ? authorOf(by) : { id: row.id, roles: ROLES };
    await storeNext(inside, author, [joined], opened);
    await setPassword(inside, by?.id ?? null, row.id, passwordHash);
    const person = await findPerson(tx, row.id);
    if (!person) throw new RangeError(`person ${row.id} was not stored`);
    return person;
  });
}

const FIRST_ACCOUNT_CODE = 'first-account-code';

/** Letters and figures that cannot be taken for one another. */
const CODE_ALPHABET = 'ABCDEFGHJKMNPQRSTUVWXYZ23456789';

/**
 * Makes a new one-time code for the first account and forgets the one before; null when somebody has an
 * account already. The database keeps only its digest.
 */
export async function issueFirstAccountCode(services: Services): Promise<string | null> {
  if (await hasPeople(services.db)) return null;
  const letters = Array.from({ length: 8 }, () => CODE_ALPHABET[randomInt(CODE_ALPHABET.length)]);
  const code = `${letters.slice(0, 4).join('')}-${letters.slice(4).join('')}`;
  await replaceSecret(services.db, FIRST_ACCOUNT_CODE, sha256(code));
  return code;
}

/** Founds the laboratory and makes its first account, with every right. The code works once. */
export async function makeFirstAccount(
  services: Services,
  request: { code: string; name: string; password: string; laboratory: Laboratory },
): Promise<PersonState> {
  return durably(services.db, async (tx) => {
    const inside = { ...services, db: tx };
    if (!(await takeSecret(tx, FIRST_ACCOUNT_CODE, sha256(request.code)))) {
      throw new AppError(
        'wrong-code',
        'This is not the code that the terminal shows. It works once; a restart prints a new one.',
        [
          {
            field: 'code',
            message: 'Take the code from the terminal where the program was started.',
          },
        ],
      );
    }
    const { name, password } = request;
    const person = await addPerson(inside, null, { name, password, roles: ALL_WORK });
    await foundLaboratory(inside, person.id, request.laboratory);
    return person;
  });
}
