import { useState } from 'react';
import type { PreparationState, StepState } from '#core/preparation';
import { isExact, MISHAPS } from '#core/preparation';
import { Button } from '../ui/Button';
import { Dialog } from '../ui/Dialog';
import { TextAreaField } from '../ui/fields';
import { RadioList } from '../ui/RadioList';
import { capitalized } from '../ui/typeset';
import { useEnterPreparation } from './usePreparation';

/** Picks what went wrong; says at once whether the solution is lost by it, and why. */
export function MishapDialog({
  preparation,
  step,
  onClose,
}: {
  readonly preparation: PreparationState;
  readonly step: StepState | null;
  readonly onClose: () => void;
}) {
  const { propose, keep } = useEnterPreparation(preparation);
  const [chosenId, setChosenId] = useState<string | null>(null);
  const [remark, setRemark] = useState('');
  const chosen = MISHAPS.find(({ id }) => id === chosenId);
  const isLost = chosen?.spoilsExact === true && isExact(preparation.plan);
  const at = step ?? preparation.steps.at(-1);
  return (
    <Dialog
      title="What went wrong?"
      description={<p>Asking changes nothing until it is written down.</p>}
      onClose={onClose}
    >
      <form
        noValidate
        onSubmit={(event) => {
          event.preventDefault();
          if (!chosen || !at) return;
          const body = { step: at.id, mishapId: chosen.id, remark: remark.trim() };
          void keep(propose({ kind: 'preparation.mishap', body }).proposed).then(onClose);
        }}
      >
        <RadioList
          legend="Incidents"
          items={MISHAPS.map(({ id, name }) => ({ id, name: capitalized(name) }))}
          chosenId={chosenId}
          onChoose={setChosenId}
        />
        {chosen && (
          <p
            role="status"
            className={`my-3 border-l-4 px-3 py-2 ${isLost ? 'border-blush bg-blush-wash' : 'border-leaf bg-leaf-wash'}`}
          >
            <b>{isLost ? 'Discard it.' : 'Carry on.'}</b>{' '}
            {isLost || !chosen.spoilsExact
              ? chosen.reason
              : 'Its molarity is nominal and will be found out by titration.'}
          </p>
        )}
        <TextAreaField label="Remark" value={remark} onText={setRemark} />
        <div className="mt-4 flex gap-3">
          <Button type="submit" look="primary" disabled={!chosen}>
            Write it down
          </Button>
          <Button onClick={onClose}>Leave it</Button>
        </div>
      </form>
    </Dialog>
  );
}
