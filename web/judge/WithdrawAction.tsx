import type { ReactNode } from 'react';
import { useState } from 'react';
import { authorOf } from '#core/people';
import type { Finding } from '#core/record';
import { checkWithdrawing, checkWithdrawingReport } from '#core/titration/record';
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
  return (
    <Offered
      against={checkWithdrawing(run, number, authorOf(person))}
      button="Withdraw it…"
      dialog={(close) => <WithdrawCertificate run={run} number={number} onClose={close} />}
    />
  );
}

/** Withdraws a report whose run was wrong, or whose titrant has another molarity by now. */
export function WithdrawReportAction({ run, number }: WithdrawProps) {
  const { person } = useSession();
  return (
    <Offered
      against={checkWithdrawingReport(run, number, authorOf(person))}
      button="Withdraw it, to amend it…"
      dialog={(close) => <WithdrawReport run={run} number={number} onClose={close} />}
    />
  );
}

interface OfferedProps {
  readonly against: readonly Finding[];
  readonly button: string;
  readonly dialog: (close: () => void) => ReactNode;
}

/** A button to withdraw it, unless anything speaks against that. */
function Offered({ against, button, dialog }: OfferedProps) {
  if (against.length > 0) return null;
  return (
    <div className="mt-6">
      <Asking button={button}>{dialog}</Asking>
    </div>
  );
}

interface Open extends WithdrawProps {
  readonly onClose: () => void;
}

function WithdrawCertificate({ run, number, onClose }: Open) {
  // Pressing again after a lost answer sends the same.
  const [ids] = useState(() => ({ factId: newId(), bottleFactId: newId() }));
  const withdraw = useRunRequest(run, 'withdrawal', onClose);
  return (
    <WithdrawDialog
      what={`certificate ${number}`}
      description="For a fault of the run itself: a reading, a mass, an incident. The bottle counts as not standardized from now on, the run is open to be put right and signed anew. The certificate stays on record."
      isPending={withdraw.isPending}
      refusal={withdraw.error}
      onWithdraw={(said) => {
        withdraw.mutate({ ...ids, number, ...said });
      }}
      onClose={onClose}
    />
  );
}

function WithdrawReport({ run, number, onClose }: Open) {
  const [factId] = useState(newId);
  const withdraw = useRunRequest(run, 'report-withdrawal', onClose);
  return (
    <WithdrawDialog
      what={`report ${number}`}
      description="What it states of each sample holds no longer. The run is open to be put right; the report that is signed then says which one it amends. This one stays on record: tell whoever has it."
      isPending={withdraw.isPending}
      refusal={withdraw.error}
      onWithdraw={(said) => {
        withdraw.mutate({ factId, number, ...said });
      }}
      onClose={onClose}
    />
  );
}

interface WithdrawDialogProps {
  readonly what: string;
  readonly description: string;
  readonly isPending: boolean;
  readonly refusal: Error | null;
  readonly onWithdraw: (said: { readonly reason: string; readonly password: string }) => void;
  readonly onClose: () => void;
}

function WithdrawDialog({
  what,
  description,
  isPending,
  refusal,
  onWithdraw,
  onClose,
}: WithdrawDialogProps) {
  const { typed, field } = useTyped({ reason: '', password: '' });
  const messages = messagesOf(refusal);
  return (
    <FormDialog
      title={`Withdraw ${what}?`}
      description={description}
      submit="Withdraw it"
      isDisabled={isPending || typed.password === '' || reasonProblem(typed.reason) !== undefined}
      error={refusal?.message}
      onSubmit={() => {
        const { reason, password } = typed;
        onWithdraw({ reason: reason.trim(), password });
      }}
      onClose={onClose}
    >
      <TextAreaField label="What was wrong" {...field('reason')} error={messages.reason} />
      <PasswordField {...field('password')} error={messages.password} />
    </FormDialog>
  );
}
