import { useMemo, useState } from 'react';
import { figureText, roundHalfEven, signedText } from '#core/measurement';
import type { Judgement } from '#core/titration/judging';
import type { RunState } from '#core/titration/run';
import { withoutFlask } from '#core/titration/whatIf';
import type { VoidCause } from '#core/wording';
import { VOID_CAUSES } from '#core/wording';
import { reasonProblem } from '../ui/fieldMessages';
import { SelectField, TextAreaField } from '../ui/fields';
import { FormDialog } from '../ui/Form';
import { capitalized } from '../ui/typeset';
import { useEntering } from './useRun';

interface VoidDialogProps {
  readonly run: RunState;
  readonly judgement: Judgement;
  readonly flask: number;
  readonly onClose: () => void;
}

const CAUSES = (Object.keys(VOID_CAUSES) as VoidCause[]).map(
  (cause) => [cause, capitalized(VOID_CAUSES[cause])] as const,
);

/** Rejects a titration: for what, why, and what that does to the result, which is known before. */
export function VoidDialog({ run, judgement, flask, onClose }: VoidDialogProps) {
  const entering = useEntering(run, onClose);
  const [cause, setCause] = useState<VoidCause | ''>('');
  const [reason, setReason] = useState('');
  const [missing, setMissing] = useState<string>();
  const confirm = (): void => {
    const problem = cause === '' ? undefined : reasonProblem(reason);
    setMissing(problem);
    if (cause === '' || problem !== undefined) return;
    const body = { flask, reason: reason.trim(), cause };
    entering.mutate([{ kind: 'run.flask-voided', body }]);
  };
  return (
    <FormDialog
      title={`Void flask ${String(flask)}`}
      description="The titration is rejected: it stays on record with your reason, and out of the mean. This cannot be undone."
      submit="Void it"
      isDisabled={cause === '' || entering.isPending}
      error={entering.error?.message}
      onSubmit={confirm}
      onClose={onClose}
    >
      <Effect run={run} judgement={judgement} flask={flask} />
      <SelectField
        label="For what"
        value={cause}
        options={[['', 'choose'], ...CAUSES]}
        onText={(text) => {
          setCause(text as VoidCause | '');
        }}
      />
      <TextAreaField label="Why" value={reason} error={missing} onText={setReason} />
    </FormDialog>
  );
}

/** What the result would be without it, where it counts. */
function Effect({ run, judgement, flask }: Omit<VoidDialogProps, 'onClose'>) {
  const { result } = judgement;
  const without = useMemo(
    () => result && withoutFlask(run, judgement, result, flask),
    [run, judgement, result, flask],
  );
  if (!without) return null;
  const { value, uncertainty, movedPercent, movedByU } = without;
  return (
    <p className="border-l-4 border-straw bg-straw-wash px-3 py-2">
      Without it: {figureText(value)} ± {figureText(uncertainty)} mol/L, which moves by{' '}
      {signedText(movedPercent, 2)} %, {figureText(roundHalfEven(Math.abs(movedByU), 1))} of the
      present <i>U</i>.
    </p>
  );
}
