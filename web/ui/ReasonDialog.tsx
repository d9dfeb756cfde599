import { useState } from 'react';
import { reasonProblem } from './fieldMessages';
import { TextAreaField } from './fields';
import { FormDialog } from './Form';

interface ReasonDialogProps {
  readonly title: string;
  readonly description: string;
  readonly confirm: string;
  /** What is asked for; why, unless it is said. */
  readonly label?: string;
  readonly onConfirm: (reason: string) => Promise<void>;
  readonly onClose: () => void;
}

/** A step that cannot be taken back, and why it is taken. */
export function ReasonDialog(props: ReasonDialogProps) {
  const [reason, setReason] = useState('');
  const [error, setError] = useState<string>();
  const confirm = (): void => {
    const problem = reasonProblem(reason);
    setError(problem);
    if (problem !== undefined) return;
    props.onConfirm(reason.trim()).then(props.onClose, (failure: unknown) => {
      setError(failure instanceof Error ? failure.message : 'It was not taken.');
    });
  };
  return (
    <FormDialog
      title={props.title}
      description={props.description}
      submit={props.confirm}
      onSubmit={confirm}
      onClose={props.onClose}
    >
      <TextAreaField label={props.label ?? 'Why'} value={reason} error={error} onText={setReason} />
    </FormDialog>
  );
}
