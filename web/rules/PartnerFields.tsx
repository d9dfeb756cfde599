import type { Method } from '#core/chemistry';
import { CATALOGUE, findSubstance } from '#core/chemistry';
import { parseDecimal } from '#core/measurement';
import { SmallButton } from '../ui/Button';
import { QuantityField, SelectField, TextField } from '../ui/fields';

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
    perFormulaUnit: Number(parseDecimal(number) ?? Number.NaN),
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
  readonly partners: TypedPartners;
  readonly hasLinks: boolean;
  readonly errors: Readonly<Partial<Record<string, string>>>;
  readonly onChange: (partners: TypedPartners) => void;
}

/** What is standardized, against what, and which of their species react. */
export function PartnerFields({ partners, hasLinks, errors, onChange }: PartnerFieldsProps) {
  const change = (changes: Partial<TypedPartners>): void => {
    onChange({ ...partners, ...changes });
  };
  const { titrantIds } = partners;
  return (
    <fieldset className="col-span-full grid grid-cols-1 gap-x-4 gap-y-3 md:grid-cols-[minmax(0,1fr)_160px_150px]">
      <legend className="mb-2 text-lg font-bold">What reacts</legend>
      <SelectField
        label="Titrants"
        hint={
          <span className="flex flex-wrap gap-1.5">
            {titrantIds.map((id) => (
              <SmallButton
                key={id}
                onClick={() => {
                  change({ titrantIds: titrantIds.filter((one) => one !== id) });
                }}
              >
                {findSubstance(id)?.name ?? id}
                <span aria-hidden="true"> ×</span>
                <span className="sr-only">, leave out</span>
              </SmallButton>
            ))}
          </span>
        }
        error={errors.titrantIds}
        value=""
        onText={(id) => {
          change({ titrantIds: [...titrantIds, id] });
        }}
      >
        <option value="">add one</option>
        <Substances but={titrantIds} />
      </SelectField>
      <ReactsAs
        species={partners.titrantSpecies}
        number={partners.titrantNumber}
        error={errors.titrant}
        onSpecies={(titrantSpecies) => {
          change({ titrantSpecies });
        }}
        onNumber={(titrantNumber) => {
          change({ titrantNumber });
        }}
      />
      <SelectField
        label="Standard"
        value={partners.standardId}
        error={errors.standardId}
        onText={(standardId) => {
          change({ standardId });
        }}
      >
        <Substances but={[]} />
      </SelectField>
      <ReactsAs
        species={partners.standardSpecies}
        number={partners.standardNumber}
        error={errors.standard}
        onSpecies={(standardSpecies) => {
          change({ standardSpecies });
        }}
        onNumber={(standardNumber) => {
          change({ standardNumber });
        }}
      />
      <SelectField
        label="The burette holds"
        value={partners.inBurette}
        onText={(held) => {
          change({ inBurette: held === 'standard' ? 'standard' : 'titrant' });
        }}
      >
        <option value="titrant">the titrant that is standardized</option>
        <option value="standard">the standard, as a solution</option>
      </SelectField>
      {hasLinks && (
        <div className="col-span-full">
          <TextField
            label="Made in one step, used in the next"
            hint="In order, parted by commas."
            value={partners.links}
            error={errors.links}
            onText={(links) => {
              change({ links });
            }}
          />
        </div>
      )}
    </fieldset>
  );
}

/** The substances of the catalogue to choose from, but some. */
function Substances({ but }: { readonly but: readonly string[] }) {
  return CATALOGUE.substances
    .filter(({ id }) => !but.includes(id))
    .map(({ id, name }) => (
      <option key={id} value={id}>
        {name}
      </option>
    ));
}

interface ReactsAsProps {
  readonly species: string;
  readonly number: string;
  readonly error: string | undefined;
  readonly onSpecies: (species: string) => void;
  readonly onNumber: (number: string) => void;
}

/** The species that a substance reacts as, and how many of it a formula unit gives. */
function ReactsAs({ species, number, error, onSpecies, onNumber }: ReactsAsProps) {
  return (
    <>
      <TextField label="reacts as" value={species} error={error} onText={onSpecies} />
      <QuantityField label="in each formula" value={number} onText={onNumber} />
    </>
  );
}
