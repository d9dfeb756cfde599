import { thermometerSchema } from '#contract';
import { asQuantity, QuantityField, TextField } from '../ui/fields';
import type { EquipmentFormProps } from './equipmentForm';
import { CalibrationDueField, useEquipmentForm } from './equipmentForm';
import { StockFormFrame } from './StockFormFrame';

/** Registers a thermometer. */
export function ThermometerForm(props: EquipmentFormProps) {
  const { form, field, frame } = useEquipmentForm(
    thermometerSchema,
    { type: 'thermometer', name: '', resolutionK: '0.1', toleranceK: '0.5', calibrationDue: null },
    props,
  );
  return (
    <StockFormFrame name="A new thermometer" submit="Add the thermometer" {...frame}>
      <TextField label="Name" {...field('name')} />
      <QuantityField label="Smallest step" unit="K" {...field('resolutionK', asQuantity)} />
      <QuantityField
        label="Tolerance, plus or minus"
        unit="K"
        {...field('toleranceK', asQuantity)}
      />
      <CalibrationDueField control={form.control} name="calibrationDue" />
    </StockFormFrame>
  );
}
