import { useState } from 'react';
import { CATALOGUE, findSubstance } from '#core/chemistry';
import type { Lot, LotState } from '#core/reagent';
import type { Plain } from '#core/grammar';
import { lotSchema } from '#contract';
import { useSession } from '../app/session';
import {
  asOptional,
  asOptionalQuantity,
  asQuantity,
  CheckField,
  QuantityField,
  SelectField,
  TextField,
} from '../ui/fields';
import { useContractForm } from '../ui/useContractForm';
import { StockFormFrame } from './StockFormFrame';
import { useRegistering } from './useRegistering';

/** Registers a lot with the figures of its certificate, or puts one right. */
export function LotForm({
  corrects,
  onDone,
}: {
  readonly corrects?: LotState;
  readonly onDone: () => void;
}) {
  const { today } = useSession();
  const [hasStatedMass, setHasStatedMass] = useState(corrects?.lot.statedMolarMass != null);
  const fresh: Plain<Lot> = {
    substanceId: CATALOGUE.substances[0]?.id ?? '',
    lotNumber: '',
    supplier: '',
    purity: '',
    purityHalfWidth: '',
    purityDistribution: 'rectangular',
    dissolved: null,
    statedMolarMass: null,
    amountReceived: null,
    store: '',
    receivedOn: today,
    openedOn: null,
    useBy: null,
  };
  const { form, field, showFailure, formError } = useContractForm(
    lotSchema,
    corrects?.lot ?? fresh,
  );
  const { enter, frame } = useRegistering({ corrects, onDone, showFailure });
  const substanceId = form.watch('substanceId');
  const dissolved = form.watch('dissolved');
  const substance = findSubstance(substanceId);
  const concentrate = CATALOGUE.concentrates.find((one) => one.substanceId === substanceId);
  return (
    <StockFormFrame
      name="A new lot"
      submit="Add the lot"
      {...frame}
      error={formError}
      onSubmit={form.handleSubmit((body) => {
        enter({ kind: 'lot.registered', body }, (reason) => ({
          kind: 'lot.corrected',
          body: { lot: body, reason },
        }));
      })}
    >
      <SelectField
        label="Substance and form"
        hint={substance ? `As received: ${substance.form}, ${substance.formula}.` : ''}
        {...field('substanceId')}
      >
        {CATALOGUE.substances.map(({ id, name }) => (
          <option key={id} value={id}>
            {name}
          </option>
        ))}
      </SelectField>
      <TextField label="Lot number" {...field('lotNumber')} />
      <TextField label="Supplier" {...field('supplier')} />
      <SelectField
        label="It is"
        value={dissolved?.meaning ?? 'solid'}
        hint={
          dissolved
            ? 'Read on its label which percentage it states: the two differ by its density.'
            : 'A concentrate is a solution.'
        }
        onChange={(event) => {
          const { value } = event.target;
          form.setValue(
            'dissolved',
            value === 'by-mass'
              ? {
                  meaning: 'by-mass',
                  densityGPerMl: concentrate ? String(concentrate.densityGPerMl) : '',
                }
              : value === 'by-volume'
                ? { meaning: 'by-volume' }
                : null,
          );
        }}
      >
        <option value="solid">a solid, or weighed as it is</option>
        <option value="by-mass">a solution, % by mass (m/m)</option>
        <option value="by-volume">a solution, grams in 100 mL (m/V)</option>
      </SelectField>
      {dissolved?.meaning === 'by-mass' && (
        <QuantityField
          label="Density"
          unit="g/mL"
          {...field('dissolved.densityGPerMl', asQuantity)}
        />
      )}
      <QuantityField
        label="Purity"
        hint={dissolved ? '0.37 for 37 %.' : 'Mass fraction: 0.9998 for 99.98 %.'}
        {...field('purity', asQuantity)}
      />
      <QuantityField label="Purity, plus or minus" {...field('purityHalfWidth', asQuantity)} />
      <SelectField label="Stated as" {...field('purityDistribution')}>
        <option value="rectangular">limits (rectangular)</option>
        <option value="triangular">limits, middle likelier (triangular)</option>
        <option value="normal">a 95 % interval (normal)</option>
      </SelectField>
      <QuantityField
        label="Amount received"
        unit={dissolved ? 'mL' : 'g'}
        hint="Empty if nobody counts it."
        {...field('amountReceived', asOptionalQuantity)}
      />
      <TextField label="Store" hint="Where it stands: desiccator 1." {...field('store')} />
      <TextField label="Received on" type="date" {...field('receivedOn')} />
      <TextField
        label="Opened on"
        type="date"
        hint="Empty while it is closed."
        {...field('openedOn', asOptional)}
      />
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
