import type { ComponentProps } from 'react';
import type { DefaultValues, FieldValues } from 'react-hook-form';
import type * as v from 'valibot';
import type { Equipment } from '#core/metrology';
import { useBeginRecord } from '../app/entering';
import { SelectField, TextField } from '../ui/fields';
import { useContractForm } from '../ui/useContractForm';

/** A form that registers a piece of equipment; `frame` is what its StockFormFrame needs. */
export function useEquipmentForm<T extends Equipment & FieldValues>(
  schema: v.GenericSchema<T>,
  defaultValues: DefaultValues<T>,
  onDone: () => void,
) {
  const begin = useBeginRecord();
  const { form, field, showFailure, formError } = useContractForm(schema, defaultValues);
  const frame = {
    isBusy: begin.isPending,
    error: formError,
    onDone,
    onSubmit: form.handleSubmit((body) => {
      begin.mutate(
        { kind: 'equipment.registered', body },
        { onSuccess: onDone, onError: showFailure },
      );
    }),
  };
  return { form, field, frame };
}

/** How a tolerance is spread. */
export function ToleranceSpreadField(
  registered: Omit<ComponentProps<typeof SelectField>, 'label' | 'children'>,
) {
  return (
    <SelectField label="Tolerance taken as" {...registered}>
      <option value="triangular">triangular: the maker aims at the mark</option>
      <option value="rectangular">rectangular: anything within is as likely</option>
      <option value="normal">a 95 % interval from its certificate</option>
    </SelectField>
  );
}

export function CalibrationDueField(registered: Omit<ComponentProps<typeof TextField>, 'label'>) {
  return (
    <TextField
      label="Calibration due"
      type="date"
      hint="Empty if it has no due date."
      {...registered}
    />
  );
}
