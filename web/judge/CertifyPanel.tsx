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
import { useTyped } from '../ui/useTyped';
import { IssueForm } from './IssueForm';
import { useRunRequest } from './useRunRequest';

interface CertifyPanelProps {
  readonly run: RunState;
  readonly judgement: Judgement;
  readonly signing: Signing;
}

/** Freezes the result and writes it on the bottle, or says what speaks against it. */
export function CertifyPanel({ run, judgement, signing }: CertifyPanelProps) {
  const { today, laboratory } = useSession();
  const { bottle } = standardizationOf(run).references;
  const ownDays = ownKeepingDays(laboratory.settings, bottle.substanceId);
  const suggested = suggestValidUntil(bottle, today, ownDays);
  const { typed, field } = useTyped({
    // A bottle that has outlasted its time is certified for the day, if at all.
    validUntil: String(suggested !== null && suggested > today ? suggested : today),
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
  return (
    <IssueForm
      label="Certify"
      submit="Certify the molarity"
      findings={findings}
      request={certify}
      onIssue={(said, options) => {
        if (validUntil === null) return;
        certify.mutate({ ...ids, draft: signing.draft, validUntil, ...said }, options);
      }}
    >
      <DateField label="Valid until" {...field('validUntil')} />
    </IssueForm>
  );
}
