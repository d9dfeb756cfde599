import type { Determination, Excess } from '#core/determination';
import { MOLARITY, solutionOf } from '#core/determination';
import { exact, UNITS } from '#core/measurement';

type Kind<Place extends Determination['soughtIn']> = Extract<
  Determination,
  { readonly soughtIn: Place }
>;

/** A titrant in the burette is standardized by a standard that is weighed into each flask. */
export function byWeighedStandard(
  molarMassGPerMol: number,
  purity = 1,
  changes: Partial<Kind<'burette'>> = {},
): Kind<'burette'> {
  const molarMass = exact(molarMassGPerMol, UNITS.gramPerMole);
  return {
    soughtIn: 'burette',
    sought: MOLARITY,
    known: { kind: 'weighed', purity: exact(purity), molarMass, massFactor: null },
    soughtPerKnown: exact(1),
    excess: null,
    blank: { kind: 'none' },
    ...changes,
  };
}

/** A titrant in the burette is standardized by aliquots of a solution. */
export function byAliquots(
  molarityMolPerL: number,
  changes: Partial<Kind<'burette'>> = {},
): Kind<'burette'> {
  return { ...byWeighedStandard(1), known: solutionOf(molarityMolPerL), ...changes };
}

/** What is in the flask is found by a solution in the burette. */
export function inFlask(
  titrantMolPerL: number,
  changes: Partial<Kind<'flask'>> = {},
): Kind<'flask'> {
  return {
    soughtIn: 'flask',
    sought: MOLARITY,
    dilutions: [],
    known: solutionOf(titrantMolPerL),
    soughtPerKnown: exact(1),
    excess: null,
    blank: { kind: 'none' },
    ...changes,
  };
}

/** A pipette full of a reagent that takes up one mole for each of its own. */
export function excessOf(molarityMolPerL: number, volumeMl: number): Excess {
  return {
    molarity: exact(molarityMolPerL, UNITS.molePerLitre),
    volume: exact(volumeMl, UNITS.millilitre),
    soughtPerExcess: exact(1),
  };
}
