import type { Addition, OwnEntry, Preparation, PreparationStep } from '#core/chemistry';
import { CATALOGUE, usualSteps } from '#core/chemistry';
import type { RecordVersion } from '#core/record';
import { sameValue } from '#core/record';
import { naming, useCatalogue, useOwn } from '../app/ownEntries';
import { WORKS } from '../prepare/wording';
import { numberIn } from '../ui/numberIn';
import { linesOf } from '../rules/typedMethod';
import {
  CheckField,
  optionsOf,
  QuantityField,
  SelectField,
  TextAreaField,
  TextField,
} from '../ui/fields';
import { Form, FormFoot } from '../ui/Form';
import { fieldsOf, useTyped } from '../ui/useTyped';
import { Rows } from './Rows';
import { figureOf, numberOrNull } from './typedFigures';
import { useWritingEntry } from './useWritingEntry';

type OwnRecipe = Extract<OwnEntry, { readonly kind: 'recipe' }>;

/** A step as its form holds it. */
interface TypedStep {
  readonly work: PreparationStep['work'];
  readonly text: string;
  readonly wait: string;
}

/** Something that is added, as its form holds it. */
interface TypedAddition {
  readonly what: string;
  readonly amount: string;
  readonly unit: 'mL' | 'g';
  readonly growsWithSolute: boolean;
}

/** A recipe as its form holds it. */
interface TypedRecipe {
  readonly name: string;
  readonly soluteId: string;
  readonly route: Preparation['route'];
  readonly exactness: Preparation['exactness'];
  readonly molarity: string;
  readonly volume: string;
  /** Of what it is taken from; empty for a solid. */
  readonly stock: string;
  readonly concentrateId: string;
  readonly solventId: string;
  readonly additions: readonly TypedAddition[];
  readonly steps: readonly TypedStep[];
  readonly cautions: string;
  readonly source: string;
  readonly reason: string;
}

/** What a form begins with that copies nothing: a solid, weighed roughly, in water. */
export const NO_RECIPE: OwnRecipe = {
  kind: 'recipe',
  recipe: {
    ...{ id: '', name: '', soluteId: CATALOGUE.substances[0]?.id ?? '', route: 'weighed' },
    ...{ exactness: 'approximate', molarityMolPerL: 0.1, volumeMl: 1000, from: null },
    ...{ additions: [], solventId: 'water', steps: usualSteps('weighed-roughly', false) },
    ...{ cautions: [], sinceEdition: 1, source: '' },
  },
};

function typedRecipe({ recipe }: OwnRecipe): TypedRecipe {
  const { from } = recipe;
  return {
    name: recipe.name,
    soluteId: recipe.soluteId,
    route: recipe.route,
    exactness: recipe.exactness,
    molarity: figureOf(recipe.molarityMolPerL),
    volume: figureOf(recipe.volumeMl),
    stock: figureOf(from?.kind === 'stock' ? from.molarityMolPerL : null),
    concentrateId: from?.kind === 'concentrate' ? from.concentrateId : '',
    solventId: recipe.solventId,
    additions: recipe.additions.map((addition: Addition) => ({
      what: addition.what,
      amount: figureOf('massG' in addition ? addition.massG : addition.volumeMl),
      unit: 'massG' in addition ? 'g' : 'mL',
      growsWithSolute: addition.growsWithSolute,
    })),
    steps: typedSteps(recipe.steps),
    cautions: recipe.cautions.join('\n'),
    source: recipe.source,
    reason: '',
  };
}

function typedSteps(steps: readonly PreparationStep[]): readonly TypedStep[] {
  return steps.map(({ work, text, waitMinutes }) => ({ work, text, wait: figureOf(waitMinutes) }));
}

/** The steps that are usual for a way of making a solution, to begin with. */
function usualFor({ route, exactness }: Pick<TypedRecipe, 'route' | 'exactness'>) {
  const isExact = exactness === 'exact';
  const ways = {
    weighed: isExact ? 'weighed-exactly' : 'weighed-roughly',
    'from-solution': isExact ? 'diluted' : 'from-concentrate',
    'volumes-added': 'volumes-added',
  } as const;
  return typedSteps(usualSteps(ways[route], false));
}

/** The same as an entry holds it, under the id of its record. */
function writtenRecipe(typed: TypedRecipe, id: string) {
  return {
    kind: 'recipe' as const,
    recipe: {
      id,
      name: typed.name.trim(),
      soluteId: typed.soluteId,
      route: typed.route,
      exactness: typed.exactness,
      molarityMolPerL: numberIn(typed.molarity),
      volumeMl: numberIn(typed.volume),
      from: fromOf(typed),
      solventId: typed.solventId,
      additions: typed.additions.map(({ what, amount, unit, growsWithSolute }) => ({
        what: what.trim(),
        growsWithSolute,
        ...(unit === 'g' ? { massG: numberIn(amount) } : { volumeMl: numberIn(amount) }),
      })),
      steps: typed.steps.map(({ work, text, wait }) => ({
        work,
        text: text.trim(),
        waitMinutes: numberOrNull(wait),
      })),
      cautions: linesOf(typed.cautions),
      // What a plan follows, it carries: an edition of those that ship says nothing of it.
      sinceEdition: 1,
      source: typed.source.trim(),
    },
  };
}

function fromOf({ route, stock, concentrateId }: TypedRecipe) {
  if (route === 'weighed') return null;
  return concentrateId === ''
    ? { kind: 'stock' as const, molarityMolPerL: numberIn(stock) }
    : { kind: 'concentrate' as const, concentrateId };
}

interface RecipeFormProps {
  /** What is copied or changed. */
  readonly entry: OwnRecipe;
  readonly record: RecordVersion;
}

/** A recipe of the laboratory's own, which a plan for its substance follows before those that ship. */
export function RecipeForm({ entry, record }: RecipeFormProps) {
  const { write, errors, isBusy, error } = useWritingEntry(record, 'recipe');
  const { typed, field, part, change } = useTyped(() => typedRecipe(entry), errors);
  const { substances } = useCatalogue();
  const own = useOwn();
  /** Steps that nobody has touched are the usual ones of another way. */
  const changeWay = (way: Partial<Pick<TypedRecipe, 'route' | 'exactness'>>): void => {
    const isUntouched = sameValue(typed.steps, usualFor(typed));
    change({ ...way, ...(isUntouched && { steps: usualFor({ ...typed, ...way }) }) });
  };
  return (
    <Form
      className="grid max-w-[1040px] grid-cols-1 gap-x-8 gap-y-4 md:grid-cols-2"
      onSubmit={() => {
        write(writtenRecipe(typed, record.id), naming(own, [typed.soluteId]), typed.reason);
      }}
    >
      <TextField label="Name" {...field('name')} />
      <SelectField
        label="Makes a solution of"
        options={optionsOf(substances, ({ name }) => name)}
        {...field('soluteId')}
      />
      <SelectField
        label="By"
        options={ROUTES}
        value={typed.route}
        onText={(route) => {
          changeWay({ route: route as Preparation['route'] });
        }}
      />
      <SelectField
        label="How exactly"
        options={EXACTNESS}
        value={typed.exactness}
        onText={(exactness) => {
          changeWay({ exactness: exactness as Preparation['exactness'] });
        }}
      />
      <FromFields typed={typed} field={field} errors={errors} />
      <div className="grid grid-cols-1 gap-3 sm:grid-cols-2">
        <QuantityField
          label="Usually"
          unit="mol/L"
          {...field('molarity')}
          error={errors.molarityMolPerL}
        />
        <QuantityField label="Volume" unit="mL" {...field('volume')} error={errors.volumeMl} />
      </div>
      <SelectField
        label="In"
        options={optionsOf(CATALOGUE.solvents, ({ name }) => name)}
        {...field('solventId')}
      />
      <Rows
        legend="What goes in beside it"
        hint="For the usual molarity and volume; the plan computes how much for another. The last step “Add” says how much."
        one="addition"
        items={typed.additions}
        empty={NO_ADDITION}
        error={errors.additions}
        onChange={part('additions').onChange}
      >
        {(addition, put) => <AdditionFields value={addition} onChange={put} />}
      </Rows>
      <Rows
        legend="Steps, in the order of doing"
        one="step"
        isOrdered
        items={typed.steps}
        empty={NO_STEP}
        error={errors.steps}
        onChange={part('steps').onChange}
      >
        {(step, put) => <StepFields value={step} onChange={put} />}
      </Rows>
      <TextAreaField label="Cautions, a line each" rows={3} {...field('cautions')} />
      <TextAreaField label="Where it comes from" {...field('source')} />
      <TextAreaField
        label={record.version > 0 ? 'What changes, and why' : 'Why it is written'}
        {...field('reason')}
      />
      <FormFoot
        submit={record.version > 0 ? 'Write this version' : 'Write this recipe'}
        isDisabled={isBusy}
        error={error}
      />
    </Form>
  );
}

const NO_ADDITION: TypedAddition = { what: '', amount: '', unit: 'mL', growsWithSolute: false };
const NO_STEP: TypedStep = { work: 'add', text: '', wait: '' };

const ROUTES: readonly (readonly [Preparation['route'], string])[] = [
  ['weighed', 'weighing a solid'],
  ['from-solution', 'diluting a solution'],
  ['volumes-added', 'adding volumes together'],
];

const EXACTNESS: readonly (readonly [Preparation['exactness'], string])[] = [
  ['exact', 'exactly: balance, pipette, volumetric flask'],
  ['approximate', 'approximately: cylinder and beaker'],
];

interface FromFieldsProps {
  readonly typed: TypedRecipe;
  readonly field: ReturnType<typeof fieldsOf<TypedRecipe>>;
  readonly errors: Readonly<Record<string, string>>;
}

/** What is diluted: a concentrate as it is bought, or a solution of the laboratory's own. */
function FromFields({ typed, field, errors }: FromFieldsProps) {
  if (typed.route === 'weighed') return null;
  const concentrates = CATALOGUE.concentrates.filter(
    ({ substanceId }) => substanceId === typed.soluteId,
  );
  return (
    <div className="col-span-full grid grid-cols-1 gap-x-8 gap-y-3 md:grid-cols-2">
      <SelectField
        label="From"
        options={[
          ['', 'a stronger solution'],
          ...optionsOf(
            concentrates,
            ({ massPercent }) => `the concentrate, ${String(massPercent)} %`,
          ),
        ]}
        {...field('concentrateId')}
      />
      {typed.concentrateId === '' && (
        <QuantityField label="Of" unit="mol/L" {...field('stock')} error={errors.from} />
      )}
    </div>
  );
}

interface RowProps<T> {
  readonly value: T;
  readonly onChange: (changes: Partial<T>) => void;
}

function AdditionFields({ value, onChange }: RowProps<TypedAddition>) {
  const field = fieldsOf(value, onChange);
  return (
    <div className="grid grid-cols-1 items-end gap-3 sm:grid-cols-[minmax(0,1fr)_130px_90px]">
      <TextField label="What" placeholder="6 mol/L hydrochloric acid" {...field('what')} />
      <QuantityField label="How much" {...field('amount')} />
      <SelectField
        label="Unit"
        options={[
          ['mL', 'mL'],
          ['g', 'g'],
        ]}
        value={value.unit}
        onText={(unit) => {
          onChange({ unit: unit === 'g' ? 'g' : 'mL' });
        }}
      />
      <div className="col-span-full">
        <CheckField
          label="More of it in a stronger solution"
          checked={value.growsWithSolute}
          onTick={(growsWithSolute) => {
            onChange({ growsWithSolute });
          }}
        />
      </div>
    </div>
  );
}

function StepFields({ value, onChange }: RowProps<TypedStep>) {
  const field = fieldsOf(value, onChange);
  return (
    <div className="grid grid-cols-1 gap-3 sm:grid-cols-[230px_minmax(0,1fr)] lg:grid-cols-[230px_minmax(0,1fr)_120px]">
      <SelectField
        label="Work"
        options={Object.entries(WORKS)}
        value={value.work}
        onText={(work) => {
          onChange({ work: work as TypedStep['work'] });
        }}
      />
      <TextAreaField label="What to do" {...field('text')} />
      <QuantityField label="Wait" unit="min" {...field('wait')} />
    </div>
  );
}
