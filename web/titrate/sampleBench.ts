import type { Analysis, Own } from '#core/chemistry';
import { RESULT_UNITS } from '#core/chemistry';
import type { PlainDate } from '#core/grammar';
import type { HouseRules } from '#core/laboratory';
import { withOverrides } from '#core/laboratory';
import type { EquipmentState } from '#core/metrology';
import { calibratedBalance, calibratedBurette, calibratedThermometer } from '#core/metrology';
import type { BottleState } from '#core/reagent';
import { certificateInForce, freshnessOf, knownMolarity, mayBeUsed } from '#core/reagent';
import type { SampleState } from '#core/sample';
import { requestFor } from '#core/sample';
import type {
  AnalysisReferences,
  CalculatedMolarity,
  MethodChoice,
  Portioning,
  PortioningChoice,
  RunSample,
  SampleChoice,
} from '#core/titration/setUp';
import { asCalculated, statedBy } from '#core/titration/setUp';
import { at } from './onTheBench';
import { pipettesOf, vesselsFor } from './vessels';

/** What was chosen; the first of its kind where nothing was. */
export interface ChosenSamples {
  readonly analysisId: string | null;
  readonly sampleIds: readonly string[] | null;
  readonly titrantId: string | null;
  readonly instrumentId: string | null;
  readonly excessId: string | null;
  readonly pipetteId: string | null;
  readonly buretteId: string | null;
  readonly thermometerId: string | null;
  /** Whether each portion is a whole unit; null where nobody chose. */
  readonly areWhole: boolean | null;
}

/** What the laboratory has. */
export interface SampleStores {
  readonly samples: readonly SampleState[];
  readonly bottles: readonly BottleState[];
  readonly equipment: readonly EquipmentState[];
  /** Those that ship, and the laboratory's own that are in use. */
  readonly analyses: readonly Analysis[];
  /** The records of the laboratory's own. */
  readonly own: Own;
  readonly rules: HouseRules;
  readonly today: PlainDate;
  /** What a standardization has come to that is not certified yet, of the bottle that it is of; null without one. */
  readonly calculated: {
    readonly bottleId: string;
    readonly molarity: CalculatedMolarity;
  } | null;
}

function pick<T extends { readonly id: string }>(
  items: readonly T[],
  id: string | null,
): T | undefined {
  return items.find((item) => item.id === id) ?? items[0];
}

/** What stands on the bench for an analysis by a choice. */
export function sampleBench(chosen: ChosenSamples, stores: SampleStores) {
  const { samples, equipment, rules, today, calculated } = stores;
  const bottles = stores.bottles.map((bottle) =>
    bottle.id === calculated?.bottleId ? asCalculated(bottle, calculated.molarity) : bottle,
  );
  const analysis = analysisOf(chosen, stores);
  const ownEntry = stores.own.find(({ id }) => id === analysis.id);
  const method: MethodChoice = ownEntry
    ? { kind: 'own', ...at(ownEntry) }
    : { kind: 'catalogue', id: analysis.id };
  const asked = samples.filter(({ sample }) => requestFor(sample, analysis.id) !== null);
  const ids = chosen.sampleIds ?? asked.slice(0, 1).map(({ id }) => id);
  const picked = inOrder(asked.filter(({ id }) => ids.includes(id)));
  const titrants = knownSolutions(bottles, analysis.titrantIds, today);
  const titrant = pick(titrants, chosen.titrantId);
  const isCalculated =
    titrant !== undefined &&
    titrant.id === calculated?.bottleId &&
    certificateInForce(titrant) === null;
  const burettes = equipment.filter((one) => one.equipment.type === 'burette');
  const burette = pick(burettes, chosen.buretteId);
  const instruments = instrumentsFor(analysis, equipment);
  const instrument = pick(instruments, chosen.instrumentId);
  const excesses = analysis.excess
    ? knownSolutions(bottles, [analysis.excess.substanceId], today)
    : [];
  const excessBottle = pick(excesses, chosen.excessId);
  const pipettes = pipettesOf(equipment);
  const pipette = pick(pipettes, chosen.pipetteId);
  const excess = excessBottle && pipette ? { bottle: excessBottle, vessel: pipette } : null;
  const thermometers = equipment.filter((one) => one.equipment.type === 'thermometer');
  const thermometer = thermometers.find(({ id }) => id === chosen.thermometerId);
  const rulesInForce = withOverrides(rules, analysis.rules);
  const mayBeWhole =
    picked.length > 0 &&
    picked.every(
      (state) => RESULT_UNITS[statedBy(analysis, state).unit].quantity === 'mass-per-unit',
    );
  // What one weighs on average nobody needs who titrates them one by one.
  const areWhole = chosen.areWhole ?? picked.every(({ sample }) => sample.unitMass === null);
  const portioning = instrument && portioningBy(instrument, mayBeWhole && areWhole);
  const delivering = burette && calibratedBurette(burette);
  const chosenSamples = picked.map((state) => ({ state, ...dilutedBy(state, equipment) }));
  const references: AnalysisReferences | null =
    titrant && delivering && portioning && picked.length > 0
      ? {
          ...{ method: analysis, titrant, portioning: portioning.record, burette: delivering },
          samples: chosenSamples.map(({ state, dilutions }): RunSample => ({ state, dilutions })),
          excess: analysis.excess ? excess : null,
          thermometer: (thermometer && calibratedThermometer(thermometer)) ?? null,
          rulesInForce,
        }
      : null;
  return {
    ...{
      analysis,
      method,
      asked,
      picked,
      titrants,
      titrant,
      burettes,
      burette,
      instruments,
      instrument,
    },
    ...{ excesses, excessBottle, pipettes, pipette, excess, thermometers, thermometer },
    ...{ rulesInForce, references, portioning: portioning?.choice ?? null },
    /** Whether a whole unit may be taken for a portion: where the content of one is asked for, and it is weighed. */
    mayBeWhole: mayBeWhole && portioning?.choice.kind === 'weighed',
    areWhole,
    /** Of the titrant that is chosen; null where it is known otherwise. */
    calculated: isCalculated ? calculated.molarity : null,
    samples: chosenSamples.map(({ state, steps }): SampleChoice => ({
      sample: at(state),
      dilutions: steps,
    })),
    isComplete: references !== null && (analysis.excess === null || excess !== null),
  };
}

export type SampleBench = ReturnType<typeof sampleBench>;

/** As they are titrated: a control first, then as they were received. */
function inOrder(samples: readonly SampleState[]): readonly SampleState[] {
  const place = ({ sample, received }: SampleState): string =>
    `${sample.isControl === true ? '0' : '1'} ${received.at}`;
  return samples.toSorted((a, b) => place(a).localeCompare(place(b)));
}

/** The chosen analysis, else the first that a sample is asked for. */
function analysisOf({ analysisId }: ChosenSamples, stores: SampleStores): Analysis {
  const found = pick(analysesAsked(stores), analysisId) ?? pick(stores.analyses, analysisId);
  if (!found) throw new RangeError('the catalogue has analyses');
  return found;
}

/** The analyses that samples are asked for, in the order of the catalogue. */
export function analysesAsked({
  analyses,
  samples,
}: Pick<SampleStores, 'analyses' | 'samples'>): readonly Analysis[] {
  return analyses.filter((one) =>
    samples.some(({ sample }) => requestFor(sample, one.id) !== null),
  );
}

/** Bottles of some solutions whose molarity is known, those in date first. */
function knownSolutions(
  bottles: readonly BottleState[],
  substanceIds: readonly string[],
  today: PlainDate,
): readonly BottleState[] {
  const isOver = (bottle: BottleState): number => Number(!mayBeUsed(freshnessOf(bottle, today)));
  return bottles
    .filter(
      (bottle) =>
        substanceIds.includes(bottle.substanceId) &&
        bottle.withdrawn === null &&
        knownMolarity(bottle) !== null,
    )
    .toReversed()
    .toSorted((a, b) => isOver(a) - isOver(b));
}

/** Balances where portions are weighed, vessels where they are measured; both where either will do. */
function instrumentsFor(
  analysis: Analysis,
  equipment: readonly EquipmentState[],
): readonly EquipmentState[] {
  const takes = (kind: 'weighed' | 'aliquot'): boolean =>
    analysis.portions.some((portion) => portion.kind === kind);
  return [
    ...(takes('weighed') ? equipment.filter((one) => one.equipment.type === 'balance') : []),
    ...(takes('aliquot') ? vesselsFor(analysis, equipment) : []),
  ];
}

function portioningBy(
  instrument: EquipmentState,
  areWhole: boolean,
): { readonly choice: PortioningChoice; readonly record: Portioning } | null {
  if (instrument.equipment.type !== 'balance') {
    return {
      choice: { kind: 'aliquot', vessel: at(instrument) },
      record: { kind: 'aliquot', vessel: instrument },
    };
  }
  const balance = calibratedBalance(instrument);
  const whole = areWhole ? ({ whole: true } as const) : {};
  return (
    balance && {
      choice: { kind: 'weighed', balance: at(instrument), ...whole },
      record: { kind: 'weighed', balance, ...whole },
    }
  );
}

/** What a sample was diluted by, as it is titrated after all of its steps. */
function dilutedBy(
  { dilutions }: SampleState,
  equipment: readonly EquipmentState[],
): Pick<RunSample, 'dilutions'> & { readonly steps: SampleChoice['dilutions'] } {
  const found = dilutions.flatMap(({ pipette, flask }) => {
    const from = equipment.find(({ id }) => id === pipette.id);
    const into = equipment.find(({ id }) => id === flask.id);
    return from && into ? [{ pipette: from, flask: into }] : [];
  });
  return { dilutions: found, steps: dilutions.map(({ pipette, flask }) => ({ pipette, flask })) };
}
