import { balanceSchema } from '#contract';
import { useBeginRecord } from '../app/records';
import { asOptional, asQuantity, QuantityField, TextField } from '../ui/fields';
import { useContractForm } from '../ui/useContractForm';
import { StockFormFrame } from './StockFormFrame';

/** Registers a balance with the figures of its certificate or data sheet. */
export function BalanceForm({ onDone }: { readonly onDone: () => void }) {
  const begin = useBeginRecord();
  const { form, field, showFailure, formError } = useContractForm(balanceSchema, {
    type: 'balance',
    name: '',
    readabilityG: '0.0001',
    repeatabilityG: '0.0001',
    linearityG: '',
    maxLoadG: '220',
    calibrationDue: null,
  });
  return (
    <StockFormFrame
      name="A new balance"
      submit="Add the balance"
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
      <TextField
        label="Calibration due"
        type="date"
        hint="Empty if it has no due date."
        {...field('calibrationDue', asOptional)}
      />
    </StockFormFrame>
  );
}
