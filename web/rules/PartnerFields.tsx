import type { Method } from '#core/chemistry';
import { findSubstance } from '#core/chemistry';
import { useCatalogue, useOwn } from '../app/ownEntries';
import { SmallButton } from '../ui/Button';
import type { FieldMessages } from '../ui/fieldMessages';
import type { Option } from '../ui/fields';
import { optionsOf, QuantityField, SelectField, TextField } from '../ui/fields';
import { numberIn } from '../ui/numberIn';
import { fieldsOf } from '../ui/useTyped';

/** What reacts in a method, as a form holds it. */
export interface TypedPartners {
  readonly titrantIds: readonly string[];
  readonly titrantSpecies: string;
  readonly titrantNumber: string;
  readonly standardId: string;
  readonly standardSpecies: string;
  readonly standardNumber: string;
  readonly inBurette: Method['inBurette'];
  /** Species that one reaction leaves to the next, parted by commas. */
  readonly links: string;
}

export function typedPartners(method: Method): TypedPartners {
  const { titrantIds, titrant, standardId, standard, inBurette, links } = method;
  return {
    titrantIds,
    titrantSpecies: titrant.species,
    titrantNumber: String(titrant.perFormulaUnit),
    standardId,
    standardSpecies: standard.species,
    standardNumber: String(standard.perFormulaUnit),
    inBurette,
    links: links.join(', '),
  };
}

/** The same as a method holds it; not a number where something else was typed, which the contract refuses. */
export function partnersOf(
  typed: TypedPartners,
): Pick<Method, 'titrantIds' | 'titrant' | 'standardId' | 'standard' | 'inBurette' | 'links'> {
  const reacting = (species: string, number: string) => ({
    species: species.trim(),
    perFormulaUnit: numberIn(number),
  });
  return {
    titrantIds: typed.titrantIds,
    titrant: reacting(typed.titrantSpecies, typed.titrantNumber),
    standardId: typed.standardId,
    standard: reacting(typed.standardSpecies, typed.standardNumber),
    inBurette: typed.inBurette,
    links: typed.links
      .split(',')
      .map((link) => link.trim())
      .filter((link) => link !== ''),
  };
}

interface PartnerFieldsProps {
  readonly value: TypedPartners;
  readonly hasLinks: boolean;
  readonly errors: FieldMessages;
  readonly onChange: (partners: TypedPartners) => void;
}

/** What is standardized, against what, and which of their species react. */
export function PartnerFields({ value, hasLinks, errors, onChange }: PartnerFieldsProps) {
  const change = (changes: Partial<TypedPartners>): void => {
    onChange({ ...value, ...changes });
  };
  const field = fieldsOf(value, change, errors);
  const substances = optionsOf(useCatalogue().substances, ({ name }) => name);
  const reacting = (of: 'titrant' | 'standard') => (
    <>
      <TextField label="reacts as" {...field(`${of}Species`)} error={errors[of]} />
      <QuantityField label="in each formula" {...field(`${of}Number`)} />
    </>
  );
  return (
    <fieldset className="col-span-full grid grid-cols-1 gap-x-4 gap-y-3 md:grid-cols-[minmax(0,1fr)_160px_150px]">
      <legend className="mb-2 text-lg font-bold">What reacts</legend>
      <TitrantsField
        titrantIds={value.titrantIds}
        substances={substances}
        error={errors.titrantIds}
        onChange={(titrantIds) => {
          change({ titrantIds });
        }}
      />
      {reacting('titrant')}
      <SelectField label="Standard" options={substances} {...field('standardId')} />
      {reacting('standard')}
      <SelectField
        label="The burette holds"
        value={value.inBurette}
        options={IN_BURETTE}
        onText={(held) => {
          change({ inBurette: held === 'standard' ? 'standard' : 'titrant' });
        }}
      />
      {hasLinks && (
        <div className="col-span-full">
          <TextField
            label="Made in one step, used in the next"
            hint="In order, parted by commas."
            {...field('links')}
          />
        </div>
      )}
    </fieldset>
  );
}

const IN_BURETTE = [
  ['titrant', 'the titrant that is standardized'],
  ['standard', 'the standard, as a solution'],
] as const;

interface TitrantsFieldProps {
  readonly titrantIds: readonly string[];
  readonly substances: readonly Option[];
  readonly error: string | undefined;
  readonly onChange: (titrantIds: readonly string[]) => void;
}

/** The solutions that a method standardizes: another is added, one is left out. */
function TitrantsField({ titrantIds, substances, error, onChange }: TitrantsFieldProps) {
  const own = useOwn();
  return (
    <SelectField
      label="Titrants"
      hint={
        <span className="flex flex-wrap gap-1.5">
          {titrantIds.map((id) => (
            <SmallButton
              key={id}
              onClick={() => {
                onChange(titrantIds.filter((one) => one !== id));
              }}
            >
              {findSubstance(id, own)?.name ?? id}
              <span aria-hidden="true"> ×</span>
              <span className="sr-only">, leave out</span>
            </SmallButton>
          ))}
        </span>
      }
      error={error}
      value=""
      options={[['', 'add one'], ...substances.filter(([id]) => !titrantIds.includes(id))]}
      onText={(id) => {
        onChange([...titrantIds, id]);
      }}
    />
  );
}
