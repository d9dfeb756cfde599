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
import type { Expression, Input } from '../measurement';
import {
  buretteReading,
  volumeFactorAt20,
  volumeTolerance,
  endPointDrop,
  netMassG,
  temperatureDeviation,
  weighingLinearity,
  weighingRepeatability,
} from '../metrology';
import { findSolvent, findSubstance, moleRatioOfMethod } from '../chemistry';
import { lotMolarMass, lotPurityComponent } from '../reagent';
import { molarityByWeighedStandard } from './equations';
import type { Flask, Reading, RunState } from './run';

/** The repeatability of the mean, relative, when it enters the budget in place of the inputs it covers. */
export interface Repeatability {
  readonly relativeStandardUncertainty: number;
  readonly degreesOfFreedom: number;
  readonly source: string;
}

/**
 * Measurement equation of a standardization against weighed portions:
 *
 *     c = mean over i of ( nu m_i P / (M V_i) ) f_rep
 *     m_i = m_read,i + dm_lin + dm_rep,i
 *     V_i = (R_final,i - R_initial,i + dV_cal + dV_end,i) (1 - gamma dT)
 *
 * Corrections have the value 0 (f_rep the value 1) and carry uncertainty. Purity, molar mass, linearity, calibration
 * and temperature are common to all flasks; readings, weighing repeatability and end point vary. A reading carried
 * over from one flask to the next is one input.
 * Source: EURACHEM/CITAC Guide CG 4, example A2, with the readings and the end point made explicit.
 */
export function standardizationModel(
  run: RunState,
  flasks: readonly Flask[],
  repeatability: Repeatability,
): Expression {
  const common = commonInputs(run);
  const molarities = flasks.map((flask) => flaskMolarityModel(run, flask, common));
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

interface CommonInputs {
  readonly ratio: Expression;
  readonly purity: Expression;
  readonly molarMass: Expression;
  readonly linearity: Expression;
  readonly calibration: Expression;
  readonly thermalFactor: Expression;
}

function commonInputs(run: RunState): CommonInputs {
  const { lot, balance, burette, method } = run.references;
  const { setUp } = run;
  const lotId = `lot:${lot.id}`;
  const lotVersion = String(lot.version);
  const lotSource = `lot ${lot.lot.lotNumber}, certificate`;
  const molarMass = lotMolarMass(lot.lot);
  const temperatureC = Number(setUp.temperatureC);
  const solvent = findSolvent(method.solventId);
  if (!solvent) throw new RangeError(`solvent ${method.solventId} is not in the catalogue`);
  const temperature = commonInput({
    id: `run:${run.id}/temperature`,
    symbol: 'ΔT',
    name: 'temperature of the titrant above 20 °C',
    effect: 'Temperature',
    value: 0,
    unit: UNITS.kelvin,
    components: temperatureDeviation(temperatureC, Number(setUp.temperatureVariationK)),
    source: `${setUp.temperatureC} °C, ± ${setUp.temperatureVariationK} K (95 %)`,
  });
  return {
    ratio: exact(moleRatioOfMethod(method)),
    purity: commonInput({
      id: `${lotId}/purity@${lotVersion}`,
      symbol: 'P',
      name: 'purity of the standard',
      effect: 'Purity',
      value: Number(lot.lot.purity),
      unit: UNITS.one,
      components: [lotPurityComponent(lot.lot)],
      source: lotSource,
    }),
    molarMass: commonInput({
      id: `${lotId}/molar-mass@${lotVersion}`,
      symbol: 'M',
      name: 'molar mass of the standard',
      effect: 'Molar mass',
      value: molarMass.valueGPerMol,
      unit: UNITS.gramPerMole,
      components: [
        { name: 'molar mass', standardUncertainty: molarMass.standardUncertaintyGPerMol },
      ],
      source: lot.lot.statedMolarMass ? lotSource : 'formula, IUPAC atomic weights 2021',
    }),
    linearity: commonInput({
      id: `equipment:${setUp.balance.id}/linearity@${String(setUp.balance.version)}`,
      symbol: 'δm_lin',
      name: 'linearity of the balance',
      effect: 'Balance',
      value: 0,
      unit: UNITS.gram,
      components: weighingLinearity(balance),
      source: `balance ${balance.name}`,
    }),
    calibration: commonInput({
      id: `equipment:${setUp.burette.id}/tolerance@${String(setUp.burette.version)}`,
      symbol: 'δV_cal',
      name: 'calibration of the burette',
      effect: 'Burette tolerance',
      value: 0,
      unit: UNITS.millilitre,
      components: volumeTolerance(burette),
      source: `burette ${burette.name}, ± ${burette.toleranceMl} mL`,
    }),
    thermalFactor: volumeFactorAt20(solvent.cubicExpansionPerK, temperature),
  };
}

function flaskMolarityModel(run: RunState, flask: Flask, common: CommonInputs): Expression {
  const { balance, burette } = run.references;
  if (!flask.initial || !flask.final) {
    throw new RangeError(`flask ${String(flask.number)} has not been titrated`);
  }
  const i = String(flask.number);
  const ownInput = (given: Omit<Input, 'degreesOfFreedom' | 'variation'>): Expression =>
    input({ ...given, degreesOfFreedom: Number.POSITIVE_INFINITY, variation: 'by-replicate' });
  const mass = ownInput({
    id: `fact:${flask.weighing.factId}/mass`,
    symbol: `m_${i}`,
    name: `mass of standard in flask ${i}`,
    effect: 'Balance',
    value: Number(netMassG(flask.weighing.value)),
    unit: UNITS.gram,
    components: weighingRepeatability(balance),
    source: `balance ${balance.name}`,
  });
  const reading = (entry: Reading, moment: string): Expression =>
    ownInput({
      id: `fact:${entry.factId}/reading`,
      symbol: `R_${moment},${i}`,
      name: `${moment} reading of flask ${i}`,
      effect: 'Readings',
      value: Number(entry.value),
      unit: UNITS.millilitre,
      components: buretteReading(burette),
      source: `burette ${burette.name}`,
    });
  const endPoint = ownInput({
    id: `run:${run.id}/end-point/${i}`,
    symbol: `δV_end,${i}`,
    name: `end point of flask ${i}`,
    effect: 'End point',
    value: 0,
    unit: UNITS.millilitre,
    components: endPointDrop(burette),
    source: `drop of ${burette.dropMl} mL`,
  });
  const volume = define(
    `V_${i}`,
    `volume for flask ${i} at 20 °C`,
    UNITS.millilitre,
    product([
      sum([
        plus(reading(flask.final, 'final')),
        minus(reading(flask.initial, 'initial')),
        plus(common.calibration),
        plus(endPoint),
      ]),
      common.thermalFactor,
    ]),
  );
  return define(
    `c_${i}`,
    `molarity from flask ${i}`,
    UNITS.molePerLitre,
    molarityByWeighedStandard(
      {
        ratio: common.ratio,
        mass: sum([plus(mass), plus(common.linearity)]),
        purity: common.purity,
        molarMass: common.molarMass,
      },
      volume,
    ),
  );
}

/** Whether an input's effect already shows in the scatter of replicates. */
export function isSeenInScatter(given: Input): boolean {
  return given.variation === 'by-replicate' && combineComponents(given.components) > 0;
}
