import type { CalendarDuration } from '#core/grammar';
import type { Indicator, OwnEntry } from '#core/chemistry';
import { CATALOGUE } from '#core/chemistry';
import type { RecordVersion } from '#core/record';
import { numberIn } from '../ui/numberIn';
import { optionsOf, QuantityField, SelectField, TextAreaField, TextField } from '../ui/fields';
import { Form, FormFoot } from '../ui/Form';
import { fieldsOf, useTyped } from '../ui/useTyped';
import type { TypedBand } from './HazardFields';
import { bandsOf, HazardFields, typedBands } from './HazardFields';
import { KeepsField } from './KeepsField';
import { Rows } from './Rows';
import type { TypedDuration } from './typedFigures';
import { durationOf, figureOf, typedDuration } from './typedFigures';
import { useWritingEntry } from './useWritingEntry';

type OwnIndicator = Extract<OwnEntry, { readonly kind: 'indicator' }>;

/** A change of colour as its form holds it. */
interface TypedChange {
  readonly by: Indicator['changes'][number]['by'];
  readonly from: string;
  readonly to: string;
  readonly what: string;
  readonly before: string;
  readonly after: string;
}

/** An indicator as its form holds it. */
interface TypedIndicator {
  readonly name: string;
  readonly changes: readonly TypedChange[];
  readonly preparation: string;
  readonly dose: string;
  readonly keepsFor: TypedDuration;
  readonly ownPercent: string;
  /** What it is dissolved in, where that is not water, and how much of that there is. */
  readonly solventId: string;
  readonly solventPercent: string;
  readonly hazards: readonly TypedBand[];
  readonly source: string;
  readonly reason: string;
}

const NO_CHANGE: TypedChange = { by: 'pH', from: '', to: '', what: '', before: '', after: '' };

const KEEPS: CalendarDuration = { months: 12 };

/** What a form begins with that copies nothing. */
export const NO_INDICATOR: OwnIndicator = {
  kind: 'indicator',
  indicator: {
    ...{ id: '', name: '', changes: [], colours: [], preparation: '', steps: null, dose: null },
    ...{ keepsFor: KEEPS, hazards: [], madeUp: { ownPercent: 0.1, holds: [] }, source: '' },
  },
};

function typedIndicator({ indicator }: OwnIndicator): TypedIndicator {
  const { changes, colours, madeUp } = indicator;
  const [held] = madeUp.holds;
  return {
    name: indicator.name,
    changes:
      changes.length === 0
        ? [NO_CHANGE]
        : changes.map((change, i) => ({
            by: change.by,
            from: change.by === 'reagent' ? '' : figureOf(change.range[0]),
            to: change.by === 'reagent' ? '' : figureOf(change.range[1]),
            what: change.by === 'reagent' ? change.what : '',
            before: colours[i]?.[0] ?? '',
            after: colours[i]?.[1] ?? '',
          })),
    preparation: indicator.preparation,
    dose: indicator.dose ?? '',
    keepsFor: typedDuration(indicator.keepsFor),
    ownPercent: figureOf(madeUp.ownPercent),
    solventId: held?.id ?? '',
    solventPercent: figureOf(held?.massPercent),
    hazards: typedBands(indicator.hazards),
    source: indicator.source,
    reason: '',
  };
}

/** The same as an entry holds it, under the id of its record; what the form does not show stays. */
function writtenIndicator({ indicator }: OwnIndicator, typed: TypedIndicator, id: string) {
  const { solventId, solventPercent } = typed;
  return {
    kind: 'indicator' as const,
    indicator: {
      ...indicator,
      id,
      name: typed.name.trim(),
      changes: typed.changes.map(({ by, from, to, what }) =>
        by === 'reagent'
          ? { by, what: what.trim() }
          : { by, range: [numberIn(from), numberIn(to === '' ? from : to)] as const },
      ),
      colours: typed.changes.map(({ before, after }) => [before.trim(), after.trim()] as const),
      preparation: typed.preparation.trim(),
      dose: typed.dose.trim() === '' ? null : typed.dose.trim(),
      keepsFor: durationOf(typed.keepsFor),
      hazards: bandsOf(typed.hazards),
      madeUp: {
        ownPercent: numberIn(typed.ownPercent),
        holds: solventId === '' ? [] : [{ id: solventId, massPercent: numberIn(solventPercent) }],
      },
      source: typed.source.trim(),
    },
  };
}

interface IndicatorFormProps {
  /** What is copied or changed. */
  readonly entry: OwnIndicator;
  readonly record: RecordVersion;
}

/** An indicator of the laboratory's own: where it changes, how it is made up, what it holds. */
export function IndicatorForm({ entry, record }: IndicatorFormProps) {
  const { write, errors, isBusy, error } = useWritingEntry(record, 'indicator');
  const { typed, field, part } = useTyped(() => typedIndicator(entry), errors);
  return (
    <Form
      className="grid max-w-[1040px] grid-cols-1 gap-x-8 gap-y-4 md:grid-cols-2"
      onSubmit={() => {
        write(writtenIndicator(entry, typed, record.id), {}, typed.reason);
      }}
    >
      <TextField label="Name" {...field('name')} />
      <TextField
        label="How much goes into a flask"
        hint="Empty for drops, which the method counts."
        placeholder="about 1 mL"
        {...field('dose')}
      />
      <Rows
        legend="Where it changes colour"
        hint="Upwards in pH or potential; two changes for a mixed indicator."
        one="change"
        items={typed.changes}
        empty={NO_CHANGE}
        error={errors.changes ?? errors.colours}
        onChange={part('changes').onChange}
      >
        {(change, put) => <ChangeFields value={change} onChange={put} />}
      </Rows>
      <div className="col-span-full">
        <TextAreaField
          label="How it is made up"
          placeholder="0.1 g in 100 mL of ethanol, 95 %"
          {...field('preparation')}
        />
      </div>
      <div className="grid grid-cols-1 gap-3 sm:grid-cols-2">
        <QuantityField
          label="It holds of the dye"
          unit="% m/m"
          {...field('ownPercent')}
          error={errors.madeUp}
        />
        <SelectField label="Made up in" options={MADE_UP_IN} {...field('solventId')} />
        {typed.solventId !== '' && (
          <QuantityField label="Of that" unit="% m/m" {...field('solventPercent')} />
        )}
      </div>
      <KeepsField label="Good for" {...part('keepsFor')} />
      <HazardFields {...part('hazards')} />
      <TextAreaField label="Where these figures come from" {...field('source')} />
      <TextAreaField
        label={record.version > 0 ? 'What changes, and why' : 'Why it is written'}
        {...field('reason')}
      />
      <FormFoot
        submit={record.version > 0 ? 'Write this version' : 'Write this indicator'}
        isDisabled={isBusy}
        error={error}
      />
    </Form>
  );
}

/** Water is no hazard, so that nobody says how much of it there is. */
const MADE_UP_IN = [
  ['', 'water'] as const,
  ...optionsOf(
    CATALOGUE.solvents.filter(({ isWater }) => !isWater),
    ({ name }) => name,
  ),
];

const CHANGES_BY: readonly (readonly [TypedChange['by'], string])[] = [
  ['pH', 'pH'],
  ['potential-V', 'potential'],
  ['reagent', 'a reagent of its own'],
];

interface ChangeFieldsProps {
  readonly value: TypedChange;
  readonly onChange: (changes: Partial<TypedChange>) => void;
}

function ChangeFields({ value, onChange }: ChangeFieldsProps) {
  const field = fieldsOf(value, onChange);
  const unit = value.by === 'pH' ? 'pH' : 'V';
  return (
    <div className="grid grid-cols-1 gap-3 sm:grid-cols-2 lg:grid-cols-[190px_110px_110px_repeat(2,minmax(0,1fr))]">
      <SelectField
        label="It depends on"
        options={CHANGES_BY}
        value={value.by}
        onText={(by) => {
          onChange({ by: by as TypedChange['by'] });
        }}
      />
      {value.by === 'reagent' ? (
        <div className="lg:col-span-2">
          <TextField label="On which" placeholder="iodine" {...field('what')} />
        </div>
      ) : (
        <>
          <QuantityField label="From" unit={unit} {...field('from')} />
          <QuantityField label="to" unit={unit} {...field('to')} />
        </>
      )}
      <TextField label="Colour before" {...field('before')} />
      <TextField label="Colour after" {...field('after')} />
    </div>
  );
}
