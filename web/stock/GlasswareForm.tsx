import type { GlasswareClass } from '#core/metrology';
import { glasswareOf, TOLERANCE_DISTRIBUTION } from '#core/metrology';
import { glasswareSchema } from '#contract';
import { asOptional, asQuantity, QuantityField, SelectField, TextField } from '../ui/fields';
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
  const classes = classesOf(form.watch('kind'), Number(form.watch('volumeMl')));
  const fillIn = (name: string): void => {
    const chosen = classes.find((one) => one.name === name);
    if (!chosen) return;
    form.setValue('toleranceMl', String(chosen.toleranceMl), { shouldValidate: true });
    form.setValue('toleranceDistribution', TOLERANCE_DISTRIBUTION[chosen.name]);
  };
  return (
    <StockFormFrame name="New glassware" submit="Add the glassware" {...frame}>
      <TextField label="Name" {...field('name')} />
      <SelectField label="Kind" {...field('kind')}>
        <option value="volumetric-flask">volumetric flask</option>
        <option value="one-mark-pipette">pipette with one mark</option>
        <option value="measuring-cylinder">measuring cylinder</option>
      </SelectField>
      <QuantityField label="Volume" unit="mL" {...field('volumeMl', asQuantity)} />
      <SelectField
        label="Class printed on it"
        value=""
        hint={
          classes.length > 0
            ? 'Fills in the tolerance of the standard.'
            : 'The standard has no such size: take the tolerance from its certificate.'
        }
        onChange={(event) => {
          fillIn(event.target.value);
        }}
      >
        <option value="">choose, or write the tolerance</option>
        {classes.map(({ name, toleranceMl, standard }) => (
          <option key={name} value={name}>
            {name}, ± {toleranceMl} mL ({standard})
          </option>
        ))}
      </SelectField>
      <QuantityField
        label="Tolerance, plus or minus"
        unit="mL"
        {...field('toleranceMl', asQuantity)}
      />
      <ToleranceSpreadField {...field('toleranceDistribution')} />
      <CalibrationDueField {...field('calibrationDue', asOptional)} />
    </StockFormFrame>
  );
}

/** The classes in which the standard defines a size, each with its tolerance. */
function classesOf(kind: Parameters<typeof glasswareOf>[0], volumeMl: number) {
  return glasswareOf(kind)
    .filter((size) => size.nominalMl === volumeMl)
    .flatMap(({ toleranceMl, standard }) =>
      (Object.entries(toleranceMl) as [GlasswareClass, number][]).map(([name, tolerance]) => ({
        name,
        toleranceMl: tolerance,
        standard,
      })),
    );
}
