import {
  combineComponents,
  commonInput,
  define,
  exact,
  input,
  mean,
  minus,
  plus,
  product,
  sum,
  UNITS,
} from '../measurement';
import type { Expression, Input, Term } from '../measurement';
import type { HouseRules } from '../laboratory';
import type { Burette, CalibratedBurette, EquipmentState, Glassware } from '../metrology';
import {
  buretteReading,
  calibratedPointOf,
  calibrationComponents,
  deliveryRepeatability,
  endPointWithin,
  temperatureDeviation,
  volumeFactorAt20,
  volumeTolerance,
  weighingLinearity,
  weighingRepeatability,
} from '../metrology';
import type { Method } from '../chemistry';
import { excessRatioOfMethod, findSolvent, findSubstance, moleRatioOfMethod } from '../chemistry';
import { bottleMolarityInput, lotMolarMassInput, lotPurityInput } from '../reagent';
import {
  molarityByAliquot,
  molarityByBackTitration,
  molarityByStandardInBurette,
  molarityByWeighedStandard,
} from './equations';
import { amountIn, blanksOf, buretteCorrections, endPointOf, isExcessByBlank } from './consumed';
import type { RunSetUp } from './setUp';
import { pipetteVolumeMl } from './standard';
import type { Flask, Reading, RunExcess, RunStandard, RunState } from './state';
import { placeName, readingsOf } from './run';

/** The repeatability of the mean, relative, when it enters the budget in place of the inputs it covers. */
export interface Repeatability {
  readonly relativeStandardUncertainty: number;
  readonly degreesOfFreedom: number;
  readonly source: string;
}

/**
 * Measurement equation of a standardization, the mean over the flasks i times f_rep of
 *
 *     weighed standard in the flask     c_i = nu m_i P / (M V_i)       m_i = m_read,i + dm_lin + dm_rep,i
 *     aliquot of a standard solution    c_i = nu c_s V_a,i / V_i       V_a,i = V_read,i + dV_a
 *     standard solution in the burette  c_i = nu c_s V_i / V_a,i
 *     back-titration of an excess       c_i = (nu_e c_e V_e,i - nu c_s V_i) / V_a,i, or nu c_s (V_blank - V_i) / V_a,i
 *
 *     V_i = (sum over the fillings of R_to - R_from, less the blank, + C_i + dV_cal + dV_end,i) (1 - gamma dT)
 *
 * C_i is what the certificate of a calibrated burette corrects. The other corrections have the value 0 (f_rep the value 1; dV_end that of an end point that was overshot) and carry uncertainty.
 * Purity, molar mass, molarity of the standard, linearity, calibration, blank and temperature are common to all flasks;
 * readings, weighing repeatability, filling of the pipette and end point vary. A reading carried over from one flask
 * to the next is one input. The temperature cancels between two volumes of a solution in water.
 * Source: EURACHEM/CITAC Guide CG 4, examples A2 and A3, with the readings and the end point made explicit.
 */
export function standardizationModel(
  run: RunState,
  flasks: readonly Flask[],
  repeatability: Repeatability,
): Expression {
  const burette = buretteInputs(run, flasks);
  const standard = standardInputs(run, burette.thermalFactor);
  const molarities = flasks.map((flask) => flaskMolarityModel(run, flask, standard, burette));
  const factor = input({
    id: `run:${run.id}/repeatability`,
    symbol: 'f_rep',
    name: 'repeatability of the mean',
    effect: 'Repeatability',
    value: 1,
    unit: UNITS.one,
    components: [
      {
        name: 'repeatability',
        standardUncertainty: repeatability.relativeStandardUncertainty,
        degreesOfFreedom: repeatability.degreesOfFreedom,
        distribution: Number.isFinite(repeatability.degreesOfFreedom) ? 'student' : 'normal',
      },
    ],
    degreesOfFreedom: repeatability.degreesOfFreedom,
    source: repeatability.source,
    variation: 'common',
  });
  const titrant = findSubstance(run.references.bottle.substanceId)?.shortName ?? 'titrant';
  return define(
    `c_${titrant}`,
    'molarity of the titrant',
    UNITS.molePerLitre,
    product([mean(molarities), factor]),
  );
}

/** Inputs that all readings of a burette share. */
interface BuretteInputs {
  readonly calibration: Expression;
  readonly thermalFactor: Expression;
  /** Volume that the blanks took; null without one, and where they say nothing of an excess. */
  readonly blank: Expression | null;
}

function buretteInputs(run: RunState, flasks: readonly Flask[]): BuretteInputs {
  const { burette, method } = run.references;
  const { setUp } = run;
  const solvent = findSolvent(method.solventId);
  if (!solvent) throw new RangeError(`solvent ${method.solventId} is not in the catalogue`);
  const temperature = commonInput({
    id: `run:${run.id}/temperature`,
    symbol: 'ΔT',
    name: 'temperature of the titrant above 20 °C',
    effect: 'Temperature',
    value: 0,
    unit: UNITS.kelvin,
    components: temperatureDeviation(
      Number(setUp.temperatureC),
      Number(setUp.temperatureVariationK),
    ),
    source: `${setUp.temperatureC} °C, ± ${setUp.temperatureVariationK} K (95 %)`,
  });
  const blanks = run.references.excess && !isExcessByBlank(run) ? [] : blanksOf(run);
  return {
    calibration: buretteCalibration(run, flasks),
    thermalFactor: volumeFactorAt20(solvent.cubicExpansionPerK, temperature),
    blank:
      blanks.length === 0
        ? null
        : define(
            'V_blank',
            'volume that a blank takes',
            UNITS.millilitre,
            mean(
              blanks.map((flask) =>
                sum([...readingTerms(burette, flask), plus(endPointInput(run, flask))]),
              ),
            ),
          ),
  };
}

/** What is not known of all that a burette delivers: what its certificate leaves open, or its tolerance. */
function buretteCalibration(
  { setUp, references: { burette } }: RunState,
  flasks: readonly Flask[],
): Expression {
  const given = {
    symbol: 'δV_cal',
    name: 'calibration of the burette',
    value: 0,
    unit: UNITS.millilitre,
  };
  const id = `equipment:${setUp.burette.id}`;
  const version = String(setUp.burette.version);
  if (!burette.calibration) {
    return commonInput({
      ...given,
      id: `${id}/tolerance@${version}`,
      effect: 'Burette tolerance',
      components: toleranceOf(burette, setUp.rules),
      source: `burette ${burette.name}, ± ${burette.toleranceMl} mL`,
    });
  }
  // One input for all flasks: that of the flask for which the certificate leaves most open. What it leaves open of a blank
  // is next to nothing: both its readings lie close together.
  const expandedUncertainty = Math.max(
    ...flasks.map((flask) =>
      Math.hypot(...buretteCorrections(burette, flask).map((one) => one.expandedUncertaintyMl)),
    ),
  );
  return commonInput({
    ...given,
    id: `${id}/calibration@${version}`,
    effect: 'Burette calibration',
    components: calibrationComponents({ expandedUncertainty }),
    source: `burette ${burette.name}, calibrated`,
  });
}

/** What the standard contributes to the molarity of each flask, given its volume from the burette. */
type StandardInputs = (flask: Flask, volume: Expression) => Expression;

function standardInputs(run: RunState, thermalFactor: Expression): StandardInputs {
  const { standard, method, excess } = run.references;
  const ratio = exact(moleRatioOfMethod(method));
  if (standard.kind === 'lot') return weighedInputs(run, standard, ratio);
  const molarity = bottleMolarityInput(standard.bottle, 'c_s', 'Standard solution');
  const portion = { symbol: 'V_a', name: 'aliquot', effect: 'Aliquot' };
  const aliquotOf = pipettedInputs(run.setUp, standard.vessel, portion, amountIn, thermalFactor);
  if (excess && !isExcessByBlank(run)) {
    const addedTo = excessInputs(run.setUp, method, excess, thermalFactor);
    return (flask, volume) =>
      molarityByBackTitration(addedTo(flask), product([ratio, molarity, volume]), aliquotOf(flask));
  }
  const molarityBy =
    method.inBurette === 'titrant' ? molarityByAliquot : molarityByStandardInBurette;
  return (flask, volume) => molarityBy(ratio, molarity, aliquotOf(flask), volume);
}

/** The excess in each flask, as an amount of what it can take up. */
function excessInputs(
  setUp: RunSetUp,
  method: Method,
  { bottle, vessel }: RunExcess,
  thermalFactor: Expression,
): (flask: Flask) => Expression {
  const ratio = exact(excessRatioOfMethod(method) ?? 0);
  const molarity = bottleMolarityInput(bottle, 'c_e', 'Excess');
  const added = { symbol: 'V_e', name: 'excess', effect: 'Excess' };
  const nominalMl = pipetteVolumeMl(vessel);
  const volumeIn = pipettedInputs(setUp, vessel, added, () => nominalMl, thermalFactor);
  return (flask) => product([ratio, molarity, volumeIn(flask)]);
}

function weighedInputs(
  run: RunState,
  { lot, balance }: Extract<RunStandard, { kind: 'lot' }>,
  ratio: Expression,
): StandardInputs {
  const linearity = commonInput({
    id: linearityId(run),
    symbol: 'δm_lin',
    name: 'linearity of the balance',
    effect: 'Balance',
    value: 0,
    unit: UNITS.gram,
    components: weighingLinearity(balance),
    source: `balance ${balance.name}`,
  });
  const purity = lotPurityInput(lot);
  const molarMass = lotMolarMassInput(lot);
  return (flask, volume) => {
    const i = String(flask.number);
    const mass = ownInput({
      id: `fact:${flask.portion.factId}/mass`,
      symbol: `m_${i}`,
      name: `mass of standard in flask ${i}`,
      effect: 'Balance',
      value: amountIn(flask),
      unit: UNITS.gram,
      components: weighingRepeatability(balance),
      source: `balance ${balance.name}`,
    });
    return molarityByWeighedStandard(
      { ratio, mass: sum([plus(mass), plus(linearity)]), purity, molarMass },
      volume,
    );
  };
}

/** The linearity of one balance is the same in every run that weighs on it. */
function linearityId({ setUp: { standard } }: RunState): string {
  if (standard.kind !== 'lot') throw new RangeError('only a lot is weighed');
  return `equipment:${standard.balance.id}/linearity@${String(standard.balance.version)}`;
}

/** How a volume that is pipetted into every flask appears in the equation and the budget. */
interface PipettedVolume {
  readonly symbol: string;
  readonly name: string;
  readonly effect: string;
}

/** A volume in each flask: what the vessel delivers, as calibrated where it was, and how well it was filled. */
function pipettedInputs(
  { rules }: RunSetUp,
  vessel: EquipmentState,
  { symbol, name, effect }: PipettedVolume,
  volumeMlIn: (flask: Flask) => number,
  thermalFactor: Expression,
): (flask: Flask) => Expression {
  const { equipment, id, version } = vessel;
  if (equipment.type !== 'glassware' && equipment.type !== 'burette') {
    throw new RangeError(`${equipment.name} measures no volume`);
  }
  const point = calibratedPointOf(vessel);
  const deviation = commonInput({
    // The tolerance of a burette that serves for both the aliquot and the titre is one and the same.
    id: `equipment:${id}/tolerance@${String(version)}`,
    symbol: `δ${symbol}`,
    name: `calibration of ${equipment.name}`,
    effect,
    value: point?.deviation ?? 0,
    unit: UNITS.millilitre,
    components: point ? calibrationComponents(point) : toleranceOf(equipment, rules),
    source: point
      ? `${equipment.name}, calibrated`
      : `${equipment.name}, ± ${equipment.toleranceMl} mL`,
  });
  return (flask) => {
    const i = String(flask.number);
    const read = ownInput({
      id: `fact:${flask.portion.factId}/${name}`,
      symbol: `${symbol},${i}`,
      name: `${name} in flask ${i}`,
      effect,
      value: volumeMlIn(flask),
      unit: UNITS.millilitre,
      components: deliveryRepeatability(equipment, point),
      source: equipment.name,
    });
    return product([sum([plus(read), plus(deviation)]), thermalFactor]);
  };
}

/** The tolerance of what measures a volume, distributed as the house rule takes it. */
function toleranceOf(vessel: Burette | Glassware, { toleranceAs }: HouseRules) {
  return volumeTolerance(
    toleranceAs === 'as-registered' ? vessel : { ...vessel, toleranceDistribution: toleranceAs },
  );
}

function ownInput(given: Omit<Input, 'degreesOfFreedom' | 'variation'>): Expression {
  return input({ ...given, degreesOfFreedom: Number.POSITIVE_INFINITY, variation: 'by-replicate' });
}

/** The readings of a titration with their signs, and what the certificate of the burette corrects in them. */
function readingTerms(burette: CalibratedBurette, flask: Flask): readonly Term[] {
  const reading = (entry: Reading, symbol: string, name: string): Expression =>
    ownInput({
      id: `fact:${entry.factId}/reading`,
      symbol: `R_${symbol},${String(flask.number)}`,
      name: `${name} of flask ${String(flask.number)}`,
      effect: 'Readings',
      value: Number(entry.value),
      unit: UNITS.millilitre,
      components: buretteReading(burette),
      source: `burette ${burette.name}`,
    });
  const readings = readingsOf(flask)
    .map(({ place, entry }) => {
      const expression = reading(entry, place.replace(' ', ''), placeName(place));
      return place === 'final' || place.startsWith('stop') ? plus(expression) : minus(expression);
    })
    .toReversed();
  const corrections = buretteCorrections(burette, flask).map(({ correctionMl }) => correctionMl);
  if (corrections.length === 0) return readings;
  const i = String(flask.number);
  const correction = define(
    `C_${i}`,
    `correction of the burette for flask ${i}`,
    UNITS.millilitre,
    exact(
      corrections.reduce((total, one) => total + one, 0),
      UNITS.millilitre,
    ),
  );
  return [...readings, plus(correction)];
}

function endPointInput(run: RunState, flask: Flask): Expression {
  const { correctionMl, halfWidthMl, by } = endPointOf(run, flask);
  const i = String(flask.number);
  return ownInput({
    id: `run:${run.id}/end-point/${i}`,
    symbol: `δV_end,${i}`,
    name: `end point of flask ${i}`,
    effect: 'End point',
    value: correctionMl,
    unit: UNITS.millilitre,
    components: endPointWithin(halfWidthMl),
    source: {
      drop: `drop of ${run.references.burette.dropMl} mL`,
      bracket: 'between two readings',
      curve: 'curve of the electrode',
    }[by],
  });
}

function flaskMolarityModel(
  run: RunState,
  flask: Flask,
  standard: StandardInputs,
  { calibration, thermalFactor, blank }: BuretteInputs,
): Expression {
  const i = String(flask.number);
  if (!flask.initial || !flask.final) throw new RangeError(`flask ${i} has not been titrated`);
  const readings = readingTerms(run.references.burette, flask);
  const endPoint = plus(endPointInput(run, flask));
  const net =
    blank && run.references.excess
      ? [plus(blank), minus(sum([...readings, endPoint])), plus(calibration)]
      : [...readings, ...(blank ? [minus(blank)] : []), plus(calibration), endPoint];
  const volume = define(
    `V_${i}`,
    `volume for flask ${i} at 20 °C`,
    UNITS.millilitre,
    product([sum(net), thermalFactor]),
  );
  return define(`c_${i}`, `molarity from flask ${i}`, UNITS.molePerLitre, standard(flask, volume));
}

/** Whether an input's effect already shows in the scatter of replicates. */
export function isSeenInScatter(given: Input): boolean {
  return given.variation === 'by-replicate' && combineComponents(given.components) > 0;
}
