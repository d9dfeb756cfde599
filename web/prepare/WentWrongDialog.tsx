import { useMutation } from '@tanstack/react-query';
import { useState } from 'react';
import type { PreparationState, StepState } from '#core/preparation';
import { isExact, PREPARATION_INCIDENTS } from '#core/preparation';
import { TextAreaField } from '../ui/fields';
import { FormDialog } from '../ui/Form';
import { RadioList } from '../ui/RadioList';
import { capitalized } from '../ui/typeset';
import { useEnterPreparation } from './usePreparation';

interface WentWrongDialogProps {
  readonly preparation: PreparationState;
  readonly step: StepState | null;
  readonly onClose: () => void;
}

/** Picks what went wrong; says at once whether the solution is lost by it, and why. */
export function WentWrongDialog({ preparation, step, onClose }: WentWrongDialogProps) {
  const entering = useMutation({
    mutationFn: useEnterPreparation(preparation),
    onSuccess: onClose,
  });
  const [chosenId, setChosenId] = useState<string | null>(null);
  const [remark, setRemark] = useState('');
  const chosen = PREPARATION_INCIDENTS.find(({ id }) => id === chosenId);
  const isLost = chosen?.spoilsExact === true && isExact(preparation.plan);
  const at = step ?? preparation.steps.at(-1);
  return (
    <FormDialog
      title="What went wrong?"
      description="Nothing is recorded until you write it down."
      submit="Write it down"
      isDisabled={!chosen}
      error={entering.error?.message}
      onSubmit={() => {
        if (!chosen || !at) return;
        const body = { step: at.id, mishapId: chosen.id, remark: remark.trim() };
        entering.mutate({ kind: 'preparation.mishap', body });
      }}
      onClose={onClose}
    >
      <RadioList
        legend="Incidents"
        items={PREPARATION_INCIDENTS.map(({ id, name }) => ({ id, name: capitalized(name) }))}
        chosenId={chosenId}
        onChoose={setChosenId}
      />
      {chosen && (
        <p
          role="status"
          className={`border-l-4 px-3 py-2 ${isLost ? 'border-blush bg-blush-wash' : 'border-leaf bg-leaf-wash'}`}
        >
          <b>{isLost ? 'Discard it.' : 'Carry on.'}</b>{' '}
          {isLost || !chosen.spoilsExact
            ? chosen.reason
            : 'Its molarity is nominal and will be found by titration.'}
        </p>
      )}
      <TextAreaField label="Remark" value={remark} onText={setRemark} />
    </FormDialog>
  );
}
