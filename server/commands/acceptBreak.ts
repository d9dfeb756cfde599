import { userInfo } from 'node:os';
import { parseArgs } from 'node:util';
import * as v from 'valibot';
import { reason as reasonSchema } from '#contract';
import { appendAudit } from '../audit/queries';
import { verifyAudit } from '../audit/verify';
import { durably } from '../database/durably';
import { runCommand, withServices } from './command';

const { values, positionals } = parseArgs({
  allowPositionals: true,
  options: { reason: { type: 'string', default: '' }, by: { type: 'string' } },
});

/** `acceptBreak SEQUENCE:HASH --reason … [--by …]`: puts on record that a break of the log has been looked into. */
await runCommand(() =>
  withServices(async ({ db, now }) => {
    const named = /^(\d+):([0-9a-f]{64})$/.exec(positionals[0] ?? '');
    const reason = v.safeParse(reasonSchema, values.reason);
    if (!named) throw new Error('name the break as npm run audit does: SEQUENCE:HASH');
    if (!reason.success) throw new Error('say why the break is accepted: --reason "…"');
    const [sequence, found] = [Number(named[1]), named[2] ?? ''];
    const verdict = await verifyAudit(db);
    if (verdict.kind === 'whole') throw new Error('the audit log has no break to be accepted');
    if (verdict.sequence !== sequence || verdict.found !== found) {
      throw new Error(`the break found is another one: ${verdict.why}`);
    }
    await durably(db, (tx) =>
      appendAudit(tx, {
        ...{ kind: 'break-accepted', at: now().toISOString(), sequence, found },
        ...{ by: values.by ?? userInfo().username, reason: reason.output },
      }),
    );
  }),
);
