import { requirePercentage, requirePositive, requirePurity, Unanswerable } from '../problem';

/** A solid as it is weighed. */
export interface Solid {
  /** M of the substance as weighed, hydrate water included, g/mol. */
  readonly molarMassGPerMol: number;
  /** P, mass fraction of the dried solid, above 0 up to 1; 1 when not given. */
  readonly purity?: number;
  /** Mass fraction that drying would take from the solid as weighed, 0 up to below 1; 0 when not given. */
  readonly lossOnDrying?: number;
  /** Moles of the solute that the molarity names, in one mole of the solid; 1 when not given. */
  readonly solutePerFormula?: number;
}

/** Mass of pure substance in a gram of the solid as weighed. @throws Unanswerable */
function pureFraction({ purity = 1, lossOnDrying = 0 }: Solid): number {
  requirePurity(purity);
  if (!(lossOnDrying >= 0 && lossOnDrying < 1)) {
    throw new Unanswerable(
      'out-of-range',
      'lossOnDrying',
      'The loss on drying must be at least 0 and less than 100 %.',
    );
  }
  return purity * (1 - lossOnDrying);
}

/**
 * Mass to weigh for a solution: m = c V M / (1000 P (1 - w) z), in g, with c in mol/L, V in mL, M in g/mol, w the loss on
 * drying and z the moles of solute per mole of solid.
 *
 * @throws Unanswerable `non-positive`, or `out-of-range` for a purity above 1.
 */
export function massForSolutionG(molarityMolPerL: number, volumeMl: number, solid: Solid): number {
  requirePositive(molarityMolPerL, 'molarity');
  requirePositive(volumeMl, 'volumeMl');
  return massOfAmountG((molarityMolPerL * volumeMl) / 1000, solid);
}

/** Mass of a solid that holds an amount of solute, in g. @throws Unanswerable */
function massOfAmountG(amountMol: number, solid: Solid): number {
  const { molarMassGPerMol, solutePerFormula = 1 } = solid;
  requirePositive(molarMassGPerMol, 'molarMassGPerMol');
  requirePositive(solutePerFormula, 'solutePerFormula');
  return (amountMol * molarMassGPerMol) / (solutePerFormula * pureFraction(solid));
}

/** What a solution made from a weighed mass holds. */
export interface ActualConcentration {
  readonly molarityMolPerL: number;
  /** Of pure substance. */
  readonly massConcentrationGPerL: number;
}

/**
 * Concentration from the mass actually weighed and made up to a volume: c = 1000 z m P (1 - w) / (M V).
 *
 * @throws Unanswerable `non-positive` or `out-of-range`.
 */
export function actualConcentration(
  massG: number,
  volumeMl: number,
  solid: Solid,
): ActualConcentration {
  requirePositive(massG, 'massG');
  requirePositive(volumeMl, 'volumeMl');
  const massOfOneMoleG = massOfAmountG(1, solid);
  return {
    molarityMolPerL: (1000 * massG) / (massOfOneMoleG * volumeMl),
    massConcentrationGPerL: (1000 * massG * pureFraction(solid)) / volumeMl,
  };
}

/** A concentrate as its label states it. */
export interface LabelledConcentrate {
  /** w, mass of substance in mass of solution, above 0 up to 1. */
  readonly massFraction: number;
  readonly densityGPerMl: number;
  readonly molarMassGPerMol: number;
}

/** Nothing is denser, g/mL; what seems so was given in kg/m3. */
const DENSEST_G_PER_ML = 23;

/**
 * Refuses what the label of a concentrate cannot say: a density in kg/m3, or a fraction where a percentage was asked for.
 *
 * @throws Unanswerable `out-of-range`
 */
export function requireLabel({ massFraction, densityGPerMl }: LabelledConcentrate): void {
  if (densityGPerMl > DENSEST_G_PER_ML) {
    const sentence = `A density of ${String(densityGPerMl)} g/mL is more than any substance has. If it is in kg/m3, divide it by 1000.`;
    throw new Unanswerable('out-of-range', 'densityGPerMl', sentence);
  }
  requirePercentage(massFraction, 'massFraction');
}

/** Molarity of a concentrate: c = 1000 w rho / M, in mol/L. @throws Unanswerable */
export function concentrateMolarity(concentrate: LabelledConcentrate): number {
  const { massFraction, densityGPerMl, molarMassGPerMol } = concentrate;
  requirePositive(massFraction, 'massFraction');
  requirePositive(densityGPerMl, 'densityGPerMl');
  requirePositive(molarMassGPerMol, 'molarMassGPerMol');
  if (massFraction > 1) {
    throw new Unanswerable('out-of-range', 'massFraction', 'A mass fraction cannot exceed 100 %.');
  }
  return (1000 * massFraction * densityGPerMl) / molarMassGPerMol;
}

/** Molarity of a solution labelled in % m/V, grams in 100 mL: c = 10 p / M, in mol/L. @throws Unanswerable */
export function molarityFromMassPerVolume(percent: number, molarMassGPerMol: number): number {
  requirePositive(percent, 'percent');
  requirePositive(molarMassGPerMol, 'molarMassGPerMol');
  return (10 * percent) / molarMassGPerMol;
}

/**
 * Volume of concentrate for a solution, in mL: V' = c V M / (1000 w rho), by way of its molarity.
 *
 * @throws Unanswerable `cannot-concentrate` when the concentrate is weaker than the solution wanted.
 */
export function concentrateVolumeMl(
  concentrate: LabelledConcentrate,
  molarityMolPerL: number,
  volumeMl: number,
): number {
  return initialVolumeMl(concentrateMolarity(concentrate), molarityMolPerL, volumeMl);
}

/**
 * Volume to dilute: V1 = c2 V2 / c1.
 *
 * @throws Unanswerable `cannot-concentrate` when c1 is below c2.
 */
export function initialVolumeMl(
  initialMolarity: number,
  finalMolarity: number,
  finalVolumeMl: number,
): number {
  requirePositive(initialMolarity, 'initialMolarity');
  requirePositive(finalMolarity, 'finalMolarity');
  requirePositive(finalVolumeMl, 'finalVolumeMl');
  requireDilution(finalMolarity <= initialMolarity, 'initialVolumeMl');
  return (finalMolarity * finalVolumeMl) / initialMolarity;
}

/** Volume to make up to: V2 = c1 V1 / c2. @throws Unanswerable `cannot-concentrate` when c1 is below c2. */
export function finalVolumeMl(
  initialMolarity: number,
  initialMl: number,
  finalMolarity: number,
): number {
  requirePositive(initialMolarity, 'initialMolarity');
  requirePositive(initialMl, 'initialVolumeMl');
  requirePositive(finalMolarity, 'finalMolarity');
  requireDilution(finalMolarity <= initialMolarity, 'finalVolumeMl');
  return (initialMolarity * initialMl) / finalMolarity;
}

/** A step of a dilution: an aliquot in a flask that is made up to its mark. */
export interface DilutionStep {
  readonly aliquotMl: number;
  readonly flaskMl: number;
}

/** f, how many times weaker a step makes a solution. @throws Unanswerable when the aliquot exceeds the flask. */
export function dilutionFactor({ aliquotMl, flaskMl }: DilutionStep): number {
  requirePositive(aliquotMl, 'aliquotMl');
  requirePositive(flaskMl, 'flaskMl');
  requireDilution(aliquotMl <= flaskMl, 'aliquotMl');
  return flaskMl / aliquotMl;
}

/** Dilution factor of several steps; 1 for none. @throws Unanswerable as `dilutionFactor`. */
export function overallDilutionFactor(steps: readonly DilutionStep[]): number {
  return steps.reduce((factor, step) => factor * dilutionFactor(step), 1);
}

/** Molarity after each step of a serial dilution, mol/L. @throws Unanswerable as `dilutionFactor`. */
export function serialDilution(
  stockMolarity: number,
  steps: readonly DilutionStep[],
): readonly number[] {
  requirePositive(stockMolarity, 'stockMolarity');
  return steps.map((_, i) => stockMolarity / overallDilutionFactor(steps.slice(0, i + 1)));
}

/** A solution by its molarity and volume. */
export interface SolutionPart {
  readonly molarityMolPerL: number;
  readonly volumeMl: number;
}

/** The solution that parts make together, taking volumes as additive. @throws Unanswerable */
export function mixSolutions(parts: readonly SolutionPart[]): SolutionPart {
  let volumeMl = 0;
  let amountMmol = 0;
  for (const part of parts) {
    requirePositive(part.volumeMl, 'volumeMl');
    if (!(part.molarityMolPerL >= 0)) {
      throw new Unanswerable('non-positive', 'molarity', 'A molarity cannot be negative.');
    }
    volumeMl += part.volumeMl;
    amountMmol += part.molarityMolPerL * part.volumeMl;
  }
  requirePositive(volumeMl, 'parts');
  return { molarityMolPerL: amountMmol / volumeMl, volumeMl };
}

/**
 * Solvent to add so that a solution reaches a lower molarity, in mL, taking volumes as additive.
 *
 * @throws Unanswerable `cannot-concentrate` when the solution is weaker than wanted.
 */
export function solventToAddMl(solution: SolutionPart, targetMolarity: number): number {
  return (
    finalVolumeMl(solution.molarityMolPerL, solution.volumeMl, targetMolarity) - solution.volumeMl
  );
}

/** N = z c, in equivalents per litre. @throws Unanswerable `non-positive`. */
export function normality(molarityMolPerL: number, equivalentsPerMole: number): number {
  requirePositive(molarityMolPerL, 'molarity');
  requirePositive(equivalentsPerMole, 'equivalentsPerMole');
  return molarityMolPerL * equivalentsPerMole;
}

/** c = N / z, in mol/L. @throws Unanswerable `non-positive`. */
export function molarityFromNormality(normalityEqPerL: number, equivalentsPerMole: number): number {
  requirePositive(normalityEqPerL, 'normality');
  requirePositive(equivalentsPerMole, 'equivalentsPerMole');
  return normalityEqPerL / equivalentsPerMole;
}

/** Mass of one equivalent, M / z, in g. @throws Unanswerable `non-positive`. */
export function equivalentMassG(molarMassGPerMol: number, equivalentsPerMole: number): number {
  requirePositive(molarMassGPerMol, 'molarMassGPerMol');
  requirePositive(equivalentsPerMole, 'equivalentsPerMole');
  return molarMassGPerMol / equivalentsPerMole;
}

function requireDilution(holds: boolean, field: string): void {
  if (!holds) {
    throw new Unanswerable(
      'cannot-concentrate',
      field,
      'Dilution only makes a solution weaker, and this one would have to become stronger.',
    );
  }
}
