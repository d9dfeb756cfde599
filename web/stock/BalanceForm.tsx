import { balanceSchema } from '#contract';
import { asQuantity, QuantityField, TextField } from '../ui/fields';
import type { EquipmentFormProps } from './equipmentForm';
import { CalibrationDueField, useEquipmentForm } from './equipmentForm';
import { StockFormFrame } from './StockFormFrame';

/** Registers a balance with the figures of its certificate or data sheet. */
export function BalanceForm(props: EquipmentFormProps) {
  const { form, field, frame } = useEquipmentForm(
    balanceSchema,
    {
      type: 'balance',
      name: '',
      readabilityG: '0.0001',
      repeatabilityG: '0.0001',
      linearityG: '',
      maxLoadG: '220',
      calibrationDue: null,
    },
    props,
  );
  return (
    <StockFormFrame name="A new balance" submit="Add the balance" {...frame}>
      <TextField label="Name" {...field('name')} />
      <QuantityField
        label="Readability"
        unit="g"
        hint="The last step of its display."
        {...field('readabilityG', asQuantity)}
      />
      <QuantityField
        label="Repeatability"
        unit="g"
        hint="Standard deviation of a weighing; 0 if a method's repeatability covers it."
        {...field('repeatabilityG', asQuantity)}
      />
      <QuantityField
        label="Linearity, plus or minus"
        unit="g"
        {...field('linearityG', asQuantity)}
      />
      <QuantityField label="Maximum load" unit="g" {...field('maxLoadG', asQuantity)} />
      <CalibrationDueField control={form.control} name="calibrationDue" />
    </StockFormFrame>
  );
}
