import { appendAudit } from '../audit/queries';
import { durably } from '../database/durably';
import { rebuildProjections } from '../ledger/project';
import { runCommand, withServices } from './command';

/** Remakes every projection from the facts. */
await runCommand(() =>
  withServices(async ({ db, now }) => {
    const records = await durably(db, async (tx) => {
      const made = await rebuildProjections(tx);
      await appendAudit(tx, { kind: 'rebuilt', at: now().toISOString() });
      return made;
    });
    console.log(`Projections remade from the facts of ${String(records)} records.`);
  }),
);
