import * as v from 'valibot';
import { roundToUncertainty } from '#core/measurement';
import type { Solid } from '#core/preparation';
import {
  CONCENTRATION_UNITS,
  convertConcentration,
  actualConcentration,
  concentrateMolarity,
  concentrateVolumeMl,
  equivalentMassG,
  finalVolumeMl,
  initialVolumeMl,
  massForSolutionG,
  mixSolutions,
  molarityFromNormality,
  normality,
  overallDilutionFactor,
  requireLabel,
  serialDilution,
  solventToAddMl,
} from '#core/preparation';
import { requirePercentage, requirePositive, Unanswerable } from '#core/problem';
import { dilutionSteps, number, optionalNumber, stepsOf, task } from './task';

const solidEntries = {
  molar_mass_g_per_mol: number,
  purity_percent: optionalNumber,
  loss_on_drying_percent: optionalNumber,
  moles_of_solute_per_formula: optionalNumber,
};

function solidOf(given: {
  molar_mass_g_per_mol: number;
  purity_percent?: number | undefined;
  loss_on_drying_percent?: number | undefined;
  moles_of_solute_per_formula?: number | undefined;
}): Solid {
  if (given.purity_percent !== undefined) requirePercentage(given.purity_percent / 100, 'purity');
  return {
    molarMassGPerMol: given.molar_mass_g_per_mol,
    purity: (given.purity_percent ?? 100) / 100,
    lossOnDrying: (given.loss_on_drying_percent ?? 0) / 100,
    solutePerFormula: given.moles_of_solute_per_formula ?? 1,
  };
}

export const PREPARATION_TASKS = [
  task(
    'mass-to-weigh',
    { target_molarity_mol_per_L: number, volume_mL: number, ...solidEntries },
    (given) => ({
      amount_mol: (given.target_molarity_mol_per_L * given.volume_mL) / 1000,
      mass_g: massForSolutionG(given.target_molarity_mol_per_L, given.volume_mL, solidOf(given)),
    }),
  ),
  task(
    'actual-concentration',
    {
      mass_g: number,
      volume_mL: number,
      target_molarity_mol_per_L: optionalNumber,
      ...solidEntries,
    },
    (given) => {
      const found = actualConcentration(given.mass_g, given.volume_mL, solidOf(given));
      const target = given.target_molarity_mol_per_L;
      if (target !== undefined) requirePositive(target, 'targetMolarity');
      return {
        molarity_mol_per_L: found.molarityMolPerL,
        mass_concentration_g_per_L: found.massConcentrationGPerL,
        ...(target !== undefined && { ratio_to_target: found.molarityMolPerL / target }),
      };
    },
  ),
  task(
    'volume-of-concentrate',
    {
      mass_fraction_percent: number,
      density_g_per_mL: number,
      molar_mass_g_per_mol: number,
      target_molarity_mol_per_L: number,
      final_volume_mL: number,
    },
    (given) => {
      const concentrate = {
        massFraction: given.mass_fraction_percent / 100,
        densityGPerMl: given.density_g_per_mL,
        molarMassGPerMol: given.molar_mass_g_per_mol,
      };
      requireLabel(concentrate);
      const volumeMl = concentrateVolumeMl(
        concentrate,
        given.target_molarity_mol_per_L,
        given.final_volume_mL,
      );
      return {
        concentrate_molarity_mol_per_L: concentrateMolarity(concentrate),
        concentrate_volume_mL: volumeMl,
        concentrate_mass_g: volumeMl * given.density_g_per_mL,
      };
    },
  ),
  task(
    'dilution',
    {
      initial_molarity_mol_per_L: optionalNumber,
      initial_volume_mL: optionalNumber,
      final_molarity_mol_per_L: optionalNumber,
      final_volume_mL: optionalNumber,
    },
    (given) => {
      const {
        initial_molarity_mol_per_L: c1,
        initial_volume_mL: v1,
        final_molarity_mol_per_L: c2,
        final_volume_mL: v2,
      } = given;
      if (c1 !== undefined && c2 !== undefined && v2 !== undefined && v1 === undefined) {
        return { initial_volume_mL: initialVolumeMl(c1, c2, v2), dilution_factor: c1 / c2 };
      }
      if (c1 !== undefined && v1 !== undefined && c2 !== undefined && v2 === undefined) {
        return { final_volume_mL: finalVolumeMl(c1, v1, c2), dilution_factor: c1 / c2 };
      }
      if (v1 === undefined || v2 === undefined || (c1 === undefined) === (c2 === undefined)) {
        throw new Unanswerable(
          'empty',
          'initial_volume_mL',
          'Three of the four quantities have to be given.',
        );
      }
      const known = c1 ?? c2 ?? Number.NaN;
      requirePositive(known, c1 === undefined ? 'finalMolarity' : 'initialMolarity');
      requirePositive(v1, 'initialVolumeMl');
      requirePositive(v2, 'finalVolumeMl');
      const factor = overallDilutionFactor([{ aliquotMl: v1, flaskMl: v2 }]);
      return c1 === undefined
        ? { initial_molarity_mol_per_L: known * factor, dilution_factor: factor }
        : { final_molarity_mol_per_L: known / factor, dilution_factor: factor };
    },
  ),
  task('serial-dilution', { stock_molarity_mol_per_L: number, steps: dilutionSteps }, (given) => ({
    molarities_mol_per_L: serialDilution(given.stock_molarity_mol_per_L, stepsOf(given.steps)),
    overall_dilution_factor: overallDilutionFactor(stepsOf(given.steps)),
  })),
  task(
    'normality-from-molarity',
    { molarity_mol_per_L: number, equivalents_per_mole: number },
    (given) => ({
      normality_eq_per_L: normality(given.molarity_mol_per_L, given.equivalents_per_mole),
    }),
  ),
  task(
    'molarity-from-normality',
    { normality_eq_per_L: number, equivalents_per_mole: number },
    (given) => ({
      molarity_mol_per_L: molarityFromNormality(
        given.normality_eq_per_L,
        given.equivalents_per_mole,
      ),
    }),
  ),
  task(
    'equivalent-mass',
    { molar_mass_g_per_mol: number, equivalents_per_mole: number },
    (given) => ({
      equivalent_mass_g_per_eq: equivalentMassG(
        given.molar_mass_g_per_mol,
        given.equivalents_per_mole,
      ),
    }),
  ),
  task(
    'mass-concentration',
    {
      molar_mass_g_per_mol: number,
      molarity_mol_per_L: optionalNumber,
      mass_concentration_mg_per_L: optionalNumber,
    },
    ({ molar_mass_g_per_mol: molarMass, molarity_mol_per_L: molarity, ...given }) => {
      requirePositive(molarMass, 'molarMassGPerMol');
      if (molarity !== undefined) {
        requirePositive(molarity, 'molarity');
        return { mass_concentration_mg_per_L: 1000 * molarity * molarMass };
      }
      const concentration = given.mass_concentration_mg_per_L ?? Number.NaN;
      requirePositive(concentration, 'massConcentration');
      return { molarity_mol_per_L: concentration / molarMass / 1000 };
    },
  ),
  task(
    'mix-solutions',
    { parts: v.array(v.object({ molarity_mol_per_L: number, volume_mL: number })) },
    ({ parts }) => {
      const mixed = mixSolutions(
        parts.map((part) => ({
          molarityMolPerL: part.molarity_mol_per_L,
          volumeMl: part.volume_mL,
        })),
      );
      return { molarity_mol_per_L: mixed.molarityMolPerL, volume_mL: mixed.volumeMl };
    },
  ),
  task(
    'adjust-volume',
    { molarity_mol_per_L: number, volume_mL: number, target_molarity_mol_per_L: number },
    (given) => ({
      solvent_to_add_mL: solventToAddMl(
        { molarityMolPerL: given.molarity_mol_per_L, volumeMl: given.volume_mL },
        given.target_molarity_mol_per_L,
      ),
    }),
  ),
  task(
    'convert-concentration',
    {
      value: number,
      from: v.picklist(CONCENTRATION_UNITS),
      to: v.picklist(CONCENTRATION_UNITS),
      molar_mass_g_per_mol: optionalNumber,
      density_g_per_mL: optionalNumber,
      equivalents_per_mole: optionalNumber,
    },
    (given) => ({
      value: convertConcentration(given.value, given.from, given.to, {
        ...(given.molar_mass_g_per_mol !== undefined && {
          molarMassGPerMol: given.molar_mass_g_per_mol,
        }),
        ...(given.density_g_per_mL !== undefined && { densityGPerMl: given.density_g_per_mL }),
        ...(given.equivalents_per_mole !== undefined && {
          equivalentsPerMole: given.equivalents_per_mole,
        }),
      }),
    }),
  ),
  task('round', { value: number, expanded_uncertainty: number }, (given) => {
    requirePositive(given.expanded_uncertainty, 'expanded_uncertainty');
    const rounded = roundToUncertainty(given.value, given.expanded_uncertainty);
    return { value: rounded.value, expanded_uncertainty: rounded.uncertainty };
  }),
];
