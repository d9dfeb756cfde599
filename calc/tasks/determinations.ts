import * as v from 'valibot';
import type {
  Blank,
  ConcordanceRule,
  Content,
  Determination,
  DeterminationResult,
  Excess,
  Known,
  ReplicateOutcome,
  TitrationReplicate,
} from '#core/determination';
import { determine, MOLARITY, nominalDilutions, ratioOf, solutionOf } from '#core/determination';
import type { Expression, Unit } from '#core/measurement';
import { exact, sumDecimals, UNITS } from '#core/measurement';
import { Unanswerable } from '#core/problem';
import type { Summary } from '#core/statistics';
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
  molarity_mol_per_L: { statedAs: 'molarity', unit: UNITS.molePerLitre },
  g_per_100_mL: { statedAs: 'mass-concentration', unit: UNITS.gramPerHundredMillilitres },
  g_per_L: { statedAs: 'mass-concentration', unit: UNITS.gramPerLitre },
  mg_per_L: { statedAs: 'mass-concentration', unit: UNITS.milligramPerLitre },
  percent_by_mass: { statedAs: 'mass-fraction', unit: UNITS.percent },
  mg_per_unit: { statedAs: 'mass-per-unit', unit: UNITS.milligram },
  molar_mass_g_per_mol: { statedAs: 'molar-mass', unit: UNITS.gramPerMole },
  equivalent_mass_g_per_eq: { statedAs: 'equivalent-mass', unit: UNITS.gramPerMole },
} as const satisfies Record<string, { statedAs: Content['statedAs']; unit: Unit }>;

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

type Given<Entries extends v.ObjectEntries> = v.InferOutput<v.ObjectSchema<Entries, undefined>>;

function needed<T>(value: T | undefined, field: string): T {
  if (value === undefined) {
    throw new Unanswerable('empty', field, 'It is needed here and missing.');
  }
  return value;
}

function standardOf(given: Given<typeof standardizeEntries>): Known {
  const { standard } = given;
  const dilutions = nominalDilutions(stepsOf(standard.dilutions));
  if (standard.molarity_mol_per_L !== undefined) {
    return { ...solutionOf(standard.molarity_mol_per_L), dilutions };
  }
  const molarMass = needed(standard.molar_mass_g_per_mol, 'molar_mass_g_per_mol');
  const substance = {
    molarMass: exact(molarMass, UNITS.gramPerMole),
    purity: exact(standard.purity_percent / 100),
    massFactor: null,
  };
  if (standard.mass_g === undefined) return { kind: 'weighed', ...substance };
  const volumeMl = needed(standard.volume_mL, 'volume_mL');
  return {
    kind: 'made-up',
    ...substance,
    mass: exact(standard.mass_g, UNITS.gram),
    volume: exact(volumeMl, UNITS.millilitre),
    dilutions,
  };
}

function blankOf(blankMl: number | undefined): Blank {
  return blankMl === undefined
    ? { kind: 'none' }
    : { kind: 'subtracted', volume: exact(blankMl, UNITS.millilitre) };
}

/** As what a content is stated; `titrantPerAnalyte` in moles, since equal equivalents react. */
function contentOf(given: Given<typeof statementEntries>, titrantPerAnalyte: number): Content {
  const { statedAs, unit } = RESULTS[given.result_quantity];
  const molarMass = (): { readonly molarMass: Expression } => {
    const { analyte_molar_mass_g_per_mol: molarMassGPerMol } = given;
    const value = needed(molarMassGPerMol, 'analyte_molar_mass_g_per_mol');
    return { molarMass: exact(value, UNITS.gramPerMole) };
  };
  switch (statedAs) {
    case 'molarity':
    case 'molar-mass':
      return { statedAs, unit };
    case 'mass-concentration':
    case 'mass-fraction':
      return { statedAs, unit, ...molarMass() };
    case 'mass-per-unit': {
      const unitMassG = needed(given.average_unit_mass_g, 'average_unit_mass_g');
      return { statedAs, unit, ...molarMass(), unitMass: exact(unitMassG, UNITS.gram) };
    }
    case 'equivalent-mass': {
      const equivalents = (given.equivalents_per_mole ?? 1) * titrantPerAnalyte;
      return { statedAs, unit, equivalents: exact(equivalents) };
    }
  }
}

/** A standardization in core's words. @throws Unanswerable when something that it needs is missing. */
export function standardization(given: Given<typeof standardizeEntries>): Determination {
  const known = standardOf(given);
  for (const { mass_g, mass_before_g, aliquot_mL } of given.replicates) {
    if (known.kind === 'weighed') needed(mass_g ?? mass_before_g, 'mass_g');
    else needed(aliquot_mL, 'aliquot_mL');
  }
  const { titrant, standard } = given.mole_ratio;
  return {
    soughtIn: 'burette',
    sought: MOLARITY,
    known,
    soughtPerKnown: ratioOf(titrant, standard),
    excess: null,
    blank: blankOf(given.blank_mL),
  };
}

/** An assay in core's words. @throws Unanswerable when something that it needs is missing. */
export function assay(given: Given<typeof assayEntries>): Determination {
  const { titrant, analyte } = given.mole_ratio;
  return {
    soughtIn: 'flask',
    sought: contentOf(given, titrant / analyte),
    dilutions: nominalDilutions(stepsOf(given.sample_dilutions)),
    known: solutionOf(given.titrant_molarity_mol_per_L),
    soughtPerKnown: ratioOf(analyte, titrant),
    excess: null,
    blank: blankOf(given.blank_mL),
  };
}

function backTitration(given: Given<typeof backEntries>): Determination {
  const { analyte, reagent_with_analyte, reagent, titrant } = given.mole_ratio;
  const blankMl = given.blank_titre_mL;
  return {
    soughtIn: 'flask',
    sought: contentOf(given, titrant / reagent),
    dilutions: nominalDilutions(stepsOf(given.sample_dilutions)),
    known: solutionOf(given.titrant_molarity_mol_per_L),
    soughtPerKnown: ratioOf(analyte * reagent, reagent_with_analyte * titrant),
    excess: blankMl === undefined ? excessOf(given, analyte / reagent_with_analyte) : null,
    blank:
      blankMl === undefined
        ? { kind: 'none' }
        : { kind: 'gives-the-excess', volume: exact(blankMl, UNITS.millilitre) },
  };
}

function excessOf(given: Given<typeof backEntries>, analytePerReagent: number): Excess {
  const molarityMolPerL = needed(given.reagent_molarity_mol_per_L, 'reagent_molarity_mol_per_L');
  const volumeMl = needed(given.reagent_volume_mL, 'reagent_volume_mL');
  return {
    molarity: exact(molarityMolPerL, UNITS.molePerLitre),
    volume: exact(volumeMl, UNITS.millilitre),
    soughtPerExcess: exact(analytePerReagent),
  };
}

/** A replicate in core's words. @throws Unanswerable when a reading or portion is missing. */
export function replicateOf(given: v.InferOutput<typeof replicate>): TitrationReplicate {
  if (given.aliquot_mL !== undefined && (given.mass_g ?? given.mass_before_g) !== undefined) {
    const sentence = `${given.id} has a mass and an aliquot: leave out the one that is not titrated.`;
    throw new Unanswerable('incompatible-units', 'aliquot_mL', sentence);
  }
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
    return {
      id: outcome.id,
      ...(outcome.titreMl !== null && { titre_mL: outcome.titreMl }),
      error: outcome.problem.kind,
      detail: outcome.problem.message,
    };
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
