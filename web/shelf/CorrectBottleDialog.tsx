import { correctable } from '#core/reagent';
import type { BottleState } from '#core/reagent';
import { correctedBottleSchema } from '#contract';
import { useAddToRecord } from '../app/entering';
import { PeopleOptions } from '../people/PeopleOptions';
import { FormDateField } from '../ui/FormDateField';
import { ContainerField } from '../ui/ContainerField';
import { asQuantity, QuantityField, SelectField, TextAreaField, TextField } from '../ui/fields';
import { FormDialog } from '../ui/Form';
import { useContractForm } from '../ui/useContractForm';

interface CorrectBottleDialogProps {
  readonly bottle: BottleState;
  readonly onClose: () => void;
}

/** What was mistyped of a bottle, put right with a reason. Figures that follow from a preparation stay as they were computed. */
export function CorrectBottleDialog({ bottle, onClose }: CorrectBottleDialogProps) {
  const add = useAddToRecord();
  const { form, field, showFailure, formError } = useContractForm(correctedBottleSchema, {
    ...correctable(bottle),
    reason: '',
  });
  const isTyped = bottle.preparationId === null;
  return (
    <FormDialog
      title={`Correct bottle ${bottle.code}`}
      description="What was certified keeps what it had. Open runs are told."
      submit="Correct it"
      leave="Cancel"
      isDisabled={add.isPending}
      error={formError}
      className="grid grid-cols-1 gap-4 md:grid-cols-2"
      onSubmit={form.handleSubmit((body) => {
        const fact = { kind: 'bottle.corrected', body } as const;
        add.mutate(
          { recordId: bottle.id, basedOn: bottle.version, fact },
          { onSuccess: onClose, onError: showFailure },
        );
      })}
      onClose={onClose}
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
      <FormDateField label="Made on" control={form.control} name="preparedOn" />
      <SelectField label="Made by" {...field('preparedBy')}>
        <PeopleOptions named={bottle.preparedBy} />
      </SelectField>
      <FormDateField label="Use by" control={form.control} name="useBy" isOptional />
      <TextField label="Note" {...field('note')} />
      <div className="col-span-full">
        <TextAreaField label="Why it is corrected" {...field('reason')} />
      </div>
    </FormDialog>
  );
}
