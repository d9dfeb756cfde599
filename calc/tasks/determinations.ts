import * as v from 'valibot';
import { sumDecimals, UNITS } from '#core/measurement';
import { Unanswerable } from '#core/problem';
import type { Summary } from '#core/statistics';
import type {
  ConcordanceRule,
  Determination,
  DeterminationResult,
  Ratio,
  ReplicateOutcome,
  ResultQuantity,
  Standard,
  Statement,
  TitrationReplicate,
} from '#core/titration';
import { determine } from '#core/titration';
import type { Json } from './task';
import { confidencePercent, dilutionSteps, number, optionalNumber, stepsOf, task } from './task';

const replicate = v.object({
  id: v.string(),
  initial_reading_mL: optionalNumber,
  final_reading_mL: optionalNumber,
  fillings: v.optional(v.array(v.object({ initial_reading_mL: number, final_reading_mL: number }))),
  mass_g: optionalNumber,
  mass_before_g: optionalNumber,
  mass_after_g: optionalNumber,
  aliquot_mL: optionalNumber,
  rough: v.optional(v.boolean(), false),
  voided: v.optional(v.boolean(), false),
  dilutions: v.optional(dilutionSteps),
});

const rule = v.object({
  quantity: v.picklist(['titre_mL', 'result']),
  max_range_mL: optionalNumber,
  max_relative_range_percent: optionalNumber,
  at_least: v.pipe(number, v.integer(), v.minValue(1)),
});

const common = {
  replicates: v.array(replicate),
  rules: v.optional(v.array(rule), []),
  confidence_percent: confidencePercent,
};

/** Keys of a standardization. */
export const standardizeEntries = {
  ...common,
  mole_ratio: v.object({ titrant: number, standard: number }),
  standard: v.object({
    molar_mass_g_per_mol: optionalNumber,
    purity_percent: v.optional(number, 100),
    molarity_mol_per_L: optionalNumber,
    mass_g: optionalNumber,
    volume_mL: optionalNumber,
    dilutions: v.optional(dilutionSteps),
  }),
  blank_mL: optionalNumber,
};

const RESULTS = {
  molarity_mol_per_L: { quantity: 'molarity', unit: UNITS.molePerLitre },
  g_per_100_mL: { quantity: 'mass-concentration', unit: UNITS.gramPerHundredMillilitres },
  g_per_L: { quantity: 'mass-concentration', unit: UNITS.gramPerLitre },
  mg_per_L: { quantity: 'mass-concentration', unit: UNITS.milligramPerLitre },
  percent_by_mass: { quantity: 'mass-fraction', unit: UNITS.percent },
  mg_per_unit: { quantity: 'mass-per-unit', unit: UNITS.milligram },
  molar_mass_g_per_mol: { quantity: 'molar-mass', unit: UNITS.gramPerMole },
  equivalent_mass_g_per_eq: { quantity: 'equivalent-mass', unit: UNITS.gramPerMole },
} as const satisfies Record<string, { quantity: ResultQuantity; unit: Statement['unit'] }>;

const statementEntries = {
  result_quantity: v.picklist(
    Object.keys(RESULTS) as [keyof typeof RESULTS, ...(keyof typeof RESULTS)[]],
  ),
  sample_dilutions: v.optional(dilutionSteps),
  analyte_molar_mass_g_per_mol: optionalNumber,
  average_unit_mass_g: optionalNumber,
  equivalents_per_mole: optionalNumber,
};

/** Keys of an assay. */
export const assayEntries = {
  ...common,
  ...statementEntries,
  titrant_molarity_mol_per_L: number,
  mole_ratio: v.object({ titrant: number, analyte: number }),
  blank_mL: optionalNumber,
};

const backEntries = {
  ...common,
  ...statementEntries,
  titrant_molarity_mol_per_L: number,
  reagent_molarity_mol_per_L: optionalNumber,
  reagent_volume_mL: optionalNumber,
  blank_titre_mL: optionalNumber,
  mole_ratio: v.object({
    analyte: number,
    reagent_with_analyte: number,
    reagent: number,
    titrant: number,
  }),
};

type Standardization = Extract<Determination, { kind: 'standardization' }>;

type Given<Entries extends v.ObjectEntries> = v.InferOutput<v.ObjectSchema<Entries, undefined>>;

function needed<T>(value: T | undefined, field: string): T {
  if (value === undefined) {
    throw new Unanswerable('empty', field, 'It is needed here and missing.');
  }
  return value;
}

function standardOf(given: Given<typeof standardizeEntries>): Standard {
  const { standard } = given;
  const dilutions = stepsOf(standard.dilutions);
  if (standard.molarity_mol_per_L !== undefined) {
    return { kind: 'solution', molarityMolPerL: standard.molarity_mol_per_L, dilutions };
  }
  const substance = {
    molarMassGPerMol: needed(standard.molar_mass_g_per_mol, 'molar_mass_g_per_mol'),
    purity: standard.purity_percent / 100,
  };
  if (standard.mass_g === undefined) return { kind: 'weighed', ...substance };
  return {
    kind: 'made-up',
    ...substance,
    massG: standard.mass_g,
    volumeMl: needed(standard.volume_mL, 'volume_mL'),
    dilutions,
  };
}

function statementOf(given: Given<typeof statementEntries>): Statement {
  const { quantity, unit } = RESULTS[given.result_quantity];
  const molarMass = given.analyte_molar_mass_g_per_mol;
  if (quantity.startsWith('mass-')) needed(molarMass, 'analyte_molar_mass_g_per_mol');
  if (quantity === 'mass-per-unit') needed(given.average_unit_mass_g, 'average_unit_mass_g');
  return {
    quantity,
    unit,
    sampleDilutions: stepsOf(given.sample_dilutions),
    ...(molarMass !== undefined && { molarMassGPerMol: molarMass }),
    ...(given.average_unit_mass_g !== undefined && { unitMassG: given.average_unit_mass_g }),
    ...(given.equivalents_per_mole !== undefined && {
      titrantEquivalents: given.equivalents_per_mole,
    }),
  };
}

/** A standardization in core's words. @throws Unanswerable when something that it needs is missing. */
export function standardization(given: Given<typeof standardizeEntries>): Standardization {
  const standard = standardOf(given);
  for (const { mass_g, mass_before_g, aliquot_mL } of given.replicates) {
    if (standard.kind === 'weighed') needed(mass_g ?? mass_before_g, 'mass_g');
    else needed(aliquot_mL, 'aliquot_mL');
  }
  const { titrant, standard: other } = given.mole_ratio;
  return {
    kind: 'standardization',
    standard,
    ratio: { titrant, other },
    blankMl: given.blank_mL ?? null,
  };
}

/** An assay in core's words. @throws Unanswerable when something that it needs is missing. */
export function assay(
  given: Given<typeof assayEntries>,
): Extract<Determination, { kind: 'assay' }> {
  const { titrant, analyte: other } = given.mole_ratio;
  return {
    kind: 'assay',
    titrantMolarityMolPerL: given.titrant_molarity_mol_per_L,
    ratio: { titrant, other },
    blankMl: given.blank_mL ?? null,
    statement: statementOf(given),
  };
}

function backTitration(given: Given<typeof backEntries>): Determination {
  const { analyte, reagent_with_analyte, reagent, titrant } = given.mole_ratio;
  const ratio: Ratio = { titrant, other: reagent };
  return {
    kind: 'back-titration',
    titrantMolarityMolPerL: given.titrant_molarity_mol_per_L,
    ratio,
    analytePerReagent: analyte / reagent_with_analyte,
    reagent:
      given.blank_titre_mL === undefined
        ? {
            molarityMolPerL: needed(given.reagent_molarity_mol_per_L, 'reagent_molarity_mol_per_L'),
            volumeMl: needed(given.reagent_volume_mL, 'reagent_volume_mL'),
          }
        : { blankTitreMl: given.blank_titre_mL },
    statement: statementOf(given),
  };
}

/** A replicate in core's words. @throws Unanswerable when a reading or portion is missing. */
export function replicateOf(given: v.InferOutput<typeof replicate>): TitrationReplicate {
  const fillings = given.fillings ?? [
    {
      initial_reading_mL: needed(given.initial_reading_mL, 'initial_reading_mL'),
      final_reading_mL: needed(given.final_reading_mL, 'final_reading_mL'),
    },
  ];
  return {
    id: given.id,
    fillings: fillings.map((filling) => ({
      initialMl: filling.initial_reading_mL,
      finalMl: filling.final_reading_mL,
    })),
    portion:
      given.aliquot_mL === undefined ? { massG: massOf(given) } : { aliquotMl: given.aliquot_mL },
    dilutions: stepsOf(given.dilutions),
    isRough: given.rough,
    isVoided: given.voided,
  };
}

/** A mass by difference is what left the container, or what came into it. */
function massOf(given: v.InferOutput<typeof replicate>): number {
  if (given.mass_g !== undefined) return given.mass_g;
  const before = needed(given.mass_before_g, 'mass_g');
  return Math.abs(sumDecimals([before, -needed(given.mass_after_g, 'mass_after_g')]));
}

function ruleOf(given: v.InferOutput<typeof rule>): ConcordanceRule {
  const { max_range_mL: range, max_relative_range_percent: relative } = given;
  return {
    quantity: given.quantity === 'titre_mL' ? 'titre' : 'result',
    limit:
      range === undefined
        ? { maxRelativeRangePercent: needed(relative, 'max_relative_range_percent') }
        : { maxRange: range },
    atLeast: given.at_least,
  };
}

function run(determination: Determination, given: Given<typeof common>): DeterminationResult {
  return determine(
    determination,
    given.replicates.map(replicateOf),
    given.rules.map(ruleOf),
    given.confidence_percent / 100,
  );
}

function summaryKeys(summary: Summary | null): Json {
  if (!summary) return { n: 0 };
  return {
    n: summary.n,
    mean: summary.mean,
    range: summary.range,
    relative_range_percent: summary.relativeRangePercent,
    sample_sd: summary.sampleSd,
    rsd_percent: summary.relativeSdPercent,
    ci_half_width: summary.confidenceHalfWidth,
  };
}

function outcomeKeys(outcome: ReplicateOutcome): Json {
  if (outcome.kind === 'failed') {
    return { id: outcome.id, error: outcome.problem.kind, detail: outcome.problem.message };
  }
  return {
    id: outcome.id,
    titre_mL: outcome.titreMl,
    ...(outcome.netTitreMl !== null && { net_titre_mL: outcome.netTitreMl }),
    result: outcome.result,
  };
}

function resultKeys(result: DeterminationResult): Json {
  return {
    replicates: result.replicates.map(outcomeKeys),
    counted_ids: result.countedIds,
    summary: summaryKeys(result.summary),
    concordance: result.concordance.map((set) =>
      set
        ? {
            ids: set.ids,
            range_mL: set.titreRangeMl,
            mean_titre_mL: set.meanTitreMl,
            mean_result: set.meanResult,
          }
        : { ids: [] },
    ),
  };
}

const stage = v.intersect([
  v.object({
    task: v.picklist(['standardize', 'assay', 'back-titration']),
    titrant_molarity_from_stage: v.optional(v.pipe(number, v.integer(), v.minValue(1))),
    standard_molarity_from_stage: v.optional(v.pipe(number, v.integer(), v.minValue(1))),
  }),
  v.record(v.string(), v.any()),
]);

/** Runs the stages of a chain one after the other; a stage takes the unrounded mean of an earlier one. */
function runChain(stages: readonly v.InferOutput<typeof stage>[]): Json {
  const results: DeterminationResult[] = [];
  for (const given of stages) {
    const meanOf = (number: number | undefined, field: string): number | undefined => {
      if (number === undefined) return undefined;
      const mean = results[number - 1]?.summary?.mean;
      if (mean === undefined) {
        throw new Unanswerable(
          'empty',
          field,
          `Stage ${String(number)} has no result to go on with.`,
        );
      }
      return mean;
    };
    const titrant = meanOf(given.titrant_molarity_from_stage, 'titrant_molarity_from_stage');
    const standard = meanOf(given.standard_molarity_from_stage, 'standard_molarity_from_stage');
    const completed: Record<string, unknown> = {
      ...given,
      ...(titrant !== undefined && { titrant_molarity_mol_per_L: titrant }),
      ...(standard !== undefined && {
        standard: { ...(given.standard as object), molarity_mol_per_L: standard },
      }),
    };
    results.push(runStage(given.task, completed));
  }
  return { stages: results.map(resultKeys) };
}

function runStage(
  name: 'standardize' | 'assay' | 'back-titration',
  given: Record<string, unknown>,
): DeterminationResult {
  switch (name) {
    case 'standardize': {
      const stageGiven = v.parse(v.object(standardizeEntries), given);
      return run(standardization(stageGiven), stageGiven);
    }
    case 'assay': {
      const stageGiven = v.parse(v.object(assayEntries), given);
      return run(assay(stageGiven), stageGiven);
    }
    case 'back-titration': {
      const stageGiven = v.parse(v.object(backEntries), given);
      return run(backTitration(stageGiven), stageGiven);
    }
  }
}

export const DETERMINATION_TASKS = [
  task('standardize', standardizeEntries, (given) =>
    resultKeys(run(standardization(given), given)),
  ),
  task('assay', assayEntries, (given) => resultKeys(run(assay(given), given))),
  task('back-titration', backEntries, (given) => resultKeys(run(backTitration(given), given))),
  task('chain', { stages: v.array(stage) }, ({ stages }) => runChain(stages)),
];
