import { useNavigate, useSearchParams } from 'react-router';
import { findSubstance, keepingOf } from '#core/chemistry';
import { figureText, roundSignificant } from '#core/measurement';
import { massForSolutionG } from '#core/preparation';
import type { Lot, LotState } from '#core/reagent';
import { lotMolarity, lotMolarMass } from '#core/reagent';
import { bottleSchema } from '#contract';
import { Loading } from '../app/Loading';
import { useBeginRecord } from '../app/entering';
import { lotChoice } from '../app/choices';
import { useRecords, useStockLeft } from '../app/records';
import { naming, useCatalogue, useOwn } from '../app/ownEntries';
import { useSession } from '../app/session';
import { PeopleOptions } from '../people/PeopleOptions';
import { FormDateField } from '../ui/FormDateField';
import { ButtonLink } from '../ui/Button';
import { Cautions } from '../ui/Cautions';
import { ChoiceField } from '../ui/ChoiceField';
import { ContainerField } from '../ui/ContainerField';
import { asQuantity, QuantityField, SelectField, TextAreaField, TextField } from '../ui/fields';
import { Form, FormFoot } from '../ui/Form';
import { NormalityField } from '../app/NormalityField';
import { Page } from '../ui/Page';
import { capitalized } from '../ui/typeset';
import { numberIn } from '../ui/numberIn';
import { useContractForm } from '../ui/useContractForm';
import { useNextCode } from './useNextCode';

/**
 * Writes down a titrant that has been made up already, which goes on the shelf as not standardized; or a solution that was bought
 * with a certified molarity.
 */
export function WriteDownPage() {
  const lots = useRecords('lot');
  const code = useNextCode();
  if (!lots || code === undefined) return <Loading />;
  const choices = {
    made: lots.filter(isMaterial),
    bought: lots.filter(({ lot }) => lot.dissolved),
  };
  return (
    <Page
      title="Write down a solution"
      tabTitle="Write down a solution"
      lead="Made up already, nominal until it is standardized; or bought, with a certified molarity."
      actions={<ButtonLink to="/prepare">Plan one instead</ButtonLink>}
    >
      {choices.made.length + choices.bought.length === 0 ? (
        <NoMaterial />
      ) : (
        <PrepareForm choices={choices} code={code} />
      )}
    </Page>
  );
}

function isMaterial({ lot }: LotState): boolean {
  return findSubstance(lot.substanceId, lot.own)?.role === 'titrant-material';
}

function NoMaterial() {
  return (
    <section className="max-w-xl">
      <p className="mb-5 text-lg">
        There is no lot to make a titrant from. Add the sodium hydroxide that you use, then come
        back.
      </p>
      <ButtonLink to="/lots" look="primary">
        Add a lot
      </ButtonLink>
    </section>
  );
}

/** The lots of which a titrant may have been made, and those that are solutions and may have been bought certified. */
interface Choices {
  readonly made: readonly LotState[];
  readonly bought: readonly LotState[];
}

const NONE_KNOWN: ReadonlyMap<string, number> = new Map();

interface PrepareFormProps {
  readonly choices: Choices;
  readonly code: string;
}

function PrepareForm({ choices, code }: PrepareFormProps) {
  const begin = useBeginRecord();
  const own = useOwn();
  const { today } = useSession();
  const around = { today, left: useStockLeft() ?? NONE_KNOWN };
  const navigate = useNavigate();
  const { form, field, showFailure, formError } = useBottleForm(choices.made, code);
  const isBought = form.watch('purpose') === 'standard';
  const offered = isBought ? choices.bought : choices.made;
  const chosenLot = offered.find(({ id }) => id === form.watch('parents.0.id'))?.lot;
  const take = (lot: LotState | undefined): void => {
    form.setValue('parents.0.id', lot?.id ?? '');
    form.setValue('substanceId', lot?.lot.substanceId ?? '');
  };
  return (
    <div className="grid grid-cols-1 gap-12 xl:grid-cols-[minmax(0,640px)_minmax(0,360px)]">
      <Form
        className="grid grid-cols-1 content-start gap-x-6 gap-y-4 md:grid-cols-2"
        onSubmit={form.handleSubmit((body) => {
          const named = naming(own, [body.substanceId]);
          begin.mutate(
            { kind: 'bottle.prepared', body: { ...body, ...named } },
            { onSuccess: () => void navigate('/'), onError: showFailure },
          );
        })}
      >
        <SelectField
          label="It is"
          value={isBought ? 'bought' : 'made'}
          options={[
            ['made', 'a titrant, made up here'],
            ['bought', 'bought, with a certificate'],
          ]}
          onText={(kind) => {
            form.setValue('purpose', kind === 'bought' ? 'standard' : 'titrant');
            form.setValue('made', kind === 'bought' ? NOT_READ : null);
            form.setValue('useBy', null);
            take((kind === 'bought' ? choices.bought : choices.made)[0]);
          }}
        />
        <ChoiceField
          label={isBought ? 'Lot' : 'Made from lot'}
          {...(isBought ? { hint: 'Attach the certificate of the supplier to this lot.' } : {})}
          items={offered.map((one) => lotChoice(one, around))}
          chosenId={form.watch('parents.0.id')}
          error={field('parents.0.id').error}
          onChoose={(lotId) => {
            take(offered.find(({ id }) => id === lotId));
          }}
        />
        <TextField
          label="Bottle code"
          hint="What is written on the bottle."
          className="font-mono"
          {...field('code')}
        />
        <QuantityField
          label="Nominal molarity"
          unit="mol/L"
          {...field('nominalMolarity', asQuantity)}
        />
        {chosenLot && (
          <NormalityField
            key={chosenLot.substanceId}
            substanceId={chosenLot.substanceId}
            onMolarity={(molarity) => {
              form.setValue('nominalMolarity', molarity);
            }}
          />
        )}
        {isBought && (
          <>
            <QuantityField
              label="Certified molarity"
              unit="mol/L"
              {...field('made.molarity', asQuantity)}
            />
            <QuantityField
              label="Plus or minus"
              unit="mol/L"
              hint="The expanded uncertainty U of the certificate."
              {...field('made.expandedUncertainty', asQuantity)}
            />
            <QuantityField label="k" {...field('made.coverageFactor', asQuantity)} />
            <FormDateField label="Use by" control={form.control} name="useBy" isOptional />
          </>
        )}
        <QuantityField label="Volume" unit="mL" {...field('volumeMl', asQuantity)} />
        <FormDateField
          label={isBought ? 'Opened on' : 'Made on'}
          control={form.control}
          name="preparedOn"
        />
        <SelectField label={isBought ? 'Opened by' : 'Made by'} {...field('preparedBy')}>
          <PeopleOptions />
        </SelectField>
        <ContainerField {...field('container')} />
        <TextAreaField label="Note" {...field('note')} />
        <FormFoot submit="Put it on the shelf" isDisabled={begin.isPending} error={formError} />
      </Form>
      <Beside
        lot={chosenLot}
        isBought={isBought}
        molarity={form.watch('nominalMolarity')}
        volumeMl={form.watch('volumeMl')}
      />
    </div>
  );
}

/** A certified molarity that is still to be typed. */
const NOT_READ = { molarity: '', expandedUncertainty: '', coverageFactor: '2', unrounded: null };

/** A bottle as a titrant's address may have begun it. */
function useBottleForm(materials: readonly LotState[], code: string) {
  const { person, today } = useSession();
  const [search] = useSearchParams();
  const first = materials.find(({ id }) => id === search.get('lot')) ?? materials[0];
  const substanceId = first?.lot.substanceId ?? '';
  return useContractForm(bottleSchema, {
    code,
    substanceId,
    nominalMolarity: search.get('molarity') ?? '0.1',
    volumeMl: search.get('volume') ?? '1000',
    parents: [{ kind: 'lot', id: first?.id ?? '' }],
    purpose: 'titrant',
    preparationId: null,
    made: null,
    plausibleMolarity: null,
    dilutionFactor: null,
    useBy: null,
    preparedOn: today,
    preparedBy: person.id,
    container: keepingOf(substanceId, first?.lot.own)?.container ?? 'plastic',
    note: search.get('note') ?? '',
  });
}

/** Cautions, how much is weighed, and what must be exact. */
function Beside({ isBought, ...props }: AboutToWeighProps & { readonly isBought: boolean }) {
  const { substanceId = '', own } = props.lot ?? {};
  const cautions = findSubstance(substanceId, own)?.cautions ?? [];
  if (isBought) return <Cautions cautions={cautions} />;
  return (
    <aside className="flex flex-col gap-5">
      <Cautions cautions={cautions} />
      <AboutToWeigh {...props} />
      <section className="text-[15px]">
        <h2 className="font-bold">What must be exact here</h2>
        <p className="mt-1 text-ink-soft">
          Nothing. Mass and volume are approximate: titration finds the molarity.
        </p>
        {props.lot && <HowTo {...props.lot} />}
      </section>
    </aside>
  );
}

/** The work as the catalogue has it, and where the solution is kept. */
function HowTo({ substanceId, own }: Pick<Lot, 'substanceId' | 'own'>) {
  const recipes = useCatalogue().preparations.filter(
    ({ soluteId, exactness }) => soluteId === substanceId && exactness === 'approximate',
  );
  const recipe = recipes.find(({ route }) => route === 'weighed') ?? recipes[0];
  const keeping = keepingOf(substanceId, own);
  return (
    <>
      {recipe && (
        <>
          <h2 className="mt-4 font-bold">{capitalized(recipe.name)}</h2>
          <ol className="mt-1 list-decimal pl-5 text-ink-soft">
            {recipe.steps.map(({ text }) => (
              <li key={text}>{text}</li>
            ))}
          </ol>
        </>
      )}
      {keeping && <p className="mt-2 text-ink-soft">Keep it in {keeping.remark}.</p>}
    </>
  );
}

interface AboutToWeighProps {
  readonly lot: LotState['lot'] | undefined;
  readonly molarity: string;
  readonly volumeMl: string;
}

/** Roughly what the chosen lot asks for; silent while a figure is missing. */
function AboutToWeigh({ lot, molarity, volumeMl }: AboutToWeighProps) {
  const figures = [molarity, volumeMl].map(numberIn);
  const [molarityMolPerL = Number.NaN, volume = Number.NaN] = figures;
  if (!lot || !(molarityMolPerL > 0) || !(volume > 0)) return null;
  const strength = lotMolarity(lot);
  const amount =
    strength === null
      ? massForSolutionG(molarityMolPerL, volume, {
          molarMassGPerMol: lotMolarMass(lot).valueGPerMol,
          purity: Number(lot.purity),
        })
      : (molarityMolPerL * volume) / strength;
  return (
    <section>
      <p className="text-ink-soft">
        {strength === null ? 'Weigh, to the nearest tenth of a gram,' : 'Measure by cylinder'}
      </p>
      <p className="text-[28px] leading-tight font-bold">
        about <span className="font-mono">{figureText(roundSignificant(amount, 2))}</span>{' '}
        {strength === null ? 'g' : 'mL'} of{' '}
        <span className="whitespace-nowrap">lot {lot.lotNumber}</span>
      </p>
    </section>
  );
}
