import type { Knex } from 'knex';
import { v7 as uuidv7 } from 'uuid';
import type { FactRow, PersonRow } from './frozen';
import { canonicalText, digestOf, factOf } from './frozen';

interface Account extends PersonRow {
  readonly created_at: Date;
}

/**
 * People become records: name and rights are facts, and the row of a person holds who there is and since when. What the log
 * said of an account when it was made is checked against the fact. Everybody could register lots and equipment until now.
 */
export async function up(db: Knex): Promise<void> {
  const accounts = await db<Account>('people').orderBy(['created_at', 'id']);
  const made = await makersOf(db);
  const entries: string[] = [];
  for (const account of accounts) {
    const row = joined(account, made.get(account.id) ?? account.id);
    const { record_kind: kind, ...columns } = row;
    await db('records').insert({ id: account.id, kind, version: 1 });
    await db('facts').insert({ ...columns, body: JSON.stringify(row.body) });
    const fact = factOf(row);
    const entry = {
      ...{ kind: 'fact', at: fact.recordedAt, by: fact.authorId, factId: fact.id },
      ...{ factKind: fact.kind, recordId: fact.recordId, recordKind: fact.recordKind },
      ...{ version: fact.sequence, digest: digestOf(fact), digestVersion: 2 },
    };
    entries.push(canonicalText(entry));
  }
  if (entries.length > 0) await db.raw('SELECT append_audit(?::text[])', [entries]);
  await db.schema.alterTable('people', (table) => {
    table.dropColumns('name', 'name_key', 'may_certify', 'may_manage', 'is_demo');
  });
  await db.raw(`
    CREATE INDEX person_name ON projections ((state->>'nameKey')) WHERE kind = 'person'`);
}

/** That somebody joined, as their account said; on record now, by whoever made the account. */
function joined(account: Account, by: string): FactRow {
  const rights = [
    ...(account.may_certify ? ['certify'] : []),
    'register',
    ...(account.may_manage ? ['manage'] : []),
  ];
  return {
    id: uuidv7(),
    record_id: account.id,
    record_kind: 'person',
    sequence: 1,
    kind: 'person.joined',
    schema_version: 1,
    body: { name: account.name, rights, isDemo: account.is_demo },
    author_id: by,
    device_id: null,
    device_time: account.created_at,
    clock_offset_ms: null,
    based_on: null,
    recorded_at: new Date(),
  };
}

/** Who made each account, as the log has it; the first one and the demo's nobody did. */
async function makersOf(db: Knex): Promise<ReadonlyMap<string, string>> {
  const rows = await db<{ entry: string }>('audit')
    .whereRaw(`entry LIKE '%"kind":"account-made"%'`)
    .select('entry');
  return new Map(
    rows.flatMap(({ entry }) => {
      const { by, personId } = JSON.parse(entry) as { by: string | null; personId: string };
      return by === null ? [] : [[personId, by] as const];
    }),
  );
}

export function down(): Promise<void> {
  return Promise.reject(new Error('facts are appended, never taken away'));
}
