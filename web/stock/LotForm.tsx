import type { Own } from '#core/chemistry';
import {
  CATALOGUE,
  catalogueOf,
  extendCatalogue,
  findSubstance,
  lookalikesOf,
} from '#core/chemistry';
import type { Plain, PlainDate } from '#core/grammar';
import type { Lot, LotState } from '#core/reagent';
import { lotSchema } from '#contract';
import { naming, useCatalogue, useOwn } from '../app/ownEntries';
import { useSession } from '../app/session';
import { FormDateField } from '../ui/FormDateField';
import {
  asOptionalQuantity,
  asQuantity,
  CheckField,
  optionsOf,
  QuantityField,
  SelectField,
  TextField,
} from '../ui/fields';
import { NormalityField } from '../app/NormalityField';
import { PercentField } from '../ui/PercentField';
import { ChemicalFormula } from '../ui/typeset';
import { useContractForm } from '../ui/useContractForm';
import { StockFormFrame } from './StockFormFrame';
import { useRegistering } from './useRegistering';

interface LotFormProps {
  /** A lot that is put right; none for a new one. */
  readonly corrects?: LotState;
  readonly onDone: () => void;
}

/** Registers a lot with the figures of its certificate, or puts one right. */
export function LotForm({ corrects, onDone }: LotFormProps) {
  const { today } = useSession();
  const lot = useLotForm(corrects?.lot ?? emptyLot(today));
  const { form, field, showFailure, formError } = lot;
  const { enter, frame } = useRegistering({ corrects, onDone, showFailure });
  const own = useOwn();
  const dissolved = form.watch('dissolved');
  const isDissolved = dissolved !== null;
  const isByMolarity = dissolved?.meaning === 'by-molarity';
  const isByVolume = dissolved?.meaning === 'by-volume';
  const percent = (name: 'purity' | 'purityHalfWidth') => ({
    fraction: form.watch(name),
    error: field(name).error,
    onFraction: (fraction: string) => {
      form.setValue(name, fraction, { shouldValidate: form.formState.isSubmitted });
    },
  });
  return (
    <StockFormFrame
      name="A new lot"
      submit="Add the lot"
      {...frame}
      error={formError}
      onSubmit={form.handleSubmit(({ own: _, ...written }) => {
        const named = namingSubstance(own, written.substanceId);
        const isAsBefore = corrects?.lot.substanceId === written.substanceId;
        // What is out of use is not among those to choose from; the lot that names it carries it.
        const carried = isAsBefore && corrects.lot.own ? { own: corrects.lot.own } : {};
        const body = { ...written, ...carried, ...named };
        enter({ kind: 'lot.registered', body }, (reason) => ({
          kind: 'lot.corrected',
          body: { lot: body, reason },
        }));
      })}
    >
      <SubstanceFields {...lot} carried={corrects?.lot.own ?? []} />
      {isByMolarity ? (
        <PercentField
          key="relative"
          label="Plus or minus, relative"
          of="Of the molarity:"
          example="0.2"
          {...percent('purityHalfWidth')}
        />
      ) : (
        <>
          <PercentField
            label={isDissolved ? 'Content' : 'Purity'}
            example={isDissolved ? '37' : '99.98'}
            of={isByVolume ? 'Grams in a millilitre:' : 'Mass fraction'}
            {...percent('purity')}
          />
          <PercentField
            label={isDissolved ? 'Content, plus or minus' : 'Purity, plus or minus'}
            example={isDissolved ? '0.5' : '0.05'}
            of={isByVolume ? 'Grams in a millilitre:' : 'Mass fraction'}
            {...percent('purityHalfWidth')}
          />
        </>
      )}
      <SelectField label="Stated as" options={STATED_AS} {...field('purityDistribution')} />
      <QuantityField
        label="Amount received"
        unit={isDissolved ? 'mL' : 'g'}
        hint="Empty if it is not counted."
        {...field('amountReceived', asOptionalQuantity)}
      />
      <TextField label="Store" hint="Where it is kept: desiccator 1." {...field('store')} />
      <FormDateField label="Received on" control={form.control} name="receivedOn" />
      <FormDateField
        label="Opened on"
        hint="Empty while it is closed."
        control={form.control}
        name="openedOn"
        isOptional
      />
      <FormDateField
        label="Use by"
        hint="Empty if it has none."
        control={form.control}
        name="useBy"
        isOptional
      />
      <StatedMolarMass {...lot} />
    </StockFormFrame>
  );
}

const STATED_AS = [
  ['rectangular', 'limits (rectangular)'],
  ['triangular', 'limits, middle likelier (triangular)'],
  ['normal', 'a 95 % interval (normal)'],
] as const;

/** What of the laboratory's own a lot carries: its substance, and what that is easily mistaken for. */
function namingSubstance(own: Own, substanceId: string): ReturnType<typeof naming> {
  const substance = findSubstance(substanceId, own);
  const others = substance ? lookalikesOf(substance, own) : [];
  return naming(own, [substanceId, ...others.map(({ id }) => id)]);
}

function useLotForm(values: Lot | Plain<Lot>) {
  return useContractForm(lotSchema, values);
}

type LotFields = ReturnType<typeof useLotForm>;

function emptyLot(today: PlainDate): Plain<Lot> {
  return {
    substanceId: CATALOGUE.substances[0]?.id ?? '',
    lotNumber: '',
    supplier: '',
    certificateNumber: '',
    purity: '',
    purityHalfWidth: '',
    purityDistribution: 'rectangular',
    dissolved: null,
    statedMolarMass: null,
    amountReceived: null,
    store: '',
    receivedOn: today,
    openedOn: null,
    useBy: null,
  };
}

/** What it is, from whom, and whether it is a solution. */
function SubstanceFields({ form, field, carried }: LotFields & { readonly carried: Own }) {
  const substanceId = form.watch('substanceId');
  const dissolved = form.watch('dissolved');
  const substance = findSubstance(substanceId, [...useOwn(), ...carried]);
  const { substances } = extendCatalogue(catalogueOf(carried), useCatalogue());
  return (
    <>
      <SelectField
        label="Substance and form"
        hint={
          substance && (
            <>
              As received: {substance.form}, <ChemicalFormula of={substance.formula} />.
            </>
          )
        }
        options={optionsOf(substances, ({ name }) => name)}
        {...field('substanceId')}
      />
      <TextField label="Lot number" {...field('lotNumber')} />
      <TextField label="Supplier" {...field('supplier')} />
      <TextField
        label="Number of its certificate"
        hint="Empty if it has none."
        {...field('certificateNumber')}
      />
      <SelectField
        label="It is"
        value={dissolved?.meaning ?? 'solid'}
        options={IT_IS}
        hint={HINTS[dissolved?.meaning ?? 'solid']}
        onText={(meaning) => {
          form.setValue('dissolved', dissolvedAs(meaning, substanceId));
          // The molarity of its label says the rest.
          if (meaning === 'by-molarity') form.setValue('purity', '1');
        }}
      />
      {dissolved?.meaning === 'by-molarity' && (
        <>
          <QuantityField
            label="Molarity"
            unit="mol/L"
            {...field('dissolved.molarity', asQuantity)}
          />
          <NormalityField
            key={substanceId}
            substanceId={substanceId}
            onMolarity={(molarity) => {
              form.setValue('dissolved.molarity', molarity);
            }}
          />
        </>
      )}
      {dissolved?.meaning === 'by-mass' && (
        <QuantityField
          label="Density"
          unit="g/mL"
          {...field('dissolved.densityGPerMl', asQuantity)}
        />
      )}
    </>
  );
}

const WHICH_PERCENTAGE =
  'Read on its label which percentage it states: the two differ by its density.';

const HINTS = {
  solid: 'A concentrate is a solution.',
  'by-mass': WHICH_PERCENTAGE,
  'by-volume': WHICH_PERCENTAGE,
  'by-molarity': 'As its label or certificate states it.',
};

const IT_IS = [
  ['solid', 'a solid, or weighed as it is'],
  ['by-mass', 'a solution, % by mass (m/m)'],
  ['by-volume', 'a solution, grams in 100 mL (m/V)'],
  ['by-molarity', 'a solution, mol/L'],
] as const;

/** What was chosen of `IT_IS`, with the density of the usual concentrate to begin with. */
function dissolvedAs(meaning: string, substanceId: string): Plain<Lot>['dissolved'] {
  const concentrate = CATALOGUE.concentrates.find((one) => one.substanceId === substanceId);
  const densityGPerMl = concentrate ? String(concentrate.densityGPerMl) : '';
  if (meaning === 'by-mass') return { meaning, densityGPerMl };
  if (meaning === 'by-molarity') return { meaning, molarity: '' };
  return meaning === 'by-volume' ? { meaning } : null;
}

/** The molar mass, where the certificate states one. */
function StatedMolarMass({ form, field }: LotFields) {
  const isStated = form.watch('statedMolarMass') !== null;
  return (
    <>
      <CheckField
        label="The certificate states a molar mass"
        hint="Otherwise it follows from the formula."
        checked={isStated}
        onTick={(isTicked) => {
          const empty = { valueGPerMol: '', standardUncertaintyGPerMol: '' };
          form.setValue('statedMolarMass', isTicked ? empty : null);
        }}
      />
      {isStated && (
        <>
          <QuantityField
            label="Molar mass"
            unit="g/mol"
            {...field('statedMolarMass.valueGPerMol', asQuantity)}
          />
          <QuantityField
            label="Its standard uncertainty"
            unit="g/mol"
            {...field('statedMolarMass.standardUncertaintyGPerMol', asQuantity)}
          />
        </>
      )}
    </>
  );
}
