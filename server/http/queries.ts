import type { SessionData } from 'express-session';
import type { Knex } from 'knex';
import type pg from 'pg';
import type { PersonState } from '#core/people';

/** What has been counted under a key, and until when it counts. */
export interface Counted {
  readonly key: string;
  readonly hits: number;
  readonly expiresAt: Date;
}

/** Adds to what is counted under keys, and gives the sums; what was counted before its time ran out is forgotten. */
export async function addAttempts(
  db: Knex,
  counted: readonly Counted[],
  now: Date,
): Promise<readonly Counted[]> {
  const { rows } = await db.raw<{ rows: Counted[] }>(
    `INSERT INTO attempts AS known (key, hits, expires_at)
     SELECT key, hits, "expiresAt" FROM jsonb_to_recordset(:counted::jsonb)
       AS given(key text, hits integer, "expiresAt" timestamptz) ORDER BY key
     ON CONFLICT (key) DO UPDATE SET
       hits = CASE WHEN known.expires_at <= :now THEN EXCLUDED.hits ELSE known.hits + EXCLUDED.hits END,
       expires_at = CASE WHEN known.expires_at <= :now THEN EXCLUDED.expires_at ELSE known.expires_at END
     RETURNING key, hits, expires_at AS "expiresAt"`,
    { counted: JSON.stringify(counted), now },
  );
  return rows;
}

export async function takeAttemptBack(db: Knex, key: string): Promise<void> {
  await db('attempts').where({ key }).decrement('hits', 1);
}

export async function forgetAttempts(db: Knex, key: string): Promise<void> {
  await db('attempts').where({ key }).delete();
}

/** A session with the person that it is of, in one question; null when there is none, or it has run out. */
export async function findSession(pool: pg.Pool, sid: string): Promise<SessionData | null> {
  const { rows } = await pool.query<{ sess: SessionData; person: PersonState | null }>({
    name: 'find-session',
    text: `SELECT sess, state AS person FROM sessions
      LEFT JOIN projections ON record_id = (sess->>'personId')::uuid AND kind = 'person'
      WHERE sid = $1 AND expire > now()`,
    values: [sid],
  });
  const [row] = rows;
  return row ? { ...row.sess, ...(row.person && { person: row.person }) } : null;
}

/** Whether a session is still there: it may have been ended in another tab or by another server. */
export async function isSessionAlive(pool: pg.Pool, sessionId: string): Promise<boolean> {
  const { rowCount } = await pool.query(
    'SELECT 1 FROM sessions WHERE sid = $1 AND expire > now()',
    [sessionId],
  );
  return rowCount === 1;
}
