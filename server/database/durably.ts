import type { Knex } from 'knex';

/**
 * Runs work in a transaction and settles when it is on the disk.
 *
 * Every write takes the audit log's lock, and a commit that waited for the disk would hold it meanwhile: no two
 * writes could share a flush. So connections commit asynchronously, which gives the locks back at once, and an empty
 * log record with a synchronous commit of its own flushes everything before it, for many callers at a time. The
 * write-ahead log is flushed in order, so that what survives a crash is always a beginning of the chain; what is not
 * acknowledged yet may be lost and is sent again.
 */
export async function durably<T>(db: Knex, work: (tx: Knex.Transaction) => Promise<T>): Promise<T> {
  const result = await db.transaction(work);
  // One message of two statements is one transaction, and one way to the server.
  await db.raw(
    `SET LOCAL synchronous_commit = on; SELECT pg_logical_emit_message(true, 'vine', '')`,
  );
  return result;
}
