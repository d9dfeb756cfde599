import * as v from 'valibot';
import {
  airDensityKgPerM3,
  buoyancyFactor,
  calibrateGravimetrically,
  correctionAtMl,
  glassVolumeMl,
  glasswareOf,
  TOLERANCE_DISTRIBUTION,
  isWithinTolerance,
  solutionVolumeAt20Ml,
  waterDensityKgPerM3,
} from '#core/metrology';
import { sumDecimals } from '#core/measurement';
import { requirePositive, Unanswerable } from '#core/problem';
import { number, numbers, optionalNumber, task } from './task';

export const METROLOGY_TASKS = [
  task('water-density', { temperatures_degC: numbers }, (given) => ({
    density_kg_per_m3: given.temperatures_degC.map(waterDensityKgPerM3),
  })),
  task(
    'glass-volume',
    { nominal_volume_mL: number, temperature_degC: number, cubic_expansion_per_K: number },
    (given) => {
      requirePositive(given.nominal_volume_mL, 'nominalVolumeMl');
      return {
        volume_mL: glassVolumeMl(
          given.nominal_volume_mL,
          given.temperature_degC,
          given.cubic_expansion_per_K,
        ),
      };
    },
  ),
  task(
    'solution-volume-to-20',
    { indicated_volume_mL: number, temperature_degC: number, cubic_expansion_per_K: number },
    (given) => {
      requirePositive(given.indicated_volume_mL, 'indicatedVolumeMl');
      const inputs = [
        given.indicated_volume_mL,
        given.temperature_degC,
        given.cubic_expansion_per_K,
      ] as const;
      return {
        volume_at_temperature_mL: glassVolumeMl(...inputs),
        volume_at_20_degC_mL: solutionVolumeAt20Ml(...inputs),
      };
    },
  ),
  task(
    'buoyancy',
    {
      balance_indication_g: number,
      sample_density_kg_per_m3: number,
      air_density_kg_per_m3: number,
      weights_density_kg_per_m3: number,
    },
    (given) => {
      requirePositive(given.balance_indication_g, 'balanceIndicationG');
      const factor = buoyancyFactor({
        sampleDensityKgPerM3: given.sample_density_kg_per_m3,
        airDensityKgPerM3: given.air_density_kg_per_m3,
        weightsDensityKgPerM3: given.weights_density_kg_per_m3,
      });
      return { factor, mass_g: given.balance_indication_g * factor };
    },
  ),
  task(
    'air-density',
    { temperature_degC: number, pressure_hPa: number, relative_humidity_percent: number },
    (given) => ({
      air_density_kg_per_m3: airDensityKgPerM3(
        given.temperature_degC,
        given.pressure_hPa,
        given.relative_humidity_percent,
      ),
    }),
  ),
  task(
    'gravimetric-calibration',
    {
      nominal_volume_mL: number,
      temperature_degC: number,
      weighings_g: numbers,
      cubic_expansion_per_K: number,
      air_density_kg_per_m3: number,
      weights_density_kg_per_m3: number,
      maximum_permissible_error_mL: optionalNumber,
    },
    (given) => {
      const found = calibrateGravimetrically({
        nominalVolumeMl: given.nominal_volume_mL,
        temperatureC: given.temperature_degC,
        weighingsG: given.weighings_g,
        cubicExpansionPerK: given.cubic_expansion_per_K,
        airDensityKgPerM3: given.air_density_kg_per_m3,
        weightsDensityKgPerM3: given.weights_density_kg_per_m3,
      });
      const limit = given.maximum_permissible_error_mL;
      return {
        volumes_20_degC_mL: found.volumesMl,
        mean_volume_mL: found.meanVolumeMl,
        systematic_error_mL: found.systematicErrorMl,
        systematic_error_percent: found.systematicErrorPercent,
        sample_sd_mL: found.sampleSdMl,
        cv_percent: found.coefficientOfVariationPercent,
        z_factor_mL_per_g: found.zFactorMlPerG,
        ...(limit !== undefined && { within_tolerance: isWithinTolerance(found, limit) }),
      };
    },
  ),
  task(
    'burette-correction',
    {
      points: v.array(v.object({ reading_mL: number, correction_mL: number })),
      initial_reading_mL: number,
      final_reading_mL: number,
    },
    ({ points, initial_reading_mL: initial, final_reading_mL: final }) => {
      if (final < initial) {
        throw new Unanswerable(
          'negative-titre',
          'final_reading_mL',
          'The final reading lies above the initial one.',
        );
      }
      const known = points.map((point) => ({
        readingMl: point.reading_mL,
        correctionMl: point.correction_mL,
      }));
      const [atInitial, atFinal] = [correctionAtMl(known, initial), correctionAtMl(known, final)];
      return {
        correction_initial_mL: atInitial,
        correction_final_mL: atFinal,
        corrected_titre_mL: sumDecimals([final, atFinal, -initial, -atInitial]),
      };
    },
  ),
  task(
    'glassware',
    {
      kind: v.picklist([
        'burette',
        'one-mark-pipette',
        'graduated-pipette',
        'volumetric-flask',
        'measuring-cylinder',
        'piston-burette',
        'piston-pipette',
      ]),
      nominal_volume_mL: number,
      class: v.picklist(['A', 'AS', 'B', 'piston']),
      division_mL: optionalNumber,
      standard: v.optional(v.string()),
    },
    (given) => {
      const sizes = glasswareOf(given.kind).filter(
        (size) =>
          size.nominalMl === given.nominal_volume_mL &&
          (given.division_mL === undefined || size.divisionMl === given.division_mL) &&
          (given.standard === undefined || size.standard === given.standard),
      );
      const [found] = sizes.filter((size) => size.toleranceMl[given.class] !== undefined);
      if (!found) {
        throw new Unanswerable(
          'out-of-range',
          'nominal_volume_mL',
          'The standard has no such size in this class.',
        );
      }
      return {
        standard: found.standard,
        division_mL: found.divisionMl,
        tolerance_mL: found.toleranceMl[given.class] ?? null,
        distribution: TOLERANCE_DISTRIBUTION[given.class],
      };
    },
  ),
];
