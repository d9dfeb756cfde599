import { verifyAudit } from '../audit/verify';
import { runCommand, withServices } from './command';

/** Verifies the audit log, `--expect HASH` against a hash that was noted earlier; exit code 1 when it is broken. */
await runCommand(() =>
  withServices(async ({ db }) => {
    const at = process.argv.indexOf('--expect');
    const verdict = await verifyAudit(db, at < 0 ? null : (process.argv[at + 1] ?? ''));
    if (verdict.kind === 'whole') {
      console.log(`The audit log is whole: ${String(verdict.entries)} entries.`);
      console.log(`Its last hash, to be noted elsewhere: ${verdict.hash}`);
      return;
    }
    const where = verdict.sequence === null ? '' : ` at entry ${String(verdict.sequence)}`;
    console.log(`The audit log is broken${where}: ${verdict.why}.`);
    process.exitCode = 1;
  }),
);
