import type { Knex } from 'knex';
import { findStrayFile } from '../files/queries';
import { countFacts, findFactRows } from '../ledger/queries';
import { listAccounts, listPasswords, listSessionIds } from '../people/queries';
import { GENESIS_HASH } from '../database/migrations/002_audit';
import type { EarlierPersonRow, FactRow } from './digests';
import { DIGESTS, digestVersionOf, otherSpellings } from './digests';
import type { AuditEntry } from './entry';
import { auditEntryOfFact, nameOfBreak } from './entry';
import { findLooseGuards } from './guards';
import type { NotedHead } from './heads';
import type { ChainedEntry } from './queries';
import { getAuditHead, listAcceptedBreaks, listAuditAfter } from './queries';
import { digestOf, sha256 } from './text';

/** A place where the log, or what it vouches for, is not what it was. */
interface Break {
  /** Number of the entry that is wrong; 0 when something stands outside the log. */
  readonly sequence: number;
  readonly why: string;
  /** SHA-256 of what is found there: by it somebody can accept this break and no other. */
  readonly found: string;
}

/** What a verification found. */
export type AuditVerdict =
  | {
      readonly kind: 'whole';
      readonly entries: number;
      readonly hash: string;
      /** Facts that were taken in a spelling which PostgreSQL does not keep: the same facts all the same. */
      readonly otherSpellings: number;
      readonly acceptedBreaks: number;
    }
  | ({ readonly kind: 'broken' } & Break);

const PAGE = 1_000;

/** What has been seen of the log so far. */
interface Seen {
  last: { sequence: number; hash: string };
  /** Facts that the log knows of and that are there. */
  facts: number;
  otherSpellings: number;
  readonly accounts: Set<string>;
  readonly hashes: { readonly expected: string | null; isThere: boolean };
  /** Heads that were noted elsewhere and have not been met yet, by number. */
  readonly noted: Map<number, string>;
  /** Digests of the passwords that were set, in order: `person digest`. */
  readonly passwords: string[];
  /** Digests of the sessions that began. */
  readonly sessions: Set<string>;
}

/**
 * Verifies the audit log from its first entry: every hash, that no entry is missing, that the facts and accounts
 * it vouches for say what they said then, and that none stands outside it. A break that somebody has accepted is
 * counted and passed over.
 *
 * @param expectedHash a hash noted earlier and kept elsewhere: it must still be in the chain
 * @param noted heads of the log that were noted outside the database: each must still be in its place
 */
export async function verifyAudit(
  db: Knex,
  expectedHash: string | null = null,
  noted: readonly NotedHead[] = [],
): Promise<AuditVerdict> {
  return db.transaction(
    async (tx) => {
      const seen: Seen = {
        last: { sequence: 0, hash: GENESIS_HASH },
        facts: 0,
        otherSpellings: 0,
        accounts: new Set(),
        hashes: { expected: expectedHash, isThere: expectedHash === null },
        noted: new Map(noted.map(({ sequence, hash }) => [sequence, hash])),
        passwords: [],
        sessions: new Set(),
      };
      const accepted = await listAcceptedBreaks(tx);
      let acceptedBreaks = 0;
      for await (const broken of findBreaks(tx, seen)) {
        if (!accepted.has(nameOfBreak(broken))) return { kind: 'broken', ...broken };
        acceptedBreaks += 1;
      }
      return {
        kind: 'whole',
        entries: seen.last.sequence,
        hash: seen.last.hash,
        otherSpellings: seen.otherSpellings,
        acceptedBreaks,
      };
    },
    // One snapshot: what is added meanwhile is left for the next verification.
    { isolationLevel: 'repeatable read', readOnly: true },
  );
}

/** Every break of the log, in its order. */
async function* findBreaks(tx: Knex, seen: Seen): AsyncGenerator<Break> {
  const accounts = new Map((await listAccounts(tx)).map((row) => [row.id, row]));
  for (;;) {
    const page = await listAuditAfter(tx, seen.last.sequence, PAGE);
    if (page.length === 0) break;
    const facts = await findFactRows(tx, page.flatMap(factIdOf));
    for (const chained of page) {
      yield* breaksOfChain(chained, seen);
      yield* breaksOfContent(chained, { facts, accounts }, seen);
    }
  }
  yield* whatStandsOutside(tx, accounts, seen);
}

/** The entry's place in the chain. */
function* breaksOfChain({ sequence, hash, text }: ChainedEntry, seen: Seen): Generator<Break> {
  const { last } = seen;
  if (sequence !== last.sequence + 1) {
    yield { sequence, why: `entry ${String(last.sequence + 1)} is missing`, found: hash };
  } else {
    const found = sha256(`${last.hash} ${String(sequence)} ${text}`);
    const why = 'its hash does not follow from its text and the hash before it';
    if (found !== hash) yield { sequence, why, found };
  }
  if (hash === seen.hashes.expected) seen.hashes.isThere = true;
  const noted = seen.noted.get(sequence);
  seen.noted.delete(sequence);
  if (noted !== undefined && noted !== hash) {
    const why = 'another hash was noted for it outside the database';
    yield { sequence, why, found: hash };
  }
  seen.last = { sequence, hash };
}

/** The fact that an entry vouches for, read on its own: the entry may be broken. */
function factIdOf({ text }: ChainedEntry): string[] {
  const id = /"factId":"([0-9a-fA-F-]{36})"/.exec(text)?.[1];
  return id === undefined ? [] : [id.toLowerCase()];
}

/** What the log vouches for, by id. */
interface Vouched {
  readonly facts: ReadonlyMap<string, FactRow>;
  readonly accounts: ReadonlyMap<string, EarlierPersonRow>;
}

/** Whether the record that an entry vouches for is what it was. */
function* breaksOfContent(
  { sequence, text }: ChainedEntry,
  vouched: Vouched,
  seen: Seen,
): Generator<Break> {
  const entry = parseEntry(text);
  if (entry === null) {
    yield { sequence, why: 'its text cannot be read', found: sha256(text) };
  } else if (entry.kind === 'fact') {
    const row = vouched.facts.get(entry.factId.toLowerCase());
    if (row) seen.facts += 1;
    const why = row
      ? `fact ${entry.factId} is not what it was when it was recorded`
      : `fact ${entry.factId} is gone`;
    const told = row ? tellingOf(row, entry, text) : null;
    if (told === 'in another spelling') seen.otherSpellings += 1;
    else if (told !== 'as recorded') yield { sequence, why, found: sha256(told ?? 'gone') };
  } else if (entry.kind === 'account-made') {
    seen.accounts.add(entry.personId);
    const row = vouched.accounts.get(entry.personId);
    const digest = row && digestOf(DIGESTS[digestVersionOf(entry)].accountOf(row));
    if (digest === entry.digest) return;
    const why = digest
      ? `the account ${entry.personId} is not what it was when it was made`
      : `the account ${entry.personId} is gone`;
    yield { sequence, why, found: digest ?? sha256('gone') };
  } else if (entry.kind === 'password-set') {
    seen.passwords.push(`${entry.personId} ${entry.digest}`);
  } else if (entry.kind === 'signed-in' && entry.session !== undefined) {
    seen.sessions.add(entry.session);
  }
}

function parseEntry(text: string): AuditEntry | null {
  try {
    return JSON.parse(text) as AuditEntry;
  } catch {
    return null;
  }
}

/** How a row tells what its entry says; the entry that it would have now where it does not. */
function tellingOf(
  row: FactRow,
  entry: Extract<AuditEntry, { kind: 'fact' }>,
  text: string,
): 'as recorded' | 'in another spelling' | (string & {}) {
  const version = digestVersionOf(entry);
  const now = auditEntryOfFact(DIGESTS[version].factOf(row), version);
  if (now === text) return 'as recorded';
  const isSpeltOtherwise =
    version === 1 &&
    otherSpellings(row, entry).some((spelt) => auditEntryOfFact(spelt, version) === text);
  return isSpeltOtherwise ? 'in another spelling' : now;
}

async function* whatStandsOutside(
  tx: Knex,
  accounts: Vouched['accounts'],
  seen: Seen,
): AsyncGenerator<Break> {
  const { last, facts, hashes, noted } = seen;
  const outside = (why: string): Break => ({ sequence: 0, why, found: sha256(why) });
  const head = await getAuditHead(tx);
  if (head.sequence !== last.sequence || head.hash !== last.hash) {
    yield outside(
      `the log should end with entry ${String(head.sequence)}, it ends with ${String(last.sequence)}`,
    );
  }
  const [later] = noted.keys();
  if (later !== undefined) {
    yield outside(
      `entry ${String(later)} was noted outside the database, and the log ends with ${String(last.sequence)}`,
    );
  }
  const stored = await countFacts(tx);
  if (stored !== facts) {
    yield outside(`${String(stored)} facts are stored, the log knows of ${String(facts)} of them`);
  }
  for (const id of accounts.keys()) {
    if (!seen.accounts.has(id)) yield outside(`the log does not know of the account ${id}`);
  }
  const stray = await findStrayFile(tx);
  if (stray !== null) {
    yield outside(`the file ${stray} is not what it was when it was attached`);
  }
  const passwords = await listPasswords(tx);
  const kept = passwords.map((one) => `${one.person_id} ${sha256(one.hash)}`);
  const strange = kept.findIndex((one, i) => one !== seen.passwords[i]);
  if (strange >= 0) {
    yield outside(
      `a password of the account ${passwords[strange]?.person_id ?? ''} is not one that was set here`,
    );
  } else if (kept.length < seen.passwords.length) {
    yield outside('a password that was set is gone');
  }
  for (const sid of await listSessionIds(tx)) {
    const digest = sha256(sid);
    if (!seen.sessions.has(digest)) {
      yield outside(`a session is open that nobody began by signing in (${digest.slice(0, 12)}…)`);
    }
  }
  for (const why of await findLooseGuards(tx)) yield outside(why);
  if (!hashes.isThere) {
    yield outside(
      `no entry has the hash ${hashes.expected ?? ''}: the log is not the one it was noted from`,
    );
  }
}
