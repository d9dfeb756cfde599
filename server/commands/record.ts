import { appendAudit } from '../audit/queries';
import { durably } from '../database/durably';
import { runCommand, withServices } from './command';

/** Puts on record that a backup was made or restored: `backed-up` or `restored`. */
await runCommand(() =>
  withServices(async ({ db, now }) => {
    const kind = process.argv[2];
    if (kind !== 'backed-up' && kind !== 'restored') throw new Error(`unknown: ${kind ?? ''}`);
    await durably(db, (tx) => appendAudit(tx, { kind, at: now().toISOString() }));
  }),
);
