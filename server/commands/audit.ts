import { parseArgs } from 'node:util';
import { nameOfBreak } from '../audit/entry';
import { readHeadNotes } from '../audit/heads';
import type { AuditVerdict } from '../audit/verify';
import { verifyAudit } from '../audit/verify';
import { listStrayProjections } from '../ledger/project';
import { runCommand, withServices } from './command';

/** What is added meanwhile is left for the next time. */
const ONE_SNAPSHOT = { isolationLevel: 'repeatable read', readOnly: true } as const;

const { values } = parseArgs({
  options: {
    /** A hash that was noted earlier: it must still be in the log. */
    expect: { type: 'string' },
    /** The lists are made again afterwards. */
    'log-only': { type: 'boolean', default: false },
  },
});

/** Verifies the audit log and the lists; exit code 1 when something is wrong. */
await runCommand(() =>
  withServices(async ({ db }) => {
    const file = process.env.AUDIT_HEADS ?? '';
    const noted = file === '' ? [] : await readHeadNotes(file);
    const verdict = await verifyAudit(db, values.expect ?? null, noted);
    console.log(sentenceOf(verdict));
    if (verdict.kind === 'broken') {
      process.exitCode = 1;
      return;
    }
    console.log(`Its last hash, to be noted elsewhere: ${verdict.hash}`);
    if (values['log-only']) return;
    const stray = await db.transaction(listStrayProjections, ONE_SNAPSHOT);
    if (stray.length === 0) return;
    console.log(`The lists disagree with the facts of ${stray.join(', ')}: npm run rebuild.`);
    process.exitCode = 1;
  }),
);

function sentenceOf(verdict: AuditVerdict): string {
  if (verdict.kind === 'broken') {
    const where = verdict.sequence === 0 ? '' : ` at entry ${String(verdict.sequence)}`;
    return [
      `The audit log is broken${where}: ${verdict.why}.`,
      'Once it is known how this came about, a backup can be restored with it, under your name:',
      `npm run restore -- FILE --accept-break ${nameOfBreak(verdict)} --reason "…"`,
    ].join('\n');
  }
  const { entries, otherSpellings, acceptedBreaks } = verdict;
  const breaks = `${String(acceptedBreaks)} accepted ${acceptedBreaks === 1 ? 'break' : 'breaks'}`;
  const but = acceptedBreaks > 0 ? ` but for ${breaks}` : '';
  const spelt = otherSpellings > 0 ? `, ${String(otherSpellings)} under another spelling` : '';
  return `The audit log is whole${but}: ${String(entries)} entries${spelt}.`;
}
