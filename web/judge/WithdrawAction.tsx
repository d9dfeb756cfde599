import { useState } from 'react';
import { authorOf } from '#core/people';
import { checkWithdrawing } from '#core/titration/record';
import type { RunState } from '#core/titration/run';
import { newId } from '#contract';
import { useSession } from '../app/session';
import { Asking } from '../ui/Asking';
import { reasonProblem } from '../ui/fieldMessages';
import { TextAreaField } from '../ui/fields';
import { FormDialog } from '../ui/Form';
import { messagesOf } from '../ui/refusal';
import { useTyped } from '../ui/useTyped';
import { PasswordField } from './PasswordField';
import { useRunRequest } from './useRunRequest';

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
  const { typed, field } = useTyped({ reason: '', password: '' });
  // Pressing again after a lost answer sends the same.
  const [ids] = useState(() => ({ factId: newId(), bottleFactId: newId() }));
  const withdraw = useRunRequest(run, 'withdrawal', onClose);
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
        const { reason, password } = typed;
        withdraw.mutate({ ...ids, number, reason: reason.trim(), password });
      }}
      onClose={onClose}
    >
      <TextAreaField label="What was wrong" {...field('reason')} error={messages.reason} />
      <PasswordField {...field('password')} error={messages.password} />
    </FormDialog>
  );
}
