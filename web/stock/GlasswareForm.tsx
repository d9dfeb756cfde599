import { glasswareSchema } from '#contract';
import { asQuantity, QuantityField, SelectField, TextField } from '../ui/fields';
import { ClassField } from './ClassField';
import type { EquipmentFormProps } from './equipmentForm';
import { CalibrationDueField, ToleranceSpreadField, useEquipmentForm } from './equipmentForm';
import { StockFormFrame } from './StockFormFrame';

/** Registers a flask, pipette or cylinder; its class brings the tolerance of the standard. */
export function GlasswareForm(props: EquipmentFormProps) {
  const { form, field, frame } = useEquipmentForm(
    glasswareSchema,
    {
      type: 'glassware',
      name: '',
      kind: 'volumetric-flask',
      volumeMl: '100',
      // Of the class that is chosen, or typed: that of another size would be wrong.
      toleranceMl: '',
      toleranceDistribution: 'triangular',
      calibrationDue: null,
    },
    props,
  );
  return (
    <StockFormFrame name="New glassware" submit="Add the glassware" {...frame}>
      <TextField label="Name" {...field('name')} />
      <SelectField label="Kind" {...field('kind')}>
        <option value="volumetric-flask">volumetric flask</option>
        <option value="one-mark-pipette">pipette with one mark</option>
        <option value="measuring-cylinder">measuring cylinder</option>
      </SelectField>
      <QuantityField label="Volume" unit="mL" {...field('volumeMl', asQuantity)} />
      <ClassField
        kind={form.watch('kind')}
        volumeMl={Number(form.watch('volumeMl'))}
        onChoose={(toleranceMl, distribution) => {
          form.setValue('toleranceMl', toleranceMl, { shouldValidate: true });
          form.setValue('toleranceDistribution', distribution);
        }}
      />
      <QuantityField
        label="Tolerance, plus or minus"
        unit="mL"
        {...field('toleranceMl', asQuantity)}
      />
      <ToleranceSpreadField {...field('toleranceDistribution')} />
      <CalibrationDueField control={form.control} name="calibrationDue" />
    </StockFormFrame>
  );
}
