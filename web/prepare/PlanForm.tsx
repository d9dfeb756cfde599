import { CATALOGUE } from '#core/chemistry';
import { roundHalfEven } from '#core/measurement';
import { QuantityField, SelectField, TextField } from '../ui/fields';

/** What somebody wants to make, as typed. */
export interface Wanted {
  readonly purpose: 'titrant' | 'standard' | 'auxiliary' | 'sample';
  readonly substanceId: string;
  /** A recipe of the catalogue; null for the usual way. */
  readonly recipeId: string | null;
  readonly molarity: string;
  readonly volume: string;
  /** %, k = 2; empty when any will do. */
  readonly targetU: string;
  /** Local date and time; empty when there is no hurry. */
  readonly neededBy: string;
  readonly sampleName: string;
  readonly sampleMolarity: string;
}

const PURPOSES: Readonly<Record<Wanted['purpose'], string>> = {
  titrant: 'a titrant, to be standardized',
  standard: 'a standard, exact as it is made',
  auxiliary: 'an auxiliary: acid, indicator',
  sample: 'a strong sample, diluted',
};

/** Volumes that make whole series are offered in steps of this, mL. */
const VOLUME_STEP_ML = 50;

/** Asks what is wanted; every answer changes the ways beside it at once. */
export function PlanForm({
  wanted,
  onChange,
  choices,
  seriesMl,
}: {
  readonly wanted: Wanted;
  readonly onChange: (changes: Partial<Wanted>) => void;
  readonly choices: readonly { readonly id: string; readonly name: string }[];
  /** Titrant that one series takes, mL; null without a burette. */
  readonly seriesMl: number | null;
}) {
  const { purpose } = wanted;
  const recipes = CATALOGUE.preparations.filter(
    ({ soluteId, exactness }) => soluteId === wanted.substanceId && exactness === 'approximate',
  );
  const isIndicator = CATALOGUE.indicators.some(({ id }) => id === wanted.substanceId);
  const isExact = purpose === 'standard' || purpose === 'sample';
  return (
    <form
      aria-label="What is wanted"
      className="flex flex-col gap-3"
      onSubmit={(event) => {
        event.preventDefault();
      }}
    >
      <SelectField
        label="What for"
        value={purpose}
        onChange={(event) => {
          onChange({ purpose: event.target.value as Wanted['purpose'] });
        }}
      >
        {Object.entries(PURPOSES).map(([value, words]) => (
          <option key={value} value={value}>
            {words}
          </option>
        ))}
      </SelectField>
      <SelectField
        label="Substance"
        value={wanted.substanceId}
        onText={(substanceId) => {
          onChange({ substanceId });
        }}
      >
        {choices.map(({ id, name }) => (
          <option key={id} value={id}>
            {name}
          </option>
        ))}
        {purpose === 'auxiliary' && (
          <optgroup label="Indicators">
            {CATALOGUE.indicators.map(({ id, name }) => (
              <option key={id} value={id}>
                {name}
              </option>
            ))}
          </optgroup>
        )}
      </SelectField>
      {purpose === 'auxiliary' && recipes.length > 1 && (
        <SelectField
          label="Recipe"
          value={wanted.recipeId ?? ''}
          onChange={(event) => {
            onChange({ recipeId: event.target.value === '' ? null : event.target.value });
          }}
        >
          <option value="">the usual way</option>
          {recipes.map(({ id, name }) => (
            <option key={id} value={id}>
              {name}
            </option>
          ))}
        </SelectField>
      )}
      {purpose === 'sample' && (
        <>
          <TextField
            label="Sample"
            placeholder="tank cleaner, cellar 2"
            value={wanted.sampleName}
            onText={(sampleName) => {
              onChange({ sampleName });
            }}
          />
          <QuantityField
            label="It has about"
            unit="mol/L"
            value={wanted.sampleMolarity}
            onText={(sampleMolarity) => {
              onChange({ sampleMolarity });
            }}
          />
        </>
      )}
      <div className="grid grid-cols-1 gap-3 sm:grid-cols-2">
        {!isIndicator && (
          <QuantityField
            label="Molarity"
            unit="mol/L"
            value={wanted.molarity}
            onText={(molarity) => {
              onChange({ molarity });
            }}
          />
        )}
        <QuantityField
          label="Volume"
          unit="mL"
          value={wanted.volume}
          onText={(volume) => {
            onChange({ volume });
          }}
        />
      </div>
      {purpose === 'titrant' && seriesMl !== null && (
        <SelectField
          label="Enough for"
          hint={`A series takes about ${roundHalfEven(seriesMl, 0)} mL: rinses, rough, titrations, a repeat.`}
          value=""
          onChange={(event) => {
            const volume =
              VOLUME_STEP_ML * Math.ceil((Number(event.target.value) * seriesMl) / VOLUME_STEP_ML);
            onChange({ volume: String(volume) });
          }}
        >
          <option value="">the volume above</option>
          {[1, 2, 4, 8, 12].map((series) => (
            <option key={series} value={series}>
              {series} series
            </option>
          ))}
        </SelectField>
      )}
      {isExact && (
        <QuantityField
          label="U at most"
          hint="Expanded, k = 2; empty if any will do."
          unit="%"
          value={wanted.targetU}
          onText={(targetU) => {
            onChange({ targetU });
          }}
        />
      )}
      <TextField
        label={purpose === 'titrant' ? 'Certified by' : 'Needed by'}
        type="datetime-local"
        value={wanted.neededBy}
        onText={(neededBy) => {
          onChange({ neededBy });
        }}
      />
    </form>
  );
}
