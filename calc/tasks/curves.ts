import * as v from 'valibot';
import type { AcidBaseTitrant, AcidBaseTitration } from '#core/equilibrium';
import {
  AcidBaseCurve,
  distinctSteps,
  midpointVolumesMl,
  RedoxCurve,
  titrationErrorPercent,
} from '#core/equilibrium';
import { Unanswerable } from '#core/problem';
import { granIntercept, inflection } from '#core/titration/figures';
import type { VolumeWindow } from '#core/titration/figures';
import type { Json } from './task';
import { number, numbers, optionalNumber, task } from './task';

/** Where an indicator changes, against the equivalence that it is meant for. */
function indicatorError(
  name: string,
  volumeMl: number | null,
  equivalenceMl: number | undefined,
): Json {
  return {
    name,
    volume_mL: volumeMl,
    titration_error_percent:
      volumeMl === null || equivalenceMl === undefined
        ? null
        : titrationErrorPercent(volumeMl, equivalenceMl),
  };
}

const acidSystem = v.object({
  name: v.optional(v.string(), 'acid'),
  total_mol_per_L: number,
  pKa: v.pipe(numbers, v.minLength(1)),
  charge_fully_protonated: number,
  protons_at_start: number,
});

const acidBaseTask = task(
  'acid-base-curve',
  {
    flask: v.object({
      volume_mL: number,
      water_added_mL: optionalNumber,
      strong_acid_mol_per_L: optionalNumber,
      strong_base_mol_per_L: optionalNumber,
      systems: v.optional(v.array(acidSystem), []),
    }),
    titrant: v.object({
      strong_base_mol_per_L: optionalNumber,
      strong_acid_mol_per_L: optionalNumber,
    }),
    Kw: v.optional(number, 1.008e-14),
    temperature_degC: v.optional(number, 25),
    activity_model: v.optional(v.picklist(['ideal', 'davies']), 'ideal'),
    davies_A: v.optional(number, 0.509),
    volumes_mL: numbers,
    end_volume_mL: optionalNumber,
    indicators: v.optional(
      v.array(
        v.object({
          name: v.string(),
          transition_pH: number,
          equivalence_number: v.optional(number, 1),
        }),
      ),
      [],
    ),
  },
  (given) => {
    const { flask } = given;
    const titration: AcidBaseTitration = {
      flask: {
        volumeMl: flask.volume_mL,
        waterAddedMl: flask.water_added_mL ?? 0,
        strongAcidMolPerL: flask.strong_acid_mol_per_L ?? 0,
        strongBaseMolPerL: flask.strong_base_mol_per_L ?? 0,
        systems: flask.systems.map((system) => ({
          name: system.name,
          totalMolPerL: system.total_mol_per_L,
          pKa: system.pKa,
          chargeFullyProtonated: system.charge_fully_protonated,
          protonsAtStart: system.protons_at_start,
        })),
      },
      titrant: titrantOf(given.titrant),
      kw: given.Kw,
      activity:
        given.activity_model === 'ideal'
          ? { kind: 'ideal' }
          : { kind: 'davies', a: given.davies_A },
    };
    const curve = new AcidBaseCurve(titration);
    const equivalences = curve.equivalenceVolumesMl();
    const midpoints = midpointVolumesMl(equivalences);
    const distinct = distinctSteps(curve, equivalences);
    // A step that is not seen apart ends with the next one that is.
    const seenFrom = (index: number): number | undefined =>
      equivalences.find((_, i) => i >= index && distinct[i] === true);
    const end = given.end_volume_mL ?? Math.max(...given.volumes_mL, ...equivalences);
    const pHAt = (volume: number): number => curve.at(volume).pH;
    const beyond = given.volumes_mL.filter((volume) => curve.isBeyondModel(volume));
    return {
      pH: given.volumes_mL.map(pHAt),
      equivalence_volumes_mL: equivalences,
      equivalence_pH: equivalences.map(pHAt),
      equivalence_has_step: distinct,
      midpoint_volumes_mL: midpoints,
      midpoint_pH: midpoints.map(pHAt),
      indicator_errors: given.indicators.map((indicator) =>
        indicatorError(
          indicator.name,
          curve.volumeAtPh(indicator.transition_pH, end),
          seenFrom(indicator.equivalence_number - 1),
        ),
      ),
      warnings:
        beyond.length > 0
          ? [
              given.activity_model === 'ideal'
                ? 'The ionic strength is above 0.001 mol/L, where activities differ from concentrations: the ideal model leaves that out.'
                : 'The ionic strength is above 0.5 mol/L, up to which the Davies equation is meant to be used.',
            ]
          : [],
    };
  },
);

function titrantOf(given: {
  strong_base_mol_per_L?: number | undefined;
  strong_acid_mol_per_L?: number | undefined;
}): AcidBaseTitrant {
  const { strong_acid_mol_per_L: acid, strong_base_mol_per_L: base } = given;
  if (base !== undefined && acid === undefined) {
    return { kind: 'strong-base', molarityMolPerL: base };
  }
  if (acid !== undefined && base === undefined) {
    return { kind: 'strong-acid', molarityMolPerL: acid };
  }
  throw new Unanswerable(
    'empty',
    'titrant',
    'The titrant is either a strong acid or a strong base.',
  );
}

const couple = v.object({
  couple: v.object({
    name: v.optional(v.string(), 'couple'),
    electrons: number,
    formal_potential_V: number,
    hydrogen_ions: v.optional(number, 0),
    reduced_per_oxidized: v.optional(number, 1),
  }),
  total_mol_per_L: number,
  already_converted_fraction: v.optional(number, 0),
});

function coupleOf({ couple: given }: v.InferOutput<typeof couple>) {
  return {
    name: given.name,
    electrons: given.electrons,
    formalPotentialV: given.formal_potential_V,
    hydrogenIons: given.hydrogen_ions,
    reducedPerOxidized: given.reduced_per_oxidized,
  };
}

const redoxTask = task(
  'redox-curve',
  {
    analyte: couple,
    titrant: couple,
    titrant_is: v.picklist(['oxidant', 'reductant']),
    flask_volume_mL: number,
    pH: v.optional(number, 0),
    temperature_degC: v.optional(number, 25),
    volumes_mL: numbers,
    end_volume_mL: optionalNumber,
    indicators: v.optional(
      v.array(v.object({ name: v.string(), transition_potential_V: number })),
      [],
    ),
  },
  (given) => {
    const curve = new RedoxCurve({
      analyte: coupleOf(given.analyte),
      analyteMolPerL: given.analyte.total_mol_per_L,
      convertedFraction: given.analyte.already_converted_fraction,
      titrant: coupleOf(given.titrant),
      titrantMolPerL: given.titrant.total_mol_per_L,
      titrantIs: given.titrant_is,
      flaskVolumeMl: given.flask_volume_mL,
      pH: given.pH,
      temperatureC: given.temperature_degC,
    });
    const equivalence = curve.equivalenceVolumeMl();
    const end = given.end_volume_mL ?? Math.max(...given.volumes_mL, equivalence);
    return {
      potential_V: given.volumes_mL.map((volume) => curve.at(volume)),
      equivalence_volume_mL: equivalence,
      equivalence_potential_V: curve.at(equivalence),
      indicator_errors: given.indicators.map((indicator) =>
        indicatorError(
          indicator.name,
          curve.volumeAtPotential(indicator.transition_potential_V, end),
          equivalence,
        ),
      ),
    };
  },
);

const window = v.tuple([number, number]);

const endPointTask = task(
  'endpoint-from-data',
  {
    initial_volume_mL: number,
    volumes_mL: numbers,
    pH: v.optional(numbers),
    potential_mV: v.optional(numbers),
    noise_sd_pH: optionalNumber,
    noise_sd_mV: optionalNumber,
    windows_mL: v.optional(v.array(window)),
    gran_lines: v.optional(
      v.array(
        v.object({
          kind: v.picklist([
            'strong-acid-before',
            'weak-acid-before',
            'strong-base-before',
            'weak-base-before',
            'acid-after',
            'base-after',
          ]),
          window_mL: window,
        }),
      ),
      [],
    ),
  },
  (given) => {
    const readings = given.pH ?? given.potential_mV;
    if (!readings) throw new Unanswerable('empty', 'pH', 'The data need pH or potential_mV.');
    const noiseSd = given.pH ? given.noise_sd_pH : given.noise_sd_mV;
    const data = {
      initialVolumeMl: given.initial_volume_mL,
      volumesMl: given.volumes_mL,
      readings,
      ...(noiseSd !== undefined && { noiseSd }),
    };
    const windows: readonly (VolumeWindow | undefined)[] = given.windows_mL ?? [undefined];
    const found = windows.map((range) => inflection(data, range));
    const lines = given.gran_lines.map((line) => granIntercept(data, line.kind, line.window_mL));
    return {
      true_equivalence_volumes_mL: found.map((one) => one.secondDerivativeZeroMl),
      first_derivative_max_mL: found.map((one) => one.firstDerivativeMaxMl),
      second_derivative_zero_mL: found.map((one) => one.secondDerivativeZeroMl),
      standard_uncertainty_mL: found.map((one) => one.standardUncertaintyMl),
      gran_intercepts_mL: lines.map((line) => line.volumeMl),
      gran_standard_uncertainties_mL: lines.map((line) => line.standardUncertaintyMl),
    };
  },
);

export const CURVE_TASKS = [acidBaseTask, redoxTask, endPointTask];
