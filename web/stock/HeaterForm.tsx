import { heaterSchema } from '#contract';
import { asQuantity, QuantityField, SelectField, TextField } from '../ui/fields';
import type { EquipmentFormProps } from './equipmentForm';
import { CalibrationDueField, useEquipmentForm } from './equipmentForm';
import { StockFormFrame } from './StockFormFrame';

/** Registers a hot plate or an oven: how many there are limits a day's work. */
export function HeaterForm(props: EquipmentFormProps) {
  const { form, field, frame } = useEquipmentForm(
    heaterSchema,
    { type: 'heater', name: '', kind: 'hot-plate', maxTemperatureC: '300', calibrationDue: null },
    props,
  );
  return (
    <StockFormFrame name="A new heater" submit="Add the heater" {...frame}>
      <TextField label="Name" {...field('name')} />
      <SelectField label="Kind" {...field('kind')}>
        <option value="hot-plate">hot plate</option>
        <option value="oven">oven or furnace</option>
      </SelectField>
      <QuantityField label="Hottest" unit="°C" {...field('maxTemperatureC', asQuantity)} />
      <CalibrationDueField control={form.control} name="calibrationDue" />
    </StockFormFrame>
  );
}
