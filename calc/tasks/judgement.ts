import * as v from 'valibot';
import { molarMass } from '#core/chemistry';
import type { Determination, ForecastBasis, PlainPortion } from '#core/determination';
import { expectedEnd, MOLARITY, PlainDetermination, solutionOf } from '#core/determination';
import { explain } from '#core/explanation';
import type { Surroundings } from '#core/explanation';
import { assessIncident, INCIDENTS } from '#core/incident';
import { exact } from '#core/measurement';
import type { SuspectedSlip } from '#core/slip';
import { suspectReading, suspectWeighing } from '#core/slip';
import { Unanswerable } from '#core/problem';
import { slipQuestion } from '#core/wording';
import {
  assay,
  assayEntries,
  replicateOf,
  standardization,
  standardizeEntries,
} from './determinations';
import type { Json } from './task';
import { number, numbers, optionalNumber, task } from './task';

const decimals = v.optional(v.pipe(number, v.integer(), v.minValue(0), v.maxValue(6)), 2);
const capacity = v.optional(v.pipe(number, v.gtValue(0)), 50);

const basisEntries = {
  mass_g: optionalNumber,
  aliquot_mL: optionalNumber,
  expected_result: number,
  expected_tolerance_percent: v.optional(number, 5),
  initial_reading_mL: v.optional(number, 0),
  burette_capacity_mL: capacity,
  drop_mL: v.optional(number, 0.05),
};

type GivenBasis = v.InferOutput<v.ObjectSchema<typeof basisEntries, undefined>>;

function basisOf(given: GivenBasis): ForecastBasis {
  return {
    expected: given.expected_result,
    relativeHalfBand: given.expected_tolerance_percent / 100,
    initialMl: given.initial_reading_mL,
    capacityMl: given.burette_capacity_mL,
    dropMl: given.drop_mL,
  };
}

function portionOf(given: GivenBasis): PlainPortion {
  if (given.mass_g !== undefined) return { massG: given.mass_g };
  if (given.aliquot_mL !== undefined) return { aliquotMl: given.aliquot_mL };
  throw new Unanswerable('empty', 'mass_g', 'A mass or an aliquot is needed here.');
}

function forecastOf(determination: Determination, given: GivenBasis): Json {
  const end = expectedEnd(determination, portionOf(given), basisOf(given));
  return {
    expected_titre_mL: end.titreMl,
    half_band_mL: end.halfBandMl,
    expected_reading_mL: end.onBurette.expected,
    run_freely_to_mL: end.onBurette.runFreelyTo,
    burette_holds: end.onBurette.holds,
  };
}

const { replicates: _standardReplicates, ...standardEntries } = standardizeEntries;
const { replicates: _assayReplicates, ...unknownEntries } = assayEntries;

const forecastTask = task(
  'forecast-standardization',
  { ...standardEntries, ...basisEntries },
  (given) => forecastOf(standardization({ ...given, replicates: [] }), given),
);

const forecastAssayTask = task('forecast-assay', { ...unknownEntries, ...basisEntries }, (given) =>
  forecastOf(assay({ ...given, replicates: [] }), given),
);

function slipKeys(slip: SuspectedSlip | null, unit: 'mL' | 'g'): Json {
  return {
    suspected: slip !== null,
    ...(slip && { kind: slip.kind, question: slipQuestion(slip), [`meant_${unit}`]: slip.meant }),
  };
}

const readingTask = task(
  'suspect-reading',
  {
    final_reading_mL: number,
    initial_reading_mL: number,
    expected_titre_mL: number,
    half_band_mL: number,
    burette_capacity_mL: capacity,
    reading_decimals: decimals,
  },
  (given) =>
    slipKeys(
      suspectReading(given.final_reading_mL, {
        initialMl: given.initial_reading_mL,
        expectedTitreMl: given.expected_titre_mL,
        halfBandMl: given.half_band_mL,
        capacityMl: given.burette_capacity_mL,
        decimals: given.reading_decimals,
      }),
      'mL',
    ),
);

const weighingTask = task(
  'suspect-weighing',
  {
    mass_g: number,
    intended_mass_g: number,
    tolerance_g: number,
    tare_g: optionalNumber,
    mass_decimals: v.optional(decimals, 4),
  },
  (given) =>
    slipKeys(
      suspectWeighing(given.mass_g, {
        intendedG: given.intended_mass_g,
        toleranceG: given.tolerance_g,
        decimals: given.mass_decimals,
        ...(given.tare_g !== undefined && { tareG: given.tare_g }),
      }),
      'g',
    ),
);

const ANY_BALANCE = {
  known: solutionOf(1),
  sought: MOLARITY,
  soughtPerKnown: exact(1),
  excess: null,
  blank: { kind: 'none' },
} as const;

/** How much an incident matters depends on which of the two solutions is sought, not on their molarities. */
const ONE_TO_ONE: Readonly<Record<'standardization' | 'assay', Determination>> = {
  standardization: { ...ANY_BALANCE, soughtIn: 'burette' },
  assay: { ...ANY_BALANCE, soughtIn: 'flask', dilutions: [] },
};

const [firstIncident, ...otherIncidents] = INCIDENTS.map(({ id }) => id);

const incidentTask = task(
  'incident',
  {
    incident: v.picklist([firstIncident ?? '', ...otherIncidents]),
    purpose: v.optional(v.picklist(['standardization', 'assay']), 'standardization'),
    titre_mL: number,
    titrant_molarity_mol_per_L: number,
    mass_g: optionalNumber,
    aliquot_mL: optionalNumber,
    burette_capacity_mL: capacity,
    drop_mL: v.optional(number, 0.05),
    reading_uncertainty_mL: v.optional(number, 0.01),
    water_mL: v.optional(number, 50),
    volumetric_flask_mL: optionalNumber,
    incident_volume_mL: optionalNumber,
    incident_mass_g: optionalNumber,
    drops: optionalNumber,
    alkalinity_mmol_per_L: optionalNumber,
  },
  (given) => {
    const assessment = assessIncident(
      given.incident,
      new PlainDetermination(ONE_TO_ONE[given.purpose]),
      {
        titreMl: given.titre_mL,
        titrantMolarityMolPerL: given.titrant_molarity_mol_per_L,
        portion:
          given.mass_g === undefined
            ? { aliquotMl: given.aliquot_mL ?? Number.NaN }
            : { massG: given.mass_g },
        buretteCapacityMl: given.burette_capacity_mL,
        dropMl: given.drop_mL,
        readingUncertaintyMl: given.reading_uncertainty_mL,
        waterMl: given.water_mL,
        volumetricFlaskMl: given.volumetric_flask_mL ?? null,
      },
      {
        ...(given.incident_volume_mL !== undefined && { volumeMl: given.incident_volume_mL }),
        ...(given.incident_mass_g !== undefined && { massG: given.incident_mass_g }),
        ...(given.drops !== undefined && { drops: given.drops }),
        ...(given.alkalinity_mmol_per_L !== undefined && {
          alkalinityMmolPerL: given.alkalinity_mmol_per_L,
        }),
      },
    );
    return {
      verdict: assessment.verdict,
      direction: assessment.direction,
      titre_shift_mL: assessment.titreMl,
      bias_percent: assessment.biasPercent,
      reason: assessment.reason,
      action: assessment.action,
    };
  },
);

const explainTask = task(
  'explain',
  {
    ...standardizeEntries,
    expected_molarity_mol_per_L: number,
    expected_tolerance_percent: v.optional(v.pipe(number, v.gtValue(0)), 5),
    agreement_percent: v.optional(v.pipe(number, v.gtValue(0)), 0.3),
    other_forms: v.optional(v.array(v.object({ name: v.string(), formula: v.string() })), []),
    balanced_ratio: v.optional(v.object({ titrant: number, standard: number })),
    concentrate_density_g_per_mL: optionalNumber,
    titrant_dilution_factor: optionalNumber,
    tare_g: optionalNumber,
    burette_capacity_mL: capacity,
    reading_decimals: decimals,
    history_mol_per_L: v.optional(numbers, []),
  },
  (given) => {
    const surroundings: Surroundings = {
      otherForms: given.other_forms.map(({ name, formula }) => ({
        name,
        molarMassGPerMol: molarMass(formula).valueGPerMol,
      })),
      balancedRatio: given.balanced_ratio
        ? given.balanced_ratio.titrant / given.balanced_ratio.standard
        : null,
      concentrateDensityGPerMl: given.concentrate_density_g_per_mL ?? null,
      titrantDilutionFactor: given.titrant_dilution_factor ?? null,
      tareG: given.tare_g ?? null,
      excessMl: null,
      buretteCapacityMl: given.burette_capacity_mL,
      readingDecimals: given.reading_decimals,
      history: given.history_mol_per_L,
    };
    const diagnosis = explain(
      {
        determination: standardization(given),
        replicates: given.replicates.map(replicateOf),
        expectedMolPerL: given.expected_molarity_mol_per_L,
      },
      surroundings,
      {
        expectedPercent: given.expected_tolerance_percent,
        agreementPercent: given.agreement_percent,
      },
    );
    return {
      out_of_line: diagnosis.isOutOfLine,
      found_to_expected: diagnosis.ratio,
      relative_range_percent: diagnosis.rangePercent,
      explanations: diagnosis.explanations.map((one) => ({
        hypothesis: one.id,
        name: one.name,
        detail: one.detail,
        check: one.check,
        suspects: one.suspects.map(({ replicateId, entry, meant }) => ({
          replicate: replicateId,
          entry,
          meant,
        })),
        molarity_mol_per_L: one.molarityMolPerL,
        relative_range_percent: one.rangePercent,
        share: one.share,
      })),
    };
  },
);

export const JUDGEMENT_TASKS = [
  forecastTask,
  forecastAssayTask,
  readingTask,
  weighingTask,
  incidentTask,
  explainTask,
];
