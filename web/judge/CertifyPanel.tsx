import { useState } from 'react';
import { isPlainDate } from '#core/grammar';
import { ownKeepingDays } from '#core/laboratory';
import { impossible } from '#core/record';
import { suggestValidUntil } from '#core/reagent';
import type { Judgement, Signing } from '#core/titration/judging';
import { certificationFindings, outOfUseFindings } from '#core/titration/judging';
import type { RunState } from '#core/titration/run';
import { standardizationOf } from '#core/titration/run';
import { newId } from '#contract';
import { useRecordsNow } from '../app/records';
import { useSession } from '../app/session';
import { DateField } from '../ui/DateField';
import { reasonOrNull } from '../ui/fieldMessages';
import { TextAreaField } from '../ui/fields';
import { isLetThrough } from '../ui/Findings';
import { Form, FormFoot } from '../ui/Form';
import { messagesOf } from '../ui/refusal';
import { useTyped } from '../ui/useTyped';
import { Against } from './Against';
import { PasswordField } from './PasswordField';
import { useRunRequest } from './useRunRequest';

interface CertifyPanelProps {
  readonly run: RunState;
  readonly judgement: Judgement;
  readonly signing: Signing;
}

/** The last signature: freezes the result and writes it on the bottle, or says what speaks against it. */
export function CertifyPanel({ run, judgement, signing }: CertifyPanelProps) {
  const { today, laboratory } = useSession();
  const { bottle } = standardizationOf(run).references;
  const ownDays = ownKeepingDays(laboratory.settings, bottle.substanceId);
  const suggested = suggestValidUntil(bottle, today, ownDays);
  const { typed, field, change } = useTyped({
    // A bottle that has outlasted its time is certified for the day, if at all.
    validUntil: String(suggested !== null && suggested > today ? suggested : today),
    reason: '',
    password: '',
  });
  const validUntil = isPlainDate(typed.validUntil) ? typed.validUntil : null;
  const now = useRecordsNow(run.setUp);
  const certify = useRunRequest(run, 'certificate');
  // One decision, one pair of facts: pressing again after a lost answer sends the same.
  const [ids] = useState(() => ({ factId: newId(), bottleFactId: newId() }));
  const findings = [
    ...(validUntil === null
      ? [impossible('no-date', 'validUntil')]
      : certificationFindings(run, judgement, { certifiedOn: today, validUntil }, ownDays)),
    ...outOfUseFindings(run.setUp, now),
  ];
  const mayCertify = isLetThrough(findings, typed.reason);
  return (
    <Form
      aria-label="Certify"
      onSubmit={() => {
        const { password } = typed;
        const reason = reasonOrNull(typed.reason);
        if (validUntil === null) return;
        certify.mutate(
          { ...ids, draft: signing.draft, validUntil, reason, password },
          {
            onError: () => {
              change({ password: '' });
            },
          },
        );
      }}
    >
      <Against findings={findings} />
      <div className="grid grid-cols-1 items-start gap-4 sm:grid-cols-2">
        <DateField label="Valid until" {...field('validUntil')} />
        <TextAreaField
          label={findings.length > 0 ? 'Why all the same' : 'Remark'}
          {...field('reason')}
        />
        <PasswordField {...field('password')} error={messagesOf(certify.error).password} />
      </div>
      <div className="mt-3">
        <FormFoot
          submit="Certify the molarity"
          isDisabled={certify.isPending || !mayCertify || typed.password === ''}
          error={certify.error?.message}
        />
      </div>
    </Form>
  );
}
