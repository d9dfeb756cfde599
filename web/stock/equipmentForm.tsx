import type { ComponentProps } from 'react';
import type { DefaultValues, FieldValues } from 'react-hook-form';
import type * as v from 'valibot';
import type { Equipment, EquipmentState } from '#core/metrology';
import type { DateInForm } from '../ui/FormDateField';
import { FormDateField } from '../ui/FormDateField';
import { SelectField } from '../ui/fields';
import { useContractForm } from '../ui/useContractForm';
import { useRegistering } from './useRegistering';

/** What the form of a kind of equipment is given. */
export interface EquipmentFormProps {
  /** A piece that is put right; none for a new one. */
  readonly corrects?: EquipmentState | undefined;
  readonly onDone: () => void;
}

/** A form that registers a piece of equipment, or puts one right; `frame` is what its StockFormFrame needs. */
export function useEquipmentForm<T extends FieldValues, Checked extends Equipment>(
  schema: v.GenericSchema<T, Checked>,
  fresh: DefaultValues<T>,
  { corrects, onDone }: EquipmentFormProps,
) {
  // Its page chose the form by its type.
  const values = corrects ? (corrects.equipment as unknown as DefaultValues<T>) : fresh;
  const { form, field, showFailure, formError } = useContractForm(schema, values);
  const { enter, frame } = useRegistering({ corrects, onDone, showFailure });
  return {
    form,
    field,
    frame: {
      ...frame,
      error: formError,
      onSubmit: form.handleSubmit((body) => {
        enter({ kind: 'equipment.registered', body }, (reason) => ({
          kind: 'equipment.corrected',
          body: { equipment: body, reason },
        }));
      }),
    },
  };
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

export function CalibrationDueField<T extends FieldValues, Checked>(
  inForm: DateInForm<T, Checked>,
) {
  return (
    <FormDateField
      label="Calibration due"
      hint="Empty if it has no due date."
      isOptional
      {...inForm}
    />
  );
}
