import type { Knex } from 'knex';
import { APP_ROLE } from '../connection';

/** Certificates of lots as files. */
export async function up(db: Knex): Promise<void> {
  await db.schema.createTable('files', (table) => {
    table.uuid('id').primary();
    table.uuid('record_id').notNullable().references('records.id').index();
    table.text('name').notNullable();
    table.text('type').notNullable();
    table.text('sha256').notNullable();
    table.binary('content').notNullable();
  });
  await db.raw(`
    CREATE TRIGGER files_append_only BEFORE UPDATE OR DELETE OR TRUNCATE ON files
    FOR EACH STATEMENT EXECUTE FUNCTION refuse_change()`);
  await db.raw(`GRANT SELECT, INSERT ON files TO ${APP_ROLE}`);
}

export function down(): Promise<void> {
  return Promise.reject(new Error('the files would be lost'));
}
