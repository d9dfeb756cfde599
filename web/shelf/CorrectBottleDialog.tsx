import { correctable } from '#core/reagent';
import type { BottleState } from '#core/reagent';
import { correctedBottleSchema } from '#contract';
import { useAddToRecord } from '../app/entering';
import { PeopleOptions } from '../people/PeopleOptions';
import { Button } from '../ui/Button';
import { ContainerField } from '../ui/ContainerField';
import { Dialog } from '../ui/Dialog';
import {
  asOptional,
  asQuantity,
  QuantityField,
  SelectField,
  TextAreaField,
  TextField,
} from '../ui/fields';
import { FormError } from '../ui/FormError';
import { useContractForm } from '../ui/useContractForm';

/** What was mistyped of a bottle, put right with a reason. Figures that follow from a preparation stay as they were computed. */
export function CorrectBottleDialog({
  bottle,
  onClose,
}: {
  readonly bottle: BottleState;
  readonly onClose: () => void;
}) {
  const add = useAddToRecord();
  const { form, field, showFailure, formError } = useContractForm(correctedBottleSchema, {
    ...correctable(bottle),
    reason: '',
  });
  const isTyped = bottle.preparationId === null;
  return (
    <Dialog
      title={`Correct bottle ${bottle.code}`}
      description={<p>What was certified keeps what it had. Open runs are told.</p>}
      onClose={onClose}
    >
      <form
        noValidate
        className="grid grid-cols-1 gap-4 md:grid-cols-2"
        onSubmit={(event) =>
          void form.handleSubmit((body) => {
            add.mutate(
              {
                recordId: bottle.id,
                basedOn: bottle.version,
                fact: { kind: 'bottle.corrected', body },
              },
              { onSuccess: onClose, onError: showFailure },
            );
          })(event)
        }
      >
        <TextField label="Bottle code" className="font-mono" {...field('code')} />
        <ContainerField {...field('container')} />
        {isTyped && bottle.nominalMolarity !== null && (
          <QuantityField
            label="Nominal molarity"
            unit="mol/L"
            {...field('nominalMolarity', asQuantity)}
          />
        )}
        {isTyped && <QuantityField label="Volume" unit="mL" {...field('volumeMl', asQuantity)} />}
        <TextField label="Made on" type="date" {...field('preparedOn')} />
        <SelectField label="Made by" {...field('preparedBy')}>
          <PeopleOptions named={bottle.preparedBy} />
        </SelectField>
        <TextField label="Use by" type="date" {...field('useBy', asOptional)} />
        <TextField label="Note" {...field('note')} />
        <div className="col-span-full">
          <TextAreaField label="Why it is corrected" {...field('reason')} />
        </div>
        <div className="col-span-full flex items-center gap-3">
          <Button type="submit" look="primary" disabled={add.isPending}>
            Correct it
          </Button>
          <Button onClick={onClose}>Cancel</Button>
          <FormError message={formError} />
        </div>
      </form>
    </Dialog>
  );
}
