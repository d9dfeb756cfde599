import type { SessionData } from 'express-session';
import type { Knex } from 'knex';
import type pg from 'pg';
import type { PersonState } from '#core/people';

interface Attempts {
  readonly hits: number;
  readonly expires_at: Date;
}

/** Counts one more attempt under a key; what was counted before its time ran out is forgotten. */
export async function countAttempt(
  db: Knex,
  key: string,
  now: Date,
  expiresAt: Date,
): Promise<Attempts | undefined> {
  const { rows } = await db.raw<{ rows: Attempts[] }>(
    `INSERT INTO attempts AS known (key, hits, expires_at) VALUES (:key, 1, :expiresAt)
     ON CONFLICT (key) DO UPDATE SET
       hits = CASE WHEN known.expires_at <= :now THEN 1 ELSE known.hits + 1 END,
       expires_at = CASE WHEN known.expires_at <= :now THEN EXCLUDED.expires_at ELSE known.expires_at END
     RETURNING hits, expires_at`,
    { key, now, expiresAt },
  );
  return rows[0];
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
