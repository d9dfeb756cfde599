import { useState } from 'react';
import { useNavigate, useSearchParams } from 'react-router';
import { findSubstance } from '#core/chemistry';
import type { HouseRules } from '#core/laboratory';
import { figureText, parseDecimal } from '#core/measurement';
import type { Finding } from '#core/record';
import { may } from '#core/rights';
import { earlierSeriesOf } from '#core/titration/judging';
import type { EarlierSeries } from '#core/titration/setUp';
import { adviceAgainst, checkRunStart } from '#core/titration/record';
import { findingText } from '#core/wording';
import type { NewFact } from '#contract';
import { useBeginRecord } from '../app/entering';
import { NotAllHere } from '../app/NotAllHere';
import { useRunList } from '../app/lists';
import { useRuns } from '../app/records';
import { useSession } from '../app/session';
import { bottleChoice, equipmentChoice, lotChoice } from '../app/choices';
import { Cautions } from '../ui/Cautions';
import { ChoiceField } from '../ui/ChoiceField';
import type { FieldMessages } from '../ui/fieldMessages';
import { reasonOrNull } from '../ui/fieldMessages';
import { CheckField, QuantityField, TextAreaField } from '../ui/fields';
import { Form, FormFoot } from '../ui/Form';
import { messagesOf } from '../ui/refusal';
import { useTyped } from '../ui/useTyped';
import {
  ExcessChoice,
  InstrumentField,
  methodChoice,
  Missing,
  NOT_MEASURED,
  substanceName,
} from './Choices';
import { HazardsAtHand } from './HazardsAtHand';
import type { Chosen, OnTheBench, Stores } from './onTheBench';
import { at, onTheBench } from './onTheBench';
import type { Shelf } from './methodOptions';
import { SeriesPlanView } from './SeriesPlanView';

/** What is typed; its names are those of the run's first fact. */
const TYPED = {
  temperatureC: '',
  /** Of the titrant, on the thermometer that was chosen. */
  readC: '',
  airDensityKgPerM3: '',
  temperatureVariationK: '3',
  methodRepeatabilityPercent: '',
  reason: '',
};

type Typed = typeof TYPED;

const NOTHING_CHOSEN: Chosen = {
  bottleId: null,
  optionKey: null,
  standardId: null,
  instrumentId: null,
  excessId: null,
  pipetteId: null,
  buretteId: null,
  thermometerId: null,
};

/** What a run is made with, and the plan that follows from it. */
export function SetUpForm(stores: Stores) {
  const [search] = useSearchParams();
  const [chosen, setChosen] = useState({ ...NOTHING_CHOSEN, bottleId: search.get('bottle') });
  const [firstIsRough, setFirstIsRough] = useState<boolean | null>(null);
  const bench = onTheBench(chosen, stores);
  const { start, errors, errorAt, findings, isBusy, error } = useStart(bench);
  const { roomTemperatureC } = useSession().laboratory.settings;
  const { typed, field } = useTyped({ ...TYPED, temperatureC: roomTemperatureC }, errors);
  if (!bench) return null;
  const { bottle, method, references, rulesInForce } = bench;
  const rules = { ...rulesInForce, firstIsRough: firstIsRough ?? rulesInForce.firstIsRough };
  const choices = {
    bench,
    around: { today: stores.shelf.today, left: stores.shelf.left },
    errorAt,
    onChoose: (changes: Partial<Chosen>) => {
      setChosen({ ...chosen, ...changes });
    },
  };
  return (
    <div className="grid grid-cols-1 gap-12 xl:grid-cols-[minmax(0,560px)_minmax(0,1fr)]">
      <Form
        className="grid grid-cols-1 content-start gap-x-6 gap-y-3 md:grid-cols-2"
        onSubmit={() => {
          start(typed, rules);
        }}
      >
        <TitrantFields {...choices} titrants={stores.titrants} />
        <MethodField {...choices} rules={rules} />
        <StandardFields {...choices} />
        <ExcessChoice
          {...choices}
          {...bench.excess}
          excess={method.excess}
          own={method.own}
          bottles={bench.option.excesses}
        />
        <CircumstanceFields {...choices} field={field} errors={errors} />
        <RoughField rules={rules} rulesInForce={rulesInForce} onChange={setFirstIsRough} />
        {findings.length > 0 && (
          <div className="col-span-full">
            <TextAreaField label="Why it goes on all the same" {...field('reason')} />
          </div>
        )}
        <FormFoot submit="To the bench" isDisabled={isBusy || !bench.isComplete} error={error} />
        <div className="col-span-full">
          <NotAllHere kind="bottle" what="bottles" />
          <NotAllHere kind="lot" what="lots" />
          <Cautions
            cautions={[
              ...(findSubstance(bottle.substanceId, bottle.own)?.cautions.slice(0, 1) ?? []),
              ...method.cautions,
            ]}
          />
          {references && (
            <details className="mt-3">
              <summary className="flex min-h-12 items-center font-semibold text-violet underline underline-offset-4 lg:min-h-10">
                Hazards of what is at hand
              </summary>
              <HazardsAtHand references={references} />
            </details>
          )}
        </div>
      </Form>
      <div className="border-rule xl:border-l xl:pl-10">
        {references && <SeriesPlanView references={references} rules={rules} />}
      </div>
    </div>
  );
}

/** Begins the run, and says at each field what speaks against it. */
function useStart(bench: OnTheBench | null) {
  const { today } = useSession();
  const begin = useBeginRecord();
  const earlierSeries = useEarlierSeries(bench);
  const navigate = useNavigate();
  const findings: readonly Finding[] = bench?.references
    ? checkRunStart(bench.references, today)
    : [];
  const errors = messagesOf(begin.error);
  const isAtField = Object.keys(TYPED).some((key) => key in errors);
  return {
    findings,
    errors,
    isBusy: begin.isPending,
    error: isAtField ? undefined : begin.error?.message,
    errorAt: (field: string): string | undefined => {
      const found = findings.find((finding) => finding.field === field);
      return found ? findingText(found) : errors[field];
    },
    start: (typed: Typed, rules: HouseRules): void => {
      const fact = bench ? startOf(bench, typed, rules, earlierSeries) : null;
      if (fact === null) return;
      begin.mutate(fact, { onSuccess: (runId) => void navigate(`/runs/${runId}`) });
    },
  };
}

/** What the last series by the chosen method showed; null without the server, and where there were none. */
function useEarlierSeries(bench: OnTheBench | null): EarlierSeries | null {
  const runs = useRunList(bench?.method.name ?? '', 'certified');
  const burette = bench?.burette.equipment;
  if (!bench || !runs || burette?.type !== 'burette') return null;
  const scatters = runs.records.map(({ scatter }) => scatter);
  return earlierSeriesOf(scatters, bench.option.choice, burette);
}

/** The first fact of the run; null while something is missing. */
function startOf(
  bench: OnTheBench,
  typed: Typed,
  rules: HouseRules,
  earlierSeries: EarlierSeries | null,
): NewFact | null {
  const { option, bottle, standard, burette, thermometer } = bench;
  const excess = bench.excess.complete;
  if (!standard) return null;
  const figure = (text: string): string => parseDecimal(text) ?? text;
  const figureOrNull = (text: string): string | null => (text === '' ? null : figure(text));
  return {
    kind: 'run.started',
    body: {
      method: option.choice,
      bottle: at(bottle),
      standard: standard.choice,
      excess: excess && { bottle: at(excess.bottle), vessel: at(excess.vessel) },
      burette: at(burette),
      rules,
      temperatureC: figure(thermometer ? typed.readC : typed.temperatureC),
      temperatureVariationK: figure(typed.temperatureVariationK),
      thermometer: thermometer ? at(thermometer) : null,
      airDensityKgPerM3: figureOrNull(typed.airDensityKgPerM3),
      methodRepeatabilityPercent: figureOrNull(typed.methodRepeatabilityPercent),
      earlierSeries,
      reason: reasonOrNull(typed.reason),
    },
  };
}

interface FieldsProps {
  readonly bench: OnTheBench;
  readonly around: Pick<Shelf, 'today' | 'left'>;
  readonly errorAt: (field: string) => string | undefined;
  readonly onChoose: (changes: Partial<Chosen>) => void;
}

/** The bottle that is standardized, and the burette. */
function TitrantFields({
  bench,
  around,
  titrants,
  errorAt,
  onChoose,
}: FieldsProps & Pick<Stores, 'titrants'>) {
  const { bottle, method, burettes, burette } = bench;
  const isOnBench = useRuns()?.some((run) => run.bottleId === bottle.id);
  return (
    <>
      <ChoiceField
        label="Bottle"
        items={titrants.map((one) => bottleChoice(one, around))}
        chosenId={bottle.id}
        error={errorAt('bottle')}
        hint={isOnBench ? 'On the bench already: this begins a second run beside it.' : undefined}
        onChoose={(bottleId) => {
          onChoose({ bottleId, optionKey: null, instrumentId: null });
        }}
      />
      <InstrumentField
        label={method.inBurette === 'standard' ? 'Burette, for the standard' : 'Burette'}
        what="A burette"
        items={burettes}
        chosen={burette}
        error={errorAt('burette')}
        onChoose={(buretteId) => {
          onChoose({ buretteId });
        }}
      />
    </>
  );
}

/** By which method, and whether the standard is weighed or pipetted. */
function MethodField({
  bench: { bottle, method, options, option },
  rules,
  errorAt,
  onChoose,
}: FieldsProps & { readonly rules: HouseRules }) {
  return (
    <div className="col-span-full">
      <ChoiceField
        label="How"
        items={options.map(methodChoice)}
        chosenId={option.key}
        hint={adviceAgainst({ bottle, method }, rules) ?? undefined}
        error={errorAt('method')}
        onChoose={(optionKey) => {
          onChoose({ optionKey, instrumentId: null });
        }}
      />
    </div>
  );
}

/** The standard, and with what it is measured. */
function StandardFields({ bench, around, errorAt, onChoose }: FieldsProps) {
  const { option, method, standardRecord, instruments, instrument } = bench;
  const isWeighed = option.takes === 'lot';
  if (!standardRecord) {
    return <Missing takes={option.takes} name={substanceName(method.standardId, method.own)} />;
  }
  return (
    <>
      <ChoiceField
        label="Standard"
        items={[
          ...option.lots.map((one) => lotChoice(one, around)),
          ...option.bottles.map((one) => bottleChoice(one, around)),
        ]}
        chosenId={standardRecord.id}
        error={errorAt('standard')}
        onChoose={(standardId) => {
          onChoose({ standardId });
        }}
      />
      <InstrumentField
        label={isWeighed ? 'Balance' : 'Aliquots with'}
        what={isWeighed ? 'A balance' : 'A pipette'}
        items={instruments}
        chosen={instrument}
        error={errorAt('instrument')}
        onChoose={(instrumentId) => {
          onChoose({ instrumentId });
        }}
      />
    </>
  );
}

interface CircumstanceProps extends FieldsProps {
  readonly field: ReturnType<typeof useTyped<Typed>>['field'];
  readonly errors: FieldMessages;
}

/** How warm it is and what measured it, the air, and how well one titration is known to repeat. */
function CircumstanceFields({
  bench: { thermometers, thermometer, standard, rulesInForce },
  field,
  errors,
  onChoose,
}: CircumstanceProps) {
  const isWeighed = standard?.choice.kind === 'lot';
  return (
    <div className="col-span-full grid grid-cols-1 gap-4 sm:grid-cols-3">
      {thermometers.length > 0 && (
        <div className="col-span-full">
          <ChoiceField
            label="Temperature of the titrant"
            items={[NOT_MEASURED, ...thermometers.map(equipmentChoice)]}
            chosenId={thermometer?.id ?? NOT_MEASURED.id}
            hint={temperatureHint(rulesInForce, thermometer !== undefined)}
            onChoose={(thermometerId) => {
              onChoose({ thermometerId: thermometerId === NOT_MEASURED.id ? null : thermometerId });
            }}
          />
        </div>
      )}
      {thermometer ? (
        <QuantityField
          label="Reading"
          unit="°C"
          {...field('readC')}
          {...(errors.temperatureC !== undefined && { error: errors.temperatureC })}
        />
      ) : (
        <QuantityField label="Room temperature" unit="°C" {...field('temperatureC')} />
      )}
      <QuantityField label="Plus or minus" unit="K" {...field('temperatureVariationK')} />
      <QuantityField
        label="Known RSD"
        unit="%"
        hint="of one titration, if known"
        {...field('methodRepeatabilityPercent')}
      />
      {isWeighed && rulesInForce.buoyancyCorrection !== 'left-out' && (
        <QuantityField
          label="Density of the air"
          unit="kg/m³"
          hint={`if measured; else ${figureText(1.2)}`}
          {...field('airDensityKgPerM3')}
        />
      )}
    </div>
  );
}

/** What becomes of the volumes. */
function temperatureHint(rules: HouseRules, isMeasured: boolean): string {
  const reference = `${rules.referenceTemperatureC} °C`;
  if (isMeasured && rules.volumeCorrection === 'corrected') {
    return `Volumes are corrected to ${reference}.`;
  }
  return `Volumes stay as read; what a difference from ${reference} shifts is carried in U.`;
}

/** Whether the first titration is rough; asked of those who may deviate from the house rules. */
function RoughField({
  rules,
  rulesInForce,
  onChange,
}: {
  readonly rules: HouseRules;
  readonly rulesInForce: HouseRules;
  readonly onChange: (isRough: boolean) => void;
}) {
  const { person } = useSession();
  if (!may(person, 'deviate')) return null;
  return (
    <div className="col-span-full">
      <CheckField
        label="The first titration is rough"
        hint={
          rules.firstIsRough === rulesInForce.firstIsRough
            ? 'As the house rule says. The certificate says where a run differs from it.'
            : 'Not as the house rule says: Judge and the certificate say so.'
        }
        checked={rules.firstIsRough}
        onTick={onChange}
      />
    </div>
  );
}
