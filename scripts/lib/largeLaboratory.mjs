// A laboratory of many years, grown from the demo: its records copied with ids and codes of their own.
import { randomUUID } from 'node:crypto';
import pg from 'pg';
import { say } from './say.mjs';

/** How many there are to be of each kind in all, and how many of the bottles stay in use. @type {Record<string, number>} */
export const LARGE = { bottle: 5_000, run: 20_000, preparation: 5_000, lot: 200 };
const BOTTLES_IN_USE = 40;

const UUID = /[0-9a-f]{8}-[0-9a-f]{4}-7[0-9a-f]{3}-[0-9a-f]{4}-[0-9a-f]{12}/g;

/** @typedef {{ id: string, kind: string, facts: { id: string, text: string }[] }} Stream */

/**
 * Copies the closed runs and preparations, the bottles and the lots of the demo until there are as many. What is copied names its
 * own copies: each run its bottle. All but a few of the copied bottles and all copied lots are withdrawn. The lists are to be
 * remade afterwards; the audit log knows nothing of the copies.
 * @param {string} ownerUrl
 * @param {Readonly<Record<string, number>>} sizes
 */
export async function growLaboratory(ownerUrl, sizes = LARGE) {
  const client = new pg.Client(ownerUrl);
  await client.connect();
  try {
    const streams = await readStreams(client);
    const some = (/** @type {string} */ kind) => streams.filter((stream) => stream.kind === kind);
    const closed = [
      ...some('run').filter(({ facts }) =>
        facts.some(({ text }) => text.includes('run.certified')),
      ),
      ...some('preparation').filter(({ facts }) =>
        facts.some(({ text }) => /preparation\.(bottled|discarded)/.test(text)),
      ),
    ];
    const copied = [...some('bottle'), ...some('lot'), ...closed];
    const authorId = some('person')[0]?.id ?? '';
    /** @type {Record<string, number>} */
    const made = Object.fromEntries(Object.keys(sizes).map((kind) => [kind, some(kind).length]));
    let inUse = some('bottle').length;
    /** Whether there is room for one more of a kind, which is made. @param {string} kind */
    const takesOne = (kind) => {
      const count = (made[kind] ?? 0) + 1;
      if (count > (sizes[kind] ?? 0)) return false;
      made[kind] = count;
      return true;
    };
    /** @type {Map<string, string>[]} the ids of each copy that has bottles */
    const shelves = [];
    for (let round = 1; ; round += 1) {
      const wanted = copied.filter(({ kind }) => takesOne(kind));
      if (wanted.length === 0) break;
      // A run of later years is of a bottle of an earlier copy.
      const ids = new Map(shelves[round % shelves.length]);
      for (const { id, facts } of wanted) {
        for (const one of [id, ...facts.map((fact) => fact.id)]) ids.set(one, randomUUID());
      }
      if (wanted.some(({ kind }) => kind === 'bottle')) shelves.push(ids);
      await insert(client, wanted, ids, round, authorId, (kind) => {
        if (kind === 'lot') return true;
        if (kind !== 'bottle') return false;
        inUse += 1;
        return inUse > BOTTLES_IN_USE;
      });
      if (round % 100 === 0) say(`${made['run']} runs …`);
    }
  } finally {
    await client.end();
  }
}

/** @param {pg.Client} client @returns {Promise<Stream[]>} */
async function readStreams(client) {
  const { rows } = await client.query(
    `SELECT records.id, records.kind, json_agg(json_build_object('id', facts.id, 'text', row_to_json(facts)::text)
       ORDER BY sequence) AS facts
     FROM records JOIN facts ON facts.record_id = records.id GROUP BY records.id ORDER BY records.id`,
  );
  return rows;
}

/**
 * @param {pg.Client} client @param {readonly Stream[]} streams @param {ReadonlyMap<string, string>} ids @param {number} round
 * @param {string} authorId @param {(kind: string) => boolean} isWithdrawn
 */
async function insert(client, streams, ids, round, authorId, isWithdrawn) {
  /** @type {object[]} */
  const records = [];
  /** @type {object[]} */
  const facts = [];
  for (const { id, kind, facts: own } of streams) {
    const copy = ids.get(id);
    const rows = own.map(({ text }) => {
      const named = text
        .replace(UUID, (one) => ids.get(one) ?? one)
        .replace(/("code": ?")/g, `$1${round}-`);
      return JSON.parse(named);
    });
    if (isWithdrawn(kind)) {
      rows.push({
        ...rows.at(-1),
        ...{ id: randomUUID(), sequence: rows.length + 1, kind: `${kind}.withdrawn` },
        ...{ schema_version: 1, body: { reason: 'used up' }, author_id: authorId },
      });
    }
    records.push({ id: copy, kind, version: rows.length });
    facts.push(...rows);
  }
  await client.query('BEGIN');
  await client.query(
    'INSERT INTO records SELECT * FROM jsonb_populate_recordset(NULL::records, $1)',
    [JSON.stringify(records)],
  );
  await client.query('INSERT INTO facts SELECT * FROM jsonb_populate_recordset(NULL::facts, $1)', [
    JSON.stringify(facts),
  ]);
  await client.query('COMMIT');
}
