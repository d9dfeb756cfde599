import type { Knex } from 'knex';
import type { Fact } from '#core/record';
import { findStrayFile } from '../files/files';
import { findStoredFacts } from '../ledger/queries';
import { findAccount, listAccountIds } from '../people/queries';
import { GENESIS_HASH } from '../database/migrations/002_audit';
import type { AuditEntry } from './entry';
import type { ChainedEntry } from './queries';
import { auditEntryOfFact, digestOf, sha256 } from './entry';
import { getAuditHead, listAuditAfter } from './queries';

/** What a verification found. */
export type AuditVerdict =
  | { readonly kind: 'whole'; readonly entries: number; readonly hash: string }
  | {
      readonly kind: 'broken';
      /** Number of the first entry that is wrong; null when something stands outside the log. */
      readonly sequence: number | null;
      readonly why: string;
    };

const PAGE = 1_000;

/**
 * Verifies the audit log from its first entry: every hash, that no entry is missing, that the facts and accounts
 * it vouches for say what they said then, and that none stands outside it.
 *
 * @param expectedHash a hash noted earlier and kept elsewhere: it must still be in the chain
 */
export async function verifyAudit(
  db: Knex,
  expectedHash: string | null = null,
): Promise<AuditVerdict> {
  return db.transaction(
    async (tx) => {
      let last = { sequence: 0, hash: GENESIS_HASH };
      let chained = 0;
      let isExpectedThere = expectedHash === null;
      const accounts = new Set<string>();
      for (;;) {
        const page = await listAuditAfter(tx, last.sequence, PAGE);
        if (page.length === 0) break;
        const facts = await findStoredFacts(tx, page.flatMap(factIdOf));
        for (const { sequence, hash, text } of page) {
          const broken = (why: string): AuditVerdict => ({ kind: 'broken', sequence, why });
          if (sequence !== last.sequence + 1) {
            return broken(`entry ${String(last.sequence + 1)} is missing`);
          }
          if (sha256(`${last.hash} ${String(sequence)} ${text}`) !== hash) {
            return broken('its hash does not follow from its text and the hash before it');
          }
          const entry = JSON.parse(text) as AuditEntry;
          const why = await contradiction(tx, entry, text, facts);
          if (why !== null) return broken(why);
          if (entry.kind === 'fact') chained += 1;
          if (entry.kind === 'account-made') accounts.add(entry.personId);
          if (hash === expectedHash) isExpectedThere = true;
          last = { sequence, hash };
        }
      }
      const outside = await whatStandsOutside(tx, last, chained, accounts);
      if (outside !== null) return { kind: 'broken', sequence: null, why: outside };
      if (!isExpectedThere) {
        const why = `no entry has the hash ${expectedHash ?? ''}: the log is not the one it was noted from`;
        return { kind: 'broken', sequence: null, why };
      }
      return { kind: 'whole', entries: last.sequence, hash: last.hash };
    },
    // One snapshot: what is added meanwhile is left for the next verification.
    { isolationLevel: 'repeatable read', readOnly: true },
  );
}

/** The fact that an entry vouches for, read on its own: the entry may be broken. */
function factIdOf({ text }: ChainedEntry): string[] {
  const id = /"factId":"([0-9a-f-]{36})"/.exec(text)?.[1];
  return id === undefined ? [] : [id];
}

/** In what a record contradicts its entry in the log; null when it does not. */
async function contradiction(
  tx: Knex,
  entry: AuditEntry,
  text: string,
  facts: ReadonlyMap<string, Fact>,
): Promise<string | null> {
  if (entry.kind === 'fact') {
    const fact = facts.get(entry.factId);
    if (!fact) return `fact ${entry.factId} is gone`;
    return auditEntryOfFact(fact) === text
      ? null
      : `fact ${entry.factId} is not what it was when it was recorded`;
  }
  if (entry.kind === 'account-made') {
    const account = await findAccount(tx, entry.personId);
    if (!account) return `the account ${entry.personId} is gone`;
    return digestOf(account) === entry.digest
      ? null
      : `the account ${entry.personId} is not what it was when it was made`;
  }
  return null;
}

async function whatStandsOutside(
  tx: Knex,
  last: { sequence: number; hash: string },
  chained: number,
  accounts: ReadonlySet<string>,
): Promise<string | null> {
  const head = await getAuditHead(tx);
  if (head.sequence !== last.sequence || head.hash !== last.hash) {
    return `the log should end with entry ${String(head.sequence)}, it ends with ${String(last.sequence)}`;
  }
  const [row] = await tx('facts').count<{ count: string }[]>();
  const stored = Number(row?.count);
  if (stored !== chained) {
    return `${String(stored)} facts are stored, the log knows of ${String(chained)}`;
  }
  const unknown = (await listAccountIds(tx)).find((id) => !accounts.has(id));
  if (unknown !== undefined) return `the log does not know of the account ${unknown}`;
  const stray = await findStrayFile(tx);
  return stray === null ? null : `the file ${stray} is not what it was when it was attached`;
}
