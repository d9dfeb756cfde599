import type { Id } from '#core/grammar';
import { figureText, roundHalfEven } from '#core/measurement';
import { useCatalogue } from '../app/ownEntries';
import { DateTimeField } from '../ui/DateField';
import { optionsOf, QuantityField, SelectField, TextField } from '../ui/fields';
import { Form } from '../ui/Form';
import { NormalityField } from '../app/NormalityField';
import { fieldsOf } from '../ui/useTyped';

/** What somebody wants to make, as typed. */
export interface Wanted {
  readonly purpose: 'titrant' | 'standard' | 'auxiliary' | 'sample';
  readonly substanceId: string;
  /** A recipe of the catalogue; null for the usual one. */
  readonly recipeId: string | null;
  readonly molarity: string;
  readonly volume: string;
  /** %, k = 2; empty when any will do. */
  readonly targetU: string;
  /** Local date and time; empty when there is no hurry. */
  readonly neededBy: string;
  readonly sampleName: string;
  readonly sampleMolarity: string;
  /** What reads the temperature at the mark; null for none. */
  readonly thermometerId: Id | null;
}

const PURPOSES: Readonly<Record<Wanted['purpose'], string>> = {
  titrant: 'a titrant, to be standardized',
  standard: 'a standard, exact as it is made',
  auxiliary: 'an auxiliary: acid, indicator',
  sample: 'a strong sample, diluted',
};

/** Volumes that make whole series are offered in steps of this, mL. */
const VOLUME_STEP_ML = 50;

interface PlanFormProps {
  readonly wanted: Wanted;
  readonly onChange: (changes: Partial<Wanted>) => void;
  readonly choices: readonly { readonly id: string; readonly name: string }[];
  readonly thermometers: readonly { readonly id: Id; readonly name: string }[];
  /** Titrant that one series takes, mL; null without a burette. */
  readonly seriesMl: number | null;
}

/** Asks what is wanted; every answer changes the ways beside it at once. */
export function PlanForm(props: PlanFormProps) {
  const { wanted, onChange } = props;
  const { purpose } = wanted;
  const isIndicator = useCatalogue().indicators.some(({ id }) => id === wanted.substanceId);
  const field = fieldsOf(wanted, onChange);
  return (
    <Form
      aria-label="What is wanted"
      className="flex flex-col gap-3"
      onSubmit={() => {
        // There is nothing to send: the ways beside it follow every answer.
      }}
    >
      <SelectField
        label="What for"
        value={purpose}
        options={Object.entries(PURPOSES)}
        onText={(chosen) => {
          onChange({ purpose: chosen as Wanted['purpose'] });
        }}
      />
      <SubstanceFields {...props} />
      {purpose === 'sample' && (
        <>
          <TextField label="Sample" placeholder="tank cleaner, cellar 2" {...field('sampleName')} />
          <QuantityField label="It has about" unit="mol/L" {...field('sampleMolarity')} />
        </>
      )}
      <div className="grid grid-cols-1 gap-3 sm:grid-cols-2">
        {!isIndicator && <QuantityField label="Molarity" unit="mol/L" {...field('molarity')} />}
        <QuantityField label="Volume" unit="mL" {...field('volume')} />
      </div>
      {!isIndicator && (
        <NormalityField
          key={wanted.substanceId}
          substanceId={wanted.substanceId}
          onMolarity={(molarity) => {
            onChange({ molarity });
          }}
        />
      )}
      <SeriesField {...props} />
      {purpose === 'standard' && props.thermometers.length > 0 && (
        <SelectField
          label="Temperature at the mark by"
          options={[
            ...optionsOf(props.thermometers, ({ name }) => name),
            ['', 'nothing: the volume stays as read'],
          ]}
          value={wanted.thermometerId ?? ''}
          onText={(chosen) => {
            const thermometer = props.thermometers.find(({ id }) => id === chosen);
            onChange({ thermometerId: thermometer?.id ?? null });
          }}
        />
      )}
      {(purpose === 'standard' || purpose === 'sample') && (
        <QuantityField
          label="U at most"
          hint="Expanded, k = 2; empty if any will do."
          unit="%"
          {...field('targetU')}
        />
      )}
      <DateTimeField
        label={purpose === 'titrant' ? 'Certified by' : 'Needed by'}
        {...field('neededBy')}
      />
    </Form>
  );
}

/** Of what it is, and by which recipe where there are several. */
function SubstanceFields({ wanted, onChange, choices }: PlanFormProps) {
  const field = fieldsOf(wanted, onChange);
  const { preparations, indicators } = useCatalogue();
  const isAuxiliary = wanted.purpose === 'auxiliary';
  const exactness = wanted.purpose === 'standard' ? 'exact' : 'approximate';
  const recipes = preparations.filter(
    (one) => one.soluteId === wanted.substanceId && one.exactness === exactness,
  );
  return (
    <>
      <SelectField
        label="Substance"
        options={optionsOf(choices, ({ name }) => name)}
        {...field('substanceId')}
      >
        {isAuxiliary && (
          <optgroup label="Indicators">
            {indicators.map(({ id, name }) => (
              <option key={id} value={id}>
                {name}
              </option>
            ))}
          </optgroup>
        )}
      </SelectField>
      {wanted.purpose !== 'sample' && recipes.length > 1 && (
        <SelectField
          label="Recipe"
          value={wanted.recipeId ?? ''}
          options={[['', 'the usual one'], ...optionsOf(recipes, ({ name }) => name)]}
          onText={(id) => {
            onChange({ recipeId: id === '' ? null : id });
          }}
        />
      )}
    </>
  );
}

/** For a titrant, volumes that are enough for so many series. */
function SeriesField({ wanted, onChange, seriesMl }: PlanFormProps) {
  if (wanted.purpose !== 'titrant' || seriesMl === null) return null;
  return (
    <SelectField
      label="Enough for"
      hint={`A series takes about ${figureText(roundHalfEven(seriesMl, 0))} mL: rinses, rough, titrations, a repeat.`}
      value=""
      options={[
        ['', 'the volume above'],
        ...SERIES.map((series) => [series, `${series} series`] as const),
      ]}
      onText={(series) => {
        const neededMl = Number(series) * seriesMl;
        onChange({ volume: String(VOLUME_STEP_ML * Math.ceil(neededMl / VOLUME_STEP_ML)) });
      }}
    />
  );
}

const SERIES = ['1', '2', '4', '8', '12'];
