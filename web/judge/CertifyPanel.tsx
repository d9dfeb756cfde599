import { authorOf } from '#core/people';
import { may } from '#core/rights';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { suggestValidUntil } from '#core/reagent';
import type { Judgement } from '#core/titration/judging';
import type { RunState } from '#core/titration/run';
import { ownKeepingDays } from '#core/laboratory';
import { certificationFindings, outOfUseFindings } from '#core/titration/judging';
import { isPlainDate } from '#core/grammar';
import type { CertifyRequest } from '#contract';
import { newId } from '#contract';
import type { Finding } from '#core/record';
import { impossible } from '#core/record';
import { findingText } from '#core/wording';
import { deviceStamp } from '../app/device';
import { tell } from '../app/api';
import { useRecords, useRecordsNow } from '../app/records';
import { useReadAnew } from '../app/useReadAnew';
import { useSession } from '../app/session';
import { DateField } from '../ui/DateField';
import { reasonOrNull } from '../ui/fieldMessages';
import { TextAreaField } from '../ui/fields';
import { isLetThrough } from '../ui/Findings';
import { Form, FormFoot } from '../ui/Form';
import { useTyped } from '../ui/useTyped';

interface CertifyPanelProps {
  readonly run: RunState;
  readonly judgement: Judgement;
  /** False while entries of this run wait on this device: the server must have all of them first. */
  readonly isAllKept: boolean;
}

/** Freezes the result and writes it on the bottle, or says what speaks against it. */
export function CertifyPanel({ run, judgement, isAllKept }: CertifyPanelProps) {
  const { person, today, laboratory } = useSession();
  const { bottle } = run.references;
  const ownDays = ownKeepingDays(laboratory.settings, bottle.substanceId);
  const suggested = suggestValidUntil(bottle, today, ownDays);
  const { typed, field } = useTyped({
    // A bottle that has outlasted its time is certified for the day, if at all.
    validUntil: String(suggested !== null && suggested > today ? suggested : today),
    reason: '',
  });
  const validUntil = isPlainDate(typed.validUntil) ? typed.validUntil : null;
  const now = useRecordsNow(run.setUp);
  const certify = useCertifying(run);
  const findings = [
    ...(validUntil === null
      ? [impossible('no-date', 'validUntil')]
      : certificationFindings(run, judgement, { certifiedOn: today, validUntil }, ownDays)),
    ...outOfUseFindings(run.setUp, now),
  ];
  const mayCertify = isAllKept && isLetThrough(findings, typed.reason);
  if (!may(person, 'authorize')) return <WhoMay />;
  return (
    <Form
      aria-label="Certify"
      className="rounded-md border border-leaf bg-leaf-wash p-4"
      onSubmit={() => {
        const reason = reasonOrNull(typed.reason);
        if (validUntil !== null) certify.mutate({ validUntil, reason });
      }}
    >
      <h2 className="mb-2 text-lg font-bold">Certify</h2>
      <Against findings={findings} />
      <div className="grid grid-cols-1 items-start gap-4 sm:grid-cols-2">
        <DateField label="Valid until" {...field('validUntil')} />
        <TextAreaField
          label={findings.length > 0 ? 'Why all the same' : 'Remark'}
          {...field('reason')}
        />
      </div>
      <div className="mt-3">
        <FormFoot
          submit="Certify the molarity"
          isDisabled={certify.isPending || !mayCertify}
          error={certify.error?.message}
        >
          {!isAllKept && <p className="text-sm">Some entries have still to reach the server.</p>}
        </FormFoot>
      </div>
    </Form>
  );
}

/** Asks the server to certify. One decision, one pair of facts: pressing again after a lost answer sends the same. */
function useCertifying(run: RunState) {
  const client = useQueryClient();
  const readAnew = useReadAnew();
  const [ids] = useState(() => ({ factId: newId(), bottleFactId: newId() }));
  return useMutation({
    mutationFn: (decided: Pick<CertifyRequest, 'validUntil' | 'reason'>) =>
      tell('POST', `/runs/${run.id}/certificate`, {
        ...ids,
        ...deviceStamp(),
        basedOn: run.version,
        ...decided,
      } satisfies CertifyRequest),
    onSettled: () =>
      Promise.all([client.invalidateQueries({ queryKey: ['run', run.id] }), readAnew()]),
  });
}

/** What speaks against a certificate. */
function Against({ findings }: { readonly findings: readonly Finding[] }) {
  if (findings.length === 0) return null;
  return (
    <ul className="mb-3 space-y-1">
      {findings.map((finding) => (
        <li
          key={findingText(finding)}
          className={`border-l-4 pl-3 ${finding.severity === 'impossible' ? 'border-blush font-semibold text-blush' : 'border-straw'}`}
        >
          {findingText(finding)}
        </li>
      ))}
    </ul>
  );
}

/** Who may certify, for somebody who may not. */
function WhoMay() {
  const people = useRecords('person') ?? [];
  const names = people
    .filter((one) => may(authorOf(one), 'authorize'))
    .map(({ name }) => name)
    .toSorted();
  return (
    <p className="rounded-md border border-rule-strong bg-sheet p-4">
      To be certified by {names.join(' or ')}.
    </p>
  );
}
