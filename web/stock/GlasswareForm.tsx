import type { GlasswareClass } from '#core/metrology';
import { glasswareOf, TOLERANCE_DISTRIBUTION } from '#core/metrology';
import { glasswareSchema } from '#contract';
import { useBeginRecord } from '../app/records';
import { asOptional, asQuantity, QuantityField, SelectField, TextField } from '../ui/fields';
import { useContractForm } from '../ui/useContractForm';
import { StockFormFrame } from './StockFormFrame';

/** Registers a flask, pipette or cylinder; its class brings the tolerance of the standard. */
export function GlasswareForm({ onDone }: { readonly onDone: () => void }) {
  const begin = useBeginRecord();
  const { form, field, showFailure, formError } = useContractForm(glasswareSchema, {
    type: 'glassware',
    name: '',
    kind: 'volumetric-flask',
    volumeMl: '100',
    toleranceMl: '0.1',
    toleranceDistribution: 'triangular',
    calibrationDue: null,
  });
  const classes = classesOf(form.watch('kind'), Number(form.watch('volumeMl')));
  const fillIn = (name: string): void => {
    const chosen = classes.find((one) => one.name === name);
    if (!chosen) return;
    form.setValue('toleranceMl', String(chosen.toleranceMl), { shouldValidate: true });
    form.setValue('toleranceDistribution', TOLERANCE_DISTRIBUTION[chosen.name]);
  };
  return (
    <StockFormFrame
      name="New glassware"
      submit="Add the glassware"
      isBusy={begin.isPending}
      error={formError}
      onDone={onDone}
      onSubmit={form.handleSubmit((body) => {
        begin.mutate(
          { kind: 'equipment.registered', body },
          { onSuccess: onDone, onError: showFailure },
        );
      })}
    >
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
      <SelectField label="Tolerance taken as" {...field('toleranceDistribution')}>
        <option value="triangular">triangular: the maker aims at the mark</option>
        <option value="rectangular">rectangular: anything within is as likely</option>
        <option value="normal">a 95 % interval from its certificate</option>
      </SelectField>
      <TextField
        label="Calibration due"
        type="date"
        hint="Empty if it has no due date."
        {...field('calibrationDue', asOptional)}
      />
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
