import { molarMass, moleRatioOfMethod } from '../chemistry';
import { decimalPlaces, exact, UNITS } from '../measurement';
import {
  blankOf,
  deliveredIn,
  determinationOf,
  endPointOf,
  plainMassFactor,
} from '../titration/figures';
import type { Judgement } from '../titration/judging';
import type { Flask, Reading, RunState } from '../titration/run';
import { stretchesOf } from '../titration/run';
import { arrangementOf, isAnalysis, soughtOf, standardLookalikes } from '../titration/setUp';
import type { Diagnosis } from './explain';
import { explain } from './explain';

/** The last reading, or where a curve that goes on beyond the end has it on the scale. */
function endOnScaleMl(run: RunState, flask: Flask, final: Reading): number {
  const { by, correctionMl } = endPointOf(run, flask);
  return Number(final.value) + (by === 'curve' ? correctionMl : 0);
}

/**
 * What is out of line in a run, against the label of its bottle and the house rule of agreement, and what would explain it. Null
 * while no accurate titration gives a result.
 */
export function explainRun(run: RunState, judgement: Judgement): Diagnosis | null {
  // What explains a molarity that is off is not what explains a content: of that nobody knows what it should be.
  if (isAnalysis(run.references)) return null;
  const { standard, bottle, method, burette } = run.references;
  const { portion, excess } = arrangementOf(run.references);
  const replicates = judgement.replicates.flatMap(({ flask, verdict }) => {
    if (verdict !== 'counts' && verdict !== 'set-aside') return [];
    const amount = deliveredIn(run.references, flask);
    return [
      {
        id: `flask ${String(flask.number)}`,
        fillings: stretchesOf(flask).map(({ from, to }) => ({
          initialMl: Number(from.value),
          finalMl: to === flask.final ? endOnScaleMl(run, flask, to) : Number(to.value),
        })),
        portion: portion.unit === 'g' ? { massG: amount } : { aliquotMl: amount },
      },
    ];
  });
  if (replicates.length === 0) return null;
  const { kind, volumeMl } = blankOf(run);
  const otherForms = standardLookalikes(standard).map(({ name, formula }) => ({
    name,
    molarMassGPerMol: molarMass(formula).valueGPerMol,
  }));
  return explain(
    {
      determination: determinationOf(
        run.references,
        { kind, volume: exact(volumeMl, UNITS.millilitre) },
        plainMassFactor(run),
      ),
      replicates,
      expectedMolPerL: soughtOf(run.references).expected,
    },
    {
      otherForms,
      balancedRatio: moleRatioOfMethod(method),
      concentrateDensityGPerMl: null,
      titrantDilutionFactor: null,
      tareG: null,
      excessMl: excess?.fixedMl ?? null,
      buretteCapacityMl: Number(burette.capacityMl),
      readingDecimals: decimalPlaces(run.setUp.rules.readingResolutionMl),
      history: bottle.certified.map(({ molarity }) => Number(molarity)),
    },
    {
      expectedPercent: Number(run.setUp.rules.farFromNominalAskPercent),
      agreementPercent: Number(run.setUp.rules.concordanceRelativeRangePercent),
    },
  );
}
