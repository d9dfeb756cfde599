import { useState } from 'react';
import { useNavigate, useSearchParams } from 'react-router';
import type { DecimalText } from '#core/measurement';
import {
  decimalText,
  figureText,
  parseDecimal,
  roundHalfEven,
  roundSignificant,
} from '#core/measurement';
import type { EquipmentState } from '#core/metrology';
import type { Finding } from '#core/record';
import type { SampleState } from '#core/sample';
import { requestFor, requirementText } from '#core/sample';
import { proposeDilution } from '#core/titration/guidance';
import { calculatedMolarity } from '#core/titration/judging';
import { checkRunStart } from '#core/titration/record';
import { isStandardization } from '#core/titration/run';
import type { AnalysisReferences, AnalysisSetUp } from '#core/titration/setUp';
import {
  bottleIdOf,
  FLASKS_AT_MOST,
  inRuns,
  sampleOf,
  samplesPerRun,
  soughtOf,
} from '#core/titration/setUp';
import { asPlanned } from '#core/titration/whatIf';
import { findingText } from '#core/wording';
import type { Id } from '#core/grammar';
import type { NewFact } from '#contract';
import { newId } from '#contract';
import { bottleChoice, equipmentChoice } from '../app/choices';
import { useBeginRecords } from '../app/entering';
import { Loading } from '../app/Loading';
import { NotAllHere } from '../app/NotAllHere';
import { useCatalogue, useOwn } from '../app/ownEntries';
import { useRecords, useRecordsOf } from '../app/records';
import { useSession } from '../app/session';
import { useStock } from '../app/stock';
import { statedText } from '../samples/wording';
import { Button, ButtonLink } from '../ui/Button';
import { Cautions } from '../ui/Cautions';
import { ChoiceField } from '../ui/ChoiceField';
import { reasonOrNull } from '../ui/fieldMessages';
import { CheckField, QuantityField, TextAreaField } from '../ui/fields';
import { Form, FormFoot } from '../ui/Form';
import { Page } from '../ui/Page';
import { messagesOf } from '../ui/refusal';
import { useTyped } from '../ui/useTyped';
import { ExcessChoice, InstrumentField, Missing, NOT_MEASURED, substanceName } from './Choices';
import { HazardsAtHand } from './HazardsAtHand';
import { at } from './onTheBench';
import type { ChosenSamples, SampleBench, SampleStores } from './sampleBench';
import { analysesAsked, sampleBench } from './sampleBench';
import { SeriesPlanView } from './SeriesPlanView';
import { useRun } from './useRun';

/** Choosing which samples are titrated, for what and with which titrant. */
export function SampleSetUpPage() {
  const stores = useStores();
  if (!stores) return <Loading />;
  const isAsked = analysesAsked(stores).length > 0;
  return (
    <Page
      title="Titrate samples"
      tabTitle="Titrate samples"
      lead="A titrant of known molarity is in the burette, the samples are in the flasks: their content is sought."
    >
      {isAsked ? (
        <SetUpBy stores={stores} />
      ) : (
        <section>
          <p className="mb-4 text-lg">No sample that is here is asked for anything.</p>
          <ButtonLink to="/samples" look="primary">
            To the samples
          </ButtonLink>
        </section>
      )}
    </Page>
  );
}

type Stores = Omit<SampleStores, 'calculated'>;

/** By a certificate, or by what a standardization has come to that nobody has authorized yet. */
function SetUpBy({ stores }: { readonly stores: Stores }) {
  const [search] = useSearchParams();
  const runId = search.get('calculated');
  return runId === null ? (
    <SetUp {...stores} calculated={null} />
  ) : (
    <SetUpCalculated runId={runId} stores={stores} />
  );
}

function SetUpCalculated({ runId, stores }: { readonly runId: string; readonly stores: Stores }) {
  const run = useRun(runId)?.run;
  if (!run) return <Loading />;
  const molarity = isStandardization(run) ? calculatedMolarity(run) : null;
  const bottleId = bottleIdOf(run.setUp);
  return <SetUp {...stores} calculated={molarity && { bottleId, molarity }} />;
}

function useStores(): Stores | undefined {
  const stock = useStock();
  const samples = useRecords('sample');
  const { laboratory, today } = useSession();
  const own = useOwn();
  const { analyses } = useCatalogue();
  const [search] = useSearchParams();
  const askedId = search.get('sample');
  const asked = useRecordsOf('sample', askedId === null ? [] : [askedId]);
  if (!stock || !samples) return undefined;
  const all = [...asked.filter((one) => !samples.includes(one)), ...samples.toReversed()];
  return {
    samples: all.filter(({ disposed }) => disposed === null),
    bottles: stock.bottles,
    equipment: stock.equipment.filter(({ withdrawn }) => withdrawn === null),
    ...{ analyses, own },
    ...{ rules: laboratory.rules, today },
  };
}

const TYPED = { temperatureC: '', readC: '', temperatureVariationK: '3', reason: '' };

function SetUp(stores: SampleStores) {
  const [search] = useSearchParams();
  const sampleId = search.get('sample');
  const asked = stores.samples.find(({ id }) => id === sampleId);
  const [chosen, setChosen] = useState<ChosenSamples>({
    ...{ instrumentId: null, excessId: null, pipetteId: null },
    // After a certification the same burette goes on.
    buretteId: search.get('burette'),
    analysisId: search.get('analysis') ?? asked?.sample.requests[0]?.analysisId ?? null,
    sampleIds: asked ? [asked.id] : null,
    titrantId: search.get('titrant'),
    thermometerId: null,
    areWhole: null,
  });
  const bench = sampleBench(chosen, stores);
  // Of the burette that the run before left; another one stands elsewhere.
  const left = search.get('level');
  const levelMl =
    left !== null && bench.burette?.id === search.get('burette') ? parseDecimal(left) : null;
  const [goesOn, setGoesOn] = useState(true);
  const { start, findings, errors, errorAt, isBusy, error } = useStart(
    bench,
    goesOn ? levelMl : null,
  );
  // What cannot be titrated has no plan either.
  const isImpossible = findings.some(({ severity }) => severity === 'impossible');
  const { roomTemperatureC } = useSession().laboratory.settings;
  const { typed, field } = useTyped({ ...TYPED, temperatureC: roomTemperatureC }, errors);
  const onChoose = (changes: Partial<ChosenSamples>): void => {
    setChosen({ ...chosen, ...changes });
  };
  const { analysis, references } = bench;
  return (
    <div className="grid grid-cols-1 gap-12 xl:grid-cols-[minmax(0,560px)_minmax(0,1fr)]">
      <Form
        className="grid grid-cols-1 content-start gap-x-6 gap-y-3 md:grid-cols-2"
        onSubmit={() => {
          start(typed);
        }}
      >
        <div className="col-span-full">
          <ChoiceField
            label="Analysis"
            items={analysesAsked(stores).map((one) => ({
              ...{ id: one.id, name: one.name, text: one.name, words: one.remark },
            }))}
            chosenId={analysis.id}
            error={errorAt('method')}
            onChoose={(analysisId) => {
              onChoose({ analysisId, sampleIds: null, titrantId: null, instrumentId: null });
            }}
          />
        </div>
        <SampleChoices bench={bench} error={errorAt('samples')} onChoose={onChoose} />
        {bench.calculated && (
          <p className="col-span-full border-l-4 border-straw bg-straw-wash px-3 py-1.5">
            The molarity of bottle {bench.titrant?.code} is calculated and awaits authorization. It
            may be worked with; a report is issued once it is certified.
          </p>
        )}
        <TitrantFields bench={bench} today={stores.today} errorAt={errorAt} onChoose={onChoose} />
        {levelMl !== null && (
          <div className="col-span-full">
            <CheckField
              label={`Go on from ${figureText(levelMl)} mL, where the last titration ended`}
              hint="Without it the burette is filled anew."
              checked={goesOn}
              onTick={setGoesOn}
            />
          </div>
        )}
        <Circumstances bench={bench} field={field} onChoose={onChoose} />
        {findings.length > 0 && (
          <div className="col-span-full">
            <TextAreaField label="Why it goes on all the same" {...field('reason')} />
          </div>
        )}
        <FormFoot submit="To the bench" isDisabled={isBusy || !bench.isComplete} error={error} />
        <div className="col-span-full">
          <NotAllHere kind="sample" what="samples" />
          <Cautions cautions={analysis.cautions} />
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
        {!isImpossible && <PlanOfFirst bench={bench} equipment={stores.equipment} />}
        {references && references.samples.length > 1 && (
          <p className="mt-3 text-ink-soft">
            The plan is for the first sample; the others take as many titrations each.
            {inRuns(references.samples, samplesPerRun(bench.rulesInForce)).length > 1 &&
              ` A run has at most ${String(FLASKS_AT_MOST)} flasks, so the batch begins as several, with a way from one to the next.`}
          </p>
        )}
      </div>
    </div>
  );
}

/** What the first of the samples takes, and how sure its result will be. */
function PlanOfFirst({
  bench,
  equipment,
}: {
  readonly bench: SampleBench;
  readonly equipment: readonly EquipmentState[];
}) {
  const { references, rulesInForce } = bench;
  const [first] = references?.samples ?? [];
  if (!references || !first) return null;
  const series = { ...references, samples: [first] };
  return (
    <>
      <SeriesPlanView references={series} rules={rulesInForce} />
      <DiluteFirst series={series} equipment={equipment} />
      <ExpectedU bench={bench} series={series} />
    </>
  );
}

/** How a sample is best diluted that would take more than the burette holds. */
function DiluteFirst({
  series,
  equipment,
}: {
  readonly series: AnalysisReferences;
  readonly equipment: readonly EquipmentState[];
}) {
  const proposed = proposeDilution(series, equipment);
  if (!proposed) return null;
  const { pipette, flask, titreMl } = proposed;
  const { state } = sampleOf(series);
  return (
    <div className="mt-4 border-l-4 border-straw bg-straw-wash px-3 py-1.5">
      <p>
        Its titre would be about {figureText(roundHalfEven(titreMl.undiluted, 0))} mL. Dilute it
        first with {pipette.equipment.name} to the mark of {flask.equipment.name}: then it takes
        about {figureText(roundHalfEven(titreMl.diluted, 0))} mL, and the result is still that of
        the original.
      </p>
      <ButtonLink className="my-1.5 text-[15px]" to={`/samples/${state.id}`}>
        Dilute {state.sample.code}
      </ButtonLink>
    </div>
  );
}

/** What U will come to, what most of it comes from, and whether that is what the analysis aims at. */
function ExpectedU({
  bench,
  series,
}: {
  readonly bench: SampleBench;
  readonly series: AnalysisReferences;
}) {
  const setUp = plannedSetUp(bench);
  const planned = setUp && asPlanned(setUp, series);
  if (!planned) return null;
  const { value, expandedUncertainty, effects } = planned;
  const percent = (100 * expandedUncertainty) / value;
  const { targetUPercent } = series.method;
  const isTooLarge = percent > targetUPercent;
  const from = effects.map(({ effect }) => effect.toLowerCase()).join(', ');
  return (
    <p
      className={`mt-4 border-l-4 px-3 py-1.5 ${isTooLarge ? 'border-straw bg-straw-wash' : 'border-leaf'}`}
    >
      <i>U</i> will come to about ± {figureText(roundSignificant(expandedUncertainty, 2))}{' '}
      {soughtOf(series).as.unit.symbol}, {figureText(roundHalfEven(percent, 1))} % of the content;
      most of it from: {from}. The analysis aims at {figureText(String(targetUPercent))} %
      {isTooLarge
        ? ': take a smaller burette, a weaker titrant, more sample or another pipette.'
        : '.'}
    </p>
  );
}

/** The run as it would begin, at the temperature of reference. */
function plannedSetUp(bench: SampleBench): AnalysisSetUp | null {
  const { analysis, method, titrant, burette, portioning, excess, samples, rulesInForce } = bench;
  if (!titrant || !burette || !portioning) return null;
  return {
    method,
    titrant: at(titrant),
    ...{ samples: samples.slice(0, 1), portioning, burette: at(burette), rules: rulesInForce },
    excess:
      analysis.excess && excess ? { bottle: at(excess.bottle), vessel: at(excess.vessel) } : null,
    temperatureC: decimalText(rulesInForce.referenceTemperatureC),
    temperatureVariationK: decimalText(TYPED.temperatureVariationK),
    ...{ thermometer: null, airDensityKgPerM3: null, methodRepeatabilityPercent: null },
    ...{ earlierSeries: null, reason: null },
  };
}

interface FieldsProps {
  readonly bench: SampleBench;
  readonly onChoose: (changes: Partial<ChosenSamples>) => void;
}

/** So many samples are ticked one by one. */
const FEW = 4;

/** The samples that are asked for the analysis, each with what it is to be stated as. */
function SampleChoices({
  bench: { analysis, asked, picked },
  error,
  onChoose,
}: FieldsProps & { readonly error: string | undefined }) {
  return (
    <fieldset className="col-span-full">
      <legend className="mb-1 font-semibold">Samples</legend>
      {asked.length > FEW && (
        <p className="mb-1 flex flex-wrap items-center gap-3">
          <Button
            className="text-[15px]"
            onClick={() => {
              onChoose({ sampleIds: asked.map(({ id }) => id) });
            }}
          >
            All {String(asked.length)}
          </Button>
          <Button
            className="text-[15px]"
            onClick={() => {
              onChoose({ sampleIds: [] });
            }}
          >
            None
          </Button>
          <span className="text-ink-soft">{String(picked.length)} chosen</span>
        </p>
      )}
      {asked.map((state) => (
        <CheckField
          key={state.id}
          label={`${state.sample.code}, ${state.sample.description}`}
          hint={wordsOf(state, analysis.id)}
          checked={picked.includes(state)}
          onTick={(isTicked) => {
            const ids = picked.map(({ id }) => id as string);
            onChoose({
              sampleIds: isTicked ? [...ids, state.id] : ids.filter((id) => id !== state.id),
            });
          }}
        />
      ))}
      {error !== undefined && (
        <p role="alert" className="text-sm font-semibold text-blush">
          {error}
        </p>
      )}
    </fieldset>
  );
}

function wordsOf({ sample, dilutions }: SampleState, analysisId: string): string {
  const request = requestFor(sample, analysisId);
  if (!request) return '';
  const steps = dilutions.length === 0 ? [] : ['as diluted'];
  return [
    statedText(request, sample.own),
    requirementText(request.requirement, request.unit),
    ...steps,
  ].join('; ');
}

function TitrantFields({
  bench,
  today,
  errorAt,
  onChoose,
}: FieldsProps & {
  readonly today: SampleStores['today'];
  readonly errorAt: (field: string) => string | undefined;
}) {
  const stock = useStock();
  const { analysis, titrants, titrant, burettes, burette, instruments, instrument } = bench;
  const around = { today, left: stock?.left ?? new Map<string, number>() };
  const isWeighed = instrument?.equipment.type === 'balance';
  return (
    <>
      {titrant ? (
        <ChoiceField
          label="Titrant"
          items={titrants.map((one) => bottleChoice(one, around))}
          chosenId={titrant.id}
          error={errorAt('titrant')}
          onChoose={(titrantId) => {
            onChoose({ titrantId });
          }}
        />
      ) : (
        <Missing takes="bottle" name={substanceName(analysis.titrantIds[0] ?? '', analysis.own)} />
      )}
      <InstrumentField
        label="Burette"
        what="A burette"
        items={burettes}
        chosen={burette}
        error={errorAt('burette')}
        onChoose={(buretteId) => {
          onChoose({ buretteId });
        }}
      />
      <InstrumentField
        label={isWeighed ? 'Portions on' : 'Portions with'}
        what={isWeighed ? 'A balance' : 'A pipette'}
        items={instruments}
        chosen={instrument}
        error={errorAt('instrument')}
        onChoose={(instrumentId) => {
          onChoose({ instrumentId });
        }}
      />
      {bench.mayBeWhole && (
        <div className="col-span-full">
          <CheckField
            label="One whole unit in each flask"
            hint="The content of each by itself, and how far they scatter. Without it: weighed parts of the powder, by the mean mass of one."
            checked={bench.areWhole}
            onTick={(areWhole) => {
              onChoose({ areWhole });
            }}
          />
        </div>
      )}
      <ExcessChoice
        excess={analysis.excess}
        own={analysis.own}
        bottles={bench.excesses}
        bottle={bench.excessBottle}
        pipettes={bench.pipettes}
        pipette={bench.pipette}
        around={around}
        errorAt={errorAt}
        onChoose={onChoose}
      />
    </>
  );
}

function Circumstances({
  bench: { thermometers, thermometer },
  field,
  onChoose,
}: FieldsProps & { readonly field: ReturnType<typeof useTyped<typeof TYPED>>['field'] }) {
  return (
    <div className="col-span-full grid grid-cols-1 gap-4 sm:grid-cols-3">
      {thermometers.length > 0 && (
        <ChoiceField
          label="Temperature of the titrant"
          items={[NOT_MEASURED, ...thermometers.map(equipmentChoice)]}
          chosenId={thermometer?.id ?? NOT_MEASURED.id}
          onChoose={(id) => {
            onChoose({ thermometerId: id === NOT_MEASURED.id ? null : id });
          }}
        />
      )}
      <QuantityField
        label={thermometer ? 'Reading' : 'Room temperature'}
        unit="°C"
        {...field(thermometer ? 'readC' : 'temperatureC')}
      />
      <QuantityField label="Plus or minus" unit="K" {...field('temperatureVariationK')} />
    </div>
  );
}

/** Begins the run, and says at each field what speaks against it. */
function useStart(bench: SampleBench, levelMl: DecimalText | null) {
  const { today } = useSession();
  const begin = useBeginRecords();
  const navigate = useNavigate();
  const findings: readonly Finding[] = bench.references
    ? checkRunStart(bench.references, today)
    : [];
  const errors = messagesOf(begin.error);
  return {
    findings,
    errors,
    isBusy: begin.isPending,
    error: begin.error?.message,
    errorAt: (field: string): string | undefined => {
      const found = findings.find((finding) => finding.field === field);
      return found ? findingText(found) : errors[field];
    },
    start: (typed: typeof TYPED): void => {
      const begun = startsOf(bench, typed, levelMl);
      const [first] = begun;
      if (!first) return;
      begin.mutate(begun, { onSuccess: () => void navigate(`/runs/${first.recordId}`) });
    },
  };
}

/** The runs of a batch, each with its first fact: one, or as many as it takes. None while something is missing. */
function startsOf(
  bench: SampleBench,
  typed: typeof TYPED,
  levelMl: DecimalText | null,
): readonly { readonly recordId: Id; readonly fact: NewFact }[] {
  const planned = plannedSetUp(bench);
  if (!planned) return [];
  const { thermometer, samples, rulesInForce } = bench;
  const figure = (text: string): string => parseDecimal(text) ?? text;
  const parts = inRuns(samples, samplesPerRun(rulesInForce));
  const runIds = parts.map(() => newId());
  return parts.flatMap((part, i) => {
    const recordId = runIds[i];
    if (recordId === undefined) return [];
    const body = {
      ...planned,
      samples: part,
      temperatureC: figure(thermometer ? typed.readC : typed.temperatureC),
      temperatureVariationK: figure(typed.temperatureVariationK),
      thermometer: thermometer ? at(thermometer) : null,
      reason: reasonOrNull(typed.reason),
      ...(bench.calculated && { calculated: bench.calculated }),
      ...(i === 0 && levelMl !== null && { levelMl }),
      ...(parts.length > 1 && { batch: { runIds } }),
    };
    return [{ recordId, fact: { kind: 'run.started', body } as const }];
  });
}
