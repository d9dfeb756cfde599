import { authorOf } from '#core/people';
import { may } from '#core/rights';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { suggestValidUntil } from '#core/reagent';
import type { Judgement } from '#core/titration/judging';
import type { RunState } from '#core/titration/run';
import { certificationFindings, outOfUseFindings } from '#core/titration/judging';
import { isPlainDate } from '#core/grammar';
import type { CertifyRequest } from '#contract';
import { newId } from '#contract';
import { impossible } from '#core/record';
import { findingText } from '#core/wording';
import { deviceStamp } from '../app/device';
import { tell } from '../app/api';
import { useRecords, useRecordsNow } from '../app/records';
import { useReadAnew } from '../app/useReadAnew';
import { useSession } from '../app/session';
import { Button } from '../ui/Button';
import { reasonProblem } from '../ui/fieldMessages';
import { TextAreaField, TextField } from '../ui/fields';
import { FormError } from '../ui/FormError';

interface CertifyPanelProps {
  readonly run: RunState;
  readonly judgement: Judgement;
  /** False while entries of this run wait on this device: the server must have all of them first. */
  readonly isAllKept: boolean;
}

/** Freezes the result and writes it on the bottle, or says what speaks against it. */
export function CertifyPanel({ run, judgement, isAllKept }: CertifyPanelProps) {
  const { person, today } = useSession();
  const client = useQueryClient();
  const readAnew = useReadAnew();
  const { bottle } = run.references;
  const [typed, setTyped] = useState<string>(suggestValidUntil(bottle.substanceId, today) ?? today);
  const validUntil = isPlainDate(typed) ? typed : null;
  const [reason, setReason] = useState('');
  // One decision, one pair of facts: pressing again after a lost answer sends the same.
  const [ids] = useState(() => ({ factId: newId(), bottleFactId: newId() }));
  const certify = useMutation({
    mutationFn: (request: CertifyRequest) => tell('POST', `/runs/${run.id}/certificate`, request),
    onSettled: () =>
      Promise.all([client.invalidateQueries({ queryKey: ['run', run.id] }), readAnew()]),
  });
  const now = useRecordsNow(run.setUp);
  const findings = [
    ...(validUntil === null
      ? [impossible('no-date', 'validUntil')]
      : certificationFindings(run, judgement, { certifiedOn: today, validUntil })),
    ...outOfUseFindings(run.setUp, now),
  ];
  const obstacle = findings.find(({ severity }) => severity === 'impossible');
  const needsReason = findings.length > 0 && reasonProblem(reason) !== undefined;

  if (!may(person, 'certify')) return <WhoMay />;
  return (
    <form
      noValidate
      aria-label="Certify"
      className="rounded-md border border-leaf bg-leaf-wash p-4"
      onSubmit={(event) => {
        event.preventDefault();
        if (validUntil === null) return;
        certify.mutate({
          ...ids,
          ...deviceStamp(),
          basedOn: run.version,
          validUntil,
          reason: reason.trim() === '' ? null : reason.trim(),
        });
      }}
    >
      <h2 className="mb-2 text-lg font-bold">Certify</h2>
      {findings.length > 0 && (
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
      )}
      <div className="grid grid-cols-1 items-start gap-4 sm:grid-cols-2">
        <TextField label="Valid until" type="date" value={typed} onText={setTyped} />
        <TextAreaField
          label={findings.length > 0 ? 'Why all the same' : 'Remark'}
          value={reason}
          onText={setReason}
        />
      </div>
      <div className="mt-3 flex items-center gap-4">
        <Button
          type="submit"
          look="primary"
          disabled={certify.isPending || obstacle !== undefined || needsReason || !isAllKept}
        >
          Certify the molarity
        </Button>
        {!isAllKept && <p className="text-sm">Some entries have still to reach the server.</p>}
      </div>
      <div className="mt-2">
        <FormError message={certify.error?.message} />
      </div>
    </form>
  );
}

/** Who may certify, for somebody who may not. */
function WhoMay() {
  const people = useRecords('person') ?? [];
  const names = people
    .filter((one) => may(authorOf(one), 'certify'))
    .map(({ name }) => name)
    .toSorted();
  return (
    <p className="rounded-md border border-rule-strong bg-sheet p-4">
      To be certified by {names.join(' or ')}.
    </p>
  );
}
