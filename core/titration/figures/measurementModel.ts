import type { Determination, Dilution } from '../../determination';
import { balanceOf, solve } from '../../determination';
import type { Expression, Input } from '../../measurement';
import { combineComponents, define, input, mean, product, UNITS } from '../../measurement';
import type { Flask, RunState } from '../run';
import { sampleIdOf } from '../run';
import { isAnalysis, soughtOf } from '../setUp';
import { massFactorOf } from './corrections';
import {
  buretteInputs,
  dilutionInputs,
  excessInputs,
  partTitreInput,
  portionInputs,
  titreInput,
} from './inputs';
import { determinationOf } from './runDetermination';

/** The repeatability of the mean, relative, when it enters the budget in place of the inputs it covers. */
export interface Repeatability {
  readonly relativeStandardUncertainty: number;
  readonly degreesOfFreedom: number;
  readonly source: string;
}

/**
 * Measurement equation of a run: the mean over the flasks i, times f_rep, of its determination's balance solved for what is
 * sought, where
 *
 *     m_i   = m_read,i + dm_lin + dm_rep,i
 *     V_a,i = V_read,i + dV_a
 *     V_i   = (sum over the fillings of R_to - R_from, less the blank, + C_i + dV_cal + dV_end,i) (1 - gamma dT)
 *
 * C_i is what the certificate of a calibrated burette corrects. The other corrections have the value 0 (f_rep the value 1; dV_end that of an end point that was overshot) and carry uncertainty.
 * Purity, molar mass, molarity of the standard, linearity, calibration, blank and temperature are common to all flasks;
 * readings, weighing repeatability, filling of the pipette and end point vary. A reading carried over from one flask
 * to the next is one input. The temperature cancels between two volumes of a solution in water.
 * Of a part of a content V_i is what of both ends makes its titre.
 * Source: EURACHEM/CITAC Guide CG 4, examples A2 and A3, with the readings and the end point made explicit.
 */
export function measurementModel(
  run: RunState,
  flasks: readonly Flask[],
  repeatability: Repeatability,
): Expression {
  const sought = soughtOf(run.references);
  const { unit } = sought.as;
  const burette = buretteInputs(run, flasks);
  const determination = withDilutions(
    determinationOf(run.references, burette.blank, massFactorOf(run)),
    dilutionInputs(run),
  );
  const portionIn = portionInputs(run, flasks, burette.thermalFactor);
  const excessIn = excessInputs(run, burette.thermalFactor);
  const [symbol, each] = isAnalysis(run.references) ? ['x', 'content'] : ['c', 'molarity'];
  const part = isAnalysis(run.references) ? run.references.method.part : undefined;
  const found = flasks.map((flask) => {
    const balance = balanceOf(withExcess(determination, excessIn(flask)));
    const titre = part
      ? partTitreInput(run, flask, burette, part.titre)
      : titreInput(run, flask, burette);
    const given = { titre, portion: portionIn(flask) };
    const i = String(flask.number);
    return define(
      `${symbol}_${i}`,
      `${each} from flask ${i}`,
      unit,
      solve(balance, 'sought', given),
    );
  });
  const factor = input({
    id: `run:${[run.id, sampleIdOf(run)].filter(Boolean).join('/')}/repeatability`,
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
  return define(sought.symbol, sought.name, unit, product([mean(found), factor]));
}

/** The same determination with the volumes of its dilutions as they were measured. */
function withDilutions(
  determination: Determination,
  dilutions: readonly Dilution[],
): Determination {
  return determination.soughtIn === 'flask' ? { ...determination, dilutions } : determination;
}

/** The same determination with the volume of the excess as one flask got it. */
function withExcess(determination: Determination, volume: Expression | null): Determination {
  return determination.excess && volume
    ? { ...determination, excess: { ...determination.excess, volume } }
    : determination;
}

/** Whether an input's effect already shows in the scatter of replicates. */
export function isSeenInScatter(given: Input): boolean {
  return given.variation === 'by-replicate' && combineComponents(given.components) > 0;
}
