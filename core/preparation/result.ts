import { findSubstance, solventOf } from '../chemistry';
import type { Component, DecimalText, Evaluation, Expression } from '../measurement';
import {
  commonInput,
  correlationsIn,
  exact,
  figureText,
  plus,
  product,
  propagate,
  quotient,
  roundHalfEven,
  roundSignificant,
  roundToUncertainty,
  sum,
  UNITS,
} from '../measurement';
import type {
  CalibratedThermometer,
  Equipment,
  EquipmentState,
  MeasuredLiquid,
  Weighing,
} from '../metrology';
import {
  calibratedBalance,
  calibratedPointOf,
  calibratedThermometer,
  calibrationComponents,
  deliveryRepeatability,
  massFactor,
  netMassG,
  thermalFactor,
  volumeTolerance,
  weighingDeviation,
  weighingRepeatability,
} from '../metrology';
import type { BottleState, LotState } from '../reagent';
import {
  bottleMolarityInput,
  gramsPerLitreOfContent,
  knownMolarity,
  lotMolarMassInput,
  lotPurityInput,
} from '../reagent';
import { dilutedMolarity, molarityOfSolution } from './equations';
import type { PreparationState } from './record';
import { measuredIn } from './record';
import type { PreparationPlan } from './work';
import { isExact, recipeOf, volumetricFlaskOf } from './work';

/** The records that a preparation rests on. */
export interface PreparationRecords {
  readonly lots: readonly LotState[];
  readonly bottles: readonly BottleState[];
  readonly equipment: readonly EquipmentState[];
}

/** What came of a preparation. */
export type PreparationResult =
  | {
      /** Known from how it was made: a standard. */
      readonly kind: 'made';
      readonly evaluation: Evaluation;
      readonly rounded: { readonly value: DecimalText; readonly uncertainty: DecimalText };
      readonly coverageFactor: DecimalText;
    }
  | {
      /** Nominal: to be standardized, or good enough as it is. */
      readonly kind: 'nominal';
      readonly molarity: DecimalText;
      readonly range: readonly [low: DecimalText, high: DecimalText];
      /** Why it is no standard. */
      readonly why: string;
    }
  | { readonly kind: 'without-molarity' };

/** Volumes in beakers and cylinders are good to this part, rectangular. */
const BEAKER = 0.05;

/** The density on a label is good to this part, rectangular. */
const LABEL_DENSITY = 0.01;

/** What is written of a sample may be off by this part, rectangular. */
const GUESS = 0.05;

/** Half-width of the laboratory's temperature when nobody measured it, K. */
const UNMEASURED_K = 5;

/** Reading and evenness of a measured temperature, K. */
const MEASURED_K = 1;

/**
 * The molarity from what was really done, through the measurement model: c = m P / (M V), c = w rho V' / (M V) or
 * c = c0 V_a / V_f for each stage, with volumes at 20 °C. Null while a figure is missing or disputed.
 *
 * @throws RangeError when a record that the plan names is not among the given ones.
 */
export function resultOf(
  preparation: PreparationState,
  records: PreparationRecords,
): PreparationResult | null {
  const { plan } = preparation;
  if (plan.source.kind === 'indicator') return { kind: 'without-molarity' };
  const model = molarityModel(preparation, records);
  if (!model) return null;
  const evaluation = propagate(model, UNITS.molePerLitre, { correlations: correlationsIn(model) });
  const { value, expandedUncertainty } = evaluation;
  const why = whyNominal(preparation, records);
  if (why === null) {
    return {
      kind: 'made',
      evaluation,
      rounded: roundToUncertainty(value, expandedUncertainty),
      coverageFactor: roundHalfEven(evaluation.coverageFactor, 2),
    };
  }
  return {
    kind: 'nominal',
    molarity: roundSignificant(value, 3),
    range: [
      roundSignificant(Math.max(0, value - expandedUncertainty), 3),
      roundSignificant(value + expandedUncertainty, 3),
    ],
    why,
  };
}

/** Why the molarity is nominal; null for a standard. */
function whyNominal(preparation: PreparationState, records: PreparationRecords): string | null {
  const { plan } = preparation;
  const { source } = plan;
  if (volumetricFlaskOf(plan) === null) return 'made with cylinder and beaker';
  if (source.kind === 'concentrate') return 'taken from a concentrate by cylinder';
  if (source.kind === 'weigh') {
    const lot = find(records.lots, source.lotId);
    return isExact(plan) ? null : `lot ${lot.lot.lotNumber} is not a primary standard`;
  }
  if (source.kind !== 'dilute') return null;
  if (source.from.kind === 'sample') return 'the molarity of the sample is not known';
  const parent = find(records.bottles, source.from.bottleId);
  return knownMolarity(parent) ? null : `bottle ${parent.code} is nominal itself`;
}

function find<T extends { readonly id: string }>(among: readonly T[], id: string): T {
  const found = among.find((one) => one.id === id);
  if (!found) throw new RangeError(`record ${id} was not given`);
  return found;
}

function ofType<K extends Equipment['type']>(
  records: PreparationRecords,
  id: string,
  type: K,
): { readonly item: Extract<Equipment, { type: K }>; readonly at: string } {
  const { equipment, version } = find(records.equipment, id);
  if (equipment.type !== type) throw new RangeError(`${equipment.name} is no ${type}`);
  const at = `equipment:${id}/tolerance@${String(version)}`;
  return { item: equipment as Extract<Equipment, { type: K }>, at };
}

function rectangular(name: string, halfWidth: number): Component {
  return { name, distribution: 'rectangular', halfWidth };
}

function molarityModel(
  preparation: PreparationState,
  records: PreparationRecords,
): Expression | null {
  const { plan } = preparation;
  const { source } = plan;
  switch (source.kind) {
    case 'weigh': {
      const entry = measuredIn(preparation, 'mass');
      if (entry?.quantity.kind !== 'mass') return null;
      const lot = find(records.lots, source.lotId);
      const { factId } = entry;
      const { weighing } = entry.quantity;
      const mass = massWeighed(preparation, records, source.balanceId, { factId, weighing });
      const volume = volumeMadeUp(preparation, records);
      return molarityOfSolution(mass, lotPurityInput(lot), lotMolarMassInput(lot), volume);
    }
    case 'concentrate': {
      const taken = volumeTaken(preparation, records, source.cylinderId);
      if (!taken) return null;
      const lot = find(records.lots, source.lotId);
      const density = gramsPerLitreOfContent(lot.lot);
      if (density === null) throw new RangeError(`lot ${lot.lot.lotNumber} is not a solution`);
      const isByMass = lot.lot.dissolved?.meaning === 'by-mass';
      const massConcentration = product([
        lotPurityInput(lot),
        commonInput({
          id: `lot:${lot.id}/density@${String(lot.version)}`,
          symbol: 'ρ',
          name: 'density of the concentrate',
          effect: 'Density',
          value: density,
          unit: UNITS.gramPerLitre,
          components: isByMass
            ? [rectangular('as printed on its label', LABEL_DENSITY * density)]
            : [],
          source: isByMass ? `lot ${lot.lot.lotNumber}` : 'content stated by volume',
        }),
      ]);
      return molarityOfSolution(
        product([massConcentration, taken]),
        exact(1),
        lotMolarMassInput(lot),
        volumeMadeUp(preparation, records),
      );
    }
    case 'add-volumes': {
      const taken = volumeTaken(preparation, records, source.cylinderId);
      if (!taken) return null;
      const { weakerBottleId } = source;
      const parent = find(records.bottles, source.bottleId);
      const fill = commonInput({
        id: 'fill',
        symbol: 'V_w',
        name: weakerBottleId === null ? 'water' : 'weaker solution',
        effect: 'Volume',
        value: Number(source.fillMl),
        unit: UNITS.millilitre,
        components: [rectangular('cylinder', BEAKER * Number(source.fillMl))],
        source: 'cylinder; volumes taken as additive',
      });
      const strong = product([parentInput(parent), taken]);
      const whole = sum([plus(taken), plus(fill)]);
      if (weakerBottleId === null) return quotient(strong, whole);
      const weak = parentInput(find(records.bottles, weakerBottleId));
      return quotient(sum([plus(strong), plus(product([weak, fill]))]), whole);
    }
    case 'dilute': {
      const { from, stages } = source;
      const molarity =
        from.kind === 'bottle'
          ? parentInput(find(records.bottles, from.bottleId))
          : commonInput({
              id: 'sample',
              symbol: 'c_0',
              name: `molarity of ${from.name}`,
              effect: 'Sample',
              value: Number(from.molarity),
              unit: UNITS.molePerLitre,
              components: [rectangular('a guess', GUESS * Number(from.molarity))],
              source: 'as written',
            });
      return dilutedMolarity(molarity, stagesOf(records, stages));
    }
    case 'indicator':
      return null;
  }
}

function parentInput(bottle: BottleState): Expression {
  return bottleMolarityInput(bottle, 'c_0', 'Parent solution');
}

function volumeTaken(
  preparation: PreparationState,
  records: PreparationRecords,
  cylinderId: string | null,
): Expression | null {
  const entry = measuredIn(preparation, 'volume');
  if (entry?.quantity.kind !== 'volume') return null;
  const value = Number(entry.quantity.volumeMl);
  const cylinder = cylinderId === null ? null : ofType(records, cylinderId, 'glassware').item;
  return commonInput({
    id: `fact:${entry.factId}/volume`,
    symbol: "V'",
    name: 'volume taken',
    effect: 'Volume taken',
    value,
    unit: UNITS.millilitre,
    components: cylinder ? volumeTolerance(cylinder) : [rectangular('cylinder', BEAKER * value)],
    source: cylinder?.name ?? 'a cylinder',
  });
}

function volumeMadeUp(preparation: PreparationState, records: PreparationRecords): Expression {
  const flaskId = volumetricFlaskOf(preparation.plan);
  return flaskId === null
    ? beaker(preparation.plan.volumeMl)
    : flaskAtReference(preparation, records, flaskId);
}

function beaker(volumeMl: DecimalText): Expression {
  return commonInput({
    id: 'volume',
    symbol: 'V',
    name: 'volume made up',
    effect: 'Volume',
    value: Number(volumeMl),
    unit: UNITS.millilitre,
    components: [rectangular('beaker and cylinder', BEAKER * Number(volumeMl))],
    source: 'beaker and cylinder, ± 5 %',
  });
}

/**
 * The volumes of a dilution's stages. A vessel that is used again is the same one: what it is off counts as often as it is
 * used, in the same direction; only how it is filled differs each time.
 */
function stagesOf(
  records: PreparationRecords,
  stages: Extract<PreparationPlan['source'], { kind: 'dilute' }>['stages'],
): Parameters<typeof dilutedMolarity>[1] {
  const known = new Map<string, Expression>();
  const volumeOf = (id: string, letter: 'a' | 'f', turn: number): Expression => {
    const symbol = `V_${letter}${String(turn)}`;
    const volume =
      known.get(id) ?? vessel(records, id, symbol, letter === 'a' ? 'Pipette' : 'Flask');
    known.set(id, volume);
    const filling = fillingOf(records, id, turn);
    return filling ? sum([plus(volume), plus(filling)]) : volume;
  };
  return stages.map(({ pipetteId, flaskId }, i) => ({
    aliquot: volumeOf(pipetteId, 'a', i + 1),
    flask: volumeOf(flaskId, 'f', i + 1),
  }));
}

/** How one filling of a calibrated vessel strays from what it holds; within the tolerance of one that is not calibrated. */
function fillingOf(records: PreparationRecords, id: string, turn: number): Expression | null {
  const { item, at } = ofType(records, id, 'glassware');
  const point = calibratedPointOf(find(records.equipment, id));
  return (
    point &&
    commonInput({
      id: `${at}/filling/${String(turn)}`,
      symbol: `δ_${String(turn)}`,
      name: `filling of ${item.name}`,
      effect: 'Filling',
      value: 0,
      unit: UNITS.millilitre,
      components: deliveryRepeatability(item, point),
      source: `${item.name}, as it was calibrated`,
    })
  );
}

/** What a flask holds or a pipette delivers, as calibrated where it was. The temperature cancels between the two of a dilution. */
function vessel(
  records: PreparationRecords,
  id: string,
  symbol: string,
  effect: 'Flask' | 'Pipette',
): Expression {
  const { item, at } = ofType(records, id, 'glassware');
  const point = calibratedPointOf(find(records.equipment, id));
  return commonInput({
    id: at,
    symbol,
    name: `volume of ${item.name}`,
    effect,
    value: point ? point.nominal + point.deviation : Number(item.volumeMl),
    unit: UNITS.millilitre,
    components: point ? calibrationComponents(point) : volumeTolerance(item),
    source: point
      ? `${item.name}, calibrated`
      : `${item.name}, ± ${figureText(item.toleranceMl)} mL`,
  });
}

/** The volume at the reference temperature of what filled a flask to its mark at the temperature measured. */
function flaskAtReference(
  preparation: PreparationState,
  records: PreparationRecords,
  flaskId: string,
): Expression {
  const { plan } = preparation;
  const quantity = measuredIn(preparation, 'temperature')?.quantity;
  const measured = quantity?.kind === 'temperature' ? quantity.temperatureC : null;
  const atMark: MeasuredLiquid = {
    inputId: `preparation:${preparation.id}/temperature`,
    what: 'temperature at the mark',
    liquid: solventOf(recipeOf(plan)?.solventId ?? 'water'),
    readC: Number(measured ?? plan.corrections.referenceTemperatureC),
    variationK: measured === null ? UNMEASURED_K : MEASURED_K,
    thermometer: measured === null ? null : thermometerOf(plan, records),
    source: measured === null ? 'not measured' : `${figureText(measured)} °C`,
  };
  const volume = vessel(records, flaskId, 'V', 'Flask');
  const filling = fillingOf(records, flaskId, 1);
  return product([
    filling ? sum([plus(volume), plus(filling)]) : volume,
    thermalFactor(atMark, plan.corrections),
  ]);
}

function thermometerOf(
  { thermometerId }: PreparationPlan,
  records: PreparationRecords,
): CalibratedThermometer | null {
  return thermometerId === null
    ? null
    : calibratedThermometer(find(records.equipment, thermometerId));
}

/** A mass as the balance shows it, its deviation as the certificate has it or within its linearity, and the lift of the air. */
function massWeighed(
  { plan }: PreparationState,
  records: PreparationRecords,
  balanceId: string,
  { factId, weighing }: { readonly factId: string; readonly weighing: Weighing },
): Expression {
  const state = find(records.equipment, balanceId);
  const balance = calibratedBalance(state);
  if (!balance) throw new RangeError(`${state.equipment.name} is no balance`);
  const shownG = Number(netMassG(weighing));
  const substance = findSubstance(plan.soluteId, plan.own);
  const shown = commonInput({
    id: `fact:${factId}/mass`,
    symbol: 'm',
    name: `mass of ${substance?.name ?? 'solid'}`,
    effect: 'Mass',
    value: shownG,
    unit: UNITS.gram,
    components: weighingRepeatability(balance),
    source: `balance ${balance.name}`,
  });
  const { correctionG, components, isCertified } = weighingDeviation(balance, shownG);
  const deviation = commonInput({
    id: `equipment:${balanceId}/linearity@${String(state.version)}`,
    symbol: 'δm_lin',
    name: isCertified ? 'calibration of the balance' : 'linearity of the balance',
    effect: 'Mass',
    value: correctionG,
    unit: UNITS.gram,
    components,
    source: `balance ${balance.name}${isCertified ? ', calibrated' : ''}`,
  });
  const mass = sum([plus(shown), plus(deviation)]);
  const factor = massFactor(substance?.densityGPerCm3 ?? null, null, plan.corrections);
  return factor ? product([mass, factor]) : mass;
}
