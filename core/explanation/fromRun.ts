import { findSubstance, molarMass, moleRatioOfMethod } from '../chemistry';
import { lotMolarMass, nominalMolPerL } from '../reagent';
import type { Judgement, RunState } from '../titration';
import { netMassG } from '../metrology';
import type { Diagnosis } from './explain';
import { explain } from './explain';

/**
 * What is out of line in a run, against the label of its bottle and the house rule of agreement, and what would explain it. Null
 * while no accurate titration gives a result.
 */
export function explainRun(run: RunState, judgement: Judgement): Diagnosis | null {
  const { lot, bottle, method, burette } = run.references;
  const replicates = judgement.replicates.flatMap(({ flask, verdict }) => {
    const isAccurate = verdict === 'counts' || verdict === 'set-aside';
    if (!isAccurate || !flask.initial || !flask.final) return [];
    return [
      {
        id: `flask ${String(flask.number)}`,
        fillings: [{ initialMl: Number(flask.initial.value), finalMl: Number(flask.final.value) }],
        portion: { massG: Number(netMassG(flask.weighing.value)) },
      },
    ];
  });
  if (replicates.length === 0) return null;
  const ratio = { titrant: moleRatioOfMethod(method), other: 1 };
  const otherForms = (findSubstance(lot.lot.substanceId)?.mistakenFor ?? []).flatMap((id) => {
    const form = findSubstance(id);
    return form
      ? [{ name: form.name, molarMassGPerMol: molarMass(form.formula).valueGPerMol }]
      : [];
  });
  return explain(
    {
      determination: {
        kind: 'standardization',
        standard: {
          kind: 'weighed',
          molarMassGPerMol: lotMolarMass(lot.lot).valueGPerMol,
          purity: Number(lot.lot.purity),
        },
        ratio,
        blankMl: null,
      },
      replicates,
      expectedMolPerL: nominalMolPerL(bottle),
    },
    {
      otherForms,
      balancedRatio: ratio,
      concentrateDensityGPerMl: null,
      titrantDilutionFactor: null,
      tareG: null,
      buretteCapacityMl: Number(burette.capacityMl),
      readingDecimals: run.setUp.rules.readingDecimals,
      history: bottle.certified.map(({ molarity }) => Number(molarity)),
    },
    {
      expectedPercent: Number(run.setUp.rules.farFromNominalAskPercent),
      agreementPercent: Number(run.setUp.rules.concordanceRelativeRangePercent),
    },
  );
}
