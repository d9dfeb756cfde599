import type { OwnEntry, Substance } from '#core/chemistry';
import { CATALOGUE, substanceMass } from '#core/chemistry';
import { WASTE_CONTAINERS } from '#core/label';
import { figureText, roundSignificant } from '#core/measurement';
import { Unanswerable } from '#core/problem';
import type { RecordVersion } from '#core/record';
import { naming, useCatalogue, useOwn } from '../app/ownEntries';
import { ContainerField } from '../ui/ContainerField';
import type { FieldMessages } from '../ui/fieldMessages';
import { optionsOf, QuantityField, SelectField, TextAreaField, TextField } from '../ui/fields';
import { Form, FormFoot } from '../ui/Form';
import { ChemicalFormula } from '../ui/typeset';
import { fieldsOf, useTyped } from '../ui/useTyped';
import { HazardFields } from './HazardFields';
import { KeepsField } from './KeepsField';
import type { TypedColour, TypedDrying, TypedKeeping, TypedSubstance } from './typedSubstance';
import { formsBeside, typedSubstance, writtenSubstance } from './typedSubstance';
import { useWritingEntry } from './useWritingEntry';

interface SubstanceFormProps {
  /** What is copied or changed. */
  readonly entry: Extract<OwnEntry, { readonly kind: 'substance' }>;
  readonly record: RecordVersion;
}

/** A substance of the laboratory's own; what follows from its formula is shown while it is typed. */
export function SubstanceForm({ entry, record }: SubstanceFormProps) {
  const { write, errors, isBusy, error } = useWritingEntry(record, 'substance');
  const { typed, field, part, change } = useTyped(() => typedSubstance(entry), errors);
  const { substances } = useCatalogue();
  const own = useOwn();
  return (
    <Form
      className="grid max-w-[1040px] grid-cols-1 gap-x-8 gap-y-4 md:grid-cols-2"
      onSubmit={() => {
        const written = writtenSubstance(entry, typed, record.id, substances);
        write(written, naming(own, written.substance.mistakenFor), typed.reason);
      }}
    >
      <TextField label="Name" placeholder="potassium hydrogen tartrate" {...field('name')} />
      <TextField
        label="Short name"
        hint="On labels and in tables: a formula, or a few letters."
        {...field('shortName')}
      />
      <div className="col-span-full grid grid-cols-1 gap-x-8 gap-y-3 md:grid-cols-2">
        <TextField
          label="Formula, as it is weighed"
          hint="Water of crystallization after a dot: H2C2O4·2H2O or H2C2O4*2H2O."
          {...field('formula')}
        />
        <OfFormula formula={typed.formula} id={record.id} known={substances} />
      </div>
      <SelectField
        label="It is"
        options={ROLES}
        value={typed.role}
        onText={(role) => {
          change({ role: role as Substance['role'] });
        }}
      />
      <TextField label="Form" placeholder="crystals" {...field('form')} />
      <QuantityField
        label="Density of the solid"
        unit="g/cm³"
        hint="For buoyancy. Empty where it is not known."
        {...field('density')}
        error={errors.densityGPerCm3}
      />
      <QuantityField
        label="Dissolves up to"
        unit="mol/L"
        hint="At 20 °C. Empty where no limit is kept."
        {...field('solubility')}
        error={errors.solubilityMolPerL}
      />
      <DryingFields {...part('drying')} />
      <SelectField
        label="Dissolved in"
        options={optionsOf(CATALOGUE.solvents, ({ name }) => name)}
        {...field('solventId')}
      />
      <SelectField
        label="Waste"
        options={WASTES}
        value={typed.waste}
        onText={(waste) => {
          change({ waste: waste as Substance['waste'] });
        }}
      />
      <ColourFields {...part('colour')} error={errors.solutionColour} />
      <HazardFields {...part('hazards')} />
      <TextAreaField label="Cautions, a line each" rows={3} {...field('cautions')} />
      <KeepingFields {...part('keeping')} errors={errors} />
      <TextAreaField
        label="Where these figures come from"
        placeholder="safety data sheet of 3 March 2026; our file 12"
        {...field('source')}
      />
      <TextAreaField
        label={record.version > 0 ? 'What changes, and why' : 'Why it is written'}
        {...field('reason')}
      />
      <FormFoot
        submit={record.version > 0 ? 'Write this version' : 'Write this substance'}
        isDisabled={isBusy}
        error={error}
      />
    </Form>
  );
}

const ROLES: readonly (readonly [Substance['role'], string])[] = [
  ['primary-standard', 'a primary standard, weighed exactly'],
  ['titrant-material', 'a material for titrants'],
  ['reagent', 'a reagent: acid, buffer, medium'],
];

const WASTES = Object.entries(WASTE_CONTAINERS).map(
  ([waste, container]) => [waste, container === '' ? 'harmless' : container] as const,
);

interface OfFormulaProps {
  readonly formula: string;
  readonly id: string;
  readonly known: readonly Substance[];
}

/** What a formula comes to, how much of it is water, and what else is written so but for its water. */
function OfFormula({ formula, id, known }: OfFormulaProps) {
  const mass = massOf(formula);
  if (mass === null) return <p className="self-center text-ink-soft">Its molar mass follows.</p>;
  if (mass instanceof Unanswerable) return <p className="self-center text-blush">{mass.message}</p>;
  const forms = formsBeside(formula, id, known);
  const figure = (gPerMol: number): string => figureText(roundSignificant(gPerMol, 6));
  return (
    <div className="self-center text-[15px]">
      <p>
        <b className="text-lg">
          M = <span className="font-mono">{figure(mass)}</span> g/mol
        </b>
      </p>
      {forms.length > 0 && (
        <>
          <p className="mt-1">Take care which one the bottle holds:</p>
          <ul className="list-disc pl-5">
            {forms.map(({ substance, waterMore }) => (
              <li key={substance.id}>
                {substance.name}, <ChemicalFormula of={substance.formula} />,{' '}
                <span className="font-mono">
                  {figure(substanceMass(substance.formula).valueGPerMol)}
                </span>{' '}
                g/mol{waterText(waterMore)}
              </li>
            ))}
          </ul>
        </>
      )}
    </div>
  );
}

function waterText(waterMore: number): string {
  if (waterMore === 0) return ': the same formula';
  const size = String(Math.abs(waterMore));
  return waterMore > 0 ? `: ${size} H₂O more` : `: ${size} H₂O less`;
}

/** Null while nothing is typed; why not where it cannot be read. */
function massOf(formula: string): number | Unanswerable | null {
  if (formula.trim() === '') return null;
  try {
    return substanceMass(formula).valueGPerMol;
  } catch (error) {
    if (error instanceof Unanswerable) return error;
    throw error;
  }
}

interface DryingFieldsProps {
  readonly value: TypedDrying;
  readonly error: string | undefined;
  readonly onChange: (drying: TypedDrying) => void;
}

const DRYINGS: readonly (readonly [TypedSubstance['drying']['kind'], string])[] = [
  ['', 'nothing is said of it'],
  ['oven', 'in the oven'],
  ['desiccator', 'in the desiccator only'],
  ['not-heated', 'never heated'],
  ['not-needed', 'not needed'],
];

function DryingFields({ value, error, onChange }: DryingFieldsProps) {
  const field = fieldsOf(value, (changes) => {
    onChange({ ...value, ...changes });
  });
  return (
    <fieldset className="col-span-full grid grid-cols-1 gap-x-4 gap-y-3 sm:grid-cols-2 lg:grid-cols-[220px_repeat(3,120px)_minmax(0,1fr)]">
      <legend className="sr-only">Drying</legend>
      <SelectField
        label="Drying"
        options={DRYINGS}
        value={value.kind}
        error={error}
        onText={(kind) => {
          onChange({ ...value, kind: kind as TypedDrying['kind'] });
        }}
      />
      {value.kind === 'oven' && (
        <>
          <QuantityField label="From" unit="°C" {...field('low')} />
          <QuantityField label="to" unit="°C" {...field('high')} />
          <QuantityField label="For" unit="h" {...field('hours')} />
        </>
      )}
      {value.kind !== '' && (
        <div className={value.kind === 'oven' ? '' : 'lg:col-span-4'}>
          <TextField label="Remark" {...field('remark')} />
        </div>
      )}
    </fieldset>
  );
}

interface ColourFieldsProps {
  readonly value: TypedColour;
  readonly error: string | undefined;
  readonly onChange: (colour: TypedColour) => void;
}

/** How a solution looks in the burette, in a word and as a swatch, and how strong it is then. */
function ColourFields({ value, error, onChange }: ColourFieldsProps) {
  const field = fieldsOf(value, (changes) => {
    onChange({ ...value, ...changes });
  });
  return (
    <fieldset className="col-span-full grid grid-cols-1 gap-x-4 gap-y-3 sm:grid-cols-[minmax(0,300px)_80px_minmax(0,200px)]">
      <legend className="sr-only">Colour of its solutions</legend>
      <TextField
        label="Colour of its solutions"
        hint="Empty where they are as clear as water."
        {...field('word')}
        error={error}
      />
      {value.word.trim() !== '' && (
        <>
          <label className="font-semibold">
            <span className="mb-1 block">Shade</span>
            <input
              type="color"
              className="h-12 w-full rounded-md border border-rule-strong bg-sheet p-1"
              value={value.css}
              onChange={(event) => {
                onChange({ ...value, css: event.target.value });
              }}
            />
          </label>
          <QuantityField
            label="When it has"
            unit="mol/L"
            hint="In the burette."
            {...field('molarity')}
          />
        </>
      )}
    </fieldset>
  );
}

interface KeepingFieldsProps {
  readonly value: TypedKeeping;
  readonly errors: FieldMessages;
  readonly onChange: (keeping: TypedKeeping) => void;
}

function KeepingFields({ value, errors, onChange }: KeepingFieldsProps) {
  const field = fieldsOf(value, (changes) => {
    onChange({ ...value, ...changes });
  });
  return (
    <fieldset className="col-span-full grid grid-cols-1 gap-x-8 gap-y-4 md:grid-cols-2">
      <legend className="mb-2 text-lg font-bold">How its solutions keep</legend>
      <KeepsField
        label="Good for"
        hint="Empty where nobody knows: then each bottle is given its last day."
        value={value.interval}
        error={errors.keeping}
        onChange={(interval) => {
          onChange({ ...value, interval });
        }}
      />
      <ContainerField
        value={value.container}
        onText={(container) => {
          onChange({ ...value, container: container as TypedKeeping['container'] });
        }}
      />
      <TextField label="Kept in" placeholder="brown glass, in the dark" {...field('remark')} />
      <TextField label="Ended by" placeholder="a deposit" {...field('endedBy')} />
    </fieldset>
  );
}
