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

/** What is standardized, against what, and which of their species react. */
export function PartnerFields({
  partners,
  hasLinks,
  errors,
  onChange,
}: {
  readonly partners: TypedPartners;
  readonly hasLinks: boolean;
  readonly errors: Readonly<Partial<Record<string, string>>>;
  readonly onChange: (partners: TypedPartners) => void;
}) {
  const change = (changes: Partial<TypedPartners>): void => {
    onChange({ ...partners, ...changes });
  };
  const { titrantIds } = partners;
  return (
    <fieldset className="col-span-2 grid grid-cols-[minmax(0,1fr)_160px_150px] gap-x-4 gap-y-3">
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
        onChange={(event) => {
          change({ titrantIds: [...titrantIds, event.target.value] });
        }}
      >
        <option value="">add one</option>
        {CATALOGUE.substances
          .filter(({ id }) => !titrantIds.includes(id))
          .map(({ id, name }) => (
            <option key={id} value={id}>
              {name}
            </option>
          ))}
      </SelectField>
      <TextField
        label="reacts as"
        value={partners.titrantSpecies}
        error={errors.titrant}
        onChange={(event) => {
          change({ titrantSpecies: event.target.value });
        }}
      />
      <QuantityField
        label="in each formula"
        value={partners.titrantNumber}
        onChange={(event) => {
          change({ titrantNumber: event.target.value });
        }}
      />
      <SelectField
        label="Standard"
        value={partners.standardId}
        error={errors.standardId}
        onChange={(event) => {
          change({ standardId: event.target.value });
        }}
      >
        {CATALOGUE.substances.map(({ id, name }) => (
          <option key={id} value={id}>
            {name}
          </option>
        ))}
      </SelectField>
      <TextField
        label="reacts as"
        value={partners.standardSpecies}
        error={errors.standard}
        onChange={(event) => {
          change({ standardSpecies: event.target.value });
        }}
      />
      <QuantityField
        label="in each formula"
        value={partners.standardNumber}
        onChange={(event) => {
          change({ standardNumber: event.target.value });
        }}
      />
      <SelectField
        label="The burette holds"
        value={partners.inBurette}
        onChange={(event) => {
          change({ inBurette: event.target.value as Method['inBurette'] });
        }}
      >
        <option value="titrant">the titrant that is standardized</option>
        <option value="standard">the standard, as a solution</option>
      </SelectField>
      {hasLinks && (
        <div className="col-span-2">
          <TextField
            label="Made in one step, used in the next"
            hint="In order, parted by commas."
            value={partners.links}
            error={errors.links}
            onChange={(event) => {
              change({ links: event.target.value });
            }}
          />
        </div>
      )}
    </fieldset>
  );
}
