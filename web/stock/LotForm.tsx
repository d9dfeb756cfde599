import { useState } from 'react';
import { CATALOGUE } from '#core/chemistry';
import { lotSchema } from '#contract';
import { useBeginRecord } from '../app/records';
import { useSession } from '../app/session';
import {
  asOptional,
  asQuantity,
  CheckField,
  QuantityField,
  SelectField,
  TextField,
} from '../ui/fields';
import { useContractForm } from '../ui/useContractForm';
import { StockFormFrame } from './StockFormFrame';

/** Registers a lot with the figures of its certificate. */
export function LotForm({ onDone }: { readonly onDone: () => void }) {
  const { today } = useSession();
  const begin = useBeginRecord();
  const [hasStatedMass, setHasStatedMass] = useState(false);
  const { form, field, showFailure, formError } = useContractForm(lotSchema, {
    substanceId: CATALOGUE.substances[0]?.id ?? '',
    lotNumber: '',
    supplier: '',
    purity: '',
    purityHalfWidth: '',
    purityDistribution: 'rectangular',
    statedMolarMass: null,
    receivedOn: today,
    useBy: null,
  });
  return (
    <StockFormFrame
      name="A new lot"
      submit="Add the lot"
      isBusy={begin.isPending}
      error={formError}
      onDone={onDone}
      onSubmit={form.handleSubmit((body) => {
        begin.mutate({ kind: 'lot.registered', body }, { onSuccess: onDone, onError: showFailure });
      })}
    >
      <SelectField label="Substance" {...field('substanceId')}>
        {CATALOGUE.substances.map(({ id, name }) => (
          <option key={id} value={id}>
            {name}
          </option>
        ))}
      </SelectField>
      <TextField label="Lot number" {...field('lotNumber')} />
      <TextField label="Supplier" {...field('supplier')} />
      <QuantityField
        label="Purity"
        hint="Mass fraction: 0.9998 for 99.98 %."
        {...field('purity', asQuantity)}
      />
      <QuantityField label="Purity, plus or minus" {...field('purityHalfWidth', asQuantity)} />
      <SelectField label="Stated as" {...field('purityDistribution')}>
        <option value="rectangular">limits (rectangular)</option>
        <option value="triangular">limits, middle likelier (triangular)</option>
        <option value="normal">a 95 % interval (normal)</option>
      </SelectField>
      <TextField label="Received on" type="date" {...field('receivedOn')} />
      <TextField
        label="Use by"
        type="date"
        hint="Empty if it has none."
        {...field('useBy', asOptional)}
      />
      <CheckField
        label="The certificate states a molar mass"
        hint="Otherwise it follows from the formula."
        checked={hasStatedMass}
        onChange={(event) => {
          setHasStatedMass(event.target.checked);
          form.setValue(
            'statedMolarMass',
            event.target.checked ? { valueGPerMol: '', standardUncertaintyGPerMol: '' } : null,
          );
        }}
      />
      {hasStatedMass && (
        <>
          <QuantityField
            label="Molar mass"
            unit="g/mol"
            {...field('statedMolarMass.valueGPerMol', asQuantity)}
          />
          <QuantityField
            label="Its standard uncertainty"
            unit="g/mol"
            {...field('statedMolarMass.standardUncertaintyGPerMol', asQuantity)}
          />
        </>
      )}
    </StockFormFrame>
  );
}
