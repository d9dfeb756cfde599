import { useState } from 'react';
import { useNavigate, useSearchParams } from 'react-router';
import type { Method } from '#core/chemistry';
import { findSubstance, methodsAtBench } from '#core/chemistry';
import type { BottleState, LotState } from '#core/reagent';
import type { EquipmentState } from '#core/metrology';
import { DEFAULT_HOUSE_RULES } from '#core/laboratory';
import { parseDecimal } from '#core/measurement';
import type { RunReferences } from '#core/titration';
import { checkRunStart } from '#core/titration';
import { Loading } from '../app/Loading';
import { ProblemError } from '../app/api';
import { useBeginRecord, useRecords } from '../app/records';
import { useSession } from '../app/session';
import { Button, ButtonLink } from '../ui/Button';
import { Cautions } from '../ui/Cautions';
import { CheckField, QuantityField, SelectField, TextAreaField } from '../ui/fields';
import { FormError } from '../ui/FormError';
import { Page } from '../ui/Page';
import { SeriesPlanView } from './SeriesPlanView';

/** Choosing what a standardization is made with; the plan follows every choice. */
export function SetUpPage() {
  const bottles = useRecords('bottle');
  const lots = useRecords('lot');
  const equipment = useRecords('equipment');
  if (!bottles || !lots || !equipment) return <Loading />;
  const titrants = bottles.filter(
    ({ substanceId, nominalMolarity, withdrawn }) =>
      nominalMolarity !== null && withdrawn === null && methodsAtBench(substanceId).length > 0,
  );
  const standards = lots.filter(
    ({ lot, withdrawn }) =>
      withdrawn === null && findSubstance(lot.substanceId)?.role === 'primary-standard',
  );
  const inService = equipment.filter(({ withdrawn }) => withdrawn === null);
  const balances = inService.filter((item) => item.equipment.type === 'balance');
  const burettes = inService.filter((item) => item.equipment.type === 'burette');
  const missing = [
    ...(titrants.length === 0 ? [{ what: 'a titrant', to: '/prepare' }] : []),
    ...(standards.length === 0 ? [{ what: 'a lot of a primary standard', to: '/lots' }] : []),
    ...(balances.length === 0 ? [{ what: 'a balance', to: '/equipment' }] : []),
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
          bottles={titrants}
          standards={standards}
          balances={balances}
          burettes={burettes}
        />
      )}
    </Page>
  );
}

interface SetUpFormProps {
  readonly bottles: readonly BottleState[];
  readonly standards: readonly LotState[];
  readonly balances: readonly EquipmentState[];
  readonly burettes: readonly EquipmentState[];
}

/** The chosen record, or the first. */
function chosen<T extends { readonly id: string }>(items: readonly T[], id: string | null): T {
  const found = items.find((item) => item.id === id) ?? items[0];
  if (!found) throw new RangeError('there is nothing to choose from');
  return found;
}

function SetUpForm(props: SetUpFormProps) {
  const [search] = useSearchParams();
  const { today } = useSession();
  const runs = useRecords('run');
  const begin = useBeginRecord();
  const navigate = useNavigate();
  const [bottleId, setBottleId] = useState(search.get('bottle'));
  const [lotId, setLotId] = useState<string | null>(null);
  const [balanceId, setBalanceId] = useState<string | null>(null);
  const [buretteId, setBuretteId] = useState<string | null>(null);
  const [temperature, setTemperature] = useState('20');
  const [variation, setVariation] = useState('3');
  const [repeatability, setRepeatability] = useState('');
  const [firstIsRough, setFirstIsRough] = useState(DEFAULT_HOUSE_RULES.firstIsRough);
  const [reason, setReason] = useState('');

  const bottle = chosen(props.bottles.toReversed(), bottleId);
  const methods = methodsAtBench(bottle.substanceId);
  const methodFor = ({ lot: { substanceId } }: LotState): Method | undefined =>
    methods.find((one) => one.standardId === substanceId);
  const fitting = props.standards.find((item) => methodFor(item));
  const lot = chosen(props.standards, lotId ?? fitting?.id ?? null);
  const balance = chosen(props.balances, balanceId);
  const burette = chosen(props.burettes, buretteId);
  // A lot that no method takes is still shown, and checkRunStart says what is wrong with it.
  const method = methodFor(lot) ?? methods[0];
  if (!method) {
    return <p>No method of the catalogue standardizes this titrant with a weighed standard.</p>;
  }
  if (balance.equipment.type !== 'balance' || burette.equipment.type !== 'burette') return null;

  const rules = { ...DEFAULT_HOUSE_RULES, firstIsRough };
  const references: RunReferences = {
    method,
    bottle,
    lot,
    balance: balance.equipment,
    burette: burette.equipment,
  };
  const isOnBench = runs?.some((run) => run.bottleId === bottle.id && run.status === 'open');
  const findings = checkRunStart(references, today);
  const problem = begin.error instanceof ProblemError ? begin.error : null;
  const findingAt = (field: string): string | undefined =>
    findings.find((finding) => finding.field === field)?.message ?? problem?.fieldMessage(field);

  const start = (): void => {
    begin.mutate(
      {
        kind: 'run.started',
        body: {
          methodId: method.id,
          bottle: { id: bottle.id, version: bottle.version },
          lot: { id: lot.id, version: lot.version },
          balance: { id: balance.id, version: balance.version },
          burette: { id: burette.id, version: burette.version },
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
    <div className="grid grid-cols-[minmax(0,560px)_minmax(0,1fr)] gap-12">
      <form
        noValidate
        className="grid grid-cols-2 content-start gap-x-6 gap-y-4"
        onSubmit={(event) => {
          event.preventDefault();
          start();
        }}
      >
        <SelectField
          label="Bottle"
          value={bottle.id}
          error={findingAt('bottle')}
          hint={isOnBench ? 'On the bench already: this begins a second run beside it.' : undefined}
          onChange={(event) => {
            setBottleId(event.target.value);
          }}
        >
          {props.bottles.toReversed().map((item) => (
            <option key={item.id} value={item.id}>
              {item.code}, {findSubstance(item.substanceId)?.shortName} {item.nominalMolarity} mol/L
            </option>
          ))}
        </SelectField>
        <SelectField
          label="Standard"
          value={lot.id}
          error={findingAt('lot')}
          hint={`Purity ${lot.lot.purity} ± ${lot.lot.purityHalfWidth}`}
          onChange={(event) => {
            setLotId(event.target.value);
          }}
        >
          {props.standards.map((item) => (
            <option key={item.id} value={item.id}>
              {findSubstance(item.lot.substanceId)?.shortName}, lot {item.lot.lotNumber}
            </option>
          ))}
        </SelectField>
        <SelectField
          label="Balance"
          value={balance.id}
          error={findingAt('balance')}
          hint={`Shows ${balance.equipment.readabilityG} g`}
          onChange={(event) => {
            setBalanceId(event.target.value);
          }}
        >
          {props.balances.map((item) => (
            <option key={item.id} value={item.id}>
              {item.equipment.name}
            </option>
          ))}
        </SelectField>
        <SelectField
          label="Burette"
          value={burette.id}
          error={findingAt('burette')}
          hint={`${burette.equipment.capacityMl} mL, ± ${burette.equipment.toleranceMl} mL`}
          onChange={(event) => {
            setBuretteId(event.target.value);
          }}
        >
          {props.burettes.map((item) => (
            <option key={item.id} value={item.id}>
              {item.equipment.name}
            </option>
          ))}
        </SelectField>
        <QuantityField
          label="Temperature"
          unit="°C"
          value={temperature}
          error={problem?.fieldMessage('temperatureC')}
          onChange={(event) => {
            setTemperature(event.target.value);
          }}
        />
        <QuantityField
          label="Varies by plus or minus"
          unit="K"
          value={variation}
          error={problem?.fieldMessage('temperatureVariationK')}
          onChange={(event) => {
            setVariation(event.target.value);
          }}
        />
        <QuantityField
          label="Repeatability of the method"
          unit="%"
          hint="RSD of one titration, if known. Empty otherwise."
          value={repeatability}
          error={problem?.fieldMessage('methodRepeatabilityPercent')}
          onChange={(event) => {
            setRepeatability(event.target.value);
          }}
        />
        <CheckField
          label="The first titration is rough"
          hint="It finds where the end lies and is left out of the mean."
          checked={firstIsRough}
          onChange={(event) => {
            setFirstIsRough(event.target.checked);
          }}
        />
        {findings.length > 0 && (
          <div className="col-span-2">
            <TextAreaField
              label="Why it goes on all the same"
              value={reason}
              error={problem?.fieldMessage('reason')}
              onChange={(event) => {
                setReason(event.target.value);
              }}
            />
          </div>
        )}
        <div className="col-span-2 flex items-center gap-4">
          <Button type="submit" look="primary" disabled={begin.isPending}>
            To the bench
          </Button>
          <FormError message={begin.error?.message} />
        </div>
        <div className="col-span-2 mt-2">
          <Cautions
            cautions={[
              ...(findSubstance(bottle.substanceId)?.cautions.slice(0, 1) ?? []),
              ...method.cautions,
            ]}
          />
        </div>
      </form>
      <SeriesPlanView references={references} rules={rules} />
    </div>
  );
}
