import type { Analysis, EntryState, MethodState } from '../../chemistry';
import { findAnalysis, findMethod } from '../../chemistry';
import type { HouseRules, RuleOverrides } from '../../laboratory';
import { checkRules, describeDeviations, deviatingRules, withOverrides } from '../../laboratory';
import type { EquipmentState } from '../../metrology';
import {
  calibratedBalance,
  calibratedBurette,
  calibratedThermometer,
  isPipette,
} from '../../metrology';
import type { BottleState, LotState } from '../../reagent';
import type { Around, Fact, FactDefinition, Finding, Whose } from '../../record';
import { enteredAt, impossible } from '../../record';
import { may } from '../../rights';
import type { SampleState } from '../../sample';
import type {
  AnalysisReferences,
  AnalysisSetUp,
  Portioning,
  RunReferences,
  RunSample,
  RunSetUp,
  RunStandard,
  StandardizationReferences,
  StandardizationSetUp,
} from '../setUp';
import { asCalculated, isAnalysis, namedRecords } from '../setUp';
import { EARLIER_SET_UPS } from './earlierRuns';
import { checkRunStart } from './startChecks';

/** What a run rests on. */
interface Rested {
  readonly entry: EntryState;
  readonly method: MethodState;
  readonly bottle: BottleState;
  readonly lot: LotState;
  readonly equipment: EquipmentState;
  readonly sample: SampleState;
}

/** What is around a run that begins. */
export interface AroundRun extends Around<Rested> {
  /** The house rules in force at a time (ISO 8601, UTC). */
  rulesAt(time: string): HouseRules;
}

type RunStart = Fact<'run.started', RunSetUp>;

/** The first fact of a run. */
export const RUN_STARTED: FactDefinition<'run.started', RunSetUp, unknown, AroundRun, void> &
  Whose<'run.started', never> = {
  nature: 'decision',
  earlier: EARLIER_SET_UPS,
  supports: () => true,
  refersTo: (setUp) =>
    namedRecords(setUp).map(({ field, kind, at: { id, version } }) => ({
      field,
      kind,
      id,
      version,
    })),
  check: (fact, _state, around) => {
    const references = resolveRun(fact, around);
    return 'severity' in references
      ? [references]
      : [
          ...checkDeviations(fact.body, references, around),
          ...withdrawnOf(fact.body, around),
          ...supersededOf(fact, around),
          ...checkRunStart(references, around.today),
        ];
  },
  apply: () => undefined,
  sentence: () => 'beginning a run.',
};

/** A run follows the house rules in force; by other ones, within bounds, it is begun by those who may. */
function checkDeviations(
  { rules }: RunSetUp,
  { rulesInForce }: RunReferences,
  { author }: AroundRun,
): readonly Finding[] {
  const deviations = describeDeviations(rules, rulesInForce);
  if (deviations.length === 0) return [];
  return may(author, 'deviate')
    ? checkRules(rules)
    : [impossible('may-not-deviate', 'author', { deviations })];
}

/** What of a set-up has been taken out of use, as its record says now. */
function withdrawnOf(setUp: RunSetUp, around: AroundRun): readonly Finding[] {
  return namedRecords(setUp).flatMap(({ field, kind, at }) => {
    // A sample is disposed of, not withdrawn: its own record says no more is entered of it.
    if (kind === 'sample') return [];
    const withdrawn = around.now(kind, at.id)?.withdrawn;
    return withdrawn
      ? [impossible('part-out-of-use', field, { field, reason: withdrawn.reason })]
      : [];
  });
}

/** What of a set-up had been changed when the run began: an instrument calibrated again, a method written again. */
function supersededOf(fact: RunStart, around: AroundRun): readonly Finding[] {
  return namedRecords(fact.body)
    .filter(({ kind }) => kind === 'equipment' || kind === 'method' || kind === 'entry')
    .filter(({ at }) => at.version < around.versionAt(at.id, enteredAt(fact)))
    .map(({ field }) => {
      return impossible('superseded', field, { field });
    });
}

/** The rules of laboratory and method when a run began; those of its arrival where it follows them. */
function rulesInForceFor(fact: RunStart, overrides: RuleOverrides, around: AroundRun): HouseRules {
  const then = withOverrides(around.rulesAt(enteredAt(fact)), overrides);
  const now = withOverrides(around.rulesAt(fact.recordedAt ?? fact.deviceTime), overrides);
  return deviatingRules(fact.body.rules, now).length === 0 ? now : then;
}

/** The records that a run's start names, at the versions that it names; else what is not there. */
export function resolveRun(fact: RunStart, around: AroundRun): RunReferences | Finding {
  const setUp = fact.body;
  const buretteState = around.at('equipment', setUp.burette);
  if (!buretteState) return notAtThisVersion('burette');
  const burette = calibratedBurette(buretteState);
  if (!burette) return impossible('not-a', 'burette', { kind: 'burette' });
  const excess = setUp.excess && resolveExcess(setUp.excess, around);
  if (excess && 'severity' in excess) return excess;
  const thermometer = setUp.thermometer && resolveThermometer(setUp.thermometer, around);
  if (thermometer && 'severity' in thermometer) return thermometer;
  const own = isAnalysis(setUp)
    ? resolveAnalysis(setUp, around)
    : resolveStandardization(setUp, around);
  if ('severity' in own) return own;
  const rulesInForce = rulesInForceFor(fact, own.method.rules, around);
  return { ...own, excess, burette, thermometer, rulesInForce };
}

type Own<References> = Omit<References, 'excess' | 'burette' | 'thermometer' | 'rulesInForce'>;

function resolveStandardization(
  setUp: StandardizationSetUp,
  around: AroundRun,
): Own<StandardizationReferences> | Finding {
  const method =
    setUp.method.kind === 'catalogue'
      ? findMethod(setUp.method.id)
      : around.at('method', setUp.method)?.method;
  if (!method) {
    const isOwn = setUp.method.kind === 'own';
    return isOwn
      ? notAtThisVersion('method')
      : impossible('not-in-catalogue', 'method', { kind: 'method' });
  }
  const bottle = around.at('bottle', setUp.bottle);
  if (!bottle) return notAtThisVersion('bottle');
  const standard = resolveStandard(setUp, around);
  return 'severity' in standard ? standard : { method, bottle, standard };
}

function resolveAnalysis(
  setUp: AnalysisSetUp,
  around: AroundRun,
): Own<AnalysisReferences> | Finding {
  const method =
    setUp.method.kind === 'catalogue'
      ? findAnalysis(setUp.method.id)
      : ownAnalysis(around.at('entry', setUp.method));
  if (!method) {
    return setUp.method.kind === 'own'
      ? notAtThisVersion('method')
      : impossible('not-in-catalogue', 'method', { kind: 'method' });
  }
  const bottle = around.at('bottle', setUp.titrant);
  if (!bottle) return notAtThisVersion('titrant');
  const titrant = asCalculated(bottle, setUp.calculated);
  const samples = setUp.samples.map((choice) => resolveSample(choice, around));
  const missing = samples.find((one) => 'severity' in one);
  if (missing && 'severity' in missing) return missing;
  const portioning = resolvePortioning(setUp.portioning, around);
  if ('severity' in portioning) return portioning;
  return {
    ...{ method, titrant, portioning },
    samples: samples.flatMap((one) => ('severity' in one ? [] : [one])),
  };
}

/** An analysis of the laboratory's own, with what it names of its other entries; null for any other entry. */
function ownAnalysis(state: EntryState | null): Analysis | null {
  if (state?.entry.kind !== 'analysis') return null;
  const { entry, own } = state;
  return own.length > 0 ? { ...entry.analysis, own } : entry.analysis;
}

function resolveSample(
  { sample, dilutions }: AnalysisSetUp['samples'][number],
  around: AroundRun,
): RunSample | Finding {
  const state = around.at('sample', sample);
  if (!state) return notAtThisVersion('samples');
  const ware = dilutions.flatMap((one) => {
    const pipette = around.at('equipment', one.pipette);
    const flask = around.at('equipment', one.flask);
    return pipette && flask ? [{ pipette, flask }] : [];
  });
  return ware.length < dilutions.length ? notAtThisVersion('dilution') : { state, dilutions: ware };
}

function resolvePortioning(
  choice: AnalysisSetUp['portioning'],
  around: AroundRun,
): Portioning | Finding {
  const instrument = choice.kind === 'weighed' ? choice.balance : choice.vessel;
  const state = around.at('equipment', instrument);
  if (!state) return notAtThisVersion('instrument');
  if (choice.kind === 'weighed') {
    const balance = calibratedBalance(state);
    return balance
      ? { kind: 'weighed', balance, ...(choice.whole && { whole: true }) }
      : impossible('not-a', 'instrument', { kind: 'balance' });
  }
  return isPipette(state.equipment) || state.equipment.type === 'burette'
    ? { kind: 'aliquot', vessel: state }
    : impossible('aliquot-not-measured', 'instrument');
}

function resolveStandard(
  { standard }: StandardizationSetUp,
  around: AroundRun,
): RunStandard | Finding {
  if (standard.kind === 'lot') {
    const lot = around.at('lot', standard.lot);
    if (!lot) return notAtThisVersion('standard.lot');
    const state = around.at('equipment', standard.balance);
    if (!state) return notAtThisVersion('standard.balance');
    const balance = calibratedBalance(state);
    if (balance) return { kind: 'lot', lot, balance };
    return impossible('not-a', 'standard.balance', { kind: 'balance' });
  }
  const bottle = around.at('bottle', standard.bottle);
  if (!bottle) return notAtThisVersion('standard.bottle');
  const vessel = around.at('equipment', standard.vessel);
  if (!vessel) return notAtThisVersion('standard.vessel');
  if (isPipette(vessel.equipment) || vessel.equipment.type === 'burette') {
    return { kind: 'bottle', bottle, vessel };
  }
  return impossible('aliquot-not-measured', 'standard.vessel');
}

function resolveExcess(
  excess: NonNullable<RunSetUp['excess']>,
  around: AroundRun,
): NonNullable<RunReferences['excess']> | Finding {
  const bottle = around.at('bottle', excess.bottle);
  if (!bottle) return notAtThisVersion('excess.bottle');
  const vessel = around.at('equipment', excess.vessel);
  if (!vessel) return notAtThisVersion('excess.vessel');
  if (isPipette(vessel.equipment)) return { bottle, vessel };
  return impossible('excess-not-measured', 'excess.vessel');
}

function resolveThermometer(
  thermometer: NonNullable<RunSetUp['thermometer']>,
  around: AroundRun,
): NonNullable<RunReferences['thermometer']> | Finding {
  const state = around.at('equipment', thermometer);
  if (!state) return notAtThisVersion('thermometer');
  return (
    calibratedThermometer(state) ?? impossible('not-a', 'thermometer', { kind: 'thermometer' })
  );
}

function notAtThisVersion(field: string): Finding {
  return impossible('unknown-reference', field, { kind: field, isAtVersion: true });
}
