import { buretteSchema } from '#contract';
import { asQuantity, QuantityField, SelectField, TextField } from '../ui/fields';
import { ClassField } from './ClassField';
import type { EquipmentFormProps } from './equipmentForm';
import { CalibrationDueField, ToleranceSpreadField, useEquipmentForm } from './equipmentForm';
import { StockFormFrame } from './StockFormFrame';

/** Registers a burette, of glass or with a piston. */
export function BuretteForm(props: EquipmentFormProps) {
  const { form, field, frame } = useEquipmentForm(
    buretteSchema,
    {
      type: 'burette',
      name: '',
      construction: 'glass',
      capacityMl: '50',
      divisionMl: '0.1',
      toleranceMl: '0.05',
      toleranceDistribution: 'triangular',
      dropMl: '0.05',
      calibrationDue: null,
    },
    props,
  );
  const isPiston = form.watch('construction') === 'piston';
  return (
    <StockFormFrame name="A new burette" submit="Add the burette" {...frame}>
      <TextField label="Name" {...field('name')} />
      <SelectField label="Kind" {...field('construction')}>
        <option value="glass">glass, read at the meniscus</option>
        <option value="piston">piston, read from a display</option>
      </SelectField>
      <QuantityField label="Capacity" unit="mL" {...field('capacityMl', asQuantity)} />
      <QuantityField
        label={isPiston ? 'Step of the display' : 'Division'}
        unit="mL"
        {...field('divisionMl', asQuantity)}
      />
      {!isPiston && (
        <ClassField
          kind="burette"
          volumeMl={Number(form.watch('capacityMl'))}
          divisionMl={Number(form.watch('divisionMl'))}
          onChoose={(toleranceMl, distribution) => {
            form.setValue('toleranceMl', toleranceMl, { shouldValidate: true });
            form.setValue('toleranceDistribution', distribution);
          }}
        />
      )}
      <QuantityField
        label="Tolerance, plus or minus"
        unit="mL"
        hint="Of the delivered volume, at 20 °C."
        {...field('toleranceMl', asQuantity)}
      />
      <ToleranceSpreadField {...field('toleranceDistribution')} />
      <QuantityField
        label="One drop"
        unit="mL"
        hint="Its size enters as the end point's uncertainty."
        {...field('dropMl', asQuantity)}
      />
      <CalibrationDueField control={form.control} name="calibrationDue" />
    </StockFormFrame>
  );
}
