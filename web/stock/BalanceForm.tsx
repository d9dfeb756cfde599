import { balanceSchema } from '#contract';
import { useBeginRecord } from '../app/records';
import { asOptional, asQuantity, QuantityField, TextField } from '../ui/fields';
import { useContractForm } from '../ui/useContractForm';
import { StockFormFrame } from './StockFormFrame';

/** Registers a balance with the figures of its certificate or data sheet. */
export function BalanceForm({ onDone }: { readonly onDone: () => void }) {
  const begin = useBeginRecord();
  const { form, errorAt, showFailure, formError } = useContractForm(balanceSchema, {
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
      <TextField label="Name" error={errorAt('name')} {...form.register('name')} />
      <QuantityField
        label="Readability"
        unit="g"
        hint="The last step of its display."
        error={errorAt('readabilityG')}
        {...form.register('readabilityG', asQuantity)}
      />
      <QuantityField
        label="Repeatability"
        unit="g"
        hint="Standard deviation of a weighing; 0 if a method's repeatability covers it."
        error={errorAt('repeatabilityG')}
        {...form.register('repeatabilityG', asQuantity)}
      />
      <QuantityField
        label="Linearity, plus or minus"
        unit="g"
        error={errorAt('linearityG')}
        {...form.register('linearityG', asQuantity)}
      />
      <QuantityField
        label="Maximum load"
        unit="g"
        error={errorAt('maxLoadG')}
        {...form.register('maxLoadG', asQuantity)}
      />
      <TextField
        label="Calibration due"
        type="date"
        hint="Empty if it has no due date."
        error={errorAt('calibrationDue')}
        {...form.register('calibrationDue', asOptional)}
      />
    </StockFormFrame>
  );
}
