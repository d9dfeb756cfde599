import { useState } from 'react';
import { Button } from './Button';
import { Dialog } from './Dialog';
import { reasonProblem } from './fieldMessages';
import { TextAreaField } from './fields';

interface ReasonDialogProps {
  readonly title: string;
  readonly description: string;
  readonly confirm: string;
  readonly onConfirm: (reason: string) => Promise<void>;
  readonly onClose: () => void;
}

/** A step that cannot be taken back, and why it is taken. */
export function ReasonDialog(props: ReasonDialogProps) {
  const [reason, setReason] = useState('');
  const [error, setError] = useState<string>();
  return (
    <Dialog title={props.title} description={<p>{props.description}</p>} onClose={props.onClose}>
      <form
        noValidate
        onSubmit={(event) => {
          event.preventDefault();
          const problem = reasonProblem(reason);
          if (problem !== undefined) setError(problem);
          else
            props.onConfirm(reason.trim()).then(props.onClose, (failure: unknown) => {
              setError(failure instanceof Error ? failure.message : 'It was not taken.');
            });
        }}
      >
        <TextAreaField label="Why" value={reason} error={error} onText={setReason} />
        <div className="mt-4 flex gap-3">
          <Button type="submit" look="primary">
            {props.confirm}
          </Button>
          <Button onClick={props.onClose}>Leave it</Button>
        </div>
      </form>
    </Dialog>
  );
}
