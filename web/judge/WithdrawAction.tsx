import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { authorOf } from '#core/people';
import { checkWithdrawing } from '#core/titration/record';
import type { RunState } from '#core/titration/run';
import { newId } from '#contract';
import { tell } from '../app/api';
import { deviceStamp } from '../app/device';
import { useSession } from '../app/session';
import { useReadAnew } from '../app/useReadAnew';
import { Asking } from '../ui/Asking';
import { reasonProblem } from '../ui/fieldMessages';
import { TextAreaField } from '../ui/fields';
import { FormDialog } from '../ui/Form';
import { messagesOf } from '../ui/refusal';
import { useTyped } from '../ui/useTyped';
import { PasswordField } from './PasswordField';

interface WithdrawProps {
  readonly run: RunState;
  readonly number: string;
}

/** Withdraws a certificate whose run was wrong, for whoever may issue one. */
export function WithdrawAction({ run, number }: WithdrawProps) {
  const { person } = useSession();
  if (checkWithdrawing(run, number, authorOf(person)).length > 0) return null;
  return (
    <div className="mt-6">
      <Asking button="Withdraw it…">
        {(close) => <WithdrawDialog run={run} number={number} onClose={close} />}
      </Asking>
    </div>
  );
}

function WithdrawDialog({
  run,
  number,
  onClose,
}: WithdrawProps & { readonly onClose: () => void }) {
  const client = useQueryClient();
  const readAnew = useReadAnew();
  const { typed, field } = useTyped({ reason: '', password: '' });
  // Pressing again after a lost answer sends the same.
  const [ids] = useState(() => ({ factId: newId(), bottleFactId: newId() }));
  const withdraw = useMutation({
    mutationFn: () =>
      tell('POST', `/runs/${run.id}/withdrawal`, {
        ...deviceStamp(),
        ...ids,
        basedOn: run.version,
        number,
        reason: typed.reason.trim(),
        password: typed.password,
      }),
    onSuccess: onClose,
    onSettled: () =>
      Promise.all([client.invalidateQueries({ queryKey: ['run', run.id] }), readAnew()]),
  });
  const messages = messagesOf(withdraw.error);
  return (
    <FormDialog
      title={`Withdraw certificate ${number}?`}
      description="For a fault of the run itself: a reading, a mass, an incident. The bottle counts as not standardized from now on, the run is open to be put right and signed anew. The certificate stays on record."
      submit="Withdraw it"
      isDisabled={
        withdraw.isPending || typed.password === '' || reasonProblem(typed.reason) !== undefined
      }
      error={withdraw.error?.message}
      onSubmit={() => {
        withdraw.mutate();
      }}
      onClose={onClose}
    >
      <TextAreaField label="What was wrong" {...field('reason')} error={messages.reason} />
      <PasswordField {...field('password')} error={messages.password} />
    </FormDialog>
  );
}
