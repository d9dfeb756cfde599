import { useState } from 'react';
import { useNavigate, useSearchParams } from 'react-router';
import { findSubstance } from '#core/chemistry';
import { withOverrides } from '#core/laboratory';
import { parseDecimal } from '#core/measurement';
import type { EquipmentState } from '#core/metrology';
import { calibratedBurette } from '#core/metrology';
import type { BottleState, LotState } from '#core/reagent';
import { freshnessOf, isLotExpired } from '#core/reagent';
import type { RecordVersion } from '#core/record';
import { may } from '#core/rights';
import type { RunReferences, StandardChoice } from '#core/titration/setUp';
import { adviceAgainst, checkRunStart } from '#core/titration/record';
import { findingText } from '#core/wording';
import { Loading } from '../app/Loading';
import { Refusal } from '../ui/refusal';
import { useBeginRecord } from '../app/entering';
import { NotAllHere } from '../app/NotAllHere';
import { useRecords, useRecordsOf, useRuns } from '../app/records';
import { useSession } from '../app/session';
import { useStock } from '../app/stock';
import { Button, ButtonLink } from '../ui/Button';
import { Cautions } from '../ui/Cautions';
import { CheckField, QuantityField, SelectField, TextAreaField } from '../ui/fields';
import { FormError } from '../ui/FormError';
import { Page } from '../ui/Page';
import { SeriesPlanView } from './SeriesPlanView';
import type { MethodOption, Shelf } from './methodOptions';
import {
  ChoiceField,
  InstrumentField,
  lotName,
  Missing,
  molarityHint,
  solutionName,
  standardHint,
  substanceName,
} from './Choices';
import { isPossible, methodOptionsFor } from './methodOptions';
import { pipettesOf, vesselsFor } from './vessels';

/** Choosing what a standardization is made with; the plan follows every choice. */
export function SetUpPage() {
  const stock = useStock();
  const methods = useRecords('method');
  const { laboratory, today } = useSession();
  const [search] = useSearchParams();
  const askedId = search.get('bottle');
  const asked = useRecordsOf('bottle', askedId === null ? [] : [askedId]);
  if (!stock || !methods) return <Loading />;
  const { equipment, left: leftMl } = stock;
  const isOver = ({ lot }: LotState): number => Number(isLotExpired(lot, today));
  const lots = stock.lots.toSorted((a, b) => isOver(a) - isOver(b));
  // A bottle that somebody comes with may be long out of hand.
  const bottles = [...asked.filter((one) => !stock.bottles.includes(one)), ...stock.bottles];
  const shelf = { bottles, lots, methods, today, leftMl };
  // A standard has its molarity from how it was made; it may be titrated all the same.
  const isStandard = ({ purpose }: BottleState): number => Number(purpose === 'standard');
  const titrants = bottles.filter(
    (bottle) =>
      bottle.nominalMolarity !== null &&
      freshnessOf(bottle, today).kind !== 'withdrawn' &&
      bottle.purpose !== 'auxiliary' &&
      methodOptionsFor(bottle, shelf, laboratory.rules).length > 0,
  );
  const inService = equipment.filter(({ withdrawn }) => withdrawn === null);
  const burettes = inService.filter((item) => item.equipment.type === 'burette');
  const missing = [
    ...(titrants.length === 0 ? [{ what: 'a titrant', to: '/prepare' }] : []),
    ...(burettes.length === 0 ? [{ what: 'a burette', to: '/equipment' }] : []),
  ];
  return (
    <Page
      title="Standardize a bottle"
      tabTitle="Set up a run"
      lead="Choose what is on the bench; the plan follows."
    >
      {missing.length > 0 ? (
        <section>
          <p className="text-lg">Before a titration, the laboratory needs:</p>
          <ul className="mt-4 flex gap-3">
            {missing.map(({ what, to }) => (
              <li key={what}>
                <ButtonLink to={to} look="primary">
                  Add {what}
                </ButtonLink>
              </li>
            ))}
          </ul>
        </section>
      ) : (
        <SetUpForm
          titrants={titrants.toReversed().toSorted((a, b) => isStandard(a) - isStandard(b))}
          shelf={shelf}
          equipment={inService}
        />
      )}
    </Page>
  );
}

interface SetUpFormProps {
  /** Titrants before standards, the newest first. */
  readonly titrants: readonly BottleState[];
  readonly shelf: Shelf;
  readonly equipment: readonly EquipmentState[];
}

/** The chosen record, or the first; undefined when there is nothing to choose from. */
function chosen<T extends { readonly id: string }>(
  items: readonly T[],
  id: string | null,
): T | undefined {
  return items.find((item) => item.id === id) ?? items[0];
}

/** A record at the version that it has now. */
function at({ id, version }: RecordVersion): RecordVersion {
  return { id, version };
}

/** What the standard and its instrument come to: as the run names them, and as their records say. */
function standardOf(
  option: MethodOption,
  standardId: string | null,
  instrument: EquipmentState | undefined,
): { readonly choice: StandardChoice; readonly record: RunReferences['standard'] } | null {
  if (!instrument) return null;
  if (option.takes === 'lot') {
    const lot = chosen(option.lots, standardId);
    const { equipment: balance } = instrument;
    if (!lot || balance.type !== 'balance') return null;
    return {
      choice: { kind: 'lot', lot: at(lot), balance: at(instrument) },
      record: { kind: 'lot', lot, balance },
    };
  }
  const bottle = chosen(option.bottles, standardId);
  return (
    (bottle && {
      choice: { kind: 'bottle', bottle: at(bottle), vessel: at(instrument) },
      record: { kind: 'bottle', bottle, vessel: instrument },
    }) ??
    null
  );
}

/** Fields that say themselves what is wrong with what was typed. */
const TYPED = ['temperatureC', 'temperatureVariationK', 'methodRepeatabilityPercent', 'reason'];

function SetUpForm({ titrants, shelf, equipment }: SetUpFormProps) {
  const [search] = useSearchParams();
  const { today, laboratory, person } = useSession();
  const openRuns = useRuns();
  const begin = useBeginRecord();
  const navigate = useNavigate();
  const [bottleId, setBottleId] = useState(search.get('bottle'));
  const [optionKey, setOptionKey] = useState<string | null>(null);
  const [standardId, setStandardId] = useState<string | null>(null);
  const [instrumentId, setInstrumentId] = useState<string | null>(null);
  const [excessId, setExcessId] = useState<string | null>(null);
  const [pipetteId, setPipetteId] = useState<string | null>(null);
  const [buretteId, setBuretteId] = useState<string | null>(null);
  const [temperature, setTemperature] = useState('20');
  const [variation, setVariation] = useState('3');
  const [repeatability, setRepeatability] = useState('');
  const [firstIsRough, setFirstIsRough] = useState<boolean | null>(null);
  const [reason, setReason] = useState('');

  const bottle = chosen(titrants, bottleId);
  const options = bottle ? methodOptionsFor(bottle, shelf, laboratory.rules) : [];
  const option = options.find(({ key }) => key === optionKey) ?? options[0];
  const burettes = equipment.filter((item) => item.equipment.type === 'burette');
  const burette = chosen(burettes, buretteId);
  const delivering = burette && calibratedBurette(burette);
  if (!bottle || !option || !delivering) return null;
  const instruments =
    option.takes === 'lot'
      ? equipment.filter((item) => item.equipment.type === 'balance')
      : vesselsFor(option, equipment);
  const instrument = chosen(instruments, instrumentId);
  const standardRecord = chosen([...option.lots, ...option.bottles], standardId);
  const standard = standardOf(option, standardId, instrument);
  const { method } = option;
  const excessBottle = chosen(option.excesses, excessId);
  const pipette = chosen(pipettesOf(equipment), pipetteId);
  const excess =
    method.excess && excessBottle && pipette ? { bottle: excessBottle, vessel: pipette } : null;

  const rulesInForce = withOverrides(laboratory.rules, method.rules);
  const rules = { ...rulesInForce, firstIsRough: firstIsRough ?? rulesInForce.firstIsRough };
  const references: RunReferences | null = standard && {
    method,
    bottle,
    standard: standard.record,
    excess,
    burette: delivering,
    rulesInForce,
  };
  const isOnBench = openRuns?.some((run) => run.bottleId === bottle.id);
  const findings = references ? checkRunStart(references, today) : [];
  const problem = begin.error instanceof Refusal ? begin.error : null;
  const isAtField = TYPED.some((field) => problem?.fieldMessage(field) !== undefined);
  const findingAt = (field: string): string | undefined => {
    const found = findings.find((finding) => finding.field === field);
    return found ? findingText(found) : problem?.fieldMessage(field);
  };

  const start = (): void => {
    if (!standard) return;
    begin.mutate(
      {
        kind: 'run.started',
        body: {
          method: option.choice,
          bottle: at(bottle),
          standard: standard.choice,
          excess: excess && { bottle: at(excess.bottle), vessel: at(excess.vessel) },
          burette: at(burette),
          rules,
          temperatureC: parseDecimal(temperature) ?? temperature,
          temperatureVariationK: parseDecimal(variation) ?? variation,
          methodRepeatabilityPercent:
            repeatability === '' ? null : (parseDecimal(repeatability) ?? repeatability),
          reason: reason.trim() === '' ? null : reason,
        },
      },
      { onSuccess: (runId) => void navigate(`/runs/${runId}`) },
    );
  };

  return (
    <div className="grid grid-cols-1 gap-12 xl:grid-cols-[minmax(0,560px)_minmax(0,1fr)]">
      <form
        noValidate
        className="grid grid-cols-1 content-start gap-x-6 gap-y-3 md:grid-cols-2"
        onSubmit={(event) => {
          event.preventDefault();
          start();
        }}
      >
        <ChoiceField
          label="Bottle"
          items={titrants}
          chosen={bottle}
          nameOf={({ code, substanceId, nominalMolarity }) =>
            `${code}, ${findSubstance(substanceId)?.shortName ?? substanceId} ${nominalMolarity ?? ''} mol/L`
          }
          error={findingAt('bottle')}
          hint={isOnBench ? 'On the bench already: this begins a second run beside it.' : undefined}
          onChoose={(id) => {
            setBottleId(id);
            setOptionKey(null);
            setInstrumentId(null);
          }}
        />
        <InstrumentField
          label={method.inBurette === 'standard' ? 'Burette, for the standard' : 'Burette'}
          what="A burette"
          items={burettes}
          chosen={burette}
          error={findingAt('burette')}
          onChoose={setBuretteId}
        />
        <div className="col-span-full">
          <SelectField
            label="How"
            value={option.key}
            hint={adviceAgainst({ bottle, method }, rules) ?? undefined}
            error={findingAt('method')}
            onChange={(event) => {
              setOptionKey(event.target.value);
              setInstrumentId(null);
            }}
          >
            {options.map((one) => (
              <option key={one.key} value={one.key}>
                {one.choice.kind === 'own' ? 'own: ' : ''}
                {one.name}
                {isPossible(one) ? '' : ' (no standard on the shelf)'}
              </option>
            ))}
          </SelectField>
        </div>
        {standardRecord ? (
          <>
            <ChoiceField
              label="Standard"
              items={[...option.lots, ...option.bottles]}
              chosen={standardRecord}
              nameOf={(item) => ('lot' in item ? lotName(item) : solutionName(item))}
              error={findingAt('standard')}
              hint={standard ? standardHint(standard.record) : undefined}
              onChoose={setStandardId}
            />
            <InstrumentField
              label={option.takes === 'lot' ? 'Balance' : 'Aliquots with'}
              what={option.takes === 'lot' ? 'A balance' : 'A pipette'}
              items={instruments}
              chosen={instrument}
              error={findingAt('instrument')}
              onChoose={setInstrumentId}
            />
          </>
        ) : (
          <Missing takes={option.takes} name={substanceName(method.standardId)} />
        )}
        {method.excess && !excessBottle && (
          <Missing takes="bottle" name={substanceName(method.excess.substanceId)} />
        )}
        {method.excess && excessBottle && (
          <>
            <ChoiceField
              label="In excess"
              items={option.excesses}
              chosen={excessBottle}
              nameOf={solutionName}
              error={findingAt('excess')}
              hint={molarityHint(excessBottle)}
              onChoose={setExcessId}
            />
            <InstrumentField
              label="Excess with"
              what="A pipette"
              items={pipettesOf(equipment)}
              chosen={pipette}
              error={findingAt('pipette')}
              onChoose={setPipetteId}
            />
          </>
        )}
        <div className="col-span-full grid grid-cols-1 gap-4 sm:grid-cols-3">
          <QuantityField
            label="Temperature"
            unit="°C"
            value={temperature}
            error={problem?.fieldMessage('temperatureC')}
            onText={setTemperature}
          />
          <QuantityField
            label="Plus or minus"
            unit="K"
            value={variation}
            error={problem?.fieldMessage('temperatureVariationK')}
            onText={setVariation}
          />
          <QuantityField
            label="Known RSD"
            unit="%"
            hint="of one titration, if known"
            value={repeatability}
            error={problem?.fieldMessage('methodRepeatabilityPercent')}
            onText={setRepeatability}
          />
        </div>
        {may(person, 'deviate') && (
          <div className="col-span-full">
            <CheckField
              label="The first titration is rough"
              hint={
                rules.firstIsRough === rulesInForce.firstIsRough
                  ? 'As the house rule says. What differs from it is told on the certificate.'
                  : 'Not as the house rule says: Judge and the certificate tell it.'
              }
              checked={rules.firstIsRough}
              onChange={(event) => {
                setFirstIsRough(event.target.checked);
              }}
            />
          </div>
        )}
        {findings.length > 0 && (
          <div className="col-span-full">
            <TextAreaField
              label="Why it goes on all the same"
              value={reason}
              error={problem?.fieldMessage('reason')}
              onText={setReason}
            />
          </div>
        )}
        <div className="col-span-full flex items-center gap-4">
          <Button
            type="submit"
            look="primary"
            disabled={begin.isPending || !standard || (method.excess !== null && !excess)}
          >
            To the bench
          </Button>
          <FormError message={isAtField ? undefined : begin.error?.message} />
        </div>
        <div className="col-span-full">
          <NotAllHere kind="bottle" what="bottles" />
          <NotAllHere kind="lot" what="lots" />
          <Cautions
            cautions={[
              ...(findSubstance(bottle.substanceId)?.cautions.slice(0, 1) ?? []),
              ...method.cautions,
            ]}
          />
        </div>
      </form>
      <div className="border-rule xl:border-l xl:pl-10">
        {references && <SeriesPlanView references={references} rules={rules} />}
      </div>
    </div>
  );
}
