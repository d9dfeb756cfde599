import { useFieldArray } from 'react-hook-form';
import type { Analysis } from '#core/chemistry';
import { catalogueWith } from '#core/chemistry';
import type { Plain, PlainDate } from '#core/grammar';
import type { Sample, SampleState } from '#core/sample';
import { carriedAnd, naming, useOwn } from '../app/ownEntries';
import { useSession } from '../app/session';
import { Button } from '../ui/Button';
import {
  asOptionalQuantity,
  asQuantity,
  CheckField,
  QuantityField,
  SelectField,
  TextField,
} from '../ui/fields';
import { FormDateField } from '../ui/FormDateField';
import { StockFormFrame } from '../stock/StockFormFrame';
import { useRegistering } from '../stock/useRegistering';
import { emptyRequest, RequestFields } from './RequestFields';
import type { SampleFields } from './useSampleForm';
import { useSampleForm } from './useSampleForm';

interface SampleFormProps {
  /** A sample that is put right; none for a new one. */
  readonly corrects?: SampleState;
  readonly onDone: () => void;
}

/** Writes down a sample as it was received, or puts one right. */
export function SampleForm({ corrects, onDone }: SampleFormProps) {
  const { today } = useSession();
  const sample = useSampleForm(corrects?.sample ?? emptySample(today));
  const { form, field, showFailure, formError } = sample;
  const { enter, frame } = useRegistering({ corrects, onDone, showFailure });
  // What is out of use is not among those to choose from; the sample that names it carries it.
  const own = carriedAnd(useOwn(), corrects?.sample.own);
  const amount = form.watch('amount');
  return (
    <StockFormFrame
      name="A sample"
      submit="Receive it"
      {...frame}
      error={formError}
      onSubmit={form.handleSubmit((typed) => {
        const asked = typed.requests.map(({ analysisId }) => analysisId);
        const written = { ...typed, ...naming(own, asked) };
        enter({ kind: 'sample.received', body: written }, (reason) => ({
          kind: 'sample.corrected',
          body: { sample: written, reason },
        }));
      })}
    >
      <TextField
        label="Code"
        hint="Scanned or typed, as it stands on the vessel."
        {...field('code')}
      />
      <TextField label="What it is" {...field('description')} />
      <TextField label="Taken from" hint="Tank, line, delivery." {...field('source')} />
      <TextField label="For whom" {...field('customer')} />
      <TextField label="Taken by" hint="Empty if not by this laboratory." {...field('sampledBy')} />
      <FormDateField label="Taken on" control={form.control} name="sampledOn" isOptional />
      <FormDateField label="Received on" control={form.control} name="receivedOn" />
      <TextField
        label="Condition on receipt"
        hint="Clear, cold, full to the stopper."
        {...field('condition')}
      />
      <SelectField
        label="Amount"
        value={amount?.unit ?? 'none'}
        options={AMOUNTS}
        onText={(unit) => {
          const value = amount?.value ?? '';
          form.setValue('amount', unit === 'mL' || unit === 'g' ? { value, unit } : null);
        }}
      />
      {amount && (
        <QuantityField label="How much" unit={amount.unit} {...field('amount.value', asQuantity)} />
      )}
      <TextField label="Kept where" {...field('store')} />
      <FormDateField label="Kept until" control={form.control} name="keepUntil" isOptional />
      <WithPlusMinus
        {...sample}
        name="density"
        tick="Its density is known"
        hint="Needed for % by mass of what is pipetted."
        label="Density"
        unit="g/mL"
      />
      <WithPlusMinus
        {...sample}
        name="dryMatter"
        tick="Its dry matter is known"
        hint="What a drying leaves; for contents in dry matter."
        label="Dry matter"
        unit="%"
      />
      <WithPlusMinus
        {...sample}
        name="unitMass"
        tick="It is counted, such as tablets"
        hint="Needed for a content of each."
        label="Mean mass of one"
        unit="g"
      />
      <CheckField
        label="It is a control"
        hint="It is titrated again and again; its results go on a chart."
        checked={form.watch('isControl') ?? false}
        onTick={(isTicked) => {
          form.setValue('isControl', isTicked);
        }}
      />
      <Requests {...sample} analyses={catalogueWith(own).analyses} />
    </StockFormFrame>
  );
}

const AMOUNTS = [
  ['none', 'not measured'],
  ['mL', 'a liquid, mL'],
  ['g', 'a solid, g'],
] as const;

function emptySample(today: PlainDate): Plain<Sample> {
  return {
    code: '',
    description: '',
    source: '',
    customer: '',
    sampledBy: '',
    sampledOn: null,
    receivedOn: today,
    condition: '',
    amount: null,
    density: null,
    dryMatter: null,
    unitMass: null,
    store: '',
    keepUntil: null,
    requests: [],
  };
}

/** A quantity that belongs to some samples only, and how sure it is. */
function WithPlusMinus({
  form,
  field,
  name,
  tick,
  hint,
  label,
  unit,
}: SampleFields & {
  readonly name: 'density' | 'unitMass' | 'dryMatter';
  readonly tick: string;
  readonly hint: string;
  readonly label: string;
  readonly unit: string;
}) {
  const isKnown = (form.watch(name) ?? null) !== null;
  return (
    <div className="col-span-full grid grid-cols-1 gap-x-6 gap-y-4 md:grid-cols-3">
      <CheckField
        label={tick}
        hint={hint}
        checked={isKnown}
        onTick={(isTicked) => {
          form.setValue(name, isTicked ? { value: '', plusMinus: '' } : null);
        }}
      />
      {isKnown && (
        <>
          <QuantityField label={label} unit={unit} {...field(`${name}.value`, asQuantity)} />
          <QuantityField
            label="Plus or minus"
            unit={unit}
            hint="95 %"
            {...field(`${name}.plusMinus`, asOptionalQuantity)}
          />
        </>
      )}
    </div>
  );
}

/** What is to be found, one line for each analysis. */
function Requests({
  analyses,
  ...sample
}: SampleFields & { readonly analyses: readonly Analysis[] }) {
  const { form } = sample;
  const { fields, append, remove } = useFieldArray({ control: form.control, name: 'requests' });
  return (
    <fieldset className="col-span-full">
      <legend className="mb-1 text-lg font-bold">What is to be found</legend>
      {fields.map(({ id }, i) => (
        <RequestFields
          key={id}
          {...sample}
          analyses={analyses}
          at={`requests.${String(i)}` as `requests.${number}`}
          onRemove={() => {
            remove(i);
          }}
        />
      ))}
      <Button
        className="mt-2 text-[15px]"
        onClick={() => {
          append(emptyRequest());
        }}
      >
        {fields.length === 0 ? 'Add an analysis' : 'Add another analysis'}
      </Button>
    </fieldset>
  );
}
