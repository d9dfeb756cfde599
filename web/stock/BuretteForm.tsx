import { buretteSchema } from '#contract';
import { useBeginRecord } from '../app/records';
import { asOptional, asQuantity, QuantityField, SelectField, TextField } from '../ui/fields';
import { useContractForm } from '../ui/useContractForm';
import { StockFormFrame } from './StockFormFrame';

/** Registers a burette, of glass or with a piston. */
export function BuretteForm({ onDone }: { readonly onDone: () => void }) {
  const begin = useBeginRecord();
  const { form, field, showFailure, formError } = useContractForm(buretteSchema, {
    type: 'burette',
    name: '',
    construction: 'glass',
    capacityMl: '50',
    divisionMl: '0.1',
    toleranceMl: '0.05',
    toleranceDistribution: 'triangular',
    dropMl: '0.05',
    calibrationDue: null,
  });
  const isPiston = form.watch('construction') === 'piston';
  return (
    <StockFormFrame
      name="A new burette"
      submit="Add the burette"
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
      <QuantityField
        label="Tolerance, plus or minus"
        unit="mL"
        hint="Of the delivered volume, at 20 °C."
        {...field('toleranceMl', asQuantity)}
      />
      <SelectField label="Tolerance taken as" {...field('toleranceDistribution')}>
        <option value="triangular">triangular: the maker aims at the mark</option>
        <option value="rectangular">rectangular: anything within is as likely</option>
        <option value="normal">a 95 % interval from its certificate</option>
      </SelectField>
      <QuantityField
        label="One drop"
        unit="mL"
        hint="Its size enters as the end point's uncertainty."
        {...field('dropMl', asQuantity)}
      />
      <TextField
        label="Calibration due"
        type="date"
        hint="Empty if it has no due date."
        {...field('calibrationDue', asOptional)}
      />
    </StockFormFrame>
  );
}
