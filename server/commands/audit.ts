import { verifyAudit } from '../audit/verify';
import { listStrayProjections } from '../ledger/project';
import { runCommand, withServices } from './command';

/** What is added meanwhile is left for the next time. */
const ONE_SNAPSHOT = { isolationLevel: 'repeatable read', readOnly: true } as const;

/** Verifies the audit log and the lists, `--expect HASH` against a hash that was noted earlier; exit code 1 when it is broken. */
await runCommand(() =>
  withServices(async ({ db }) => {
    const at = process.argv.indexOf('--expect');
    const verdict = await verifyAudit(db, at < 0 ? null : (process.argv[at + 1] ?? ''));
    if (verdict.kind === 'whole') {
      console.log(`The audit log is whole: ${String(verdict.entries)} entries.`);
      console.log(`Its last hash, to be noted elsewhere: ${verdict.hash}`);
      const stray = await db.transaction(listStrayProjections, ONE_SNAPSHOT);
      if (stray.length === 0) return;
      console.log(`The lists disagree with the facts of ${stray.join(', ')}: npm run rebuild.`);
      process.exitCode = 1;
      return;
    }
    const where = verdict.sequence === null ? '' : ` at entry ${String(verdict.sequence)}`;
    console.log(`The audit log is broken${where}: ${verdict.why}.`);
    process.exitCode = 1;
  }),
);
